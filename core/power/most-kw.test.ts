import type { RecordFields } from '../records/record-schema';
import { recordItem } from '../records/record-schema';
import { idOf } from '../visit/fixtures/story';
import { type Around, isDC, mostKW, packVolts } from './most-kw';

const carOf = (fields: object) => recordItem('car', idOf(1), { name: 'Badger 88', usableKWh: 88, connectors: ['CCS2'], ...fields } as never).fields;
const outletOf = (fields: object) =>
  recordItem('stall', idOf(2), { siteId: idOf(3), name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150, ...fields }] } as never).fields
    .outlets[0] as RecordFields<'stall'>['outlets'][number];
const most = (car: object, outlet: object, around: Partial<Around> = {}) =>
  mostKW(carOf(car), outletOf(outlet), { deratedKW: null, cabinetKW: null, adapter: null, ...around });
const through = (maxA: number | null, maxV: number | null = null) => ({ adapter: { maxA, maxV } });
const can = (kW: number, by: string) => ({ can: true, kW: expect.closeTo(kW, 9), by });
const cannot = (why: string, text: string) => ({ can: false, why, text });

describe('pack volts', () => {
  it('as typed, the full one for the empty one where that is not, and the class where neither is', () => {
    expect(packVolts({ packV0: 300, packV100: 400, voltClass: 800 })).toEqual({ v0: 300, v100: 400 });
    expect(packVolts({ packV0: null, packV100: 400, voltClass: null })).toEqual({ v0: 400, v100: 400 });
    expect(packVolts({ packV0: null, packV100: null, voltClass: 800 })).toEqual({ v0: 800, v100: 800 });
    expect(packVolts({ packV0: 300, packV100: null, voltClass: null })).toBeNull();
  });
});

describe('the least of what is known to limit', () => {
  it('the plate, what it is derated to, its cabinet, the car; of equals the first of these', () => {
    expect(most({}, {})).toEqual(can(150, 'plate'));
    expect(most({}, {}, { deratedKW: 60 })).toEqual(can(60, 'derated'));
    expect(most({}, {}, { cabinetKW: 120, deratedKW: 130 })).toEqual(can(120, 'cabinet'));
    expect(most({ maxDCkW: 100 }, {}, { cabinetKW: 120 })).toEqual(can(100, 'car'));
    expect(most({ maxDCkW: 150 }, {}, { cabinetKW: 150 })).toEqual(can(150, 'plate'));
  });
  it('amps by the pack’s volts when it is full; none without its volts', () => {
    expect(most({ packV0: 300, packV100: 400 }, { maxA: 200 })).toEqual(can(80, 'amps'));
    expect(most({}, { maxA: 200 })).toEqual(can(150, 'plate'));
  });
  it('a pack above what the stall gives charges by its booster: at its volts, or as many as the stall gives', () => {
    const car = { packV0: 600, packV100: 800, boosterKW: 50 };
    expect(most(car, { maxV: 500 })).toEqual(can(50, 'booster'));
    expect(most(car, { maxV: 500, maxA: 90 })).toEqual(can(45, 'amps'));
    expect(most({ ...car, boosterV: 400 }, { maxV: 500, maxA: 90 })).toEqual(can(36, 'amps'));
    expect(most(car, { maxV: 800, maxA: 90 })).toEqual(can(72, 'amps'));
    expect(most({ ...car, boosterKW: null }, { maxV: 800 })).toMatchObject({ can: true });
  });
  it('whose volts are too few is said: of equals the stall’s', () => {
    const car = { packV0: 600, packV100: 800 };
    expect(most(car, { maxV: 500 })).toEqual(cannot('volts', 'the stall goes up to 500 V, the pack to 800 V'));
    expect(most(car, { maxV: 920 }, through(null, 500))).toEqual(cannot('volts', 'the adapter goes up to 500 V, the pack to 800 V'));
    expect(most(car, { maxV: 500 }, through(null, 500))).toEqual(cannot('volts', 'the stall goes up to 500 V, the pack to 800 V'));
    expect(most(car, { maxV: 500 }, through(null, 920))).toEqual(cannot('volts', 'the stall goes up to 500 V, the pack to 800 V'));
    expect(most(car, {}, through(null, 500))).toEqual(cannot('volts', 'the adapter goes up to 500 V, the pack to 800 V'));
  });
  it('a pack below what the stall gives at the least', () => {
    expect(most({ packV100: 400 }, { minV: 450 })).toEqual(cannot('volts', 'the stall gives no less than 450 V, the pack has 400 V at most'));
    expect(most({ packV100: 450 }, { minV: 450 })).toEqual(can(150, 'plate'));
  });
});

describe('an adapter limits nothing by itself: what may flow must be within its rating', () => {
  const car = { packV0: 300, packV100: 400 };
  it('the stall’s amps, or what its power makes at the lowest volts', () => {
    expect(most(car, { ratedKW: 50, maxA: 125 }, through(125))).toEqual(can(50, 'plate'));
    expect(most(car, { ratedKW: 50, maxA: 125.5 }, through(125))).toEqual(can(50, 'plate'));
    expect(most(car, { ratedKW: 50, maxA: 126 }, through(125))).toEqual(cannot('amps', 'the adapter is rated for 125 A, up to 126 A may flow'));
    // 50 kW at 300 V.
    expect(most(car, { ratedKW: 50 }, through(167))).toEqual(can(50, 'plate'));
    expect(most(car, { ratedKW: 50 }, through(166))).toEqual(cannot('amps', 'the adapter is rated for 166 A, up to 167 A may flow'));
    // What the car takes, 30 kW at 300 V. A derate may be gone in the middle of a charge: it makes no adapter safe.
    expect(most({ ...car, maxDCkW: 30 }, { ratedKW: 50 }, through(100))).toEqual(can(30, 'car'));
    expect(most(car, { ratedKW: 50 }, { deratedKW: 30, ...through(167) })).toEqual(can(30, 'derated'));
    expect(most(car, { ratedKW: 50 }, { deratedKW: 30, ...through(100) })).toEqual(cannot('amps', 'the adapter is rated for 100 A, up to 167 A may flow'));
  });
  it('by a booster at its own volts', () => {
    const high = { packV0: 600, packV100: 800, boosterKW: 50, boosterV: 400 };
    expect(most(high, { maxV: 500 }, through(125))).toEqual(can(50, 'booster'));
    expect(most(high, { maxV: 500 }, through(124))).toEqual(cannot('amps', 'the adapter is rated for 124 A, up to 125 A may flow'));
  });
  it('nothing is said without its rating, or without the pack’s volts', () => {
    expect(most(car, { maxA: 500 }, through(null))).toEqual(can(150, 'plate'));
    expect(most({}, { maxA: 500 }, through(10))).toEqual(can(150, 'plate'));
  });
  it('at alternating current by the amps of a phase', () => {
    const ac = { connector: 'Type 2', ratedKW: 22, phases: 3, maxA: 32 };
    expect(most({ acPhases: 3 }, ac, through(32))).toEqual(can(22, 'plate'));
    expect(most({ acPhases: 3 }, ac, through(31))).toEqual(cannot('amps', 'the adapter is rated for 31 A, up to 32 A may flow'));
    // The onboard charger takes 16 A of them.
    expect(most({ acPhases: 3, maxACkW: 11 }, ac, through(16))).toEqual(can(11, 'onboard charger'));
    expect(most({ acPhases: 3, maxACkW: 11 }, ac, through(15))).toEqual(cannot('amps', 'the adapter is rated for 15 A, up to 16 A may flow'));
    expect(most({ acPhases: 3 }, ac, through(null))).toEqual(can(22, 'plate'));
  });
});

describe('alternating current', () => {
  it('by the phases that both have and the amps of one; the plug’s own phases where the stall’s are not noted', () => {
    expect(most({}, { connector: 'Type 2', ratedKW: 22, phases: 3, maxA: 16 })).toEqual(can(11.04, 'amps'));
    expect(most({ acPhases: 1 }, { connector: 'Type 2', ratedKW: 22, phases: 3, maxA: 32 })).toEqual(can(7.36, 'phases'));
    expect(most({ acPhases: 3 }, { connector: 'Type 2', ratedKW: 7.4, phases: 1, maxA: 32 })).toEqual(can(7.36, 'amps'));
    expect(most({ acPhases: 3 }, { connector: 'Household socket', ratedKW: 2.3 })).toEqual(can(2.3, 'plate'));
    // A plate of three phases without its amps: a third of it for a car of one.
    expect(most({ acPhases: 1 }, { connector: 'Type 2', ratedKW: 21 })).toEqual(can(7, 'phases'));
    expect(most({ maxDCkW: 5, packV100: 800 }, { connector: 'Type 2', ratedKW: 22 })).toEqual(can(22, 'plate'));
  });
  it('is not direct', () => {
    expect([isDC('CCS2'), isDC('CHAdeMO'), isDC('Type 2'), isDC('Household socket')]).toEqual([true, true, false, false]);
  });
});
