import type { Counted } from './share-evidence';
import { Z_95 } from './tails';

/** Two groups in one stratum: by the same means and car, say. */
export type Stratum = readonly [Counted, Counted];
const both = (strata: readonly Stratum[]): Stratum[] => strata.filter(([a, b]) => a.n > 0 && b.n > 0);

/**
 * The difference of two shares, like held against like: each stratum weighted by n₁n₂/(n₁+n₂). Strata with one of them alone compare nothing.
 * Sources: N. Mantel & W. Haenszel, JNCI 22 (1959); weights and variance for a difference: W. G. Cochran 1954 (Σ w² (p₁q₁/n₁ + p₂q₂/n₂) / (Σ w)²), from memory.
 * @returns first less second with its 95 % limits, and how many visits it rests on; `null` where no stratum has both
 */
export function stratifiedDifference(strata: readonly Stratum[]): { difference: number; limits: [number, number]; n: number; strata: number } | null {
  const used = both(strata);
  if (used.length === 0) return null;
  let [weight, difference, variance] = [0, 0, 0];
  for (const [a, b] of used) {
    const [p, q] = [a.yes / a.n, b.yes / b.n];
    const w = (a.n * b.n) / (a.n + b.n);
    weight += w;
    difference += w * (p - q);
    variance += w * w * ((p * (1 - p)) / a.n + (q * (1 - q)) / b.n);
  }
  const d = difference / weight;
  const half = (Z_95 * Math.sqrt(variance)) / weight;
  return { difference: d, limits: [Math.max(-1, d - half), Math.min(1, d + half)], n: used.reduce((s, [a, b]) => s + a.n + b.n, 0), strata: used.length };
}

/** The common odds ratio, first over second: Σ a d/N ÷ Σ b c/N. `null` where it is not defined. Source: Mantel & Haenszel 1959. */
export function commonOddsRatio(strata: readonly Stratum[]): number | null {
  let [over, under] = [0, 0];
  for (const [a, b] of both(strata)) {
    over += (a.yes * (b.n - b.yes)) / (a.n + b.n);
    under += ((a.n - a.yes) * b.yes) / (a.n + b.n);
  }
  return under > 0 ? over / under : null;
}
