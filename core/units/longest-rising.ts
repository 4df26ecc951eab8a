/**
 * Positions of the longest subsequence that never falls; among equally long ones the one whose positions come first.
 * One typing error then costs one reading and not all after it. O(n log n).
 */
export function longestRising(values: readonly number[]): number[] {
  if (values.every((v, i) => i === 0 || v >= (values[i - 1] as number))) return values.map((_, i) => i);
  // From the end: the longest run that starts here, by the greatest value with which a run of each length can start.
  const startsWith: number[] = [];
  const lengths = new Array<number>(values.length);
  for (let i = values.length - 1; i >= 0; i--) {
    const v = values[i] as number;
    let [lo, hi] = [0, startsWith.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if ((startsWith[mid] as number) >= v) lo = mid + 1;
      else hi = mid;
    }
    startsWith[lo] = v;
    lengths[i] = lo + 1;
  }
  const kept: number[] = [];
  let [left, least] = [startsWith.length, Number.NEGATIVE_INFINITY];
  for (const [i, v] of values.entries()) {
    if (left > 0 && lengths[i] === left && v >= least) {
      kept.push(i);
      least = v;
      left -= 1;
    }
  }
  return kept;
}
