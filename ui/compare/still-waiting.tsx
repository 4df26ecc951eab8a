import { scaleLinear } from 'd3-scale';
import { curveStepAfter, line } from 'd3-shape';
import { waitingCsv } from '@/core/compare/waiting-csv';
import type { WaitingCurve, WaitingCurves } from '@/core/compare/waiting-curve';
import { printCount, printDuration, printShare } from '@/core/units/print';
import { KeepFigure } from '../charts/keep-figure';
import { nameOfFigure } from './only-visits';

const [WIDTH, HEIGHT] = [620, 210];
const PLOT = { left: 46, right: 132, top: 10, bottom: 28 };
/** Told apart without colour too: by dashes. */
const LINES = [
  { stroke: 'var(--ink)', dash: undefined },
  { stroke: 'var(--shake)', dash: '7 4' },
  { stroke: 'var(--fault)', dash: '2 3' },
  { stroke: 'var(--ink-2)', dash: '12 3 2 3' },
] as const;
/** Least distance of the names at the lines' ends, px. */
const NAME_GAP = 14;

/** Names at the ends of the lines, pushed apart where the lines end together. */
function namesAt(curves: readonly WaitingCurve[], y: (still: number) => number): number[] {
  const order = curves.map((c, i) => ({ i, at: y(c.marks.at(-1)?.still ?? 1) })).sort((a, b) => a.at - b.at);
  let last = Number.NEGATIVE_INFINITY;
  const out: number[] = [];
  for (const o of order) {
    last = Math.max(o.at, last + NAME_GAP);
    out[o.i] = last;
  }
  // Pushed below the floor they go up together.
  const over = Math.max(0, last - (HEIGHT - PLOT.bottom + 2));
  return out.map((at) => at - over);
}

/** The share of starts still waiting for power after so long, by group, and the same as a table. */
export function StillWaiting({
  of: { horizon_s, marks_s, curves, tooFew },
  names,
  one,
  time,
  chosen,
}: {
  of: WaitingCurves;
  /** What each group is called. */
  names: Readonly<Record<string, string>>;
  /** What a curve is of: network, site. */
  one: string;
  time: string;
  /** Which visits they are of, in words; `''`: all. */
  chosen: string;
}) {
  if (curves.length === 0) return null;
  const nameOf = (group: string) => names[group] ?? group;
  const x = scaleLinear([0, horizon_s], [PLOT.left, WIDTH - PLOT.right]);
  const y = scaleLinear([1, 0], [PLOT.top, HEIGHT - PLOT.bottom]);
  const path = (c: WaitingCurve) =>
    line<{ time: number; still: number }>(
      (p) => x(p.time),
      (p) => y(p.still),
    ).curve(curveStepAfter)([{ time: 0, still: 1 }, ...c.steps.filter((s) => s.time <= horizon_s), { time: horizon_s, still: c.marks.at(-1)?.still ?? 1 }]) ??
    '';
  const unit = (marks_s[1] ?? 0) % 60 === 0 ? { s: 60, name: 'min' } : { s: 1, name: 's' };
  const endings = namesAt(curves, y);
  return (
    <section aria-labelledby="waiting-head" className="mt-4 break-inside-avoid border-t-2 border-ink bg-card px-3.5 py-2.5">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h2 id="waiting-head" className="text-[15px]">
          Still waiting for power after …
        </h2>
        <span className="text-[12.5px] text-ink-2">
          {time}; attempts that failed or were given up never get power, one left without an outcome counts until then
        </span>
      </div>
      <KeepFigure name={nameOfFigure(`Still waiting for power, by ${one}`, chosen)} csv={waitingCsv(curves, nameOf, chosen)} drawn>
        <div className="overflow-x-auto" role="region" aria-label="Still waiting, drawn" tabIndex={0}>
          <svg
            viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
            className="mt-1.5 w-full min-w-[480px] max-w-[760px]"
            role="img"
            aria-label="Share of starts still waiting; the same is in the table below"
          >
            {[1, 0.5, 0].map((v) => (
              <g key={v}>
                <line x1={PLOT.left} x2={WIDTH - PLOT.right} y1={y(v)} y2={y(v)} stroke="var(--rule)" />
                <text x={PLOT.left - 6} y={y(v) + 4} textAnchor="end" className="num" fontSize="11.5" fill="var(--ink-2)">
                  {printShare(v)}
                </text>
              </g>
            ))}
            {marks_s.map((s) => (
              <text key={s} x={x(s)} y={HEIGHT - 10} textAnchor="middle" className="num" fontSize="11.5" fill="var(--ink-2)">
                {s / unit.s}
              </text>
            ))}
            <text x={WIDTH - PLOT.right + 12} y={HEIGHT - 10} className="num" fontSize="11.5" fill="var(--ink-2)">
              {unit.name}
            </text>
            {curves.map((c, i) => (
              <g key={c.group}>
                <path d={path(c)} fill="none" stroke={LINES[i]?.stroke} strokeWidth="2.5" strokeDasharray={LINES[i]?.dash} />
                <text x={WIDTH - PLOT.right + 6} y={(endings[i] ?? 0) + 4} fontSize="12.5" fontWeight="600" fill={LINES[i]?.stroke}>
                  {nameOf(c.group)}
                </text>
              </g>
            ))}
          </svg>
        </div>
        <details className="mt-1 text-[13px]">
          <summary className="min-h-[28px] cursor-pointer font-semibold text-shake">The same as a table</summary>
          <div className="overflow-x-auto" role="region" aria-label="Still waiting, as a table" tabIndex={0}>
            <table className="mt-1">
              <thead>
                <tr className="text-left text-[12px] text-ink-2">
                  <th scope="col" className="py-1 pr-4 font-semibold first-letter:uppercase">
                    {one}
                  </th>
                  <th scope="col" className="py-1 pr-4 font-semibold">
                    Median, 95 %
                  </th>
                  {marks_s.map((s) => (
                    <th key={s} scope="col" className="num py-1 pr-4 font-semibold">
                      {s / unit.s} {unit.name}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {curves.map((c) => (
                  <tr key={c.group} className="border-t border-rule-2 align-top">
                    <th scope="row" className="py-1 pr-4 text-left font-semibold">
                      {nameOf(c.group)}
                      <span className="block font-normal text-ink-2">
                        {printCount(c.starts, 'start')}, {c.never} never
                        {c.open > 0 ? `, ${c.open} left open` : ''}
                      </span>
                    </th>
                    <td className="min-w-[150px] py-1 pr-4">{medianText(c)}</td>
                    {c.marks.map((m, i) => (
                      <td key={marks_s[i]} className="num whitespace-nowrap py-1 pr-4">
                        {printShare(m.still)}
                        <span className="block text-[12px] text-ink-2">{m.atRisk} waiting</span>
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </details>
      </KeepFigure>
      {tooFew > 0 ? <p className="mt-1 text-[12.5px] text-ink-2">{printCount(tooFew, one)} with fewer than five starts to draw.</p> : null}
    </section>
  );
}

function medianText({ median, limits }: WaitingCurve): string {
  const said = median === null ? 'fewer than half started' : printDuration(median);
  if (limits === null) return `${said}; fewer than six: no 95 % interval`;
  const [low, high] = limits;
  return `${said}; ${low === null ? 'beyond what was seen' : `${printDuration(low)} to ${high === null ? 'beyond what was seen' : printDuration(high)}`}`;
}
