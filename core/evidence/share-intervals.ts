import { betaBelow, betaQuantile, logBetaFunction } from './beta';
import type { Counted } from './share-evidence';

const check = (k: number, n: number): void => {
  if (!(n >= 1) || k < 0 || k > n) throw new RangeError(`no share of ${k} in ${n}`);
};

/**
 * The exact interval for a share: never covers less than it says, and is wide for it.
 * Source: C. J. Clopper & E. S. Pearson, Biometrika 26 (1934). @param level two-sided, 0.95 for 95 % @throws RangeError for no share
 */
export function clopperPearson(k: number, n: number, level = 0.95): [number, number] {
  check(k, n);
  const half = (1 - level) / 2;
  return [k === 0 ? 0 : betaQuantile(half, k, n - k + 1), k === n ? 1 : betaQuantile(1 - half, k + 1, n - k)];
}

/**
 * The equal-tailed interval of Beta(k + ½, n − k + ½), as it is: above 0 at none, below 1 at all.
 * Source: H. Jeffreys 1961; L. D. Brown, T. T. Cai & A. DasGupta, Statistical Science 16 (2001), § 4.1.1, without their change at the ends.
 */
export function jeffreysInterval(k: number, n: number, level = 0.95): [number, number] {
  check(k, n);
  const half = (1 - level) / 2;
  return [betaQuantile(half, k + 0.5, n - k + 0.5), betaQuantile(1 - half, k + 0.5, n - k + 0.5)];
}

/**
 * Chance that the first share is the greater, each with a uniform prior, were every visit like every other. No visits: nothing known.
 * Sum over the second's whole parameters: Σ B(a₁+i, b₁+b₂) / ((b₂+i) B(1+i, b₂) B(a₁, b₁)) is the chance that the second is greater;
 * the smaller of the two is summed, so that it keeps its digits. O(min n).
 */
export function chanceGreater(first: Counted, second: Counted): number {
  const greater = (x: Counted, y: Counted): number => {
    const [a1, b1, a2, b2] = [1 + y.yes, 1 + y.n - y.yes, 1 + x.yes, 1 + x.n - x.yes];
    // From one term to the next by its ratio, in logs: the first may be too small for a double.
    let log = logBetaFunction(a1, b1 + b2) - Math.log(b2) - logBetaFunction(1, b2) - logBetaFunction(a1, b1);
    let sum = 0;
    for (let i = 0; i < a2; i++) {
      sum += Math.exp(log);
      log += Math.log(((a1 + i) * (b2 + i)) / ((a1 + b1 + b2 + i) * (1 + i)));
    }
    return sum;
  };
  const share = ({ yes, n }: Counted) => (yes + 1) / (n + 2);
  return share(first) <= share(second) ? greater(first, second) : 1 - greater(second, first);
}

/** Chance that a share with this many of so many, each kind with half a visit added, is below a yardstick. */
export const chanceBelow = ({ yes, n }: Counted, yardstick: number): number => betaBelow(yardstick, yes + 0.5, n - yes + 0.5);
