import type { Condition } from './charge-conditions';
import { type LimitStall, limitsOf, type PowerCurve } from './limits';
import { paceLimits } from './pace';
import { seriesOf } from './series';
import { type HeldBy, heldText, isCar, whatHeldItBack } from './what-held-it-back';

// 60 kWh: ten per cent are 6 kWh, at 100 kW 3.6 minutes.
const battery = { usableKWh: 60 };
type Given = { curve?: PowerCurve; stall?: Partial<LimitStall>; conditions?: readonly Condition[] };
/** A charge from a level on, each leg to a level at a steady power that is read at its end: `40@100` is to 40 % at 100 kW. */
function held(from: number, written: string, { curve = [[0, 100]], stall = {}, conditions = [] }: Given = {}) {
  const legs = written.split(' ').flatMap((l) => (l === '' ? [] : [l.split('@').map(Number) as [to: number, kW: number]]));
  const readings = [{ t_s: 0, from: 'stall' as const, socPct: from, kW: legs[0]?.[1] ?? 0 }];
  let [t_s, at] = [0, from];
  for (const [to, kW] of legs) {
    t_s += ((to - at) * 0.6 * 3600) / kW;
    at = to;
    readings.push({ t_s, from: 'stall', socPct: to, kW });
  }
  const setting = (noted: readonly Condition[]) => ({
    car: { ...battery, curve },
    stall: { kind: 'dc' as const, plateKW: 150, ...stall, paired: noted.some((c) => c.what === 'neighbour') },
  });
  return whatHeldItBack(seriesOf({ readings }), paceLimits(setting([]), battery), conditions, (noted) => limitsOf(setting(noted)));
}
const noted = (what: Condition['what'], more: Partial<Condition> = {}): Condition => ({ what, from: null, to: null, noted: 'during', kW: null, ...more });
const told = (all: ReturnType<typeof held>) => all.map((h) => `${Number(h.from.toFixed(6))}–${Number(h.to.toFixed(6))} ${h.by} ${h.sure}`);

describe('where power is what a limit allows, that is what held it back', () => {
  it('as much as it allows, or near it', () => {
    const [full] = held(20, '40@100 60@100');
    expect(full).toEqual({
      from: 20,
      to: 60,
      by: 'car_curve',
      kW: 100,
      text: 'car, at most 100',
      minutes: expect.closeTo(14.4, 9),
      sure: 'fits',
      evidence: 'least of the limits on file, and power was as much',
    });
    const [near] = held(20, '40@91 60@91');
    expect(near).toMatchObject({ by: 'car_curve', sure: 'fits', evidence: 'least of the limits on file, and power was near it' });
    expect(near?.minutes).toBeCloseTo(1440 / 91, 9);
    expect(held(20, '40@104 60@104')[0]?.evidence).toMatch(/as much$/);
  });
  it('each stretch by its own limit, with the most that it allowed there', () => {
    const curve: PowerCurve = [
      [0, 100],
      [50, 100],
      [80, 40],
    ];
    const all = held(30, '40@70 50@70 65@70', { curve, stall: { plateKW: 70 } });
    expect(told(all)).toEqual(['30–65 stall_plate fits']);
    expect(all[0]).toMatchObject({ kW: 70, text: 'plate, at most 70' });
    const on = held(30, '40@70 50@70 65@70 70@64 80@49', { curve, stall: { plateKW: 70 } });
    expect(told(on)).toEqual(['30–65 stall_plate fits', '65–80 car_curve fits']);
    expect(on[1]).toMatchObject({ kW: 70, text: 'car, at most 70' });
  });
  it('how long it took is not said where its ends were not read', () => {
    const curve: PowerCurve = [
      [0, 100],
      [50, 100],
      [80, 40],
    ];
    // Nobody looked between 40 and 60 %: where the plate gave way to the car is not known.
    const all = held(20, '30@80 40@80 68@75 70@60', { curve, stall: { plateKW: 80 } });
    expect(told(all)).toEqual(['20–60 stall_plate guess', '60–70 car_curve guess']);
    expect(all.map((h) => h.minutes)).toEqual([null, null]);
    expect(all[0]?.evidence).toBe('least of the limits on file; how long it took was not read');
  });
  it('nothing of fewer than two levels', () => {
    expect(held(20, '')).toEqual([]);
    expect(
      whatHeldItBack(seriesOf({ readings: [] }), paceLimits({ car: {}, stall: { kind: 'dc' } }, battery), [], () =>
        limitsOf({ car: {}, stall: { kind: 'dc' } }),
      ),
    ).toEqual([]);
  });
});

describe('what was noted', () => {
  const low = '30@80 40@80';
  it.each([
    [noted('neighbour'), 'neighbour', 'neighbour, share not noted', 'a neighbour plugging in was noted; what the pair shares is not on file'],
    [
      noted('neighbour', { noted: 'on arrival' }),
      'neighbour',
      'neighbour, share not noted',
      'a neighbour was charging on arrival; what the pair shares is not on file',
    ],
    [
      noted('neighbour', { noted: 'as a fault' }),
      'neighbour',
      'neighbour, share not noted',
      'a drop when shared was noted; what the pair shares is not on file',
    ],
    [noted('derate'), 'derated', 'derated', 'a derate was noted; to how many kW is not known'],
    [noted('derate', { noted: 'on arrival' }), 'derated', 'derated', 'seen derated; to how many kW is not known'],
    [noted('derate', { noted: 'as a fault' }), 'derated', 'derated', 'steady power below the plate was noted; to how many kW is not known'],
    [noted('phases', { noted: 'as a fault' }), 'phases', 'fewer phases', 'fewer phases than on the plate were noted'],
    [noted('ramp', { noted: 'as a fault' }), 'ramp', 'slow ramp', 'a slow ramp was noted'],
    [noted('hot'), 'hot', 'hot cable', 'a hot cable or connector was noted'],
    [noted('cold'), 'cold', 'cold battery', 'cold was noted'],
    [noted('cold', { noted: 'on arrival' }), 'cold', 'cold battery', 'a cold day, and the battery was not warmed'],
    [noted('climate'), 'climate', 'heating or cooling', 'heating or cooling ran: part of the power went there'],
  ] as const)('%j explains less than the limits allow', (condition, by, text, evidence) =>
    expect(held(20, low, { conditions: [condition] })).toEqual([
      { from: 20, to: 40, minutes: expect.closeTo(9, 9), by, kW: null, text, evidence, sure: 'noted' },
    ]),
  );
  it('and nothing where power is what the limit allows', () =>
    expect(told(held(20, '30@100 40@100', { conditions: [noted('climate'), noted('cold'), noted('hot')] }))).toEqual(['20–40 car_curve fits']));
  it('of several the one that takes most', () => {
    const all = (['climate', 'ramp', 'cold', 'phases', 'hot', 'derate', 'neighbour'] as const).map((what) => noted(what));
    const first = (conditions: readonly Condition[]) => held(20, low, { conditions })[0]?.by;
    expect(all.map((_, i) => first(all.slice(0, i + 1)))).toEqual(['climate', 'ramp', 'cold', 'phases', 'hot', 'derated', 'neighbour']);
  });
  it('a share or a derate on file that leaves more than came explains less', () => {
    expect(held(20, low, { conditions: [noted('neighbour', { kW: 90 })] })).toMatchObject([
      {
        by: 'neighbour',
        kW: 90,
        text: 'neighbour',
        evidence: 'a neighbour plugging in was noted; what the pair shares by its file would leave more',
        sure: 'guess',
      },
    ]);
    expect(told(held(20, low, { conditions: [noted('derate', { kW: 90 })] }))).toEqual(['20–40 not_known guess']);
  });
  it('where the pair’s share or the derated power is on file, that is the limit', () => {
    const share = { stall: { shareKW: 60 } };
    const slow = '30@60 40@60';
    expect(held(20, slow, { ...share, conditions: [noted('neighbour')] })[0]).toMatchObject({
      by: 'pair_share',
      kW: 60,
      text: 'pair, at most 60',
      evidence: 'a neighbour plugging in was noted',
      sure: 'noted',
    });
    expect(held(20, slow, { ...share, conditions: [noted('neighbour', { noted: 'on arrival' })] })[0]).toMatchObject({
      evidence: 'a neighbour was charging on arrival',
    });
    expect(held(20, slow, { stall: { deratedKW: 60 } })[0]).toMatchObject({
      by: 'derated',
      kW: 60,
      text: 'derated, at most 60',
      evidence: 'seen derated',
      sure: 'noted',
    });
    // More than the share was had: the neighbour took less than its half, and the car itself set the pace.
    expect(told(held(20, '30@100 40@100', { ...share, conditions: [noted('neighbour')] }))).toEqual(['20–40 car_curve fits']);
    expect(told(held(20, '30@66 40@66', { ...share, conditions: [noted('neighbour')] }))).toEqual(['20–40 pair_share noted']);
    // What else was noted holds then.
    expect(told(held(20, '30@75 40@75', { ...share, conditions: [noted('neighbour'), noted('climate')] }))).toEqual(['20–40 climate noted']);
    // A derate that is of the stall and not of a note stays.
    expect(told(held(20, '30@100 40@100', { stall: { deratedKW: 60 } }))).toEqual(['20–40 derated noted']);
    // Without a neighbour the share is none.
    expect(held(20, '30@100 40@100', share)[0]).toMatchObject({ by: 'car_curve' });
  });
  it('holds for its part of the battery alone', () => {
    const legs = '30@100 40@80 50@100 60@100';
    expect(told(held(20, legs, { conditions: [noted('climate', { from: 30, to: 40 })] }))).toEqual([
      '20–30 car_curve fits',
      '30–40 climate noted',
      '40–60 car_curve fits',
    ]);
    expect(told(held(20, legs, { conditions: [noted('climate', { from: 30 })] }))).toEqual(['20–60 car_curve fits']);
    expect(told(held(20, '30@100 40@80 50@80', { conditions: [noted('climate', { from: 30 })] }))).toEqual(['20–30 car_curve fits', '30–50 climate noted']);
    expect(told(held(20, '30@80 40@100 50@100', { conditions: [noted('climate', { to: 30 })] }))).toEqual(['20–30 climate noted', '30–50 car_curve fits']);
    // What was noted before and after the charge cuts nothing.
    expect(told(held(20, '30@100', { conditions: [noted('cold', { from: 5, to: 20 }), noted('hot', { from: 30, to: 90 })] }))).toEqual([
      '20–30 car_curve fits',
    ]);
    // In whatever order they were noted, and below and above ten per cent.
    const three = [noted('neighbour', { from: 15 }), noted('hot', { from: 9, to: 12 }), noted('cold', { from: 5, to: 7 })];
    expect(told(held(5, '7@80 9@100 12@80 15@100 20@80', { conditions: three }))).toEqual([
      '5–7 cold noted',
      '7–9 car_curve fits',
      '9–12 hot noted',
      '12–15 car_curve fits',
      '15–20 neighbour noted',
    ]);
  });
});

describe('a derate is suspected', () => {
  it('where power stands still well below what is expected and nothing explains it', () =>
    expect(held(20, '40@80 60@80')).toEqual([
      {
        from: 20,
        to: 60,
        by: 'derate_suspected',
        kW: expect.closeTo(80, 9),
        text: 'derate suspected',
        minutes: expect.closeTo(18, 9),
        sure: 'guess',
        evidence: 'steady within 3 kW at about 80 kW for 18 min, under 90 % of what car and stall allow, and nothing noted explains it',
      },
    ]));
  it('its power is the mean of what was read', () => expect(held(20, '40@79 50@82 60@80')[0]).toMatchObject({ by: 'derate_suspected', kW: 80 }));
  it.each([
    ['within 3 kW', '30@80 40@83 50@81', 'derate_suspected'],
    ['beyond 3 kW', '30@80 40@83.1 50@81', 'not_known'],
    ['5 minutes and 10 %', '30@72', 'derate_suspected'],
    ['under 5 minutes', '30@73', 'not_known'],
    ['under 10 % of the battery', '29.9@60', 'not_known'],
    ['under 90 %', '35@89.9', 'derate_suspected'],
  ] as const)('%s: %s', (_what, legs, by) => expect(held(20, legs).map((h) => h.by)).toEqual([by]));
  it('not where something is noted, nor where it moves', () => {
    expect(held(20, '40@80 60@80', { conditions: [noted('climate')] })[0]?.by).toBe('climate');
    const moving = held(20, '30@80 40@70 50@60 60@50');
    expect(moving).toEqual([
      {
        from: 20,
        to: 60,
        by: 'not_known',
        kW: null,
        text: 'not told',
        minutes: expect.any(Number),
        sure: 'guess',
        evidence: 'less than car and stall allow, and nothing noted explains it',
      },
    ]);
  });
  it('only for the stretch in which it stood still', () => {
    // A condition that explains nothing there cuts the charge in two.
    const cut = noted('climate', { from: 50, to: 50.2 });
    const all = held(20, '30@80 40@80 50@80 50.2@80 60@66 70@50', { conditions: [cut] });
    expect(told(all)).toEqual(['20–50.2 derate_suspected guess', '50.2–70 not_known guess']);
    expect(all[0]?.evidence).toContain('at about 80 kW for 9 min');
  });
  it('a look as high as expected ends it; what comes after is looked at anew', () => {
    const cut = noted('climate', { from: 40, to: 45 });
    const all = held(20, '39@70 40@70 45@100 50@60 60@60', { conditions: [cut] });
    expect(told(all)).toEqual(['20–40 derate_suspected guess', '40–45 car_curve fits', '45–60 derate_suspected guess']);
    expect([all[0]?.evidence, all[2]?.evidence]).toEqual([
      expect.stringContaining('at about 70 kW for 10 min'),
      expect.stringContaining('at about 60 kW for 6 min'),
    ]);
  });
});

describe('stretches that belong together', () => {
  it('one reason is one stretch, with the most of its limits', () => {
    const curve: PowerCurve = [
      [20, 60],
      [60, 100],
    ];
    const minutes = (from: number, to: number) => ((0.6 * 60) / 1) * Math.log((40 + to) / (40 + from));
    const legs = '30@65 40@75 50@85 60@95';
    const [one, ...more] = held(20, legs, { curve, conditions: [noted('cold', { from: 40 })] });
    expect(more).toEqual([]);
    expect(one).toMatchObject({ from: 20, to: 60, by: 'car_curve', kW: 100, text: 'car, at most 100' });
    expect(Math.abs((one?.minutes ?? 0) / minutes(20, 60) - 1)).toBeLessThan(0.02);
    const [falling] = held(20, '30@95 40@85 50@75 60@65', {
      curve: [
        [20, 100],
        [60, 60],
      ],
      conditions: [noted('cold', { from: 40 })],
    });
    expect(falling).toMatchObject({ kW: 100, text: 'car, at most 100' });
  });
  it('the most is what the limit allowed in the stretch, not beyond it', () => {
    const curve: PowerCurve = [
      [20, 60],
      [60, 100],
    ];
    const told = (at: Partial<Condition>, legs: Parameters<typeof held>[1]) => held(20, legs, { curve, conditions: [noted('climate', at)] }).map((h) => h.text);
    expect(told({ from: 40 }, '30@65 40@75 50@40 60@40')).toEqual(['car, at most 80', 'heating or cooling']);
    expect(told({ to: 40 }, '30@40 40@40 50@85 60@95')).toEqual(['heating or cooling', 'car, at most 100']);
    expect(held(20, '30@65 40@72', { curve })[0]?.kW).toBe(80);
    // Joined by a sliver of something else it keeps its own.
    expect(held(20, '30@65 40@72 40.2@20', { curve, conditions: [noted('climate', { from: 40 })] }).map((h) => [h.by, h.kW])).toEqual([['car_curve', 80]]);
  });
  it('a sliver joins what is before it, a first one what comes after', () => {
    const sliver = (from: number, to: number, legs: Parameters<typeof held>[1]) => held(20, legs, { conditions: [noted('climate', { from, to })] });
    const middle = sliver(30, 30.4, '30@100 30.4@50 40@100');
    expect(told(middle)).toEqual(['20–40 car_curve fits']);
    expect(middle[0]?.minutes).toBeCloseTo(3.6 + 0.288 + 3.456, 9);
    expect(told(sliver(30, 30.5, '30@100 30.5@50 40@100'))).toEqual(['20–30 car_curve fits', '30–30.5 climate noted', '30.5–40 car_curve fits']);
    const first = sliver(20, 20.4, '20.4@50 30@100 40@100');
    expect(told(first)).toEqual(['20–40 car_curve fits']);
    expect(first[0]?.minutes).toBeCloseTo(0.288 + 3.456 + 3.6, 9);
    expect(told(sliver(20, 20.5, '20.5@50 30@100 40@100'))).toEqual(['20–20.5 climate noted', '20.5–40 car_curve fits']);
    // By itself a sliver is all there is.
    expect(told(held(20, '20.3@100'))).toEqual(['20–20.3 car_curve fits']);
  });
  it('a part that was not read leaves the whole without its minutes', () => {
    const gap = (legs: Parameters<typeof held>[1], at: number) => held(20, legs, { conditions: [noted('cold', { from: at })] });
    // 18 % between two looks: the moment of 50 % is not known, nor how long either side took.
    expect(gap('40@100 58@100 70@100', 50).map((h) => [h.by, h.minutes])).toEqual([['car_curve', null]]);
    expect(gap('40@100 55@100 70@100', 50).map((h) => [h.by, h.minutes])).toEqual([['car_curve', expect.closeTo(18, 9)]]);
  });
});

describe('in words', () => {
  it.each([
    ['car_curve', 'car, at most 62', true],
    ['onboard', 'onboard charger, at most 62', true],
    ['booster', 'booster, at most 62', true],
    ['stall_plate', 'plate, at most 62', false],
    ['derated', 'derated, at most 62', false],
    ['pair_share', 'pair, at most 62', false],
    ['stall_amps', 'stall’s amps, at most 62', false],
    // Not on the plate, and not the car's.
    ['cable_amps', 'cable’s amps, at most 62', false],
    ['adapter_amps', 'adapter’s amps, at most 62', true],
    ['ac_line', 'phases and amps, at most 62', false],
    ['volts', 'volts: cannot charge', false],
    ['neighbour', 'neighbour', false],
    ['climate', 'heating or cooling', true],
    ['cold', 'cold battery', true],
    ['hot', 'hot cable', false],
    ['phases', 'fewer phases', false],
    ['ramp', 'slow ramp', false],
    ['derate_suspected', 'derate suspected', false],
    ['not_known', 'not told', false],
  ] as const satisfies readonly (readonly [HeldBy, string, boolean])[])('%s', (by, text, car) => expect([heldText(by, 62), isCar(by)]).toEqual([text, car]));
  it('without a figure none is said', () => expect(heldText('car_curve', null)).toBe('car'));
});
