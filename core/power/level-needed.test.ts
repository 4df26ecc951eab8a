import { levelNeeded } from './level-needed';
import { limitsOf } from './limits';
import { nextTens } from './next-tens';
import { paceLimits, paceOf, sessionPace } from './pace';
import { paceSoFar, project } from './projection';
import { seriesOf } from './series';

// 60 kWh at 20 kWh for 100 km and 60 kW: a per cent is 3 km and 36 s.
const battery = { usableKWh: 60 };
const limits = limitsOf({ car: { curve: [[0, 60]] }, stall: { kind: 'dc', plateKW: 60 } });
const need = (now: number, more: Partial<Parameters<typeof levelNeeded>[3]> = {}) =>
  levelNeeded(limits, battery, now, { leg_km: 120, kWhPer100km: 20, reservePct: 10, ...more });

describe('the level that the next leg needs', () => {
  it('to the last figure: enough is enough, and all of the battery is there to be used', () => {
    expect(need(50)).toMatchObject({ neededPct: 50, enoughNow: true, stayUntil_min: 0, arrivalPct: null, leaveBy: null });
    expect(need(49.9)).toMatchObject({ enoughNow: false, stayUntil_min: expect.closeTo(0.06, 9) });
    // 0.1 + 0.2 of a machine.
    expect(need(50 - 1e-12).enoughNow).toBe(true);
    expect(need(20, { leg_km: 270 })).toMatchObject({ neededPct: 100, feasible: true, shortByPct: 0, stayUntil_min: expect.closeTo(48, 9) });
    expect(need(20, { leg_km: 273 })).toMatchObject({ feasible: false, shortByPct: expect.closeTo(1, 9), stayUntil_min: null });
    expect(need(20, { leg_km: 210, mostPct: 80 }).feasible).toBe(true);
    expect(need(20, { leg_km: 211, mostPct: 80 }).feasible).toBe(false);
  });
  it('the reserve reaches the fallback; where both are as far it is the reserve', () => {
    expect(need(20, { fallback_km: 30 })).toMatchObject({ reserveFrom: 'reserve', reserveUsedPct: 10 });
    expect(need(20, { fallback_km: 33 })).toMatchObject({ reserveFrom: 'fallback', reserveUsedPct: 11 });
  });
  it('the soonest deadline less its way, the first of those that come at once', () => {
    const deadlines = [
      { why: 'table', in_min: 60, drive_min: 42 },
      { why: 'ferry', in_min: 18 },
      { why: 'late', in_min: 90 },
    ];
    // From 20 to 50 % are 18 minutes.
    expect(need(20, { deadlines }).leaveBy).toEqual({ why: 'table', in_min: 18, conflict: false });
    expect(need(19.9, { deadlines }).leaveBy).toEqual({ why: 'table', in_min: 18, conflict: true });
    expect(need(20, { leg_km: 400, deadlines: deadlines.slice(2) }).leaveBy).toEqual({ why: 'late', in_min: 90, conflict: true });
  });
  it('what one would arrive with, at the usual, the worst and the best', () => {
    expect(need(20, { arriveFromPct: 50 }).arrivalPct).toEqual({ usual: 10, worst: 10, best: 10 });
    expect(need(20, { arriveFromPct: 50, kWhPer100kmRange: [15, 25] }).arrivalPct).toEqual({ usual: 10, worst: 0, best: 20 });
  });
});

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

describe('pace', () => {
  const by = paceLimits({ car: { curve: [[0, 60]] }, stall: { kind: 'dc', plateKW: 60 } }, battery);
  const charge = (...levels: [t_s: number, socPct: number][]) => seriesOf({ readings: levels.map(([t_s, socPct]) => ({ t_s, from: 'car' as const, socPct })) });
  it('of what was not covered nothing is told', () => {
    const s = charge([0, 20], [360, 30]);
    expect(paceOf(s, 40, 50, by)).toEqual({ band: { fromPct: 40, toPct: 50, covered: 'none' }, took_min: null });
    expect(paceOf(s, 20, 30, by)).toMatchObject({ took_min: 6, car_min: 6, pace: 1, keepsItsWord: 1, excusedBy: [], keepsItsWordExcused: null });
  });
  it('a session of one level, or of none, has none', () => {
    expect([sessionPace(charge(), by), sessionPace(charge([0, 20]), by), sessionPace(charge([0, 20], [90, 20]), by)]).toEqual([null, null, null]);
    expect(sessionPace(charge([0, 20], [360, 30]), by)?.bands).toHaveLength(1);
  });
  it('so far: by the latest stretch that is long enough', () => {
    const so = (...levels: [min: number, socPct: number][]) =>
      paceSoFar(
        limits,
        battery,
        levels.map(([min, socPct]) => ({ min, socPct })),
      );
    // Three per cent and two minutes are enough; less is not.
    expect([so([0, 20], [3.6, 23]), so([0, 20], [3.6, 22.9]), so([5, 20], [7, 24]), so([5, 20], [6.9, 24])]).toEqual([
      expect.closeTo(0.5, 9),
      1,
      expect.closeTo(1.2, 9),
      1,
    ]);
    // Half the power from 30 % on.
    expect(so([0, 20], [6, 30], [12, 35])).toBeCloseTo(0.5, 9);
    // The last two looks are too near each other, in battery or in time: the one before them counts.
    expect(so([0, 20], [6, 30], [10, 32])).toBeCloseTo(7.2 / 10, 9);
    expect(so([0, 20], [6, 30], [7.9, 33])).toBeCloseTo(7.8 / 7.9, 9);
    expect([so(), so([3, 40])]).toEqual([1, 1]);
  });
  it('nothing is projected of nothing', () => {
    expect(project(limits, battery, [], 5)).toBeNull();
    expect(project(limits, battery, [{ min: 0, socPct: 40 }], 6)).toMatchObject({ pace: 1, nowPct: expect.closeTo(50, 9) });
    // A look that lies ahead is where it stands.
    expect(project(limits, battery, [{ min: 9, socPct: 40 }], 6)?.nowPct).toBeCloseTo(40, 9);
  });
});
