/** Lanczos' coefficients for g = 7; from memory, checked in the tests against exact factorials and R. */
const G = 7;
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012,
  9.9843695780195716e-6, 1.5056327351493116e-7,
] as const;

/** log Γ(x), x > 0; about 14 digits. Source: C. Lanczos, SIAM J. Numer. Anal. B 1 (1964). */
export function logGamma(x: number): number {
  const z = x - 1;
  let sum: number = LANCZOS[0];
  for (let i = 1; i < LANCZOS.length; i++) sum += (LANCZOS[i] as number) / (z + i);
  const t = z + G + 0.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

/** log B(a, b). */
export const logBetaFunction = (a: number, b: number): number => logGamma(a) + logGamma(b) - logGamma(a + b);

const TINY = 1e-300;
/** Modified Lentz (W. J. Lentz, Applied Optics 15, 1976): the continued fraction b₀ + a₁/(b₁ + a₂/(b₂ + …)). */
export function continuedFraction(b0: number, term: (i: number) => readonly [a: number, b: number]): number {
  const off0 = (v: number) => (v === 0 ? TINY : v);
  let f = off0(b0);
  let c = f;
  let d = 0;
  for (let i = 1; i < 20_000; i++) {
    const [a, b] = term(i);
    d = 1 / off0(b + a * d);
    c = off0(b + a / c);
    f *= c * d;
    if (Math.abs(c * d - 1) < 1e-16) break;
  }
  return f;
}

/**
 * Chance that a share with distribution Beta(a, b) is at most x. Source: NIST DLMF 8.17.22. O(√max(a, b)).
 * @param a, b above 0 @throws RangeError for others
 */
export function betaBelow(x: number, a: number, b: number): number {
  if (!(a > 0 && b > 0)) throw new RangeError(`no Beta(${a}, ${b})`);
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  // Beyond the mean the other tail converges, and keeps its digits.
  if (x > (a + 1) / (a + b + 2)) return 1 - betaBelow(1 - x, b, a);
  const front = Math.exp(a * Math.log(x) + b * Math.log1p(-x) - logBetaFunction(a, b)) / a;
  const fraction = continuedFraction(1, (i) => {
    const m = Math.floor(i / 2);
    const d = i % 2 === 0 ? (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)) : (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    return [d, 1];
  });
  return front / fraction;
}

/** The share below which Beta(a, b) lies with chance p: by halving, so that it converges everywhere. */
export function betaQuantile(p: number, a: number, b: number): number {
  if (!(p >= 0 && p <= 1)) throw new RangeError(`no chance of ${p}`);
  let [lo, hi] = [0, 1];
  for (let i = 0; i < 200 && hi - lo > 1e-15 * hi; i++) {
    const x = (lo + hi) / 2;
    if (betaBelow(x, a, b) < p) lo = x;
    else hi = x;
  }
  return (lo + hi) / 2;
}
