import type { TrialPlan } from '@/core/records/trial-schema';
import type { RoundRun } from '@/core/trials/trial-rounds';
import { printDuration } from '@/core/units/print';

const WIDTH = 760;
const LEFT = 66;
const LANE = 26;
const GAP = 8;

/** Each round one road, each side a lane of it: as long as it waited, with what the clocks and the observers leave open. */
export function RoundLanes({ plan, rounds, labelOf }: { plan: TrialPlan; rounds: readonly RoundRun[]; labelOf: (side: string) => string }) {
  const shown = rounds.filter((r) => r.voided === null && !r.repeated && r.is !== 'open');
  const numbers = [...new Set(shown.map((r) => r.round))];
  if (numbers.length === 0) return <p className="bg-card p-4 text-[15px]">No round counts yet. Each will be a road here, with a lane for each side.</p>;
  const longest = Math.max(10, ...shown.map((r) => (r.s ?? 0) + r.pm_s));
  const x = (s: number) => LEFT + (Math.min(s, longest) / longest) * (WIDTH - LEFT - 220);
  const every = [2, 5, 10, 20, 30, 60, 120, 300].find((s) => longest / s <= 7) ?? 600;
  const sides = plan.sides.length;
  const roundHeight = LANE * sides + GAP;
  const height = numbers.length * roundHeight + 24;
  return (
    <section aria-labelledby="lanes-head" className="border-t-2 border-ink bg-card px-3.5 py-2.5">
      <h2 id="lanes-head" className="text-[15px]">
        Each round one road
      </h2>
      <p className="text-[12.5px] text-ink-2">White whisker: what clocks and observers leave open. An arrow: never got power.</p>
      <div className="overflow-x-auto" role="region" aria-label="Each round, drawn" tabIndex={0}>
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className="mt-2 w-full min-w-[520px]"
          role="img"
          aria-label="Waits of each round; the same is in the table below"
        >
          {numbers.map((n, i) => {
            const top = i * roundHeight;
            return (
              <g key={n}>
                <text x={LEFT - 10} y={top + (LANE * sides) / 2 + 4} textAnchor="end" fontSize="12.5" fontWeight="700" fill="var(--ink)">
                  Round {n}
                </text>
                <rect x={LEFT} y={top} width={WIDTH - LEFT} height={LANE * sides} fill="var(--asphalt)" />
                {shown
                  .filter((r) => r.round === n)
                  .map((r) => {
                    const y = top + LANE * 'abcd'.indexOf(r.side) + 4;
                    const label = r.s === null ? `${labelOf(r.side)} never` : `${labelOf(r.side)} ${printDuration(r.s)} ± ${r.pm_s.toFixed(1)}`;
                    const end = r.s === null ? x(longest) : x(r.s);
                    return (
                      <g key={r.side}>
                        <rect x={LEFT} y={y} width={end - LEFT} height={LANE - 8} fill="var(--shake-on)" />
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
                        <text x={end + 14} y={y + 13} fontSize="12.5" fontWeight="600" fill="var(--line)">
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
      </div>
    </section>
  );
}
