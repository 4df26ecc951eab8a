/** Standard normal quantiles for the two-sided levels in use; 15 digits, from memory, checked in the tests through R's intervals. */
const Z = { '0.95': 1.95996398454005, '0.90': 1.64485362695147 } as const;
export type Level = keyof typeof Z;

/**
 * Wilson's score interval for a share, without continuity correction.
 *
 *   (p + z²/2n ± z √(p(1−p)/n + z²/4n²)) / (1 + z²/n),  p = k/n
 *
 * The lower end is exactly 0 when k = 0 and the upper exactly 1 when k = n.
 * Source: E. B. Wilson, JASA 22 (1927); R. G. Newcombe, Statistics in Medicine 17 (1998), method 3. O(1).
 * @param k successes, 0 ≤ k ≤ n
 * @param n trials, ≥ 1
 * @throws RangeError outside these
 */
export function wilsonInterval(k: number, n: number, level: Level = '0.95'): [number, number] {
  if (!(n >= 1) || k < 0 || k > n) throw new RangeError(`no share of ${k} in ${n}`);
  const z = Z[level];
  const p = k / n;
  const middle = p + (z * z) / (2 * n);
  const half = z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  const scale = 1 + (z * z) / n;
  return [k === 0 ? 0 : (middle - half) / scale, k === n ? 1 : (middle + half) / scale];
}
