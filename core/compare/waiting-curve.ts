import { atRiskAt, medianWait, type Step, stepAt, stillWaiting, type Wait } from '../evidence/still-waiting';
import { type Grouping, groupOfAttempt } from '../figures/groupings';
import { type Asked, attemptTest, NEVER, timedBy } from '../figures/populations';
import type { VisitRow } from './visit-row';

/** Fewer waits than these draw no curve. */
export const LEAST_WAITS = 5;
/** Fewer waits than these have no 95 % interval of their median. */
const LEAST_FOR_LIMITS = 6;
/** Curves that one picture bears. */
const MOST_CURVES = 4;
/** Beyond every time: of starts that failed. */
const NEVER_S = 1e12;

/** How one group's starts went on waiting. */
export type WaitingCurve = {
  group: string;
  /** Starts that are in it, of them those that never got power, and those of which it is only known that none came for so long. */
  starts: number;
  never: number;
  open: number;
  steps: Step[];
  /** At the marks of the axis: the share still waiting, and how many were waiting still. */
  marks: { still: number; atRisk: number }[];
  /** Seconds; `null` beyond what was seen. `limits`: 95 %, of six starts and more. */
  median: number | null;
  limits: [number | null, number | null] | null;
};
export type WaitingCurves = {
  /** Seconds at which the picture ends, and the marks of its axis, from 0. */
  horizon_s: number;
  marks_s: number[];
  curves: WaitingCurve[];
  /** Groups with starts too few to draw. */
  tooFew: number;
};

const isNever = attemptTest(NEVER);

/** The waits of each group, those with most first. */
function waitsByGroup(visits: readonly VisitRow[], asked: Pick<Asked, 'time' | 'mark'>, by: Grouping): { group: string; waits: Wait[] }[] {
  const isTimed = attemptTest(timedBy(asked));
  const groups = new Map<string, Wait[]>();
  for (const v of visits) {
    if (v.leftOut) continue;
    for (const a of v.attempts) {
      const never = isNever(a);
      // From the last act on: by no other definition is it known since when it waited.
      const open = asked.time === 'handshake' && a.outcome === 'open' && typeof a.openFor === 'number' ? a.openFor : null;
      if (!never && open === null && !isTimed(a)) continue;
      const group = groupOfAttempt(by, v, a);
      if (group === null) continue;
      const wait = { time: never ? NEVER_S : (open ?? (a[asked.time] as number)), event: !never && open === null };
      const waits = groups.get(group);
      if (waits) waits.push(wait);
      else groups.set(group, [wait]);
    }
  }
  return [...groups].map(([group, waits]) => ({ group, waits })).sort((a, b) => b.waits.length - a.waits.length || (a.group < b.group ? -1 : 1));
}

/** Marks of the axis: a few, at round times. */
const STEPS_S = [5, 10, 15, 30, 60, 120, 300, 600];

/**
 * How the starts of each group went on waiting for power, by one definition and one end mark; those with most starts first. Failed and
 * given-up attempts never get power; one that was left without an outcome is in it until then (censored); those seen late or without the mark are in no curve.
 */
export function waitingCurves(visits: readonly VisitRow[], asked: Pick<Asked, 'time' | 'mark'>, by: Grouping = 'network'): WaitingCurves {
  const all = waitsByGroup(visits, asked, by);
  const drawn = all.filter((g) => g.waits.length >= LEAST_WAITS).slice(0, MOST_CURVES);
  const times = drawn.flatMap((g) => g.waits.filter((w) => w.event).map((w) => w.time)).sort((a, b) => a - b);
  // Nine of ten starts are in the picture: a single one that took an hour must not press the rest into a corner.
  const most = times[Math.floor(times.length * 0.9)] ?? 0;
  const every = STEPS_S.find((s) => s * 6 >= most) ?? 600;
  const marks_s = Array.from({ length: 7 }, (_, i) => i * every);
  return {
    horizon_s: every * 6,
    marks_s,
    tooFew: all.length - all.filter((g) => g.waits.length >= LEAST_WAITS).length,
    curves: drawn.map(({ group, waits }) => {
      const steps = stillWaiting(waits);
      const { median, lower, upper } = medianWait(steps);
      return {
        group,
        starts: waits.length,
        never: waits.filter((w) => w.time >= NEVER_S).length,
        open: waits.filter((w) => !w.event && w.time < NEVER_S).length,
        steps: steps.filter((s) => s.time < NEVER_S),
        marks: marks_s.map((s) => ({ still: stepAt(steps, s)?.still ?? 1, atRisk: atRiskAt(waits, s) })),
        median,
        limits: waits.length < LEAST_FOR_LIMITS ? null : [lower, upper],
      };
    }),
  };
}
