import type { TrialPlan } from '@/core/records/trial-schema';
import type { RoundRun } from '@/core/trials/trial-rounds';
import { evenStep } from '@/core/units/even-step';
import { printDuration } from '@/core/units/print';

const LANE = 26;
const GAP = 8;
/** Drawn as wide as it is shown, since letters that shrink with it cannot be read: on a desk, and on a phone with the labels on lines of their own. */
const SHAPES = [
  { width: 760, left: 66, beside: 220, lane: LANE, shown: 'max-sm:hidden' },
  { width: 330, left: 58, beside: 20, lane: LANE + 16, shown: 'sm:hidden' },
] as const;

/** Each round one road, each side a lane of it: as long as it waited, with what the clocks and the observers leave open. */
export function RoundLanes({ plan, rounds, labelOf }: { plan: TrialPlan; rounds: readonly RoundRun[]; labelOf: (side: string) => string }) {
  const shown = rounds.filter((r) => r.voided === null && !r.repeated && r.is !== 'open');
  const numbers = [...new Set(shown.map((r) => r.round))];
  if (numbers.length === 0) return <p className="bg-card p-4 text-[15px]">No round counts yet. Each will be a road here, with a lane for each side.</p>;
  const longest = Math.max(10, ...shown.map((r) => (r.s ?? 0) + r.pm_s));
  const every = evenStep(longest, 7, [2, 5, 10, 20, 30, 60, 120, 300, 600]);
  return (
    <section aria-labelledby="lanes-head" className="border-t-2 border-ink bg-card px-3.5 py-2.5">
      <h2 id="lanes-head" className="text-[15px]">
        Each round one road
      </h2>
      <p className="text-[12.5px] text-ink-2">White whisker: what clocks and observers leave open. An arrow: never got power.</p>
      {SHAPES.map((shape) => (
        <Lanes key={shape.width} shape={shape} numbers={numbers} shown={shown} sides={plan.sides.length} longest={longest} every={every} labelOf={labelOf} />
      ))}
    </section>
  );
}

type LanesProps = {
  shape: (typeof SHAPES)[number];
  numbers: readonly number[];
  shown: readonly RoundRun[];
  sides: number;
  longest: number;
  every: number;
  labelOf: (side: string) => string;
};
function Lanes({ shape: { width, left, beside, lane, shown: where }, numbers, shown, sides, longest, every, labelOf }: LanesProps) {
  const x = (s: number) => left + (Math.min(s, longest) / longest) * (width - left - beside);
  const roundHeight = lane * sides + GAP;
  const height = numbers.length * roundHeight + 24;
  const above = lane - LANE;
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className={`mt-2 w-full ${where}`} role="img" aria-label="Waits of each round; the same is in the table below">
      {numbers.map((n, i) => {
        const top = i * roundHeight;
        return (
          <g key={n}>
            <text x={left - 8} y={top + (lane * sides) / 2 + 4} textAnchor="end" fontSize="12.5" fontWeight="700" fill="var(--ink)">
              Round {n}
            </text>
            <rect x={left} y={top} width={width - left} height={lane * sides} fill="var(--asphalt)" />
            {shown
              .filter((r) => r.round === n)
              .map((r) => {
                const y = top + lane * 'abcd'.indexOf(r.side) + 4 + above;
                const label = r.s === null ? `${labelOf(r.side)} never` : `${labelOf(r.side)} ${printDuration(r.s)} ± ${r.pm_s.toFixed(1)}`;
                const end = r.s === null ? x(longest) : x(r.s);
                return (
                  <g key={r.side}>
                    <rect x={left} y={y} width={end - left} height={LANE - 8} fill="var(--shake-on)" />
                    {r.s === null ? (
                      <path d={`M${end} ${y}l9 ${(LANE - 8) / 2}-9 ${(LANE - 8) / 2}`} fill="none" stroke="var(--shake-on)" strokeWidth="2.5" />
                    ) : (
                      <>
                        <rect x={end - 4} y={y} width="8" height={LANE - 8} fill="var(--paint)" />
                        <line
                          x1={x(Math.max(0, r.s - r.pm_s))}
                          x2={x(r.s + r.pm_s)}
                          y1={y + (LANE - 8) / 2}
                          y2={y + (LANE - 8) / 2}
                          stroke="#fff"
                          strokeWidth="2.5"
                        />
                      </>
                    )}
                    <text x={above ? left + 6 : end + 14} y={above ? y - 5 : y + 13} fontSize="12.5" fontWeight="600" fill="var(--line)">
                      {label}
                    </text>
                  </g>
                );
              })}
          </g>
        );
      })}
      {Array.from({ length: Math.floor(longest / every) + 1 }, (_, i) => i * every).map((s) => (
        <text key={s} x={x(s)} y={height - 6} textAnchor="middle" className="num" fontSize="11.5" fill="var(--ink-2)">
          {s}
          {s === 0 ? ' s' : ''}
        </text>
      ))}
    </svg>
  );
}
