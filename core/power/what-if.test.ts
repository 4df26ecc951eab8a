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
const asked = { setting, battery: { usableKWh: 60 }, from: 20, to: 60, range: { usableKWh: 60, kWhPer100km: 20 }, others: [], handshake_min: 1.5 };

describe('what if', () => {
  it('a stop at a slow post, and ten minutes longer', () => {
    // 24 kWh at 60 kW are 24 min; ten minutes more at 60 kW are 10 kWh of 60.
    const [now, longer, two] = whatIf(asked);
    expect(now).toMatchObject({ minutes: 24, meter_kWh: 24, range_km: 120, stops: 1 });
    expect(longer?.to).toBeCloseTo(60 + 1000 / 60, 3);
    // At a level post two short stops gain nothing and cost a handshake.
    expect(two).toMatchObject({ minutes: 24, besides_min: 1.5, stops: 2 });
  });
  const post = (id: string, plateKW: number) => ({
    id,
    name: `${id}, ${plateKW} kW`,
    setting: { ...setting, stall: { kind: 'dc' as const, plateKW } },
    battery: asked.battery,
  });
  it('a quicker post, where the car’s own curve then binds; past half two short stops are quicker', () => {
    const long = whatIf({ ...asked, to: 100, others: [post('Hollin Bridge', 300)] });
    expect(long.map((w) => [w.name, w.elsewhere])).toEqual([
      ['This stop', null],
      ['Hollin Bridge, 300 kW', 'Hollin Bridge'],
      ['Two short stops', null],
    ]);
    expect(long[1]?.heldBackBy.map((h) => h.limit)).toEqual(['car_curve']);
    expect(long[2]?.minutes as number).toBeLessThan(long[0]?.minutes as number);
  });
  it('the quickest is told by what it gives this car: plates beyond the curve gain nothing, and of equals the first is named', () => {
    const names = (...plates: number[]) => whatIf({ ...asked, others: plates.map((kW, i) => post(`${i}`, kW)) }).map((w) => w.elsewhere);
    expect(names(100, 150, 300)).toEqual([null, null, '1', null]);
    expect(names(300, 150)).toEqual([null, null, '0', null]);
    // As quick as here, or slower.
    expect(names(60, 50)).toEqual([null, null, null]);
    // The car would be no quicker there: here the plate is more than it takes already.
    const strong = { ...setting, stall: { kind: 'dc' as const, plateKW: 150 } };
    expect(whatIf({ ...asked, setting: strong, others: [post('0', 350)] }).map((w) => w.elsewhere)).toEqual([null, null, null]);
  });
  it('each post by its own losses: alternating current here, direct there', () => {
    const ac = { car: setting.car, stall: { kind: 'ac' as const, plateKW: 11 } };
    const [here, , there] = whatIf({ ...asked, setting: ac, battery: { usableKWh: 60, efficiency: 0.9 }, others: [post('0', 60)] });
    // 24 kWh into the battery: 26.7 by the AC meter at 11 kW, 24 by the other at 60.
    expect(here?.meter_kWh).toBeCloseTo(24 / 0.9, 9);
    expect(here?.minutes).toBeCloseTo((24 / 0.9 / 11) * 60, 9);
    expect(there).toMatchObject({ elsewhere: '0', meter_kWh: 24, minutes: 24, mean_kW: 60 });
  });
  it('where nothing flows here another post still can', () => {
    const none = { car: { ...setting.car, V0: 600, V100: 800 }, stall: { kind: 'dc' as const, plateKW: 60, maxV: 500 } };
    const rows = whatIf({ ...asked, setting: none, others: [post('0', 60)] });
    expect(rows.map((w) => [w.name, w.minutes, w.range_km])).toEqual([
      ['This stop', null, 120],
      ['0, 60 kW', 24, 120],
      ['Two short stops', null, 120],
    ]);
  });
  it('longer by ten minutes, until full, or not told where the battery is all but full', () => {
    const names = (to: number) => whatIf({ ...asked, to }).map((w) => [w.name, w.to]);
    expect(names(95)[1]).toEqual(['Until full', 100]);
    expect(names(99.6).map(([n]) => n)).toEqual(['This stop', 'Two short stops']);
  });
  it('two short stops are twice the half, from the same low level; without consumption no range is told', () => {
    const [, , two] = whatIf({ ...asked, range: { usableKWh: 60, kWhPer100km: null } });
    expect(two).toEqual({
      name: 'Two short stops',
      from: 20,
      to: 40,
      minutes: 24,
      mean_kW: 60,
      meter_kWh: 24,
      range_km: null,
      heldBackBy: [{ from: 20, to: 40, limit: 'stall_plate', minutes: 12 }],
      besides_min: 1.5,
      stops: 2,
      elsewhere: null,
    });
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
