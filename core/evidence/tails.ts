import { continuedFraction, logGamma } from './beta';

/** Upper tail of the gamma distribution of shape a: series below a + 1, else the fraction. Source: NIST DLMF 8.7.1 and 8.9.2. */
function gammaAbove(x: number, a: number): number {
  if (x <= 0) return 1;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x >= a + 1) return front / continuedFraction(x + 1 - a, (i) => [-i * (i - a), x + 2 * i + 1 - a]);
  let term = 1 / a;
  let sum = term;
  for (let n = 1; Math.abs(term) > 1e-17 * sum; n++) {
    term *= x / (a + n);
    sum += term;
  }
  return 1 - front * sum;
}

/** Chance that chi-square with so many degrees of freedom is at least x. */
export const chiSquareAbove = (x: number, df: number): number => gammaAbove(x / 2, df / 2);

/** Chance that a standard normal lies as far from 0 as z or farther, to both sides. */
export const normalBeyond = (z: number): number => gammaAbove((z * z) / 2, 0.5);

/** Standard normal 97.5 % quantile; 15 digits, from memory, checked in the tests through R's limits. */
export const Z_95 = 1.95996398454005;
