/**
 * Quantile of type 7: h = (n−1)p, linear between the order statistics around h.
 * Values may be `Infinity`: "never", beyond every time. A quantile that falls between a finite value and a
 * never is itself never.
 * Source: Hyndman & Fan, The American Statistician 50 (1996), definition 7; the default of R's `quantile`. O(n log n).
 * @param values at least one, in any order
 * @param p 0…1
 * @throws RangeError without values or with p outside 0…1
 */
export function quantile(values: readonly number[], p: number): number {
  if (values.length === 0 || !(p >= 0 && p <= 1)) throw new RangeError('a quantile needs values and 0 ≤ p ≤ 1');
  const sorted = [...values].sort((a, b) => (a === b ? 0 : a - b));
  const h = (sorted.length - 1) * p;
  const i = Math.floor(h);
  const lo = sorted[i] as number;
  const part = h - i;
  if (part === 0) return lo;
  const hi = sorted[i + 1] as number;
  return hi === Number.POSITIVE_INFINITY ? hi : lo + part * (hi - lo);
}
