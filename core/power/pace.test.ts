import { limitsOf } from './limits';
import { paceLimits, paceOf, sessionPace } from './pace';
import { paceSoFar, project } from './projection';
import { seriesOf } from './series';

// 60 kWh at 20 kWh for 100 km and 60 kW: a per cent is 3 km and 36 s.
const battery = { usableKWh: 60 };
const limits = limitsOf({ car: { curve: [[0, 60]] }, stall: { kind: 'dc', plateKW: 60 } });

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
    // Three per cent and two minutes are enough; of less than three that should have been more, half a per cent more is taken than was read.
    expect([so([0, 20], [3.6, 23]), so([0, 20], [3.6, 22]), so([5, 20], [7, 24]), so([5, 20], [6.9, 24])]).toEqual([
      expect.closeTo(0.5, 9),
      expect.closeTo(1.5 / 3.6, 9),
      expect.closeTo(1.2, 9),
      1,
    ]);
    // Nor do three per cent need to be read where three were to come, or tell anything where none were.
    expect([so([0, 20], [1.9, 20]), so([0, 20], [2, 20]), so([0, 20], [9, 20]), so([0, 20], [2.5, 22])]).toEqual([
      1,
      expect.closeTo(0.3 / 2, 9),
      0.15,
      expect.closeTo(1.5 / 2.5, 9),
    ]);
    // Half the power from 30 % on.
    expect(so([0, 20], [6, 30], [12, 35])).toBeCloseTo(0.5, 9);
    // A level that hardly rises any more tells at once; two looks that are too near each other in time do not.
    expect(so([0, 20], [6, 30], [10, 32])).toBeCloseTo(1.5 / 4, 9);
    expect(so([0, 20], [6, 30], [7.9, 33])).toBeCloseTo(7.8 / 7.9, 9);
    expect([so(), so([3, 40])]).toEqual([1, 1]);
  });
  it('so far: at a slow post a level stands still for minutes, and says nothing until it should have risen by three per cent', () => {
    // 6 kW are 3 % of 60 kWh in 18 minutes.
    const slow = limitsOf({ car: { curve: [[0, 6]] }, stall: { kind: 'dc', plateKW: 6 } });
    const still = (min: number) =>
      paceSoFar(
        slow,
        battery,
        [0, min].map((at) => ({ min: at, socPct: 70 })),
      );
    expect([still(9), still(17.9)]).toEqual([1, 1]);
    expect(still(18.1)).toBeCloseTo(3 / 18.1, 6);
  });
  it('so far: by the power shown with the last level or after it', () => {
    const levels = [
      { min: 0, socPct: 20 },
      { min: 6, socPct: 30 },
    ];
    const by = (min: number, kW: number) => paceSoFar(limits, battery, levels, { min, kW });
    expect([by(6, 30), by(9, 15), by(5.75, 30), by(5.7, 30)]).toEqual([0.5, 0.25, 0.5, 1]);
    // What is 15 % off or less is what the levels took, with what was lost on the way.
    expect([by(6, 51.1), by(6, 50.9), by(6, 68.9), by(6, 69.1)]).toEqual([1, expect.closeTo(50.9 / 60, 9), 1, expect.closeTo(69.1 / 60, 9)]);
    // No power is no pace, and a slip of the finger neither stops nor races it.
    expect([by(6, 0), by(6, 0.1), by(6, 600)]).toEqual([0, 0.15, 1.6]);
    expect(project(limits, battery, levels, 20, { min: 6, kW: 0 })).toMatchObject({ pace: 0, nowPct: expect.closeTo(30, 9) });
    // In the first minute power still climbs.
    const early = [{ min: 0, socPct: 20 }];
    expect([0.9, 1].map((min) => paceSoFar(limits, battery, early, { min, kW: 30 }))).toEqual([1, 0.5]);
    // Held to what is expected at the level that stands on the screen then.
    const falling = limitsOf({
      car: {
        curve: [
          [0, 60],
          [100, 30],
        ],
      },
      stall: { kind: 'dc', plateKW: 60 },
    });
    const [at30, later] = [6, 12].map((min) => paceSoFar(falling, battery, [{ min: 6, socPct: 30 }], { min, kW: 40 }));
    expect(at30).toBeCloseTo(40 / 51, 9);
    expect(later).toBeGreaterThan(at30 as number);
  });
  it('nothing is projected of nothing', () => {
    expect(project(limits, battery, [], 5)).toBeNull();
    expect(project(limits, battery, [{ min: 0, socPct: 40 }], 6)).toMatchObject({ pace: 1, nowPct: expect.closeTo(50, 9) });
    // A look that lies ahead is where it stands.
    expect(project(limits, battery, [{ min: 9, socPct: 40 }], 6)?.nowPct).toBeCloseTo(40, 9);
  });
});
