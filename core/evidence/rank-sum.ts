import { atMost, discreteQuantile, middle, midRanks } from './ranks';
import { normalBeyond, Z_95 } from './tails';

/** `null`: not defined. `shift`: by how much the first are longer (Hodges–Lehmann), with its 95 % limits and the level they really have. */
export type RankSum = {
  method: 'exact' | 'normal';
  /** Pairs in which the first is the greater, ties half; and its share of all pairs. */
  w: number;
  auc: number;
  p: number | null;
  shift: number;
  limits: [number, number] | null;
  level: number;
};

/** From so many on either side the normal approximation is taken, as in R. */
const EXACT_BELOW = 50;

/** Chances of each w without ties: the number of ways to choose nx of the ranks with that sum. O(nx² ny). */
function rankSumChances(nx: number, ny: number): number[] {
  const ways = Array.from({ length: nx + 1 }, () => new Float64Array(nx * ny + 1));
  (ways[0] as Float64Array)[0] = 1;
  // The j-th value of the first stands above i values of the second: partitions into at most nx parts of at most ny.
  for (let value = 0; value < nx + ny; value++)
    for (let chosen = Math.min(nx, value + 1); chosen >= 1; chosen--) {
      // Taken as the chosen-th of the first, it is above value − (chosen − 1) of the second.
      const above = value - (chosen - 1);
      if (above > ny) continue;
      const [from, to] = [ways[chosen - 1] as Float64Array, ways[chosen] as Float64Array];
      for (let w = nx * ny; w >= above; w--) to[w] = (to[w] as number) + (from[w - above] as number);
    }
  const last = ways[nx] as Float64Array;
  const all = last.reduce((a, b) => a + b, 0);
  return Array.from(last, (v) => v / all);
}

/** z with continuity correction, for the first less d. */
function zOf(x: readonly number[], y: readonly number[], d: number): number | null {
  const { ranks, ties } = midRanks([...x.map((v) => v - d), ...y]);
  const [nx, ny] = [x.length, y.length];
  const n = nx + ny;
  const off = ranks.slice(0, nx).reduce((a, b) => a + b, 0) - (nx * (nx + 1)) / 2 - (nx * ny) / 2;
  const sigma = Math.sqrt(((nx * ny) / 12) * (n + 1 - ties / (n * (n - 1))));
  return sigma > 0 ? (off - 0.5 * Math.sign(off)) / sigma : null;
}

/**
 * Two-sided rank-sum test of two sets of waits, and by how much the first are longer.
 * Exact without ties below fifty each; else normal with the correction for continuity and ties. Where 95 % cannot be reached, the limits
 * are the whole range and `level` says what they have. All values equal: no p, no limits.
 * Source: H. B. Mann & D. R. Whitney 1947; J. L. Hodges & E. L. Lehmann 1963; as R's wilcox.test(conf.int = TRUE).
 * @param x, y each at least one @throws RangeError without
 */
export function rankSum(x: readonly number[], y: readonly number[]): RankSum {
  const [nx, ny] = [x.length, y.length];
  if (nx === 0 || ny === 0) throw new RangeError('a rank sum needs two sets of values');
  const { ranks, ties } = midRanks([...x, ...y]);
  const w = ranks.slice(0, nx).reduce((a, b) => a + b, 0) - (nx * (nx + 1)) / 2;
  const differences = new Float64Array(nx * ny);
  for (const [i, a] of x.entries()) for (const [j, b] of y.entries()) differences[i * ny + j] = a - b;
  differences.sort();
  const shift = middle(differences);
  const auc = w / (nx * ny);
  if (ties === 0 && nx < EXACT_BELOW && ny < EXACT_BELOW) {
    const chances = rankSumChances(nx, ny);
    const smaller = w > (nx * ny) / 2 ? atMost(chances, nx * ny - w) : atMost(chances, w);
    const q = Math.max(1, discreteQuantile(chances, 0.025));
    return {
      method: 'exact',
      w,
      auc,
      p: Math.min(1, 2 * smaller),
      shift,
      limits: [differences[q - 1] as number, differences[nx * ny - q] as number],
      level: 1 - 2 * atMost(chances, q - 1),
    };
  }
  const z = zOf(x, y, 0);
  if (z === null) return { method: 'normal', w, auc, p: null, shift, limits: null, level: 0.95 };
  return { method: 'normal', w, auc, p: w === (nx * ny) / 2 ? 1 : normalBeyond(z), shift, limits: shiftLimits(x, y, differences), level: 0.95 };
}

/** The differences at which z crosses its 97.5 % quantile, up and down: z steps at each difference and falls, so they are found by halving. */
function shiftLimits(x: readonly number[], y: readonly number[], differences: Float64Array): [number, number] {
  const steps = differences.filter((d, i) => i === 0 || d !== differences[i - 1]);
  /** z between the i-th difference and the next. */
  const after = (i: number): number => zOf(x, y, i + 1 < steps.length ? ((steps[i] as number) + (steps[i + 1] as number)) / 2 : (steps[i] as number) + 1) ?? 0;
  /** The first difference after which z is at most, or below, a bound. */
  const first = (bound: number): number => {
    let [lo, hi] = [0, steps.length - 1];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (after(mid) <= bound) hi = mid;
      else lo = mid + 1;
    }
    return steps[lo] as number;
  };
  return [first(Z_95), first(-Z_95)];
}
