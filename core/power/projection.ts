import { type Battery, levelAfter, minutesFor } from './expected';
import { type Limits, pacedLimits } from './limits';

/** A level of the battery at a moment, minutes from the proof of power on the charging clock. */
export type Level = { min: number; socPct: number };

/** Less of the battery and of time than this says nothing of a session's pace. */
const LEAST = { pct: 3, min: 2 };
/** A reading that slipped must not stop or race the projection. */
const PACE = { low: 0.15, high: 1.6 };

/** How much of the expected power a session has had so far: its minutes against those expected, from the first to the last level. 1 where too little was read. */
export function paceSoFar(limits: Limits, battery: Battery, levels: readonly Level[]): number {
  const [first, last] = [levels[0], levels.at(-1)];
  if (!first || !last || last.socPct - first.socPct < LEAST.pct || last.min - first.min < LEAST.min) return 1;
  // The later half counts by itself where it is long enough: a neighbour who came changes what is to come.
  const middle = levels.findLast((l) => last.socPct - l.socPct >= LEAST.pct && last.min - l.min >= LEAST.min) ?? first;
  const of = (from: Level) => (minutesFor(limits, from.socPct, last.socPct, battery) ?? Number.NaN) / (last.min - from.min);
  const pace = of(middle);
  return Number.isFinite(pace) ? Math.min(PACE.high, Math.max(PACE.low, pace)) : 1;
}

export type Projection = { limits: Limits; pace: number /** The level now, from the last reading on. */; nowPct: number };

/** What is to come, from what has come: the limits at this session's pace, and the level that should stand on the screen now. @param now_min on the charging clock */
export function project(limits: Limits, battery: Battery, levels: readonly Level[], now_min: number): Projection | null {
  const last = levels.at(-1);
  if (!last) return null;
  const pace = paceSoFar(limits, battery, levels);
  const paced = pacedLimits(limits, pace);
  return { limits: paced, pace, nowPct: levelAfter(paced, last.socPct, Math.max(0, now_min - last.min), battery) };
}

/** A band of minutes about a projection: 80 % of past ones lay within. `held`: how often such bands, made beforehand, held. */
export type Spread = { low: number; high: number; n: number; held: number };
