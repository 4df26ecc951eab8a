import { type RecordFields, recordItem } from '../records/record-schema';
import { idOf } from '../visit/fixtures/story';
import { type AtStall, canJudge, outletOf, settingOf, shareOf } from './setting-of';

const carOf = (fields: object) =>
  recordItem('car', idOf(1), {
    name: 'Heron 62',
    usableKWh: 62,
    connectors: ['CCS2'],
    packV0: 318,
    packV100: 403,
    maxACkW: 11,
    acPhases: 3,
    boosterKW: 50,
    boosterV: 400,
    ...fields,
  } as never).fields;
const stallOf = (...outlets: object[]) =>
  recordItem('stall', idOf(2), { siteId: idOf(3), name: '1', sharing: 'shared', cabinet: 'A', cabinetKW: 120, outlets } as never)
    .fields as RecordFields<'stall'>;
const CCS = { connector: 'CCS2', ratedKW: 150, maxA: 200, maxV: 920 };
const AC = { connector: 'Type 2', ratedKW: 22 };
const at = (outlet: object, more: Partial<AtStall> = {}) => {
  const stall = stallOf(outlet);
  return settingOf({ car: carOf({}), stall, outlet: stall.outlets[0] as never, adapter: null, curve: [[0, 100]], paired: false, deratedKW: null, ...more });
};

describe('car and stall as limits', () => {
  it('at direct current: volts, curve and booster of the car, plate, amps, volts and share of the stall', () => {
    expect(at(CCS, { paired: true, deratedKW: 60, adapter: { maxA: 130, maxV: 500 } })).toEqual({
      setting: {
        car: { V0: 318, V100: 403, curve: [[0, 100]], boosterKW: 50, boosterV: 400, onboardKW: 11, acPhases: 3 },
        stall: { kind: 'dc', plateKW: 150, maxA: 200, maxV: 920, deratedKW: 60, paired: true, shareKW: 60, phases: null, V: undefined },
        adapter: { maxA: 130, maxV: 500 },
      },
      battery: { usableKWh: 62 },
    });
    expect(at({ connector: 'CCS2', ratedKW: 150 }).setting.stall).toMatchObject({ maxA: null, maxV: null, deratedKW: null });
    expect(at(CCS, { car: carOf({ packV0: null, packV100: null }) }).setting.car).toMatchObject({ V0: undefined, V100: undefined });
  });
  // 22 kW of three phases at 230 V are 31.9 A each; 0.9 kWh of each metered one reach the battery: common practice, no source.
  it('at alternating current: phases and amps, by the plate where they are not noted, and what the charger loses', () => {
    const plain = at(AC);
    expect(plain.setting.stall).toMatchObject({ kind: 'ac', plateKW: 22, phases: 3, V: 230, maxA: expect.closeTo(22_000 / 690, 9) });
    expect(plain.battery).toEqual({ usableKWh: 62, efficiency: 0.9 });
    expect(plain.setting.adapter).toBeNull();
    expect(at({ ...AC, phases: 1, ratedKW: 7.36 }).setting.stall).toMatchObject({ phases: 1, maxA: expect.closeTo(32, 9) });
    expect(at({ ...AC, maxA: 16 }).setting.stall).toMatchObject({ phases: 3, maxA: 16 });
  });
});

describe('the outlet that was plugged in', () => {
  const car = carOf({});
  const twin = stallOf({ connector: 'CHAdeMO', ratedKW: 50 }, AC, CCS);
  it.each([
    ['as noted', 'CCS2', null, null, 150],
    ['as noted, whatever the adapter and the power', 'Type 2', 'CHAdeMO', 120, 22],
    ['what the adapter goes into', null, 'CHAdeMO', 10, 50],
    ['the strongest that fits the car', null, null, null, 150],
    ['the strongest, where there is none as noted', 'NACS', null, null, 150],
    ['alternating current where no more was shown than the onboard charger can', null, null, 11.5, 22],
    ['direct current where more was', null, null, 11.6, 150],
  ] as const)('%s', (_, connector, from, shown, ratedKW) => expect(outletOf(twin, car, connector, from, shown).ratedKW).toBe(ratedKW));
  it('what the onboard charger can is not on file: what the outlet can', () => {
    const open = carOf({ maxACkW: null });
    expect([23, 23.2].map((kW) => outletOf(twin, open, null, null, kW).ratedKW)).toEqual([22, 150]);
  });
  it('the first where none fits', () =>
    expect(outletOf(stallOf({ connector: 'CHAdeMO', ratedKW: 50 }, { connector: 'NACS', ratedKW: 250 }), car, null, null).ratedKW).toBe(50));
});

describe('a pair’s share', () => {
  it.each([
    ['shared', 120, 60],
    ['shared', null, 75],
    ['own', 120, null],
    [null, 120, null],
  ] as const)('of a cabinet %s of %s kW: %s', (sharing, cabinetKW, share) => expect(shareOf({ sharing, cabinetKW }, 150)).toBe(share));
});

describe('whether a stall can be held to its word', () => {
  const can = (outlet: object, more: Partial<AtStall>) => canJudge(at(outlet, more).setting);
  it('at direct current by a curve, at alternating by the onboard charger', () => {
    expect([can(CCS, {}), can(CCS, { curve: [] }), can(CCS, { car: carOf({ maxACkW: null }) })]).toEqual([true, false, true]);
    expect([can(AC, {}), can(AC, { curve: [] }), can(AC, { car: carOf({ maxACkW: null }) })]).toEqual([true, true, false]);
  });
});
