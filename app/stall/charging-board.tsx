'use client';
import { useEffect, useState } from 'react';
import { NOT_READ, printAgo, printDuration, printKWh } from '@/core/units/print';
import { chargingSoFar } from '@/core/visit/attempt-times';
import type { Attempt, Reading } from '@/core/visit/attempts/attempt';
import { powerProfile } from '@/core/visit/power-profile';
import type { Segment } from '@/core/visit/tape';
import { useWidth } from '@/ui/tape/use-width';

/** While power flows: the curve so far and the four figures, each with its age. */
export function ChargingBoard({ attempt, tape, ratedKW, now }: { attempt: Attempt; tape: Segment[]; ratedKW: number | null; now: () => number }) {
  const [at, setAt] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => setAt(now()), 1000);
    return () => clearInterval(timer);
  }, [now]);
  const last = <K extends 'socPct' | 'kW' | 'kWh'>(key: K) =>
    attempt.readings.filter((r) => r[key] !== undefined && (key !== 'kWh' || r.screen === 'stall')).at(-1);
  const soc = last('socPct');
  const kW = last('kW');
  const kWh = last('kWh');
  const age = (r: Reading | undefined) => (r ? `, ${printAgo((at - r.mark.t) / 1000)}` : '');
  const start = attempt.proof?.t ?? at;
  return (
    <section aria-label="Charging" className="shrink-0 border-b-2 border-ink bg-card">
      <Curve tape={tape} attempt={attempt} from={start} to={at} ratedKW={ratedKW} />
      <dl className="grid grid-cols-2 short:grid-cols-4">
        <Figure label="Charging" value={printDuration(chargingSoFar(attempt, at))} big />
        <Figure label={`Battery${age(soc)}`} value={soc ? `${soc.socPct} %` : NOT_READ} big edge />
        <Figure label={`Power${age(kW)}`} value={kW ? `${kW.kW} kW` : NOT_READ} top />
        <Figure label={`Delivered${age(kWh)}`} value={kWh?.kWh ? printKWh(kWh.kWh) : NOT_READ} top edge />
      </dl>
    </section>
  );
}

function Figure({ label, value, big = false, edge = false, top = false }: { label: string; value: string; big?: boolean; edge?: boolean; top?: boolean }) {
  return (
    <div
      className={`flex min-w-0 flex-col justify-between px-4 py-2 short:border-t-0 short:px-1.5 short:py-1 ${edge ? 'border-l border-rule' : ''} ${top ? 'border-t border-rule short:border-l' : ''}`}
    >
      <dt className="truncate text-[12px] font-semibold text-ink-2 short:max-[340px]:whitespace-normal short:max-[340px]:leading-tight">{label}</dt>
      <dd
        className={`num truncate font-semibold leading-tight tracking-[-0.06em] short:text-[16px] short:max-[340px]:text-[14px] ${big ? 'text-[32px]' : 'text-[25px]'}`}
      >
        {value}
      </dd>
    </div>
  );
}

const H = 104;
function Curve({ tape, attempt, from, to, ratedKW }: { tape: Segment[]; attempt: Attempt; from: number; to: number; ratedKW: number | null }) {
  const [ref, width] = useWidth<HTMLDivElement>(390);
  const segments = tape.filter((s) => s.kind === 'energy' && s.attempt === (attempt as Attempt).n);
  const peak = Math.max(50, ratedKW ?? 0, ...attempt.readings.map((r) => r.kW ?? 0));
  const x = (t: number) => ((t - from) / (Math.max(to, from + 600_000) - from)) * width;
  const y = (kW: number) => H - 4 - (kW / (peak * 1.08)) * (H - 12);
  const lines = [50, 100, 150, 250, 350].filter((k) => k <= peak * 1.05);
  return (
    <div ref={ref} className="bg-asphalt short:hidden">
      <svg width={width} height={H} className="block" role="img" aria-label="Power so far">
        {lines.map((k) => (
          <g key={k}>
            <line x1="0" x2={width} y1={y(k)} y2={y(k)} stroke="var(--asphalt-2)" strokeDasharray="10 10" />
            <text x={width - 4} y={y(k) - 3} textAnchor="end" fontSize="11" className="num" fill="var(--line-2)">
              {k}
            </text>
          </g>
        ))}
        {segments.map((s) => {
          const points = powerProfile({ ...s, to: s === segments.at(-1) ? Math.max(s.to, to) : s.to });
          // Straight between readings, as power is taken to be everywhere.
          const line = points.map((p) => `${x(p.t).toFixed(1)},${y(p.kW).toFixed(1)}`);
          return points.length === 0 ? null : (
            <polygon
              key={s.from}
              points={[`${x(points[0]?.t ?? s.from)},${H}`, ...line, `${x(points.at(-1)?.t ?? s.to)},${H}`].join(' ')}
              fill="var(--paint)"
            />
          );
        })}
        {attempt.readings.length === 0 ? (
          <text x="16" y={H / 2} fontSize="13" fontWeight="600" fill="var(--line-2)">
            No power read yet: add a reading
          </text>
        ) : null}
      </svg>
    </div>
  );
}
