import { quantile } from '../units/quantile';
import quantiles from './fixtures/quantile.json';
import intervals from './fixtures/share-intervals.json';
import { wilsonInterval } from './wilson';

describe('Wilson’s interval', () => {
  // R. G. Newcombe, Two-sided confidence intervals for the single proportion, Statistics in Medicine 17 (1998),
  // table I, method 3 (score without continuity correction); quoted from memory.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('Newcombe’s %i of %i', (k, n, lo, hi) => {
    const [a, b] = wilsonInterval(k, n);
    expect(a).toBeCloseTo(lo, 4);
    expect(b).toBeCloseTo(hi, 4);
  });
  // Fixture: R 4.2.2, prop.test without continuity correction.
  it.each(intervals.cases.map((c) => [`${c.inputs.k} of ${c.inputs.n}`, c] as const))('R: %s', (_name, c) => {
    for (const level of ['0.95', '0.90'] as const)
      for (const [i, want] of c.expected[level].wilson.entries())
        expect(Math.abs((wilsonInterval(c.inputs.k, c.inputs.n, level)[i] as number) - want)).toBeLessThanOrEqual(1e-9);
  });
  // Exact: the chance of each count times whether its interval holds the share, over shares from 5 to 95 %. L. D. Brown et al. 2001, § 3.1.1.
  it.each([20, 40, 100])('covers 95 %% on average over shares, of %i visits', (n) => {
    let [sum, shares] = [0, 0];
    for (let p = 0.05; p < 0.951; p += 0.005) {
      let [covered, chance] = [0, (1 - p) ** n];
      for (let k = 0; k <= n; k++) {
        const [lo, hi] = wilsonInterval(k, n);
        if (lo <= p && p <= hi) covered += chance;
        chance *= ((n - k) / (k + 1)) * (p / (1 - p));
      }
      sum += covered;
      shares += 1;
    }
    expect(sum / shares).toBeGreaterThan(0.94);
    expect(sum / shares).toBeLessThan(0.97);
  });
  it('has exact ends and refuses what is no share', () => {
    expect(wilsonInterval(0, 5)[0]).toBe(0);
    expect(wilsonInterval(5, 5)[1]).toBe(1);
    expect(() => wilsonInterval(0, 0)).toThrow(RangeError);
    expect(() => wilsonInterval(6, 5)).toThrow(RangeError);
  });
});

describe('quantiles of type 7', () => {
  // Fixture: R 4.2.2, quantile(type = 7).
  it.each(quantiles.cases.map((c) => [c.label ?? c.x.join(' '), c] as const))('R: %s', (_name, c) => {
    for (const [i, p] of quantiles.probs.entries()) expect(quantile(c.x, p)).toBeCloseTo(c.quantiles[i] as number, 9);
  });
  it('never is beyond every time', () => {
    const never = Number.POSITIVE_INFINITY;
    expect(quantile([10, 20, never], 0.5)).toBe(20);
    expect(quantile([10, 20, never, never], 0.5)).toBe(never);
    expect(quantile([10, never, never], 0.5)).toBe(never);
    expect(quantile([never], 0.5)).toBe(never);
  });
  it('refuses an empty sample', () => expect(() => quantile([], 0.5)).toThrow(RangeError));
});
