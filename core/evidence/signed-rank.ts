import { atMost, discreteQuantile, middle, midRanks } from './ranks';
import { normalBeyond } from './tails';

/** `null`: not defined. Differences are the first of a pair less the second. */
export type SignedRank = {
  method: 'exact' | 'normal';
  /** Pairs that differ. */
  used: number;
  /** Sum of the ranks of those in which the first is greater. */
  v: number;
  p: number | null;
  /** The same over all ways to turn the signs, ties as they are. */
  pExact: number;
  /** The least p that so many pairs can give at all: three cannot go below 0.25. */
  least: number;
  medianDifference: number;
  /** Median of all means of two differences (Hodges–Lehmann), with its limits and the level they have. */
  pseudomedian: number;
  limits: [number, number];
  level: number;
  /** Two-sided p of the signs alone. */
  signTest: number | null;
};

const EXACT_BELOW = 50;

/** Chances of each sum when every rank is in or out by a fair coin. @param ranks whole */
function signChances(ranks: readonly number[]): number[] {
  const chances = new Float64Array(ranks.reduce((a, b) => a + b, 0) + 1);
  chances[0] = 1;
  let top = 0;
  for (const rank of ranks) {
    top += rank;
    for (let s = top; s >= 0; s--) chances[s] = ((chances[s] as number) + (s >= rank ? (chances[s - rank] as number) : 0)) / 2;
  }
  return [...chances];
}
const oneTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i + 1);

/**
 * Whether of two in pairs one is the longer. Differences of nothing are dropped from the test, not from the median.
 * Differences closer than a billionth are one: decimals subtracted leave dust.
 * Source: F. Wilcoxon 1945; as R's wilcox.test(paired = TRUE), limits by the ordered means of two.
 * @throws RangeError without pairs
 */
export function signedRank(differences: readonly number[]): SignedRank {
  const n = differences.length;
  if (n === 0) throw new RangeError('a signed rank needs pairs');
  const d = differences.map((v) => Math.round(v * 1e9) / 1e9);
  const apart = d.filter((v) => v !== 0);
  const used = apart.length;
  const { ranks, ties } = midRanks(apart.map(Math.abs));
  const v = ranks.reduce((sum, rank, i) => sum + ((apart[i] as number) > 0 ? rank : 0), 0);
  const expected = (used * (used + 1)) / 4;
  // Mid-ranks are halves: counted twice they are whole.
  const doubled = signChances(ranks.map((r) => 2 * r));
  const tail = Math.min(2 * v, doubled.length - 1 - 2 * v);
  const pExact = used === 0 ? 1 : Math.min(1, 2 * atMost(doubled, tail));
  const exact = used === n && ties === 0 && n < EXACT_BELOW;
  const sigma = Math.sqrt((used * (used + 1) * (2 * used + 1)) / 24 - ties / 48);
  const off = v - expected;
  const normal = sigma > 0 ? (off === 0 ? 1 : normalBeyond((off - 0.5 * Math.sign(off)) / sigma)) : null;
  const means = Float64Array.from(d.flatMap((a, i) => d.slice(i).map((b) => (a + b) / 2))).sort();
  const chances = signChances(oneTo(n));
  const q = Math.max(1, discreteQuantile(chances, 0.025));
  return {
    method: exact ? 'exact' : 'normal',
    used,
    v,
    p: exact ? pExact : normal,
    pExact,
    least: Math.min(1, 2 ** (1 - used)),
    medianDifference: middle(Float64Array.from(d).sort()),
    pseudomedian: middle(means),
    limits: [means[q - 1] as number, means[means.length - q] as number],
    level: 1 - 2 * atMost(chances, q - 1),
    signTest: used === 0 ? null : signTest(apart.filter((v) => v > 0).length, used),
  };
}

/** Two-sided p of so many heads of a fair coin. */
function signTest(heads: number, of: number): number {
  const chances = signChances(Array<number>(of).fill(1));
  return Math.min(1, 2 * atMost(chances, Math.min(heads, of - heads)));
}
