import { quantile } from '../units/quantile';
import { LEAST_DELTA_PCT } from '../visit/sense-limits';

export type MeteredCharge = { deltaPct: number; kWh: number; efficiency?: number | undefined };
export type UsableBattery = { chargesUsed: number } & (
  | { usableKWh: null; why: string }
  | { usableKWh: number; slopes: number; interval: readonly [number, number]; healthPct: number | null }
);

const LEAST_CHARGES = 6;
/** Two-sided 95 % of the normal distribution. */
const Z = 1.959963984540054;

/** Groups of equal values: how many of each. */
function tiesOf(values: readonly number[]): number[] {
  const count = new Map<number, number>();
  for (const v of values) count.set(v, (count.get(v) ?? 0) + 1);
  return [...count.values()];
}

/**
 * kWh between 0 and 100 %, from own charges: the median slope of kWh over per cent among all pairs, so that what every
 * charge loses at its start does not enter. With its 95 % interval.
 * Source: P. K. Sen, J. Am. Stat. Assoc. 63 (1968), 1379–1389. O(n² log n).
 * @param newKWh what it held when new, for the share that is left
 */
export function usableBattery(charges: readonly MeteredCharge[], newKWh: number | null = null): UsableBattery {
  const used = charges.filter((c) => c.deltaPct >= LEAST_DELTA_PCT).map((c) => ({ x: c.deltaPct, y: c.kWh * (c.efficiency ?? 1) }));
  const chargesUsed = used.length;
  if (chargesUsed < LEAST_CHARGES) return { chargesUsed, usableKWh: null, why: `fewer than ${LEAST_CHARGES} charges of ${LEAST_DELTA_PCT} % or more` };
  const slopes = used.flatMap((a, i) => used.slice(i + 1).flatMap((b) => (a.x === b.x ? [] : [(b.y - a.y) / (b.x - a.x)]))).sort((a, b) => a - b);
  const n = chargesUsed;
  const count = slopes.length;
  if (count === 0) return { chargesUsed, usableKWh: null, why: 'all charges filled the same part of the battery' };
  const tied = [...tiesOf(used.map((u) => u.x)), ...tiesOf(used.map((u) => u.y))].reduce((sum, k) => sum + k * (k - 1) * (2 * k + 5), 0);
  const reach = Z * Math.sqrt(Math.max(0, n * (n - 1) * (2 * n + 5) - tied) / 18);
  const lower = Math.max(Math.round((count - reach) / 2) - 1, 0);
  const upper = Math.min(Math.round((count + reach) / 2), count - 1);
  const usableKWh = 100 * quantile(slopes, 0.5);
  return {
    chargesUsed,
    usableKWh,
    slopes: count,
    interval: [100 * (slopes[lower] as number), 100 * (slopes[upper] as number)],
    healthPct: newKWh === null ? null : (100 * usableKWh) / newKWh,
  };
}
