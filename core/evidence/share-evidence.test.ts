import degrees from './fixtures/degrees.json';
import { everReached } from './fixtures/ever';
import { CLEARLY, degreeOf, logPairEvidence, logShareFactor, PROBABLY } from './share-evidence';

type Case = (typeof degrees.cases)[number];
const of = (kind: string) => degrees.cases.filter((c) => c.kind === kind) as Required<Case>[];

describe('evidence for a difference', () => {
  // Fixture: computed apart from this code, closed form against numerical integration; relative 1e-9 on the log.
  it.each(of('shares').map((c) => [JSON.stringify(c.groups), c] as const))('shares %s', (_, c) => {
    expect(logShareFactor(c.groups)).toBeCloseTo(c.log_bayes_factor, 9);
  });
  it.each(of('pairs').map((c) => [`${c.first_quicker} of ${c.decided}`, c] as const))('pairs, %s', (_, c) => {
    expect(logPairEvidence(c.first_quicker, c.decided)).toBeCloseTo(c.log_e, 9);
  });
  it('all pairs one way: C(2n, n) / 2^n', () => {
    // Central binomial coefficients: 252, 3432, 184756; any table of them.
    expect(Math.exp(logPairEvidence(5, 5))).toBeCloseTo(252 / 32, 9);
    expect(Math.exp(logPairEvidence(0, 7))).toBeCloseTo(3432 / 128, 9);
    expect(Math.exp(logPairEvidence(10, 10))).toBeCloseTo(184756 / 1024, 8);
    expect(logPairEvidence(0, 0)).toBe(0);
  });
  it('of one group, and of none, is none', () => {
    expect(logShareFactor([])).toBe(0);
    expect(logShareFactor([{ yes: 3, n: 9 }])).toBeCloseTo(0, 12);
    expect(
      logShareFactor([
        { yes: 3, n: 9 },
        { yes: 0, n: 0 },
      ]),
    ).toBeCloseTo(0, 12);
  });
  it('ten thousand visits are counted in a moment, and stay finite', () =>
    expect(
      logShareFactor([
        { yes: 9000, n: 10_000 },
        { yes: 8900, n: 10_000 },
      ]),
    ).toBeGreaterThan(-5));
  it.each([
    [4, 3],
    [-1, 3],
    [0.5, 3],
    [1, 2.5],
    [Number.NaN, 3],
  ])('%s of %s is no share', (yes, n) => {
    expect(() => logShareFactor([{ yes, n }])).toThrow(RangeError);
    expect(() => logPairEvidence(yes, n)).toThrow(RangeError);
  });
});

describe('looked at after every visit', () => {
  // Fixture: exact recursion in another program; 1e-9. What lies exactly at a threshold its rounding put on either side: ours must lie around it.
  it.each([...of('ever'), ...of('power')].map((c) => [`${c.title ?? 'power'} at ${c.share ?? c.shares}, ${c.threshold}`, c] as const))('%s', (_, c) => {
    const shares = (c.shares ?? [c.share, c.share]) as [number, number];
    const [least, most] = [1e-9, -1e-9].map((slack) => everReached(c.order, shares, c.threshold, slack)) as [number, number];
    expect(c.chance).toBeGreaterThan(least - 1e-9);
    expect(c.chance).toBeLessThan(most + 1e-9);
    if (/^(AB)+$/.test(c.order)) expect(most).toBeCloseTo(least, 9);
  });
  it('equal networks are called clearly different in at most 5 of 100 ledgers, probably in at most 20, over all shares', () => {
    const order = 'AB'.repeat(40);
    for (const share of [0.05, 0.3, 0.5, 0.7, 0.9]) {
      expect(everReached(order, [share, share], CLEARLY)).toBeLessThan(0.05);
      expect(everReached(order, [share, share], PROBABLY)).toBeLessThan(0.2);
    }
  });
});

describe('a degree', () => {
  it.each([
    [24, 1, 'clearly'],
    [23.99, 1, 'probably'],
    [7, 1, 'probably'],
    [6.99, 1, 'cannot_tell'],
    [24 * 6, 6, 'clearly'],
    [24 * 6 - 1, 6, 'probably'],
    [7 * 6 - 1, 6, 'cannot_tell'],
    [30, 0, 'clearly'],
  ] as const)('evidence of %s, picked of %s: %s', (evidence, looked, degree) => expect(degreeOf(Math.log(evidence) + 1e-12, looked)).toBe(degree));
});
