import { usedOnTheWay } from './consumption';

/** A way of so many km for so many per cent of 50 kWh. */
const used = (km: number, pct: number) => usedOnTheWay({ odometerKm: 1000, socPct: 90 }, { odometerKm: 1000 + km, socPct: 90 - pct }, 50);

describe('what a car used on the way here', () => {
  // 30 % of 50 kWh over 100 km: arithmetic.
  it('is the share of the battery over the way', () => expect(used(100, 30)).toBe(15));
  it('is told from 15 km and 5 % on', () => {
    expect([used(15, 5), used(14.9, 5), used(30, 5), used(30, 4.9)].map((x) => x !== null)).toEqual([true, false, true, false]);
  });
  it('is not told where it cannot be of one drive: charged between, or mistyped', () => {
    expect([used(50, 6), used(50.1, 6), used(50, 80), used(49.9, 80)].map((x) => x !== null)).toEqual([true, false, true, false]);
    expect([used(100, -10), used(-100, 20)]).toEqual([null, null]);
  });
});
