import { type RecordFields, recordItem } from '../records/record-schema';
import type { Dangers } from '../visit/dangers';
import { idOf } from '../visit/fixtures/story';
import { bestStalls, bestWords, compatibleStalls, type Garage, type Lately } from './compatible-stalls';
import { mostKW } from './most-kw';

const TODAY = '2025-10-15';
let n = 100;
const kept = <T extends { id: string }>(item: T) => ({ archived: false, ...item }) as T & { archived: boolean };
const carOf = (fields: object) => kept(recordItem('car', idOf(1), { name: 'Badger 88', usableKWh: 88, connectors: ['CCS2'], ...fields } as never));
const adapterOf = (fields: object) =>
  kept(recordItem('adapter', idOf(++n), { name: 'the adapter', from: 'CHAdeMO', to: 'CCS2', approved: true, ...fields } as never));
const meansOf = (fields: object) => kept(recordItem('means', idOf(++n), { kind: 'contactless', label: 'Bank card', ...fields } as never));
const site = kept(recordItem('site', idOf(2), { networkId: idOf(3), name: 'Vrba Crossing', zone: 'Europe/Ljubljana', meansAccepted: ['contactless', 'app'] }));
type Outlet = { connector?: string; ratedKW?: number; maxA?: number; minV?: number; maxV?: number; phases?: number };
const stallOf = (outlet: Outlet, more: object = {}) =>
  kept(recordItem('stall', idOf(++n), { siteId: idOf(2), name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150, ...outlet }], ...more } as never));

const ask = (stall: ReturnType<typeof stallOf>, car: object = {}, garage: Partial<Garage> = {}, lately: Lately = {}, dangers: Dangers = {}) =>
  compatibleStalls(
    { car: carOf(car), adapters: [], means: [meansOf({})], enrolments: [], ...garage },
    { site, stalls: [stall], dangers },
    lately,
    TODAY,
  )[0] as NonNullable<ReturnType<typeof compatibleStalls>[0]>;
const most = (car: object, outlet: Outlet) =>
  mostKW(carOf(car).fields, stallOf(outlet).fields.outlets[0] as RecordFields<'stall'>['outlets'][0], { deratedKW: null, cabinetKW: null, adapter: null });

describe('at most how many kW', () => {
  // "a '50 kW' stall limited to 125 A gives 50 kW only at 400 V, 39 kW near 312 V": common practice, no source.
  it.each([
    [400, 50],
    [312, 39],
  ])('125 A at %d V: %d kW', (packV100, kW) => expect(most({ packV100 }, { ratedKW: 50, maxA: 125 })).toMatchObject({ can: true, kW }));
  // "188 A at 300 V: about 56 kW": common practice, no source.
  it('188 A at 300 V', () => expect(most({ packV100: 300 }, { maxA: 188 })).toMatchObject({ kW: expect.closeTo(56.4, 3), by: 'amps' }));
  // "a 43 kW AC outlet gives 7 kW to a 7 kW car": common practice, no source.
  it('AC: the onboard charger sets it', () =>
    expect(most({ maxACkW: 7 }, { connector: 'Type 2', ratedKW: 43 })).toEqual({ can: true, kW: 7, by: 'onboard charger' }));
  // 16 A and 32 A at 230 V a phase give 11 and 22 kW with three phases, 3.7 and 7.4 with one (IEC 61851-1 mode 3 practice; common practice, no source).
  it.each([
    [3, 32, 22],
    [3, 16, 11],
    [1, 32, 7.4],
    [1, 16, 3.7],
  ])('%d phases at %d A: %d kW', (acPhases, maxA, kW) => {
    const m = most({ acPhases }, { connector: 'Type 2', ratedKW: 22, maxA });
    expect(m.can && Math.round(m.kW * 10) / 10).toBeCloseTo(kW, 0);
  });
  it('a car of one phase gets a third of a three-phase plate', () =>
    expect(most({ acPhases: 1 }, { connector: 'Type 2', ratedKW: 22 })).toMatchObject({ kW: expect.closeTo(22 / 3, 6), by: 'phases' }));
  it('the car’s own limit, or the top of its curve', () => {
    expect(most({ maxDCkW: 121 }, {})).toEqual({ can: true, kW: 121, by: 'car' });
    expect(
      most(
        {
          curve: [
            [0, 90],
            [20, 110],
            [80, 60],
          ],
        },
        {},
      ),
    ).toEqual({ can: true, kW: 110, by: 'car' });
  });
});

describe('a stall that can be used', () => {
  it('by the plug itself, with the means that work there', () => {
    expect(ask(stallOf({}), { maxDCkW: 178 })).toMatchObject({ use: 'yes', kW: 150, by: 'plate', way: { connector: 'CCS2', adapterId: null }, reasons: [] });
  });
  it('by its own plug where an adapter gives no more', () => {
    const a = adapterOf({});
    const outlets = (...connectors: string[]) => stallOf({}, { outlets: connectors.map((connector) => ({ connector, ratedKW: 50 })) });
    for (const both of [outlets('CHAdeMO', 'CCS2'), outlets('CCS2', 'CHAdeMO')])
      expect(ask(both, {}, { adapters: [a] })).toMatchObject({ use: 'yes', way: { connector: 'CCS2', adapterId: null } });
  });
  it('not while it is closed, and not before it is open', () => {
    const is = (state: string) => ask(stallOf({}, { state: { is: state, kW: null, seenOn: '2025-10-01' } })).reasons;
    expect(is('closed')).toEqual([{ code: 'closed', text: 'closed' }]);
    expect(is('not yet open')).toEqual([{ code: 'not_yet_open', text: 'not yet open' }]);
  });
  it('AC by a combined inlet', () => expect(ask(stallOf({ connector: 'Type 2', ratedKW: 22 }), { maxACkW: 11 })).toMatchObject({ use: 'yes', kW: 11 }));
  it('by one adapter within its ratings', () => {
    const a = adapterOf({ maxA: 200, maxV: 500 });
    expect(ask(stallOf({ connector: 'CHAdeMO', ratedKW: 50, maxA: 125 }), { packV100: 400 }, { adapters: [a] })).toMatchObject({
      use: 'yes',
      kW: 50,
      way: { adapterId: a.id },
    });
  });
  it('what it takes unknown is said, not guessed', () => {
    const at = { site: kept(recordItem('site', idOf(2), { networkId: idOf(3), name: 'V', zone: 'UTC' })), stalls: [stallOf({})], dangers: {} };
    expect(compatibleStalls({ car: carOf({}), adapters: [], means: [meansOf({})], enrolments: [] }, at, {}, TODAY)[0]).toMatchObject({
      use: 'yes',
      reasons: [{ code: 'not_known' }],
    });
  });
  it('the best are those of the most kW without doubt', () => {
    const answers = compatibleStalls(
      { car: carOf({}), adapters: [], means: [meansOf({})], enrolments: [] },
      {
        site,
        stalls: [stallOf({}), stallOf({ ratedKW: 50 }), stallOf({}), stallOf({ ratedKW: 300 }, { state: { is: 'derated', kW: 200, seenOn: TODAY } })],
        dangers: {},
      },
      {},
      TODAY,
    );
    expect(bestStalls(answers)).toEqual([answers[0]?.stallId, answers[2]?.stallId]);
    expect(bestStalls([])).toEqual([]);
    // Alike, none is better than the other.
    expect(bestStalls([answers[0], answers[2]] as typeof answers)).toEqual([]);
    expect(bestStalls([answers[0]] as typeof answers)).toEqual([]);
  });
  it('without a start at any of them only the plates speak', () => {
    const answers = [{ stallId: idOf(1) }, { stallId: idOf(2) }] as unknown as Parameters<typeof bestWords>[0];
    expect(bestWords(answers, {})).toBe('most kW by the plates');
    expect(bestWords(answers, { [idOf(3)]: [{ power: true, on: TODAY }] } as never)).toBe('most kW by the plates');
    expect(bestWords(answers, { [idOf(1)]: [] })).toBe('most kW by the plates');
    expect(bestWords(answers, { [idOf(2)]: [{ power: true, on: TODAY }] } as never)).toBe('likely best');
  });
});

describe('the way into the car', () => {
  const two = (...outlets: object[]) => kept(recordItem('stall', idOf(++n), { siteId: idOf(2), name: '1', outlets } as never));
  const ccs = { connector: 'CCS2', ratedKW: 50 };
  const chademo = { connector: 'CHAdeMO', ratedKW: 100 };
  it('of several that which gives most; of equals the plug itself', () => {
    const a = adapterOf({});
    expect(ask(two(ccs, chademo), {}, { adapters: [a] })).toMatchObject({ kW: 100, way: { connector: 'CHAdeMO', adapterId: a.id, builtIn: false } });
    expect(ask(two(chademo, ccs), {}, { adapters: [a] })).toMatchObject({ kW: 100, way: { adapterId: a.id } });
    const equal = { ...chademo, ratedKW: 50 };
    expect(ask(two(equal, ccs), {}, { adapters: [a] })).toMatchObject({ kW: 50, way: { connector: 'CCS2', adapterId: null } });
    expect(ask(two(ccs, equal), {}, { adapters: [a] })).toMatchObject({ kW: 50, way: { connector: 'CCS2', adapterId: null } });
  });
  it('by an adapter that is approved before one that is not, and one of which that is not noted is said to be', () => {
    const [bad, open, good] = [adapterOf({ approved: false }), adapterOf({ approved: null, name: 'the old one' }), adapterOf({})];
    expect(ask(two(chademo), {}, { adapters: [bad, good] })).toMatchObject({ use: 'yes', way: { adapterId: good.id }, reasons: [] });
    expect(ask(two(chademo), {}, { adapters: [bad, open] })).toMatchObject({
      use: 'yes',
      way: { adapterId: open.id },
      reasons: [{ code: 'adapter', text: 'whether the car’s maker approves the old one is not noted' }],
    });
  });
  it('no adapter that is archived, goes the other way, or from another plug', () => {
    const no = (fields: object) => ask(two(chademo), {}, { adapters: [{ ...adapterOf(fields), ...('archived' in fields ? { archived: true } : {}) }] });
    for (const fields of [{ archived: true }, { from: 'CCS2', to: 'CHAdeMO' }, { from: 'NACS' }, { to: 'NACS' }])
      expect(no(fields)).toMatchObject({ use: 'no', way: null, kW: null, by: null, means: [], reasons: [{ code: 'connector' }] });
  });
  it('by the adapter that the stall has, and by none of the household’s beside it', () => {
    const nacs = stallOf({ connector: 'NACS', ratedKW: 250 }, { builtInAdapter: 'CCS2' });
    expect(ask(nacs)).toMatchObject({ use: 'yes', kW: 250, way: { connector: 'NACS', adapterId: null, builtIn: true } });
    expect(ask(nacs, {}, { adapters: [adapterOf({ from: 'NACS' })] })).toMatchObject({ way: { builtIn: true, adapterId: null } });
    // It does not fit, and nothing held goes on from it: one from the plug itself does.
    const other = stallOf({ connector: 'NACS' }, { builtInAdapter: 'CHAdeMO' });
    const own = adapterOf({ from: 'NACS' });
    expect(ask(other, {}, { adapters: [own] })).toMatchObject({ use: 'yes', way: { adapterId: own.id, builtIn: false } });
    expect(ask(other)).toMatchObject({ use: 'no', way: null, reasons: [{ code: 'connector' }] });
    expect(ask(other, {}, { adapters: [adapterOf({}), own] })).toMatchObject({
      use: 'no',
      reasons: [{ code: 'adapter', text: 'the stall has an adapter to CHAdeMO already: never two in a row' }],
    });
  });
  it('what stands against several ways alike is said once; plugs of one kind are named once', () => {
    const high = { voltClass: 800 };
    const low = { ...ccs, maxV: 500 };
    expect(ask(two(low, low), high).reasons).toEqual([{ code: 'volts', text: 'the stall goes up to 500 V, the pack to 800 V' }]);
    expect(ask(two(low, { ...low, maxV: 400 }), high).reasons).toHaveLength(2);
    expect(ask(two(chademo, chademo, { ...chademo, connector: 'NACS' })).reasons[0]?.text).toMatch(/^CHAdeMO, NACS does not fit/);
  });
  it('by the cabinet where it is not the stall’s own', () => {
    const cabinet = (sharing: string | null) => ask(stallOf({}, { cabinet: 'A', cabinetKW: 100, sharing }));
    expect([cabinet('shared').kW, cabinet(null).kW, cabinet('own').kW]).toEqual([100, 100, 150]);
    expect(cabinet('shared').by).toBe('cabinet');
  });
  it('where it cannot be paid the way is known, and nothing else promised', () => {
    expect(ask(stallOf({}, { meansAccepted: ['rfid'] }))).toMatchObject({ use: 'no', kW: null, way: { connector: 'CCS2' }, means: [] });
    const m = meansOf({});
    expect(ask(stallOf({}), {}, { means: [m, meansOf({ kind: 'rfid' })] }).means).toEqual([m.id]);
    // What the stall itself takes goes before what its site does.
    expect(ask(stallOf({}, { meansAccepted: ['contactless'] }), {}, { means: [m] }).means).toEqual([m.id]);
  });
});

describe('when it was seen', () => {
  const failed = (on: string) => [
    { outcome: 'failed' as const, on },
    { outcome: 'gave_up' as const, on: '2025-10-01' },
  ];
  it('its state, or the last failure where that is what speaks against it and is later', () => {
    const derated = (seenOn: string) => stallOf({}, { state: { is: 'derated', kW: 50, seenOn } });
    const [before, after] = [derated('2025-10-03'), derated('2025-10-13')];
    expect(ask(before, {}, {}, { [before.id]: failed('2025-10-10') }).asSeen).toBe('2025-10-10');
    expect(ask(after, {}, {}, { [after.id]: failed('2025-10-10') }).asSeen).toBe('2025-10-13');
    const plain = stallOf({});
    expect(ask(plain, {}, {}, { [plain.id]: failed('2025-10-10') })).toMatchObject({
      asSeen: '2025-10-10',
      reasons: [{ code: 'failed_twice', text: 'the last two attempts failed' }],
    });
    // One failure, or one that was mended since, is none to tell.
    expect(ask(plain, {}, {}, { [plain.id]: failed('2025-10-10').slice(0, 1) })).toMatchObject({ use: 'yes', asSeen: null });
    expect(ask(before, {}, {}, { [before.id]: failed('2025-10-10').slice(0, 1) }).asSeen).toBe('2025-10-03');
    const mixed = [failed('2025-10-10')[0], { outcome: 'power' as const, on: '2025-10-09' }] as Lately[string];
    expect(ask(plain, {}, {}, { [plain.id]: mixed }).use).toBe('yes');
    const open = [{ outcome: 'open' as const, on: '2025-10-10' }, ...failed('2025-10-09')];
    expect(ask(plain, {}, {}, { [plain.id]: open }).use).toBe('yes');
  });
});

describe('why not', () => {
  const why = (a: ReturnType<typeof ask>) => [a.use, a.reasons[0]?.code, a.reasons[0]?.text];
  it('connector', () =>
    expect(why(ask(stallOf({ connector: 'CHAdeMO' })))).toEqual(['no', 'connector', 'CHAdeMO does not fit Badger 88, and no adapter held goes between']));
  it('volts: an 800 V pack at a 500 V stall without a booster; with one, the booster’s kW', () => {
    expect(why(ask(stallOf({ maxV: 500 }), { voltClass: 800 }))).toEqual(['no', 'volts', 'the stall goes up to 500 V, the pack to 800 V']);
    expect(ask(stallOf({ maxV: 500 }), { voltClass: 800, boosterKW: 50 })).toMatchObject({ use: 'yes', kW: 50, by: 'booster' });
    expect(ask(stallOf({ maxV: 500, maxA: 100 }), { voltClass: 800, boosterKW: 50, boosterV: 400 })).toMatchObject({ use: 'yes', kW: 40, by: 'amps' });
  });
  it('volts: a stall that starts above the pack', () => expect(why(ask(stallOf({ minV: 500 }), { packV100: 400 }))[1]).toBe('volts'));
  it('amps: more may flow than the adapter is rated for', () => {
    const a = adapterOf({ maxA: 150, maxV: 1000 });
    expect(why(ask(stallOf({ connector: 'CHAdeMO', ratedKW: 100, maxA: 250 }), { packV0: 320, packV100: 400 }, { adapters: [a] }))).toEqual([
      'no',
      'amps',
      'the adapter is rated for 150 A, up to 250 A may flow',
    ]);
  });
  it('adapter: its volts, no approval, two in a row', () => {
    const chademo = stallOf({ connector: 'CHAdeMO', ratedKW: 50 });
    expect(why(ask(chademo, { voltClass: 800 }, { adapters: [adapterOf({ maxV: 500 })] }))).toEqual([
      'no',
      'volts',
      'the adapter goes up to 500 V, the pack to 800 V',
    ]);
    expect(why(ask(chademo, {}, { adapters: [adapterOf({ approved: false })] }))[1]).toBe('adapter');
    expect(why(ask(stallOf({ connector: 'NACS' }, { builtInAdapter: 'CHAdeMO' }), {}, { adapters: [adapterOf({})] }))[2]).toMatch(/never two in a row/);
  });
  it('means: none held, expired, of another network, car not enrolled', () => {
    expect(why(ask(stallOf({}, { meansAccepted: ['rfid'] })))).toEqual(['no', 'means', 'takes rfid card; none of these is held']);
    expect(why(ask(stallOf({}), {}, { means: [meansOf({ expires: '2025-09' })] }))[2]).toMatch(/Bank card: expired 2025-09/);
    expect(ask(stallOf({}), {}, { means: [meansOf({ expires: '2025-10' })] }).use).toBe('yes');
    expect(why(ask(stallOf({}), {}, { means: [meansOf({ networkId: idOf(9) })] }))[2]).toMatch(/another network/);
    const auto = meansOf({ kind: 'autocharge', label: 'Autocharge' });
    const enrol = (enrolledOn: string | null) =>
      kept(
        recordItem('enrolment', idOf(7), {
          kind: 'autocharge',
          carId: idOf(1),
          networkId: idOf(3),
          enrolledOn,
          steps: [{ where: 'home', act: 'Add the car', shows: '', doneOn: null }],
        }),
      );
    const at = stallOf({}, { meansAccepted: ['autocharge'] });
    expect(why(ask(at, {}, { means: [auto], enrolments: [enrol(null)] }))[2]).toMatch(/enrolment unfinished, 1 step left/);
    expect(ask(at, {}, { means: [auto], enrolments: [enrol('2025-08-01')] }).use).toBe('yes');
  });
  it('closed, not yet open: as seen', () => {
    expect(ask(stallOf({}, { state: { is: 'closed', seenOn: '2025-10-09' } }))).toMatchObject({
      use: 'no',
      asSeen: '2025-10-09',
      reasons: [{ code: 'closed' }],
    });
    expect(ask(stallOf({}, { state: { is: 'not yet open', seenOn: '2025-10-09' } }))).toMatchObject({ use: 'no', reasons: [{ code: 'not_yet_open' }] });
  });
  it('derated, and the last two attempts failed: doubtful, still usable', () => {
    const s = stallOf({}, { state: { is: 'derated', kW: 50, seenOn: '2025-10-02' } });
    const failed = [
      { outcome: 'failed' as const, on: '2025-10-14' },
      { outcome: 'gave_up' as const, on: '2025-10-03' },
    ];
    expect(ask(s, {}, {}, { [s.id]: failed })).toMatchObject({
      use: 'doubtful',
      kW: 50,
      by: 'derated',
      asSeen: '2025-10-14',
      reasons: [{ code: 'derated' }, { code: 'failed_twice' }],
    });
    const ok = stallOf({});
    expect(ask(ok, {}, {}, { [ok.id]: [{ outcome: 'power', on: '2025-10-14' }, ...failed] }).use).toBe('yes');
  });
  it('danger reported there, a hot cable, each with its day, before anything else; also where it cannot be used', () => {
    const s = stallOf({}, { state: { is: 'derated', kW: 50, seenOn: '2025-10-03' } });
    const reported = (of: typeof s) => ({
      [of.id]: [
        { stallId: of.id, is: 'danger' as const, on: '2025-10-14' },
        { stallId: of.id, is: 'danger' as const, on: '2025-01-14' },
        { stallId: of.id, is: 'hot' as const, on: '2025-10-13' },
      ],
    });
    expect(ask(s, {}, {}, {}, reported(s))).toMatchObject({
      use: 'doubtful',
      reasons: [{ code: 'danger', text: 'danger reported on 14 Oct' }, { code: 'hot', text: 'hot cable reported on 13 Oct' }, { code: 'derated' }],
    });
    const closed = stallOf({}, { state: { is: 'closed', kW: null, seenOn: TODAY } });
    expect(ask(closed, {}, {}, {}, reported(closed)).reasons.map((r) => r.code)).toEqual(['danger', 'hot', 'closed']);
    const hotOnly = stallOf({});
    const answer = ask(hotOnly, {}, {}, {}, { [hotOnly.id]: [{ stallId: hotOnly.id, is: 'hot', on: '2025-10-13' }] });
    expect([answer.use, bestStalls([answer])]).toEqual(['doubtful', []]);
  });
  it('archived stalls are not spoken of', () => {
    const stall = { ...stallOf({}), archived: true };
    expect(compatibleStalls({ car: carOf({}), adapters: [], means: [], enrolments: [] }, { site, stalls: [stall], dangers: {} }, {}, TODAY)).toEqual([]);
  });
});
