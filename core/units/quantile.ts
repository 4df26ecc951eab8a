/**
 * Quantiles of type 7: h = (n−1)p, linear between the order statistics around h.
 * Values may be `Infinity`: "never", beyond every time. A quantile that falls between a finite value and a
 * never is itself never.
 * Source: Hyndman & Fan, The American Statistician 50 (1996), definition 7; the default of R's `quantile`. O(n log n), once for all of them.
 * @param values at least one, in any order
 * @param ps each 0…1
 * @throws RangeError without values or with a p outside 0…1
 */
export function quantiles<P extends readonly number[]>(values: readonly number[], ps: P): { [K in keyof P]: number } {
  if (values.length === 0 || ps.some((p) => !(p >= 0 && p <= 1))) throw new RangeError('a quantile needs values and 0 ≤ p ≤ 1');
  const sorted = Float64Array.from(values).sort();
  return ps.map((p) => {
    const h = (sorted.length - 1) * p;
    const i = Math.floor(h);
    const lo = sorted[i] as number;
    const part = h - i;
    if (part === 0) return lo;
    const hi = sorted[i + 1] as number;
    return hi === Number.POSITIVE_INFINITY ? hi : lo + part * (hi - lo);
  }) as { [K in keyof P]: number };
}

/** One of them. */
export const quantile = (values: readonly number[], p: number): number => quantiles(values, [p] as const)[0];
