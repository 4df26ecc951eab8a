import type { Band } from './bands';
import { lossOf, lossWords, sessionChecks } from './session-checks';
import type { SessionPower } from './session-power';

type Around = Parameters<typeof sessionChecks>[5];
const whole = (from: number, to: number, kWh: number | null = null): Band => ({
  fromPct: from,
  toPct: to,
  covered: 'full',
  coveredFrom: from,
  coveredTo: to,
  minutes: 20,
  kWh,
  mean_kW: null,
  range_km: null,
});
type Given = { kWh?: number | null; charging_s?: number | null; whole?: Band | null; readings?: object[]; energy?: object | null };
const checks = (given: Given, plateKW: number | null = 150, usableKWh: number | null = 60, around?: Around) =>
  sessionChecks(
    {
      series: { delivered_kWh: given.kWh ?? null, charging_s: given.charging_s ?? null, source: { soc: 'car' } },
      whole: given.whole ?? null,
      energy: given.energy ?? null,
    } as unknown as SessionPower,
    { readings: given.readings ?? [] } as never,
    plateKW,
    usableKWh,
    'dc',
    around,
  ).map((c) => [c.name, c.fine, c.arithmetic]);

describe('each check with its arithmetic', () => {
  it('energy against the rating and the time', () => {
    // 150 kW for 20 min are 50 kWh, 5 % and 0.1 more 52.6.
    const told = (kWh: number) => checks({ kWh, charging_s: 1200 })[0];
    expect(told(52.5)).toEqual(['kWh against time', true, '52.5 kWh; 150 kW for 20.0 min, 5 % and 0.1 kWh more: at most 52.6']);
    expect(told(52.7)?.[1]).toBe(false);
    for (const none of [checks({ kWh: null, charging_s: 1200 }), checks({ kWh: 5, charging_s: null }), checks({ kWh: 5, charging_s: 1200 }, null)])
      expect(none).toEqual([]);
  });
  it('energy against what was stored, by the meter between the levels where it was read there', () => {
    // 40 % of 60 kWh: 0.85 × 60 × 39 % = 19.9 to 1.25 × 60 × 41 % = 30.8.
    expect(checks({ kWh: 24, whole: whole(20, 60) })).toEqual([
      ['kWh against battery', true, '24.0 kWh for 40 % of 60 kWh: between 19.9 and 30.8, a per cent of doubt at both ends'],
    ]);
    expect(checks({ kWh: 24, whole: whole(20, 60, 19) })[0]).toEqual([
      'kWh against battery',
      false,
      '19.0 kWh for 40 % of 60 kWh: between 19.9 and 30.8, a per cent of doubt at both ends',
    ]);
    // 62.4 less 32.4 is 30.000000000000004 to a machine.
    expect(checks({ kWh: 18, whole: whole(32.4, 62.4) })[0]?.[2]).toMatch(/^18\.0 kWh for 30 % of 60 kWh/);
    expect(checks({ kWh: 6, whole: whole(47.4, 62.4) })).toEqual([['kWh against battery', null, '15 % of battery: under 20 % whole per cents say too little']]);
    expect(checks({ kWh: 24, whole: whole(20, 60) }, 150, null)).toEqual([]);
    expect(checks({ kWh: null, whole: whole(20, 60) })).toEqual([]);
    expect(checks({ kWh: 24, whole: { fromPct: 20, toPct: 60, covered: 'none' } })).toEqual([]);
  });
  it('a point that slipped', () =>
    expect(checks({ kWh: 240, whole: whole(20, 60) }).at(-1)).toEqual(['A digit', false, '240 kWh fits neither; 24.0 would, if a point slipped']));
  it('volts times amps of the look at which they are farthest from the power shown', () => {
    const readings = [
      { V: 400, A: 100, kW: 40 },
      { V: 400, A: 100, kW: 60 },
      { V: 400, A: 100, kW: 45 },
      { V: 400, kW: 90 },
      { A: 100, kW: 90 },
      { V: 400, A: 200 },
    ];
    expect(checks({ readings })).toEqual([
      ['V × A against kW', false, '400 V × 100 A is 40.0 kW, shown 60.0; up to 9.0 apart is heating, meters and unequal instants'],
    ]);
    expect(checks({ readings: readings.slice(0, 1) })[0]?.[1]).toBe(true);
    expect(checks({ readings: readings.slice(3) })).toEqual([]);
  });
  it('power against the meter', () => {
    const energy = { covered_s: 1215, integral_kWh: 45.4, meter_kWh: 43, allowed_kWh: 2.15, flag: true };
    expect(checks({ energy })).toEqual([['Power against meter', false, 'kW over 20 min makes 45.4 kWh, the meter rose by 43.0; 2.15 apart is rounding']]);
    expect(checks({ energy: { ...energy, flag: false } })[0]?.[1]).toBe(true);
  });
  it('a battery that goes down, on the screen it is read from', () => {
    const readings = [
      { screen: 'car', socPct: 20 },
      { screen: 'stall', socPct: 90 },
      { screen: 'car', socPct: 33 },
      { screen: 'car', socPct: 26 },
      { screen: 'car' },
      { screen: 'car', socPct: 30 },
    ];
    expect(checks({ readings })).toEqual([['Battery going down', false, '33 % does not fit the levels around it; left out']]);
    expect(checks({ readings: readings.filter((r) => r.socPct !== 33) })).toEqual([]);
  });
});

describe('what did not reach the battery', () => {
  it('with the doubt of whole per cents, not under twenty', () => {
    // 40 % of 60 kWh are 24 of 25 metered; a per cent at both ends is 0.6.
    expect(lossOf(25, 40, 60)).toEqual({ share: expect.closeTo(0.04, 12), pm: expect.closeTo(0.024, 12) });
    expect(lossOf(12, 20, 60)).toEqual({ share: 0, pm: expect.closeTo(0.05, 12) });
    expect(
      [
        { share: 0.04, pm: 0.024 },
        { share: 0.18, pm: 0.001 },
        { share: 0, pm: 0.05 },
        { share: -0.01, pm: 0.03 },
        { share: -0.06, pm: 0.02 },
      ].map((l) => lossWords(l).replace(/, with.*|: fewer.*/, '')),
    ).toEqual([
      'Did not reach the battery: 4 % ± 2',
      'Did not reach the battery: 18 % ± 1',
      'Did not reach the battery: at most 5 %',
      'Did not reach the battery: at most 2 %',
      'By its levels the battery took 6 % ± 2 more than the meter gave',
    ]);
    expect([lossOf(11, 19.9, 60), lossOf(0, 40, 60), lossOf(-1, 40, 60)]).toEqual([null, null, null]);
  });
});
