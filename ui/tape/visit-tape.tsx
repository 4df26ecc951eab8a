'use client';
import { scaleLinear } from 'd3-scale';
import { area, curveMonotoneX } from 'd3-shape';
import { evenStep, MINUTE_STEPS } from '@/core/units/even-step';
import { powerProfile } from '@/core/visit/power-profile';
import type { Segment } from '@/core/visit/tape';
import { FILL } from './paint';
import { placeLabels } from './place-labels';
import { useWidth } from './use-width';

export type TapeMark = { t: number; text: string };

const HEIGHT = 182;
const TOP = 48;
const BOTTOM = 154;
const DAYLIGHT = 8;

/** The visit seen from above: time to the right, height of the yellow paint is kW, painted area is energy. */
export function VisitTape({ tape, marks, energy, description }: { tape: Segment[]; marks: TapeMark[]; energy: string | null; description: string }) {
  const [ref, width] = useWidth<HTMLDivElement>(842);
  const from = tape[0]?.from ?? 0;
  const to = Math.max(tape.at(-1)?.to ?? 1, from + 1);
  const x = scaleLinear([from, to], [0, width]);
  const peak = Math.max(50, ...tape.flatMap((s) => (s.kW ?? []).map((p) => p.kW)));
  const top = Math.ceil(peak / 50) * 50;
  const y = scaleLinear([0, top], [BOTTOM - 2, TOP + DAYLIGHT]);
  const step = top > 150 ? evenStep(top, 10, [100]) : 50;
  // No scale where no power was read: it would measure nothing.
  const lines = tape.some((s) => (s.kW ?? []).length > 0) ? Array.from({ length: Math.floor(top / step) }, (_, i) => (i + 1) * step) : [];
  const minutes = (to - from) / 60_000;
  const tick = evenStep(minutes, width / 110, MINUTE_STEPS);
  const ticks = Array.from({ length: Math.floor(minutes / tick) + 1 }, (_, i) => i * tick).filter((m, i) => i === 0 || x(from + m * 60_000) < width - 24);
  const labels = placeLabels(
    marks.map((m) => ({ text: m.text, x: x(m.t) })),
    width,
    3,
  );
  const widest = tape.filter((s) => s.kind === 'energy').sort((a, b) => b.to - b.from - (a.to - a.from))[0];
  return (
    <div ref={ref} className="overflow-hidden">
      <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} role="img" aria-label={description} className="block h-auto max-w-full">
        <rect x="0" y={TOP} width={width} height={BOTTOM - TOP} fill="var(--asphalt)" />
        <rect x="0" y={BOTTOM - 20} width={width} height="10" fill="url(#paint-dash)" />
        {lines.map((kW) => (
          <line key={kW} x1="0" x2={width} y1={y(kW)} y2={y(kW)} stroke="var(--asphalt-2)" strokeDasharray="10 10" />
        ))}
        {tape
          .filter((s) => s.kind === 'handshake' || s.kind === 'fault' || s.kind === 'idle')
          .map((s) => (
            <g key={`${s.kind}${s.from}`}>
              <rect
                x={x(s.from)}
                width={Math.max(1, x(s.to) - x(s.from))}
                y={TOP}
                height={BOTTOM - TOP}
                fill={FILL[s.kind]}
                stroke="var(--asphalt)"
                strokeWidth="1"
              >
                {s.label ? <title>{s.label}</title> : null}
              </rect>
              {s.label && x(s.to) - x(s.from) > s.label.length * 6.4 + 8 ? (
                <text x={x(s.from) + 5} y={BOTTOM - 30} fontSize="11" fontWeight="700" fill="#fff" stroke="var(--asphalt)" strokeWidth="3" paintOrder="stroke">
                  {s.label}
                </text>
              ) : null}
            </g>
          ))}
        {tape
          .filter((s) => s.kind === 'energy')
          .map((s) => (
            <Energy key={s.from} segment={s} x={x} y={y} />
          ))}
        <line x1="0" x2={width} y1={BOTTOM} y2={BOTTOM} stroke="var(--line)" strokeWidth="2" />
        {lines.map((kW) => (
          <text
            key={kW}
            x={width - 4}
            y={y(kW) + 10}
            textAnchor="end"
            fontSize="10"
            className="num"
            fill="#fff"
            stroke="var(--asphalt)"
            strokeWidth="3"
            paintOrder="stroke"
          >
            {kW} kW
          </text>
        ))}
        {energy && widest && x(widest.to) - x(widest.from) > 90 ? (
          <text x={(x(widest.from) + x(widest.to)) / 2} y={BOTTOM - 12} textAnchor="middle" fontSize="14" fontWeight="800" fill="var(--on-paint)">
            {energy}
          </text>
        ) : null}
        {labels.map((l) => (
          <g key={`${l.x}${l.text}`}>
            <line
              x1={Math.min(Math.max(l.x, 0.6), width - 0.6)}
              x2={Math.min(Math.max(l.x, 0.6), width - 0.6)}
              y1={TOP - 4 - l.row * 14}
              y2={BOTTOM + 5}
              stroke="var(--ink)"
              strokeWidth="1.2"
            />
            <text x={l.anchor === 'end' ? l.x - 3 : l.x + 3} y={TOP - 6 - l.row * 14} textAnchor={l.anchor} fontSize="12" fontWeight="600" fill="var(--ink)">
              {l.text}
            </text>
          </g>
        ))}
        {ticks.map((m) => (
          <text key={m} x={x(from + m * 60_000)} y={BOTTOM + 19} textAnchor={m === 0 ? 'start' : 'middle'} fontSize="11" className="num" fill="var(--ink-2)">
            {m === 0 ? '0 min' : m}
          </text>
        ))}
      </svg>
    </div>
  );
}

/** Energy paint. Without a kW read the stretch is outlined only: its height is not known. */
function Energy({ segment, x, y }: { segment: Segment; x: (t: number) => number; y: (kW: number) => number }) {
  const points = powerProfile(segment);
  if (points.length === 0) {
    return (
      <g>
        <rect
          x={x(segment.from)}
          width={Math.max(1, x(segment.to) - x(segment.from))}
          y={BOTTOM - 40}
          height="38"
          fill="none"
          stroke="var(--paint)"
          strokeWidth="2"
          strokeDasharray="6 4"
        />
        {x(segment.to) - x(segment.from) > 120 ? (
          <text x={x(segment.from) + 8} y={BOTTOM - 46} fontSize="11" fontWeight="700" fill="var(--paint)">
            power not read
          </text>
        ) : null}
      </g>
    );
  }
  const path = area<{ t: number; kW: number }>()
    .x((p) => x(p.t))
    .y0(BOTTOM)
    .y1((p) => y(p.kW))
    .curve(curveMonotoneX)(points);
  return <path d={path ?? ''} fill="var(--paint)" />;
}
