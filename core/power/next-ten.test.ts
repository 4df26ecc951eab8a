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
  it('by the last look that showed less and was earlier: one that came late, and the same level again, tell no pace', () => {
    const looks = [
      { t: 0, socPct: 20 },
      { t: 10 * min, socPct: 40 },
    ];
    const then = { t: 20 * min, socPct: 45 };
    const at = (...more: { t: number; socPct: number }[]) => nextTen([...looks, ...more, then], null, null)?.at;
    expect(at()).toBe(30 * min);
    expect([at({ t: 15 * min, socPct: 45 }), at({ t: 15 * min, socPct: 50 })]).toEqual([30 * min, 30 * min]);
    expect([at({ t: 20 * min, socPct: 42 }), at({ t: 21 * min, socPct: 42 })]).toEqual([30 * min, 30 * min]);
    expect(nextTen([{ t: 0, socPct: 45 }, then], null, null)).toBeNull();
    expect(nextTen([{ t: 0, socPct: 45 }, then], 60, 60)).toEqual({ pct: 50, at: 20 * min + 5 * 36_000 });
  });
  it('not when nothing tells, nor at the top', () => {
    expect(nextTen([{ t: 0, socPct: 25 }], null, 60)).toBeNull();
    expect(nextTen([{ t: 0, socPct: 25 }], 0, 60)).toBeNull();
    expect(nextTen([{ t: 0, socPct: 25 }], 60, null)).toBeNull();
    expect(nextTen([{ t: 0, socPct: 100 }], 60, 60)).toBeNull();
    expect(nextTen([], 60, 60)).toBeNull();
  });
});
