import { battery, car, dc } from './fixtures/stay-asked';
import { limitsOf } from './limits';
import { projectionRatio, spreadOf } from './projection-error';

const FIVE = [1, 1.1, 0.9, 1.2, 0.8];

describe('the band in which projections held', () => {
  // Quantiles of five equally spaced values by linear interpolation (Hyndman and Fan 1996, type 7): 0.84 and 1.16.
  it('is no band under five sessions, and has held nothing yet at five', () => {
    expect(spreadOf(FIVE.slice(1))).toBeNull();
    expect(spreadOf(FIVE)).toEqual({ low: expect.closeTo(0.84, 9), high: expect.closeTo(1.16, 9), n: 5, held: Number.NaN });
  });
  it('is held against the next session as it was made of those before it', () => {
    const held = (...more: number[]) => spreadOf([...FIVE, ...more])?.held;
    expect([held(1.17), held(1.15), held(0.83), held(0.85)]).toEqual([0, 1, 0, 1]);
    // The sixth widened it to 1.185: the seventh is within, the eighth beyond.
    expect(held(1.17, 1.18)).toBe(0.5);
    expect(held(1.17, 1.19)).toBe(0);
  });
  it('holds at its very edge', () => {
    expect(spreadOf([1, 1, 1, 1, 1, 1])?.held).toBe(1);
    // A band never leaves out the projection itself.
    expect(spreadOf([1.2, 1.2, 1.2, 1.2, 1.2])).toMatchObject({ low: 1, high: 1.2 });
    expect(spreadOf([0.9, 0.9, 0.9, 0.9, 0.9])).toMatchObject({ low: 0.9, high: 1 });
  });
});

describe('how projections held', () => {
  it('is said from five sessions on, and tried on the sessions that came after', () => {
    expect(spreadOf([1, 1, 1, 1])).toBeNull();
    expect(spreadOf([1, 1, 1, 1, 1])).toEqual({ low: 1, high: 1, n: 5, held: Number.NaN });
    const spread = spreadOf([0.9, 1, 1.1, 1.2, 0.95, 1.05, 3]);
    expect(spread?.n).toBe(7);
    expect(spread?.held).toBe(0.5);
    expect(spread?.low).toBeLessThan(1);
    expect(spread?.high).toBeGreaterThan(1.2);
  });
  it('a session that goes on as it began has a ratio of one', () => {
    const limits = limitsOf({ car, stall: dc(60) });
    const levels = [20, 30, 40, 50, 60].map((socPct, i) => ({ min: i * 6.2, socPct }));
    expect(projectionRatio(limits, battery, levels)).toBeCloseTo(1, 6);
    expect(projectionRatio(limits, battery, levels.slice(0, 3))).toBeNull();
    const slower = [...levels.slice(0, 3), { min: 24.8, socPct: 50 }, { min: 37.2, socPct: 60 }];
    expect(projectionRatio(limits, battery, slower)).toBeCloseTo(2, 6);
  });
});
