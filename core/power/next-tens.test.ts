import { limitsOf } from './limits';
import { nextTens } from './next-tens';

// 60 kWh at 20 kWh for 100 km and 60 kW: a per cent is 3 km and 36 s.
const battery = { usableKWh: 60 };
const limits = limitsOf({ car: { curve: [[0, 60]] }, stall: { kind: 'dc', plateKW: 60 } });

describe('the next tens', () => {
  const range = { usableKWh: 60, kWhPer100km: 20 };
  it('each is priced from the minute and the energy at which it begins', () => {
    const asked: unknown[] = [];
    nextTens(
      limits,
      battery,
      { socPct: 75, connected_min: 4 },
      (...all) => asked.push(all.map((x) => (typeof x === 'number' ? Math.round(x * 1e6) / 1e6 : x))),
      range,
    );
    expect(asked).toEqual([
      [3, 3, 4, { min: 0, kWh: 0 }],
      [6, 6, 7, { min: 3, kWh: 3 }],
      [6, 6, 13, { min: 9, kWh: 9 }],
    ]);
  });
  it('what is not known is not told beside what is', () => {
    const first = (cost: Parameters<typeof nextTens>[3], by: Parameters<typeof nextTens>[4]) => nextTens(limits, battery, { socPct: 80 }, cost, by)[0];
    expect(first(() => 3, range)).toMatchObject({ money: 3, range_km: 30, range_km_per_min: 5, money_per_100km: 10 });
    expect(first(null, range)).toMatchObject({ money: null, moneySoFar: null, money_per_100km: null, range_km_per_min: 5 });
    expect(first(() => 3, { usableKWh: 60, kWhPer100km: null })).toMatchObject({ money: 3, range_km: null, range_km_per_min: null, money_per_100km: null });
    const never = nextTens(
      limitsOf({
        car: {
          curve: [
            [0, 60],
            [85, 0],
          ],
        },
        stall: { kind: 'dc' },
      }),
      battery,
      { socPct: 80 },
      () => 3,
      range,
    );
    expect(never).toEqual([
      expect.objectContaining({ to: 90, minutes: null, money: null, minutesSoFar: null, range_km: 30, range_km_per_min: null, money_per_100km: null }),
    ]);
  });
});
