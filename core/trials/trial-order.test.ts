import { trialSchema } from '../records/trial-schema';
import { bestVerdict, pairsOf, roundsFor } from './best-verdict';
import { plan } from './fixtures/trial-plan';
import { stepKey, stepsLeft, trialOrder } from './trial-order';

describe('the order of a trial', () => {
  it('is by lot within each round, each side once, the same from the same seed', () => {
    const order = trialOrder(plan({ rounds: 30 }));
    expect(order).toEqual(trialOrder(plan({ rounds: 30 })));
    for (let round = 1; round <= 30; round++)
      expect(
        order
          .filter((s) => s.round === round)
          .map((s) => s.side)
          .sort(),
      ).toEqual(['a', 'b']);
    expect(order.map((s) => s.round)).toEqual([...order.map((s) => s.round)].sort((a, b) => a - b));
    expect(trialOrder(plan({ rounds: 30, seed: 42 }))).not.toEqual(order);
  });
  it('favours nobody: over many seeds each of four stands in each place alike', () => {
    const sides = [0, 1, 2, 3].map((i) => ({ key: String(i), label: String(i), siteId: null }));
    const first: Record<string, number> = {};
    const SEEDS = 4000;
    for (let seed = 1; seed <= SEEDS; seed++) {
      const order = trialOrder(plan({ rounds: 2, seed, sides })).filter((s) => s.round === 2);
      for (const [place, { side }] of order.entries()) first[`${place}${side}`] = (first[`${place}${side}`] ?? 0) + 1;
    }
    // A quarter each; four standard errors of 4,000 draws are 2.7 points.
    for (const n of Object.values(first)) expect(Math.abs(n / SEEDS - 0.25)).toBeLessThan(0.03);
    expect(Object.keys(first)).toHaveLength(16);
  });
  it('what is done is left out, the rest keeps its order', () => {
    const order = trialOrder(plan());
    const done = new Set([stepKey(order[0]!), stepKey(order[3]!)]);
    expect(stepsLeft(plan(), done)).toEqual(order.filter((_, i) => i !== 0 && i !== 3));
    expect(stepsLeft(plan(), new Set(order.map(stepKey)))).toEqual([]);
  });
});

describe('the best verdict beforehand', () => {
  // Unanimous pairs: e = C(2n, n) / 2^n, five give 7.9, seven 26.8. Arithmetic.
  it('five rounds all one way say probably, seven clearly', () => {
    expect([4, 5, 6, 7].map((n) => bestVerdict(n, 2))).toEqual(['cannot_tell', 'probably', 'probably', 'clearly']);
    expect([roundsFor('probably', 2), roundsFor('clearly', 2)]).toEqual([5, 7]);
  });
  it('the best of four needs ten', () => {
    expect([pairsOf(2), pairsOf(3), pairsOf(4)]).toEqual([1, 3, 6]);
    expect([roundsFor('clearly', 4), bestVerdict(9, 4), bestVerdict(10, 4)]).toEqual([10, 'probably', 'clearly']);
  });
});

describe('the plan', () => {
  it.each([
    ['one side', { sides: plan().sides.slice(0, 1) }],
    ['five sides', { sides: [...plan().sides, ...plan().sides, plan().sides[0]] }],
    ['one side twice', { sides: [plan().sides[0], plan().sides[0]] }],
    ['no rounds', { rounds: 0 }],
    ['too many', { rounds: 31 }],
    ['half a round', { rounds: 1.5 }],
    ['a seed of none', { seed: 0 }],
    ['three observers', { observers: 3 }],
    ['a side without a name', { sides: [plan().sides[0], { key: 'x', label: ' ', siteId: null }] }],
  ])('refuses %s', (_, more) => expect(trialSchema.safeParse({ ...plan(), ...more }).success).toBe(false));
  it('is taken as it is', () => expect(trialSchema.parse(plan())).toEqual(plan()));
});
