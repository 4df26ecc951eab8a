/** One wait: how long, in any unit, and whether it ended in what was waited for; else it is only known to have lasted so long. */
export type Wait = { time: number; event: boolean };

/** The curve from one recorded time on. */
export type Step = {
  time: number;
  /** Waits of at least this time, those that ended at it, and the share still waiting after it. */
  atRisk: number;
  events: number;
  still: number;
  /** Standard error of `still` (Greenwood), and the 95 % limits by log(−log S); `null` where they are not defined. */
  se: number | null;
  lower: number | null;
  upper: number | null;
};

/** Standard normal 97.5 % quantile; 15 digits, from memory, checked in the tests through R's limits. */
const Z = 1.95996398454005;

/**
 * The share still waiting, by the product-limit estimate. What is censored at the time of an event is at risk then.
 * Failed starts enter at the horizon, beyond every time, without an event: the curve levels off at the share that never started.
 * Source: Kaplan & Meier, JASA 53 (1958); Greenwood 1926; limits as survival::survfit(conf.type = "log-log"). O(n log n).
 * @returns a step for each recorded time, in order
 */
export function stillWaiting(waits: readonly Wait[]): Step[] {
  const sorted = [...waits].sort((a, b) => a.time - b.time);
  const steps: Step[] = [];
  let still = 1;
  let variance = 0;
  for (let i = 0; i < sorted.length; ) {
    const { time } = sorted[i] as Wait;
    const atRisk = sorted.length - i;
    let events = 0;
    for (; i < sorted.length && sorted[i]?.time === time; i++) events += sorted[i]?.event ? 1 : 0;
    still *= (atRisk - events) / atRisk;
    variance += events / (atRisk * (atRisk - events));
    const bounded = still > 0 && still < 1;
    const spread = bounded ? (Z * Math.sqrt(variance)) / Math.abs(Math.log(still)) : 0;
    steps.push({
      time,
      atRisk,
      events,
      still,
      se: still > 0 ? still * Math.sqrt(variance) : null,
      lower: bounded ? still ** Math.exp(spread) : null,
      upper: bounded ? still ** Math.exp(-spread) : null,
    });
  }
  return steps;
}

/** The curve as it stands at a time; `null` before the first recorded one, where all are waiting. */
export const stepAt = (steps: readonly Step[], time: number): Step | null => steps.findLast((s) => s.time <= time) ?? null;

/** How many had waited at least so long. */
export const atRiskAt = (waits: readonly Wait[], time: number): number => waits.filter((w) => w.time >= time).length;

/** Shares closer than this are one. As in survival's quantiles. */
const SAME = 1.5e-8;

/** The first time at which a falling curve is at most a half; where it lies at exactly a half for a stretch, the middle of it. */
function halfOf(steps: readonly { time: number; value: number | null }[]): number | null {
  const at = steps.findIndex((s) => s.value !== null && s.value <= 0.5 + SAME);
  const found = steps[at];
  if (!found || found.value === null) return null;
  if (Math.abs(found.value - 0.5) > SAME) return found.time;
  const next = steps.slice(at + 1).find((s) => s.value !== null && s.value < 0.5 - SAME);
  return next ? (found.time + next.time) / 2 : found.time;
}

/** The median wait with its 95 % limits; `null` for beyond what was seen. */
export const medianWait = (steps: readonly Step[]): { median: number | null; lower: number | null; upper: number | null } => {
  const of = (value: (s: Step) => number | null) => halfOf(steps.map((s) => ({ time: s.time, value: value(s) })));
  return { median: of((s) => s.still), lower: of((s) => s.lower), upper: of((s) => s.upper) };
};

/**
 * The mean wait up to a horizon, with its standard error: the area under the curve. Source: as survival's rmean, without n/(n−1).
 * @param horizon beyond the last time the curve is carried on
 */
export function restrictedMean(steps: readonly Step[], horizon: number): { mean: number; se: number } {
  const inside = steps.filter((s) => s.time <= horizon);
  /** Area from each step's time on; the last entry from 0. */
  const ends = [...inside.slice(1).map((s) => s.time), horizon];
  const areas = inside.map((s, i) => s.still * ((ends[i] as number) - s.time));
  let after = 0;
  let variance = 0;
  for (let i = inside.length - 1; i >= 0; i--) {
    const { atRisk, events } = inside[i] as Step;
    after += areas[i] as number;
    if (events < atRisk) variance += (after * after * events) / (atRisk * (atRisk - events));
  }
  return { mean: after + (inside[0]?.time ?? horizon), se: Math.sqrt(variance) };
}
