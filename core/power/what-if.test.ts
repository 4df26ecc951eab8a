import { usedOnTheWay } from './consumption';
import { whatIf } from './what-if';

const setting = {
  car: {
    usableKWh: 60,
    curve: [
      [0, 120],
      [50, 120],
      [100, 20],
    ] as [number, number][],
  },
  stall: { kind: 'dc' as const, plateKW: 60 },
};
const asked = { setting, battery: { usableKWh: 60 }, from: 20, to: 60, range: { usableKWh: 60, kWhPer100km: 20 }, faster: null, handshake_min: 1.5 };

describe('what if', () => {
  it('a stop at a slow post, and ten minutes longer', () => {
    // 24 kWh at 60 kW are 24 min; ten minutes more at 60 kW are 10 kWh of 60.
    const [now, longer, two] = whatIf(asked);
    expect(now).toMatchObject({ minutes: 24, meter_kWh: 24, range_km: 120, stops: 1 });
    expect(longer?.to).toBeCloseTo(60 + 1000 / 60, 3);
    // At a level post two short stops gain nothing and cost a handshake.
    expect(two).toMatchObject({ minutes: 24, besides_min: 1.5, stops: 2 });
  });
  it('a faster post, where the car’s own curve then binds; past half two short stops are quicker', () => {
    const long = whatIf({ ...asked, to: 100, faster: { setting: { ...setting, stall: { kind: 'dc', plateKW: 300 } }, name: 'Hollin Bridge, 300 kW' } });
    expect(long.map((w) => w.name)).toEqual(['This stop', 'Hollin Bridge, 300 kW', 'Two short stops']);
    expect(long[1]?.heldBackBy.map((h) => h.limit)).toEqual(['car_curve']);
    expect(long[2]?.minutes as number).toBeLessThan(long[0]?.minutes as number);
  });
});

describe('what was used on the way in', () => {
  // 40 % of 62 kWh over 138 km are 18 kWh/100 km.
  it.each([
    ['a drive', { odometerKm: 1000, socPct: 80 }, { odometerKm: 1138, socPct: 40 }, 17.97],
    ['too short a way', { odometerKm: 1000, socPct: 80 }, { odometerKm: 1014, socPct: 70 }, null],
    ['too little of the battery', { odometerKm: 1000, socPct: 80 }, { odometerKm: 1040, socPct: 76 }, null],
    ['charged between', { odometerKm: 1000, socPct: 40 }, { odometerKm: 1200, socPct: 60 }, null],
    ['an odometer mistyped', { odometerKm: 1000, socPct: 80 }, { odometerKm: 11380, socPct: 40 }, null],
    ['back from another car', { odometerKm: 1000, socPct: 80 }, { odometerKm: 900, socPct: 40 }, null],
  ])('%s', (_, left, here, want) => {
    const got = usedOnTheWay(left, here, 62);
    if (want === null) expect(got).toBeNull();
    else expect(got).toBeCloseTo(want, 2);
  });
});
