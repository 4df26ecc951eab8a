import { betaQuantile } from './beta';
import type { Counted } from './share-evidence';
import { jeffreysInterval } from './share-intervals';

/** How the shares of many groups lie together, and what each is then taken to be. */
export type Shrunk = {
  /**
   * `interior`: they differ, by Beta(a, b). `homogeneous`: no more than chance makes them differ: one share for all.
   * `polarised`: each is all or nothing. `same`: all succeeded, or none. `single`: one visit each, which tells of no difference.
   */
  kind: 'interior' | 'homogeneous' | 'polarised' | 'same' | 'single';
  a: number | null;
  b: number | null;
  mean: number | null;
  logLikelihood: number;
  /** In the order of the groups; `null` where it cannot be told. */
  shares: (number | null)[];
  intervals: ([number, number] | null)[];
};

const sumUp = (n: number, term: (i: number) => number): number => {
  let sum = 0;
  for (let i = 0; i < n; i++) sum += term(i);
  return sum;
};

/** log of the number of ways to choose k of n. */
const logWays = (k: number, n: number): number => sumUp(k, (i) => Math.log((n - i) / (i + 1)));

/**
 * Shares of groups with few visits, pulled towards what all of them show, the more the fewer they have: empirical Bayes with a
 * beta-binomial, its two parameters by maximum likelihood (their own uncertainty is not in the intervals).
 * In μ = a/(a+b) and φ = 1/(a+b) the likelihood is smooth to φ = 0, where the groups have one share.
 * Source: M. Griffiths, Biometrics 29 (1973); B. Efron & C. Morris, JASA 70 (1975) for the idea. Bounded searches, no start values.
 * @param groups those without visits are given what all show
 * @throws RangeError without any visit
 */
export function shrunkShares(groups: readonly Counted[]): Shrunk {
  const [yes, n] = [groups.reduce((s, g) => s + g.yes, 0), groups.reduce((s, g) => s + g.n, 0)];
  if (n === 0) throw new RangeError('no visit in any group');
  const pooled = yes / n;
  const ways = groups.reduce((s, g) => s + logWays(g.yes, g.n), 0);
  const likelihood = (mu: number, phi: number): number =>
    ways +
    groups.reduce(
      (s, g) =>
        s + sumUp(g.yes, (i) => Math.log(mu + i * phi)) + sumUp(g.n - g.yes, (i) => Math.log(1 - mu + i * phi)) - sumUp(g.n, (i) => Math.log1p(i * phi)),
      0,
    );
  const flat = (
    kind: Shrunk['kind'],
    mean: number | null,
    logLikelihood: number,
    share: (g: Counted) => number | null,
    interval: Shrunk['intervals'][0],
  ): Shrunk => ({
    kind,
    a: null,
    b: null,
    mean,
    logLikelihood,
    shares: groups.map(share),
    intervals: groups.map(() => interval),
  });
  if (yes === 0 || yes === n) return flat('same', pooled, 0, () => pooled, null);
  const visited = groups.filter((g) => g.n > 0);
  if (visited.every((g) => g.n === 1)) return flat('single', pooled, likelihood(pooled, 0), () => null, null);
  if (visited.every((g) => g.yes === 0 || g.yes === g.n)) {
    const all = visited.filter((g) => g.yes > 0).length;
    const mu = all / visited.length;
    return flat('polarised', mu, all * Math.log(mu) + (visited.length - all) * Math.log(1 - mu), (g) => (g.n === 0 ? mu : g.yes / g.n), null);
  }
  // The slope in φ at one share for all: no greater spread than chance makes.
  const slope = groups.reduce((s, { yes: k, n: m }) => s + (k * (k - 1)) / (2 * pooled) + ((m - k) * (m - k - 1)) / (2 * (1 - pooled)) - (m * (m - 1)) / 2, 0);
  if (slope <= 0) return flat('homogeneous', pooled, likelihood(pooled, 0), () => pooled, jeffreysInterval(yes, n));
  const [mu, phi] = mostLikely(groups, likelihood);
  const [a, b] = [mu / phi, (1 - mu) / phi];
  return {
    kind: 'interior',
    a,
    b,
    mean: mu,
    logLikelihood: likelihood(mu, phi),
    shares: groups.map((g) => (a + g.yes) / (a + b + g.n)),
    intervals: groups.map((g) => [betaQuantile(0.025, a + g.yes, b + g.n - g.yes), betaQuantile(0.975, a + g.yes, b + g.n - g.yes)]),
  };
}

/** Where a falling function of x crosses 0, between two bounds. */
function crossing(f: (x: number) => number, lo: number, hi: number): number {
  let [a, b] = [lo, hi];
  for (let i = 0; i < 80; i++) {
    const x = (a + b) / 2;
    if (f(x) > 0) a = x;
    else b = x;
  }
  return (a + b) / 2;
}

/** μ and φ of the greatest likelihood: over φ the best of a grid, then where the slope along the best μ is none. */
function mostLikely(groups: readonly Counted[], likelihood: (mu: number, phi: number) => number): [mu: number, phi: number] {
  // For each φ the likelihood is concave in μ.
  const muAt = (phi: number) =>
    crossing((mu) => groups.reduce((s, g) => s + sumUp(g.yes, (i) => 1 / (mu + i * phi)) - sumUp(g.n - g.yes, (i) => 1 / (1 - mu + i * phi)), 0), 0, 1);
  const slopeAt = (logPhi: number): number => {
    const phi = Math.exp(logPhi);
    const mu = muAt(phi);
    return groups.reduce(
      (s, g) => s + sumUp(g.yes, (i) => i / (mu + i * phi)) + sumUp(g.n - g.yes, (i) => i / (1 - mu + i * phi)) - sumUp(g.n, (i) => i / (1 + i * phi)),
      0,
    );
  };
  const grid = Array.from({ length: 51 }, (_, i) => -18.4 + (i * (18.4 + 7)) / 50);
  const best = grid.reduce((at, logPhi, i) => {
    const at2 = Math.exp(logPhi);
    return likelihood(muAt(at2), at2) > likelihood(muAt(Math.exp(grid[at] as number)), Math.exp(grid[at] as number)) ? i : at;
  }, 0);
  const logPhi = crossing(slopeAt, grid[Math.max(0, best - 1)] as number, grid[Math.min(grid.length - 1, best + 1)] as number);
  return [muAt(Math.exp(logPhi)), Math.exp(logPhi)];
}
