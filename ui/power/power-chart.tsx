'use client';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { type KeyboardEvent, memo, type PointerEvent, useMemo, useState } from 'react';
import { type ChartLine, type ChartPoint, chartTop, kWOn, lineFrom, type PowerChartData } from '@/core/power/power-chart';
import type { HeldBy } from '@/core/power/what-held-it-back';
import { isCar } from '@/core/power/what-held-it-back';
import { evenStep, MINUTE_STEPS } from '@/core/units/even-step';
import { NOT_READ, printKW } from '@/core/units/print';
import { useWidth } from '../tape/use-width';
import { type ChartRow, cutTo, DASH, DOTTED, LAID, LEGEND_ROW, LETTER, Legend, legendColumns, legendOf, NARROW, NameInPlace } from './chart-legend';

export type Along = 'battery' | 'clock';
/** Below the plot: the axis, then the strip of what held it back, then its words. */
const PLOT = { left: 42, right: 12, top: 16, bottom: 76 };
const AXIS = 20;
const STRIP = 18;
/** A longer name of a mark is cut: half of a phone's width. */
const MOST_LETTERS = 24;
const xOf = (p: Pick<ChartPoint, 'min' | 'socPct'>, along: Along): number | null => (along === 'battery' ? p.socPct : p.min);

/** `beyond`: power that is higher than what is drawn, kW. */
type Scales = {
  x: (v: number) => number;
  y: (kW: number) => number;
  from: number;
  to: number;
  top: number;
  beyond: number | null;
  height: number;
  width: number;
};

/** Axes from what is drawn: whole tens along the battery, whole minutes along the clock. */
function useScales(data: PowerChartData, along: Along, width: number, plot: number): Scales {
  return useMemo(() => {
    const xs = data.lines.flatMap((l) => l.points.flatMap((p) => xOf(p, along) ?? []));
    const { highest, beyond } = chartTop(data);
    const top = Math.max(10, Math.ceil((highest * 1.06) / 10) * 10);
    const [from, to] =
      along === 'battery' ? [Math.max(0, Math.floor((Math.min(100, ...xs) - 1) / 10) * 10), 100] : [0, Math.max(1, Math.ceil(Math.max(0, ...xs)))];
    const x = scaleLinear([from, to], [PLOT.left, width - PLOT.right]);
    const y = scaleLinear([0, top], [plot - PLOT.bottom, PLOT.top]).clamp(true);
    return { x, y, from, to, top, beyond, height: plot, width };
  }, [data, along, width, plot]);
}

/** Unbroken runs of a line: nothing is drawn where nobody looked. */
function runsOf(points: readonly ChartPoint[], along: Along): { x: number; kW: number }[][] {
  const runs: { x: number; kW: number }[][] = [[]];
  for (const p of points) {
    const at = xOf(p, along);
    if (at === null || p.kW === null) {
      if (runs.at(-1)?.length) runs.push([]);
    } else runs.at(-1)?.push({ x: at, kW: p.kW });
  }
  return runs.filter((r) => r.length > 1);
}

const HELD_FILL = (by: HeldBy): string => (by === 'not_known' ? 'var(--asphalt-2)' : isCar(by) ? 'var(--lane)' : 'url(#paint-fault)');

/** The lines themselves: drawn once, whatever the crosshair does. */
const Drawn = memo(function Drawn({ data, along, s, legend }: { data: PowerChartData; along: Along; s: Scales; legend: readonly ChartRow[] }) {
  const floor = s.y(0);
  const step = s.top > 200 ? evenStep(s.top, 10, [100]) : s.top > 60 ? 50 : s.top > 24 ? 20 : 5;
  const kWs = Array.from({ length: Math.floor(s.top / step) }, (_, i) => (i + 1) * step);
  const crowded = s.y(kWs.at(-1) ?? 0) < PLOT.top + 12;
  const span = s.to - s.from;
  const tick = along === 'battery' ? (s.width < NARROW ? 20 : 10) : evenStep(span, s.width / 80, MINUTE_STEPS);
  const ticks = Array.from({ length: Math.floor(span / tick) + 1 }, (_, i) => s.from + i * tick);
  const [main, ...over] = data.lines;
  const path = line<{ x: number; kW: number }>(
    (p) => s.x(p.x),
    (p) => s.y(p.kW),
  );
  const fill = area<{ x: number; kW: number }>(
    (p) => s.x(p.x),
    floor,
    (p) => s.y(p.kW),
  );
  const expected = along === 'battery' ? lineFrom(data.expected, s.from).map(([x, kW]) => ({ x, kW })) : [];
  return (
    <>
      <rect x={PLOT.left} y={PLOT.top - 8} width={s.width - PLOT.left - PLOT.right} height={floor - PLOT.top + 8} fill="var(--asphalt)" />
      {kWs.map((kW) => (
        <g key={kW}>
          <line x1={PLOT.left} x2={s.width - PLOT.right} y1={s.y(kW)} y2={s.y(kW)} stroke="var(--asphalt-2)" strokeDasharray="14 14" strokeWidth="1.5" />
          <text x={PLOT.left - 6} y={s.y(kW) + 4} textAnchor="end" className="num" fontSize="11.5" fill="var(--ink)">
            {kW}
          </text>
        </g>
      ))}
      {/* Where the highest figure stands at the very top, beside it. */}
      <text x={crowded ? 0 : PLOT.left - 6} y={PLOT.top - 2} textAnchor={crowded ? 'start' : 'end'} className="num" fontSize="11.5" fill="var(--ink)">
        kW
      </text>
      {main ? runsOf(main.points, along).map((run) => <path key={run[0]?.x} d={fill(run) ?? ''} fill="var(--paint)" />) : null}
      {expected.length > 1 ? <path d={path(expected) ?? ''} fill="none" {...DOTTED} /> : null}
      {over.map((l, i) =>
        runsOf(l.points, along).map((run) => (
          <g key={`${l.label} ${run[0]?.x}`} fill="none">
            {/* Dark beneath: the line is seen on yellow too. */}
            <path d={path(run) ?? ''} stroke="var(--asphalt)" strokeWidth="4.5" />
            <path d={path(run) ?? ''} {...LAID} strokeDasharray={DASH[i % DASH.length]} />
          </g>
        )),
      )}
      {over[0] && !legend.some((l) => l.painted) ? (
        <NameInPlace name={over[0].label} at={runsOf(over[0].points, along).at(-1)} s={s} left={PLOT.left} right={s.width - PLOT.right} />
      ) : null}
      {(main?.looks ?? []).map((l) => {
        const at = xOf(l, along);
        return at === null || l.kW === null ? null : (
          <circle key={`${l.min}`} cx={s.x(at)} cy={s.y(l.kW)} r="2.6" fill="var(--on-paint)" stroke="var(--paint)" />
        );
      })}
      {data.marks.map((m, i) => {
        const at = along === 'battery' ? m.socPct : m.min;
        if (at === null || at < s.from || at > s.to) return null;
        const name = cutTo(m.text, MOST_LETTERS);
        const right = s.x(at) + name.length * LETTER + 8 > s.width - PLOT.right;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: two of one name may be noted at once
          <g key={i}>
            {name === m.text ? null : <title>{m.text}</title>}
            <line x1={s.x(at)} x2={s.x(at)} y1={PLOT.top - 8} y2={floor} stroke="var(--line)" strokeWidth="1.5" />
            <text
              x={s.x(at) + (right ? -5 : 5)}
              y={PLOT.top + 6 + (i % 3) * 14}
              textAnchor={right ? 'end' : 'start'}
              fontSize="12"
              fontWeight="600"
              fill="var(--line)"
              stroke="var(--asphalt)"
              strokeWidth="3"
              paintOrder="stroke"
            >
              {name}
            </text>
          </g>
        );
      })}
      {s.beyond === null ? null : (
        <text x={PLOT.left + 8} y={floor - 10} fontSize="12" fontWeight="600" fill="var(--line)" stroke="var(--asphalt)" strokeWidth="3" paintOrder="stroke">
          beyond the picture: {printKW(s.beyond)} by the meter
        </text>
      )}
      {ticks.map((v) => (
        <text key={v} x={s.x(v)} y={floor + AXIS - 5} textAnchor={v === s.to ? 'end' : 'middle'} className="num" fontSize="11.5" fill="var(--ink)">
          {v}
          {v === ticks.at(-1) ? (along === 'battery' ? ' %' : ' min') : ''}
        </text>
      ))}
      {data.held.length > 0 ? (
        <rect x={PLOT.left} width={s.width - PLOT.left - PLOT.right} y={floor + AXIS + 4} height={STRIP} fill="url(#paint-not-read)">
          <title>{NOT_READ}</title>
        </rect>
      ) : null}
      {data.held.map((h) => {
        const [a, b] = along === 'battery' ? [h.from, h.to] : [h.fromMin, h.toMin];
        if (a === null || b === null || b <= a) return null;
        const wide = s.x(b) - s.x(a);
        return (
          <g key={`${h.by} ${h.from}`}>
            <rect x={s.x(a)} width={wide} y={floor + AXIS + 4} height={STRIP} fill={HELD_FILL(h.by)} stroke="var(--sheet)">
              <title>{`${h.text}: ${h.evidence}`}</title>
            </rect>
            {wide > h.text.length * LETTER ? (
              <text x={s.x(a) + 2} y={floor + AXIS + STRIP + 18} fontSize="12" fontWeight="600" fill="var(--ink)">
                {h.text}
              </text>
            ) : null}
          </g>
        );
      })}
      <ExpectedName data={data} s={s} shown={expected.length > 1 && !legend.some((l) => l.dotted)} />
      <Legend rows={legend} width={s.width} top={s.height} />
    </>
  );
});

/** What the dotted line is, above its right part, where no paint lies. */
function ExpectedName({ data, s, shown }: { data: PowerChartData; s: Scales; shown: boolean }) {
  const level = s.from + (s.to - s.from) * 0.66;
  const kW = shown ? kWOn(data.expected, level) : null;
  return kW === null ? null : (
    <text
      x={Math.min(s.x(level), s.width - PLOT.right - data.expectedText.length * LETTER)}
      y={Math.max(PLOT.top + 52, s.y(kW) - 26)}
      fontSize="12"
      fontWeight="600"
      fill="var(--line)"
      stroke="var(--asphalt)"
      strokeWidth="3"
      paintOrder="stroke"
    >
      {data.expectedText}
    </text>
  );
}

/** The point of a line nearest to a place on the axis. */
function nearest(points: readonly ChartPoint[], at: number, along: Along): ChartPoint | null {
  let best: ChartPoint | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const p of points) {
    const x = xOf(p, along);
    if (x !== null && Math.abs(x - at) < least) [best, least] = [p, Math.abs(x - at)];
  }
  return best;
}

const HOW: Record<ChartPoint['how'], string> = {
  read: 'read',
  VxA: 'volts × amps',
  between: 'between two readings',
  meter: 'by the meter',
  paused: 'paused',
  not_read: '',
};

/** What stands at a place of the axis, in words: for the eye beside the chart, and for a screen reader. */
function readout(data: PowerChartData, at: number, along: Along): string {
  const said = data.lines.map((l) => {
    const p = nearest(l.points, at, along);
    const x = p && xOf(p, along);
    const far = x === null || Math.abs(x - at) > (along === 'battery' ? 2 : 3);
    return `${l.label}: ${!p || far || p.kW === null ? NOT_READ : `${Math.round(p.kW)} kW ${HOW[p.how]}`}`;
  });
  const main = data.lines[0] && nearest(data.lines[0].points, at, along);
  const level = along === 'battery' ? at : (main?.socPct ?? null);
  const expected = level === null ? null : kWOn(data.expected, level);
  const held = level === null ? undefined : data.held.find((h) => h.from <= level && level <= h.to);
  const where = along === 'battery' ? `${Math.round(at)} %` : `${Math.round(at)} min${level === null ? '' : `, ${Math.round(level)} %`}`;
  return [`${where}, ${said.join('; ')}`, expected === null ? null : `expected ${Math.round(expected)} kW`, held?.text ?? null].filter(Boolean).join('; ');
}

/**
 * Power along the battery or the clock: paint for the visit itself, lines for those laid over it, dots where somebody
 * looked. The crosshair moves by pointer, touch and arrow keys, and redraws no line.
 */
export function PowerChart({ data, along }: { data: PowerChartData; along: Along }) {
  const [ref, width] = useWidth<HTMLDivElement>(820);
  const s = useScales(data, along, width, width < NARROW ? 300 : 420);
  const [at, setAt] = useState<number | null>(null);
  const floor = s.y(0);
  const place = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    const share = (e.clientX - box.left - PLOT.left) / (box.width - PLOT.left - PLOT.right);
    setAt(Math.min(s.to, Math.max(s.from, s.from + share * (s.to - s.from))));
  };
  const keys = (e: KeyboardEvent) => {
    const step = along === 'battery' ? 1 : Math.max(0.25, (s.to - s.from) / 100);
    const move = { ArrowLeft: -step, ArrowRight: step, PageDown: -10 * step, PageUp: 10 * step }[e.key];
    const from = at ?? xOf(data.lines[0]?.points[0] ?? { min: 0, socPct: s.from }, along) ?? s.from;
    const next = e.key === 'Home' ? s.from : e.key === 'End' ? s.to : move === undefined ? null : at === null ? from : from + move;
    if (next === null) return;
    e.preventDefault();
    setAt(Math.min(s.to, Math.max(s.from, next)));
  };
  const text = at === null ? null : readout(data, at, along);
  const legend = useMemo(() => legendOf(data, along, width), [data, along, width]);
  const height = s.height + Math.ceil(legend.length / legendColumns(width)) * LEGEND_ROW;
  return (
    <div>
      <div
        ref={ref}
        className="overflow-hidden"
        role="slider"
        tabIndex={0}
        aria-label="Crosshair of the chart: arrow keys move it"
        aria-valuemin={s.from}
        aria-valuemax={s.to}
        aria-valuenow={Math.round(at ?? s.from)}
        aria-valuetext={text ?? 'not set'}
        onKeyDown={keys}
      >
        <svg
          width={width}
          height={height}
          viewBox={`0 0 ${width} ${height}`}
          className="block h-auto max-w-full touch-pan-y"
          role="img"
          aria-label={`Power along the ${along}; the same is in the table`}
          onPointerDown={place}
          onPointerMove={place}
        >
          <Drawn data={data} along={along} s={s} legend={legend} />
          {at === null ? null : <line x1={s.x(at)} x2={s.x(at)} y1={PLOT.top - 8} y2={floor} stroke="var(--shake-on)" strokeWidth="2" />}
        </svg>
      </div>
      <p className="num no-print mt-1 min-h-[34px] text-[12.5px] text-ink">
        {text ?? <span className="font-sans text-ink-2">Move over the chart, or focus it and use the arrow keys, to read it off.</span>}
      </p>
    </div>
  );
}

const SMALL = { height: 84, top: 14, bottom: 70 };

/** Volts and amps where they were read, each to its own scale, along the same axis. */
export function VoltsAndAmps({ line: of, along }: { line: ChartLine; along: Along }) {
  const [ref, width] = useWidth<HTMLDivElement>(820);
  const looks = of.looks.flatMap((l) => {
    const at = xOf(l, along);
    return at !== null && (l.V !== null || l.A !== null) ? [{ at, V: l.V, A: l.A }] : [];
  });
  if (looks.length === 0) return null;
  const xs = of.points.flatMap((p) => xOf(p, along) ?? []);
  const x = scaleLinear(
    [along === 'battery' ? Math.floor((Math.min(...xs) - 1) / 10) * 10 : 0, along === 'battery' ? 100 : Math.ceil(Math.max(...xs))],
    [PLOT.left, width - PLOT.right],
  );
  const lineOf = (what: 'V' | 'A') => looks.flatMap((l) => (l[what] === null ? [] : [{ at: x(l.at), value: l[what] }]));
  return (
    <div ref={ref} className="mt-2 overflow-hidden">
      <svg
        width={width}
        height={SMALL.height}
        viewBox={`0 0 ${width} ${SMALL.height}`}
        className="block h-auto max-w-full"
        role="img"
        aria-label={`Volts and amps read: ${looks.map((l) => [l.V === null ? '' : `${l.V} V`, l.A === null ? '' : `${l.A} A`].filter(Boolean).join(', ')).join('; ')}`}
      >
        {(['V', 'A'] as const).map((what) => {
          const points = lineOf(what);
          const y = scaleLinear([0, Math.max(1, ...points.map((p) => p.value)) * 1.1], [SMALL.bottom, SMALL.top]);
          return (
            <g key={what}>
              <path
                d={
                  line<{ at: number; value: number }>(
                    (p) => p.at,
                    (p) => y(p.value),
                  )(points) ?? ''
                }
                fill="none"
                stroke="var(--ink-2)"
                strokeWidth="1.5"
                strokeDasharray={what === 'A' ? '5 4' : undefined}
              />
              {points.map((p) => (
                <text key={p.at} x={p.at} y={y(p.value) - 4} textAnchor="middle" className="num" fontSize="11" fill="var(--ink)">
                  {Math.round(p.value)} {what}
                </text>
              ))}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
