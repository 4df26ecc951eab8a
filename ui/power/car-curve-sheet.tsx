import { csvFormatRows } from 'd3-dsv';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import Link from 'next/link';
import type { OwnCurve } from '@/core/power/own-curve';
import type { Spread } from '@/core/power/projection';
import type { CurveClass } from '@/core/power/session-looks';
import type { UsableBattery } from '@/core/power/usable-battery';
import type { MileRecord } from '@/core/records/record-schema';
import { printCount } from '@/core/units/print';
import { KeepFigure } from '../charts/keep-figure';

const [WIDTH, HEIGHT] = [760, 320] as const;
const PLOT = { left: 40, right: 14, top: 14, bottom: 28 };
const NAMES: Record<CurveClass, string> = { usual: 'usual', cold: 'cold', preconditioned: 'preconditioned', second: 'second rapid charge of the day' };
const DASH: Record<CurveClass, string | undefined> = { usual: undefined, cold: '3 4', preconditioned: '10 5', second: '12 4 3 4' };

/** A car's curve: every look that was taken, what was learnt by class, and what was typed. */
export function CarCurveSheet({
  car,
  classes,
  looks,
  usable,
  spread,
}: {
  car: MileRecord<'car'>;
  classes: { klass: CurveClass; learnt: OwnCurve }[];
  looks: { socPct: number; kW: number; hindered: boolean }[];
  usable: UsableBattery;
  spread: Spread | null;
}) {
  const typed = car.fields.curve;
  const shown = classes.filter((c) => c.learnt.curve.length > 1);
  const most = [...looks.map((l) => l.kW), ...typed.map(([, kW]) => kW)].reduce((a, b) => Math.max(a, b), 10);
  const x = scaleLinear([0, 100], [PLOT.left, WIDTH - PLOT.right]);
  const y = scaleLinear([0, Math.ceil((most * 1.05) / 10) * 10], [HEIGHT - PLOT.bottom, PLOT.top]);
  const path = line<readonly [number, number]>(
    ([pct]) => x(pct),
    ([, kW]) => y(kW),
  );
  // Of years of looks many lie on the same spot: one dot a spot is all that can be seen.
  const dots = new Map(looks.map((l) => [`${Math.round(x(l.socPct))} ${Math.round(y(l.kW))} ${l.hindered}`, l]));
  const step = most > 200 ? 100 : most > 60 ? 50 : 10;
  const csv = csvFormatRows([
    ['class', 'battery from (%)', 'to (%)', 'sessions', 'power (kW)'],
    ...classes.flatMap(({ klass, learnt }) =>
      learnt.bins.map((b) => [NAMES[klass], String(b.from), String(b.to), String(b.sessions), b.kW === null ? '' : b.kW.toFixed(1)]),
    ),
  ]);
  return (
    <div className="mx-auto w-full max-w-[1000px] px-4 py-4 sm:px-6">
      <Link href={`/garage/car/${car.id}`} className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
        Back to {car.fields.name}
      </Link>
      <h1 className="mb-3 mt-1 text-[24px]">What {car.fields.name} takes</h1>
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">
        {usable.usableKWh === null
          ? `What it takes from empty to full cannot be told yet: ${usable.why}.`
          : `From empty to full it takes about ${usable.usableKWh.toFixed(1)} kWh at the meter, between ${usable.interval[0].toFixed(1)} and ${usable.interval[1].toFixed(1)}, by ${usable.chargesUsed} charges; ${car.fields.usableKWh} usable are typed in.`}
      </p>
      <KeepFigure name={`What ${car.fields.name} takes`} csv={`${csv}\n`} drawn>
        <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="w-full" role="img" aria-label="Power by battery level; the same is in the table below">
          <rect x={PLOT.left} y={PLOT.top} width={WIDTH - PLOT.left - PLOT.right} height={HEIGHT - PLOT.top - PLOT.bottom} fill="var(--asphalt)" />
          {Array.from({ length: Math.floor((y.domain()[1] as number) / step) }, (_, i) => (i + 1) * step).map((kW) => (
            <g key={kW}>
              <line x1={PLOT.left} x2={WIDTH - PLOT.right} y1={y(kW)} y2={y(kW)} stroke="var(--asphalt-2)" strokeDasharray="14 14" />
              <text x={PLOT.left - 6} y={y(kW) + 4} textAnchor="end" className="num" fontSize="11.5" fill="var(--ink)">
                {kW}
              </text>
            </g>
          ))}
          {[0, 20, 40, 60, 80, 100].map((pct) => (
            <text key={pct} x={x(pct)} y={HEIGHT - 10} textAnchor={pct === 100 ? 'end' : 'middle'} className="num" fontSize="11.5" fill="var(--ink)">
              {pct}
              {pct === 100 ? ' %' : ''}
            </text>
          ))}
          {[...dots].map(([at, l]) => (
            <circle key={at} cx={x(l.socPct)} cy={y(l.kW)} r="2.2" fill={l.hindered ? 'none' : 'var(--lane)'} stroke="var(--lane)" />
          ))}
          {typed.length > 1 ? (
            <path d={path(typed) ?? ''} fill="none" stroke="var(--line)" strokeWidth="2" strokeDasharray="2 5" strokeLinecap="round" />
          ) : null}
          {shown.map(({ klass, learnt }) => (
            <path key={klass} d={path(learnt.curve) ?? ''} fill="none" stroke="var(--paint)" strokeWidth="3" strokeDasharray={DASH[klass]} />
          ))}
        </svg>
      </KeepFigure>
      <p className="mb-2 text-[12.5px] text-ink-2">
        Dots: every look at the power; hollow where a neighbour, a derate or a hot cable was noted. Yellow: learnt, the 90th percentile of sessions in each 5 %
        of battery, from three sessions on.
        {typed.length > 1 ? ' White and dotted: as typed in.' : ' None is typed in.'}
      </p>
      <p className="mb-3 text-[13px]">
        {spread
          ? `When it will be how full: of ${spread.n} past charges 80 % took between ${Math.round(spread.low * 100)} and ${Math.round(spread.high * 100)} % of the minutes projected in their middle${
              Number.isFinite(spread.held) ? `; such bands, made beforehand, held ${Math.round(spread.held * 100)} % of the time` : ''
            }.`
          : 'When it will be how full is said with a band once five charges have shown how well that is met.'}
      </p>
      <div className="overflow-x-auto bg-card px-3" role="region" aria-label="Learnt curve" tabIndex={0}>
        <table className="w-full text-[13px]">
          <thead>
            <tr className="border-b border-ink text-left text-[12px] text-ink-2">
              <th scope="col" className="py-1.5 font-semibold">
                Battery
              </th>
              {classes
                .filter((c) => c.learnt.bins.length > 0)
                .map((c) => (
                  <th key={c.klass} scope="col" className="px-2 font-semibold">
                    {NAMES[c.klass]}
                    <span className="block font-normal">{printCount(c.learnt.sessionsUsed.length, 'session')}</span>
                  </th>
                ))}
            </tr>
          </thead>
          <tbody className="num">
            {Array.from({ length: 20 }, (_, i) => i * 5)
              .filter((from) => classes.some((c) => c.learnt.bins.some((b) => b.from === from)))
              .map((from) => (
                <tr key={from} className="border-b border-rule-2">
                  <th scope="row" className="py-1 text-left font-normal">
                    {from}–{from + 5}
                  </th>
                  {classes
                    .filter((c) => c.learnt.bins.length > 0)
                    .map((c) => {
                      const bin = c.learnt.bins.find((b) => b.from === from);
                      return (
                        <td key={c.klass} className="px-2">
                          {!bin ? (
                            '\u2003'
                          ) : bin.kW === null ? (
                            <span className="font-sans text-ink-2">{printCount(bin.sessions, 'session')}: too few</span>
                          ) : (
                            `${Math.round(bin.kW)} kW`
                          )}
                        </td>
                      );
                    })}
                </tr>
              ))}
          </tbody>
        </table>
        {looks.length === 0 ? <p className="py-2 text-sm text-ink-2">No look at battery and power together yet.</p> : null}
      </div>
    </div>
  );
}
