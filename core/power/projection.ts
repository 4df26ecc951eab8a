import { type Battery, levelAfter, minutesFor } from './expected';
import { type Limits, pacedLimits } from './limits';

/** A level of the battery at a moment, minutes from the proof of power on the charging clock. */
export type Level = { min: number; socPct: number };

/** Power as it was shown last, minutes from the proof of power on the charging clock. */
export type Shown = { min: number; kW: number };

/** Less of the battery, read or expected, and of time than this says nothing of a session's pace. */
const LEAST = { pct: 3, min: 2 };
/** A level that stays where it was has risen by less than one per cent: half of one is taken. */
const UNSEEN_RISE_PCT = 0.5;
/** Of one look, although typed one after the other. */
const SAME_LOOK_MIN = 0.25;
/** Before it power still climbs. */
const RAMP_MIN = 1;
/** Power that differs less from what the levels took says no more than they: these hold what is lost on the way into the battery, too. */
const SAME_PACE = 0.15;
/** A reading that slipped must not stop or race the projection. */
const PACE = { low: 0.15, high: 1.6 };

const within = (pace: number): number => (Number.isFinite(pace) ? Math.min(PACE.high, Math.max(PACE.low, pace)) : 1);

/** By levels alone: the minutes expected over those it took, of the latest stretch that is long enough; a neighbour who came changes what is to come. */
function paceOfLevels(limits: Limits, battery: Battery, levels: readonly Level[]): number {
  const last = levels.at(-1);
  if (!last) return 1;
  // A level that stands still tells as much as one that rises, once it should have risen.
  const rise = (l: Level) => Math.max(last.socPct, levelAfter(limits, l.socPct, last.min - l.min, battery)) - l.socPct;
  const from = levels.findLast((l) => last.min - l.min >= LEAST.min && rise(l) >= LEAST.pct);
  if (!from) return 1;
  const to = last.socPct - from.socPct >= LEAST.pct ? last.socPct : Math.min(100, last.socPct + UNSEEN_RISE_PCT);
  return within((minutesFor(limits, from.socPct, to, battery) ?? Number.NaN) / (last.min - from.min));
}

/**
 * How much of the expected power comes: by what the levels took, or by the power shown with the last of them or after it where that says
 * something else. 1 where too little was read, 0 where no power was shown.
 */
export function paceSoFar(limits: Limits, battery: Battery, levels: readonly Level[], shown: Shown | null = null): number {
  const last = levels.at(-1);
  const pace = paceOfLevels(limits, battery, levels);
  if (!last || !shown || shown.min < RAMP_MIN || shown.min < last.min - SAME_LOOK_MIN) return pace;
  if (shown.kW <= 0) return 0;
  const socPct = levelAfter(pacedLimits(limits, pace), last.socPct, Math.max(0, shown.min - last.min), battery);
  const now = within(shown.kW / (limits.kWAt(socPct)?.kW ?? Number.NaN));
  return Math.abs(now - pace) <= SAME_PACE * pace ? pace : now;
}

export type Projection = { limits: Limits; pace: number /** The level now, from the last reading on. */; nowPct: number };

/** What is to come, from what has come: the limits at this session's pace, and the level that should stand on the screen now. @param now_min on the charging clock */
export function project(limits: Limits, battery: Battery, levels: readonly Level[], now_min: number, shown: Shown | null = null): Projection | null {
  const last = levels.at(-1);
  if (!last) return null;
  const pace = paceSoFar(limits, battery, levels, shown);
  const paced = pacedLimits(limits, pace);
  return { limits: paced, pace, nowPct: levelAfter(paced, last.socPct, Math.max(0, now_min - last.min), battery) };
}

/** A band of minutes about a projection: 80 % of past ones lay within. `held`: how often such bands, made beforehand, held. */
export type Spread = { low: number; high: number; n: number; held: number };
