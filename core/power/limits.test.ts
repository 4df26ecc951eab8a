import { energyCheck } from './energy-check';
import { type LimitName, type LimitStall, limitsOf, pacedLimits, type Setting, voltsAtStall } from './limits';
import { seriesOf } from './series';
import { secondsTo, seriesAt } from './series-at';

describe('a booster', () => {
  const car = { V0: 640, V100: 760, curve: [[0, 150]] as const, boosterKW: 100 };
  const stall = { kind: 'dc', plateKW: 350, maxA: 125, maxV: 500 } as const;
  const kWAt = (boosterV: number | null | undefined, socPct = 50) => limitsOf({ car: { ...car, boosterV }, stall }).kWAt(socPct);

  it('takes the stall’s amps at its own volts where these are known and below the stall’s, else at the stall’s', () => {
    expect(kWAt(400)).toEqual({ kW: 50, limit: 'stall_amps' });
    expect([kWAt(undefined), kWAt(null), kWAt(600)]).toEqual(Array(3).fill({ kW: 62.5, limit: 'stall_amps' }));
  });
  it('counts only where the pack is above the stall’s volts', () => {
    const at = (maxV: number) => voltsAtStall({ car: { ...car, boosterV: 400 }, stall: { ...stall, maxV } }, 50);
    expect([at(699), at(700), at(920)]).toEqual([400, 700, 700]);
    expect(voltsAtStall({ car: { ...car, V0: null }, stall }, 50)).toBeNull();
  });
});

describe('limits that are included', () => {
  it('levels 15 apart are neighbours, in tenths of a per cent too', () => {
    // 62.4 − 47.4 is 15.000000000000007 to a machine.
    const series = seriesOf({
      readings: [
        { t_s: 0, from: 'car', socPct: 47.4 },
        { t_s: 900, from: 'car', socPct: 62.4 },
      ],
    });
    expect(secondsTo(series, 50)).toBeCloseTo(156, 6);
    expect(seriesAt(series, 450).socPct).toBeCloseTo(54.9, 9);
  });
  it('0.2 kWh between power shown and energy metered is allowed, in tenths too', () => {
    // 100 kW for 72 s make 2 kWh against 1.8 metered: a trace more than 0.2 to a machine.
    const check = (end: number) =>
      energyCheck(
        seriesOf({
          readings: [
            { t_s: 60, from: 'stall', kW: 100, kWh: 3 },
            { t_s: 132, from: 'stall', kW: 100, kWh: end },
          ],
        }),
      )?.flag;
    expect([check(4.8), check(4.7)]).toEqual([false, true]);
  });
});

describe('what limits, and along which part of the battery', () => {
  const dc = (more: Partial<LimitStall> = {}): LimitStall => ({ kind: 'dc', ...more });
  const shown = (setting: Setting, only?: readonly LimitName[]) =>
    limitsOf(setting, only ? new Set(only) : null).pieces.map((p) => `${p.from}–${p.to} ${p.limit} ${p.kWFrom}…${p.kWTo}`);
  const curve = [
    [0, 50],
    [50, 100],
    [100, 20],
  ] as const;

  it('each of them alone', () => {
    expect(shown({ car: { curve }, stall: dc() })).toEqual(['0–50 car_curve 50…100', '50–100 car_curve 100…20']);
    expect(shown({ car: {}, stall: dc({ plateKW: 150 }) })).toEqual(['0–100 stall_plate 150…150']);
    expect(shown({ car: { V0: 300, V100: 400 }, stall: dc({ cableA: 200 }) })).toEqual(['0–100 cable_amps 60…80']);
    expect(shown({ car: { V0: 300, V100: 400 }, stall: dc(), adapter: { maxA: 100 } })).toEqual(['0–100 adapter_amps 30…40']);
    expect(shown({ car: { onboardKW: 11 }, stall: { kind: 'ac' } })).toEqual(['0–100 onboard 11…11']);
    expect(shown({ car: {}, stall: { kind: 'ac', phases: 3, V: 230, maxA: 32 } })).toEqual(['0–100 ac_line 22.08…22.08']);
    expect(shown({ car: { acPhases: 1, acMaxA: 16 }, stall: { kind: 'ac', phases: 3, V: 230, maxA: 32, cableA: 20 } })).toEqual(['0–100 ac_line 3.68…3.68']);
    // The DC curve and the volts of the pack say nothing of AC.
    expect(shown({ car: { onboardKW: 11, curve, V0: 300, V100: 400 }, stall: { kind: 'ac', maxV: 350 } })).toEqual(['0–100 onboard 11…11']);
  });
  it('nothing where nothing is known', () => {
    for (const setting of [
      { car: {}, stall: dc() },
      { car: { curve: [] }, stall: dc() },
      { car: {}, stall: { kind: 'ac' as const, phases: 3, maxA: 32 } },
    ]) {
      const limits = limitsOf(setting);
      expect([limits.pieces, limits.kWAt(50)]).toEqual([[], null]);
    }
  });
  it('cut where the least of them changes, and at no other place', () => {
    expect(shown({ car: { curve }, stall: dc({ plateKW: 60 }) })).toEqual([
      '0–10 car_curve 50…60',
      '10–50 stall_plate 60…60',
      '50–75 stall_plate 60…60',
      '75–100 car_curve 60…20',
    ]);
    // Touching is no crossing.
    expect(shown({ car: { curve }, stall: dc({ plateKW: 100 }) })).toEqual(['0–50 car_curve 50…100', '50–100 car_curve 100…20']);
    // Points nearer than rounding are one.
    expect(
      shown({
        car: {
          curve: [
            [0, 50],
            [50, 100],
            [50 + 1e-10, 100],
            [100, 20],
          ],
        },
        stall: dc(),
      }),
    ).toHaveLength(2);
    // A curve with points at the ends, or only one, has one stretch.
    expect(
      shown({
        car: {
          curve: [
            [0, 50],
            [100, 50],
          ],
        },
        stall: dc(),
      }),
    ).toEqual(['0–100 car_curve 50…50']);
    expect(shown({ car: { curve: [[30, 50]] }, stall: dc() }).map((p) => p.split(' ').slice(1).join(' '))).toEqual(['car_curve 50…50', 'car_curve 50…50']);
  });
  it('the value at a level is what holds from there on, at the very top what held up to it', () => {
    const step = limitsOf({
      car: {
        curve: [
          [0, 100],
          [80, 60],
          [80, 30],
          [100, 10],
        ],
      },
      stall: dc(),
    });
    expect([79.999999, 80, 100, 0].map((s) => Math.round(step.kWAt(s)?.kW ?? 0))).toEqual([60, 30, 10, 100]);
    const outside = limitsOf({
      car: {
        curve: [
          [20, 50],
          [60, 90],
        ],
      },
      stall: dc(),
    });
    expect([0, 20, 40, 60, 90].map((s) => outside.kWAt(s)?.kW)).toEqual([50, 50, 70, 90, 90]);
    expect([outside.curveFrom, outside.curveTo]).toEqual([20, 60]);
  });
  it('of two that are equal the car is named, then the rating', () => {
    const named = (stall: Partial<LimitStall>) => limitsOf({ car: { curve: [[0, 100]] }, stall: dc(stall) }).kWAt(50);
    expect(named({ plateKW: 100 })).toEqual({ kW: 100, limit: 'car_curve' });
    expect(named({ plateKW: 100 * (1 - 5e-10) })?.limit).toBe('car_curve');
    expect(named({ plateKW: 99.9 })?.limit).toBe('stall_plate');
    expect(named({ plateKW: 60, deratedKW: 60, shareKW: 60, paired: true })?.limit).toBe('stall_plate');
    expect(named({ deratedKW: 60, shareKW: 60, paired: true })?.limit).toBe('derated');
    expect(named({ shareKW: 60, paired: false })?.limit).toBe('car_curve');
  });
  it('a pack above the volts of the stall cannot be charged without a booster, at those volts it can', () => {
    const car = { V0: 380, V100: 480, curve: [[0, 100]] as const };
    expect(shown({ car, stall: dc({ maxV: 430 }) })).toEqual(['0–50 car_curve 100…100', '50–100 volts 0…0']);
    expect(shown({ car, stall: dc({ maxV: 500 }) })).toEqual(['0–100 car_curve 100…100']);
    expect(shown({ car, stall: dc({ maxV: 380 }) })).toEqual(['0–100 volts 0…0']);
    expect(shown({ car, stall: dc({ maxV: 480 }) })).toEqual(['0–100 car_curve 100…100']);
    expect(limitsOf({ car, stall: dc({ maxV: 430 }) }).kWAt(50)).toEqual({ kW: 100, limit: 'car_curve' });
    expect(shown({ car: { ...car, boosterKW: 40 }, stall: dc({ maxV: 430 }) })).toEqual(['0–50 car_curve 100…100', '50–100 booster 40…40']);
    expect(shown({ car, stall: dc({ maxV: 900 }), adapter: { maxV: 430 } })).toEqual(['0–50 car_curve 100…100', '50–100 volts 0…0']);
    // The same all the way.
    expect(shown({ car: { ...car, V0: 450, V100: 450 }, stall: dc({ maxV: 430 }) })).toEqual(['0–100 volts 0…0']);
    expect(shown({ car: { ...car, V0: 430, V100: 430 }, stall: dc({ maxV: 430 }) })).toEqual(['0–100 car_curve 100…100']);
  });
  it('limits that need pack volts which are not given are left out and named', () => {
    const stall = dc({ plateKW: 150, maxA: 200, cableA: 300 });
    expect(limitsOf({ car: { curve }, stall, adapter: { maxA: 150 } }).unknown).toEqual(['stall_amps', 'cable_amps', 'adapter_amps']);
    expect(limitsOf({ car: { curve, V0: 300 }, stall }).unknown).toEqual(['stall_amps', 'cable_amps']);
    expect(limitsOf({ car: { curve, V0: 300, V100: 400 }, stall }).unknown).toEqual([]);
    expect(limitsOf({ car: { curve }, stall }, new Set<LimitName>(['car_curve', 'stall_amps'])).unknown).toEqual(['stall_amps']);
    expect(limitsOf({ car: { curve }, stall }, new Set<LimitName>(['car_curve'])).unknown).toEqual([]);
    expect(limitsOf({ car: { onboardKW: 11 }, stall: { ...stall, kind: 'ac' } }).unknown).toEqual([]);
    expect(shown({ car: { V0: 300 }, stall: dc({ maxA: 200 }) })).toEqual([]);
  });
  it('only those that are asked for', () => {
    const setting: Setting = { car: { curve, V0: 380, V100: 480 }, stall: dc({ plateKW: 60, deratedKW: 30, maxV: 430 }) };
    // Of the car alone the stall's volts are not asked; of anything more, what cannot be charged is not.
    expect(shown(setting, ['car_curve'])).toEqual(['0–50 car_curve 50…100', '50–100 car_curve 100…20']);
    expect(shown(setting, ['car_curve', 'stall_plate']).at(-1)).toBe('50–100 volts 0…0');
    expect(shown(setting, ['stall_plate', 'derated'])[0]).toBe('0–50 derated 30…30');
    expect(shown({ car: {}, stall: dc({ plateKW: 60 }) }, ['car_curve'])).toEqual([]);
    expect(shown({ car: { curve: [] }, stall: dc({ plateKW: 60 }) }, ['car_curve'])).toEqual([]);
    expect(shown({ car: { onboardKW: 11 }, stall: { kind: 'ac', plateKW: 3.7 } }, ['onboard'])).toEqual(['0–100 onboard 11…11']);
    const from = (only: readonly LimitName[] | null, s = setting) => limitsOf(s, only && new Set(only)).curveFrom;
    expect([from(null), from(['car_curve']), from(['stall_plate', 'derated']), from(null, { ...setting, stall: { kind: 'ac' } })]).toEqual([0, 0, null, null]);
  });
  it('a part of them is that part at every level', () => {
    const half = pacedLimits(limitsOf({ car: { curve }, stall: dc({ plateKW: 60 }) }), 0.5);
    expect(half.pieces.map((p) => [p.kWFrom, p.kWTo])).toEqual([
      [25, 30],
      [30, 30],
      [30, 30],
      [30, 10],
    ]);
    expect(half.kWAt(50)).toEqual({ kW: 30, limit: 'stall_plate' });
    expect(half.kWAt(0)).toEqual({ kW: 25, limit: 'car_curve' });
    expect(pacedLimits(limitsOf({ car: {}, stall: dc() }), 0.5).kWAt(50)).toBeNull();
  });
});
