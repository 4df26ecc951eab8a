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
