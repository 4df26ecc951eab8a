import { quantile } from '../units/quantile';
import { type Battery, minutesFor } from './expected';
import { type Limits, pacedLimits } from './limits';
import { type Level, paceSoFar, type Shown, type Spread } from './projection';

/** Sessions before a band is said at all. */
const LEAST_SESSIONS = 5;
/** Less of the battery to come than this is no test of a projection. */
const LEAST_PCT = 10;

/**
 * How the rest of a session went against its projection made in its middle: minutes over projected minutes; `null` where too little was read.
 * @param levels with the power shown at each, where it was
 */
export function projectionRatio(limits: Limits, battery: Battery, levels: readonly (Level & Partial<Shown>)[]): number | null {
  const last = levels.at(-1);
  const from = levels[Math.floor((levels.length - 1) / 2)];
  if (!last || !from || levels.length < 4 || last.socPct - from.socPct < LEAST_PCT) return null;
  const before = levels.slice(0, Math.floor((levels.length - 1) / 2) + 1);
  const pace = paceSoFar(limits, battery, before, from.kW === undefined ? null : { min: from.min, kW: from.kW });
  const projected = minutesFor(pacedLimits(limits, pace), from.socPct, last.socPct, battery);
  return projected && last.min > from.min ? (last.min - from.min) / projected : null;
}

/**
 * The band in which 80 % of projections held, from past sessions in the order in which they came; and how often each
 * such band, made from the sessions before it alone, held the next one.
 */
export function spreadOf(ratios: readonly number[]): Spread | null {
  if (ratios.length < LEAST_SESSIONS) return null;
  const band = (of: readonly number[]) => [quantile(of, 0.1), quantile(of, 0.9)] as const;
  const tried = ratios.slice(LEAST_SESSIONS).map((r, i) => {
    const [low, high] = band(ratios.slice(0, LEAST_SESSIONS + i));
    return r >= low && r <= high;
  });
  const [low, high] = band(ratios);
  return {
    low: Math.min(1, low),
    high: Math.max(1, high),
    n: ratios.length,
    held: tried.length === 0 ? Number.NaN : tried.filter(Boolean).length / tried.length,
  };
}
