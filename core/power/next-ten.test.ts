import { nextTen } from './next-ten';

const min = 60_000;
describe('the next full ten', () => {
  it('by the pace of the last two readings', () => {
    expect(
      nextTen(
        [
          { t: 0, socPct: 20 },
          { t: 10 * min, socPct: 40 },
          { t: 14 * min, socPct: 46 },
        ],
        null,
        null,
      ),
    ).toEqual({ pct: 50, at: 14 * min + 4 * min * (4 / 6) });
  });
  // 60 kW into 60 kWh is one per cent in 36 s: arithmetic.
  it('by power over capacity when there is one reading', () => expect(nextTen([{ t: 0, socPct: 25 }], 60, 60)).toEqual({ pct: 30, at: 5 * 36_000 }));
  it('from a full ten to the next one', () => expect(nextTen([{ t: 0, socPct: 30 }], 60, 60)?.pct).toBe(40));
  it('not when nothing tells, nor at the top', () => {
    expect(nextTen([{ t: 0, socPct: 25 }], null, 60)).toBeNull();
    expect(nextTen([{ t: 0, socPct: 100 }], 60, 60)).toBeNull();
    expect(nextTen([], 60, 60)).toBeNull();
  });
});
