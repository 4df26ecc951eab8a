import { deriveVisit } from '../visit/derive';
import type { StoredEvent } from '../visit/event';
import { payloadProblem } from '../visit/payloads';
import type { SheetRow } from './sheet-row';
import { rowBill, rowBills, rowEvents, rowKeepable, rowKey, rowTells } from './sheet-visit';

const START = Date.UTC(2025, 9, 14, 11, 52);
const ROW: SheetRow = {
  line: 2,
  start: START,
  startPrecision: 'min',
  end: START + 41 * 60_000,
  site: 'Vrba Crossing',
  stall: '4',
  network: 'Saltmarsh Rapid',
  car: 'Ember',
  kWh: '41.37',
  amount: '23.1',
  currency: 'EUR',
  perKWh: null,
  minutes: 41,
  handshake_s: 33,
  socFrom: 20,
  socTo: 80,
  means: 'rfid',
  note: 'Rain',
  rest: { 'Receipt no.': 'R-1' },
  warnings: [],
};
const refs = { siteId: '0190a000-0000-7000-8000-000000000001', stallId: null, carId: null };
const NOON = Date.UTC(2025, 9, 14, 10);
const visitOf = (row: SheetRow) => {
  const events = rowEvents(row, refs, NOON, 'import');
  for (const e of events) expect([e.kind, payloadProblem(e.kind, e.payload)]).toEqual([e.kind, null]);
  const stored = events.map(
    (e, i) =>
      ({
        ...e,
        id: `0190a000-0000-7000-8000-0000000001${String(i).padStart(2, '0')}`,
        householdId: refs.siteId,
        personId: refs.siteId,
        visitId: 'v',
        v: 1,
        zone: 'Europe/Ljubljana',
        deviceId: refs.siteId,
        life: refs.siteId,
        mono: 0,
        awake: false,
        seq: i + 1,
        origin: 'imported',
        role: 'recorder',
      }) as unknown as StoredEvent,
  );
  return deriveVisit('v', stored, payloadProblem);
};

/** Events of a row, each as kind, payload, precision and ms after its start. */
const told = (change: Partial<SheetRow>, of: Partial<Parameters<typeof rowEvents>[1]> = {}) =>
  rowEvents({ ...ROW, ...change }, { ...refs, ...of }, NOON, 'import').map((e) => [e.kind, e.payload, e.precision, e.at - START]);
/** A row of a time, energy and nothing else. */
const BARE = { stall: null, car: null, minutes: null, handshake_s: null, socFrom: null, socTo: null, means: null, note: null, rest: {}, amount: null };
const END = 41 * 60_000;
const BILL = { sessions: [], amount: '23.1', currency: 'EUR', kWh: '41.37', state: 'charged' };
const LATE = { screen: 'stall', mark: 'kW', late: true };

describe('what a row is written as', () => {
  it('each thing it tells, once, in order; a time it tells has its precision and all else stands in its order', () => {
    const sheet = { import: 'import', line: 2, car: 'Ember', minutes: 41, rest: { 'Receipt no.': 'R-1' } };
    const handshake = { figure: 'handshake', seconds: 33, plusMinus_s: 2, startMark: 'plug or card', endMark: 'kW' };
    const { siteId } = refs;
    expect(told({})).toEqual([
      ['pulled_in', { siteId, socPct: 20, sheet }, 'day', 0],
      ['stall_named', { text: '4' }, 'day', 0],
      ['plugged', {}, 'min', 0],
      ['means_shown', { meansKind: 'rfid' }, 'day', 2],
      ['power_seen', LATE, 'day', 3],
      ['reading', { screen: 'car', socPct: 80 }, 'min', END + 4],
      ['stop_asked', {}, 'min', END],
      ['pulled_out', { reason: 'enough' }, 'day', END + 6],
      ['figure_given', handshake, 'day', END + 7],
      ['bill', BILL, 'day', END + 8],
      ['note', { text: 'Rain' }, 'day', END + 9],
    ]);
  });
  it('of little as little: the row it stood in, when, and how much', () => {
    const sheet = { import: 'import', line: 2 };
    expect(told(BARE)).toEqual([
      ['pulled_in', { siteId: refs.siteId, sheet }, 'day', 0],
      ['plugged', {}, 'min', 0],
      ['power_seen', LATE, 'day', 0],
      ['reading', { screen: 'stall', kWh: '41.37' }, 'min', END + 2],
      ['stop_asked', {}, 'min', END],
      ['pulled_out', { reason: 'enough' }, 'day', END + 4],
    ]);
    expect(told({ ...BARE, end: null }).map(([kind]) => kind)).toEqual(['pulled_in', 'plugged', 'power_seen', 'reading', 'pulled_out']);
  });
  it('a stall and a car that are known here by their records, not by their names; seconds where it tells seconds', () => {
    const events = told({ startPrecision: 's' }, { stallId: 'stall', carId: 'car' });
    expect(events[0]?.[1]).toEqual({ siteId: refs.siteId, carId: 'car', socPct: 20, sheet: { import: 'import', line: 2, minutes: 41, rest: ROW.rest } });
    expect(events[1]).toEqual(['stall_chosen', { stallId: 'stall' }, 'day', 1]);
    expect(events.filter(([, , precision]) => precision !== 'day').map(([kind, , precision]) => [kind, precision])).toEqual([
      ['plugged', 's'],
      ['reading', 's'],
      ['stop_asked', 's'],
    ]);
  });
  it('of a day alone no time at all', () => {
    const events = told({ startPrecision: 'day', start: NOON });
    expect(new Set(events.map(([, , precision]) => precision))).toEqual(new Set(['day']));
    expect(events.map(([kind]) => kind)).not.toEqual(expect.arrayContaining(['stop_asked']));
    expect(events.map(([kind]) => kind)).not.toEqual(expect.arrayContaining(['plugged']));
    expect(events[0]?.[3]).toBe(NOON - START);
  });
  it('without energy an attempt that failed: no power, no stop, no level at the end', () => {
    expect(told({ kWh: '0' }).map(([kind, , precision, at]) => [kind, precision, at])).toEqual([
      ['pulled_in', 'day', 0],
      ['stall_named', 'day', 0],
      ['plugged', 'min', 0],
      ['means_shown', 'day', 0],
      ['pulled_out', 'day', 1],
      ['bill', 'day', 2],
      ['note', 'day', 3],
    ]);
    expect(told({ ...BARE, kWh: '0', startPrecision: 'day', start: NOON }).map(([kind, , precision]) => [kind, precision])).toEqual([
      ['pulled_in', 'day'],
      ['plugged', 'day'],
      ['pulled_out', 'day'],
    ]);
  });
  it.each<[string, Partial<SheetRow>]>([
    ['no currency', { currency: null }],
    ['nought', { amount: '0' }],
    ['none', { amount: null }],
  ])('money that is %s is no bill, and the energy a screen told', (_, change) => {
    const events = told(change);
    expect(events.some(([kind]) => kind === 'bill')).toBe(false);
    expect(events.find(([kind]) => kind === 'reading')?.[1]).toEqual({ screen: 'stall', socPct: 80, kWh: '41.37' });
  });
  it('a price of a kWh is kept with the row, and a way to pay only where the record has it', () => {
    const events = told({ perKWh: '0.55', means: 'cash' });
    expect(events[0]?.[1]).toMatchObject({ sheet: { perKWh: '0.55' } });
    expect(events.map(([kind]) => kind)).not.toEqual(expect.arrayContaining(['means_shown']));
    expect(events.find(([kind]) => kind === 'bill')?.[1]).toEqual(BILL);
  });
  it('can be kept, or not where more stands in it than a visit keeps', () => {
    expect(rowKeepable(ROW)).toBe(true);
    expect(rowKeepable({ ...ROW, rest: { More: 'x'.repeat(19_000) } })).toBe(true);
    expect(rowKeepable({ ...ROW, rest: { More: 'x'.repeat(20_000) } })).toBe(false);
    expect(rowKeepable({ ...ROW, stall: 'x'.repeat(81) })).toBe(false);
    expect(rowKeepable({ ...ROW, rest: { More: '\ud800' } })).toBe(false);
  });
});

describe('the visit that a row tells of', () => {
  it('has what the row tells, once, and no more', () => {
    const v = visitOf(ROW);
    expect(v.attempts).toHaveLength(1);
    expect(v.attempts[0]).toMatchObject({ n: 1, opened: { t: START, precision: 'min' } });
    expect(v.attempts[0]?.proof).toBeDefined();
    expect(v.paid).toMatchObject({ known: true, value: { amount: '23.1', currency: 'EUR' } });
    expect(v.delivered).toMatchObject({ known: true, value: '41.37' });
    expect([v.socFrom, v.socTo, v.leftReason, v.dayOnly]).toEqual([20, 80, 'enough', true]);
    expect(v.given).toHaveLength(1);
    expect(v.line.map((e) => e.kind)).toEqual(expect.arrayContaining(['stall_named', 'means_shown', 'note']));
    expect(v.line.find((e) => e.kind === 'pulled_in')?.payload).toMatchObject({
      sheet: { import: 'import', line: 2, car: 'Ember', minutes: 41, rest: { 'Receipt no.': 'R-1' } },
    });
    // How long the handshake took no row of start and end tells.
    expect(visitOf({ ...ROW, handshake_s: null }).attempts[0]?.times.handshake).toMatchObject({ known: false });
  });
  it.each([
    ['energy without money is a reading', { amount: null, currency: null }, true],
    ['a day alone', { startPrecision: 'day', start: NOON, end: null } as const, true],
    ['money alone', { kWh: null }, true],
    ['levels alone', { kWh: null, amount: null, currency: null }, true],
    ['no energy, by the clock', { kWh: '0', amount: null, currency: null }, false],
    ['no energy, on a day', { kWh: '0', amount: null, startPrecision: 'day', start: NOON, end: null, means: null } as const, false],
    ['no energy, yet billed', { kWh: '0' }, false],
  ])('%s', (_, change, power) => {
    const v = visitOf({ ...ROW, ...change });
    expect(v.attempts.map((a) => a.proof !== undefined)).toEqual([power]);
    expect(v.leftReason).toBe(power ? 'enough' : 'gave_up');
    expect(v.paid.known).toBe((change as { amount?: null }).amount !== null);
  });
  it('tells refunds, and rows that say nothing of a charge, apart', () => {
    expect(rowTells({ ...ROW, amount: '-3' })).toBe('refund');
    expect(rowTells({ ...ROW, kWh: null, amount: null, socTo: null })).toBe('nothing');
    expect(rowTells({ ...ROW, kWh: null, amount: '0', socTo: 20 })).toBe('nothing');
    expect(rowTells({ ...ROW, kWh: null, amount: '0' })).toBe('charged');
    expect(rowTells({ ...ROW, kWh: null, amount: null, socFrom: null })).toBe('nothing');
    expect(rowTells({ ...ROW, kWh: null, amount: '0.01', socTo: null })).toBe('charged');
    expect(rowTells({ ...ROW, kWh: '10', amount: '-0.01' })).toBe('refund');
    expect(rowTells({ ...ROW, kWh: '0', amount: '0' })).toBe('failed');
    expect(rowTells({ ...ROW, kWh: '0.01', amount: null })).toBe('charged');
  });
  it('a row is the same on another line and under other words for its place, and another with other figures', () => {
    expect(rowKey({ ...ROW, line: 9, site: 'VRBA  Crossing', note: null })).toBe(rowKey(ROW));
    expect(rowKey({ ...ROW, stall: null })).toBe(JSON.stringify(['vrba crossing', '', START, START + END, '41.37', '23.1', 'EUR']));
    expect(rowKey({ ...ROW, kWh: '41.38' })).not.toBe(rowKey(ROW));
    expect(rowKey({ ...ROW, start: START + 60_000 })).not.toBe(rowKey(ROW));
  });
  it('as a bill beside a recorded visit it keeps what it tells, and is one that can be kept', () => {
    const bill = rowBill({ ...ROW, minutes: 24, rest: { Tariff: 'guest' } }, refs.siteId, 'import');
    const sheet = { import: 'import', line: 2, car: 'Ember', minutes: 24, rest: { Tariff: 'guest' }, start: START, end: START + END, note: 'Rain' };
    expect(bill).toEqual({ ...BILL, sessions: [refs.siteId], minutes: 24, import: 'import', sheet });
    expect(payloadProblem('bill', bill)).toBeNull();
    const { kWh: _, ...money } = BILL;
    const bare = { import: 'import', line: 2, start: START, end: START + END };
    expect(rowBill({ ...ROW, ...BARE, amount: '23.1', kWh: null }, null, 'import')).toEqual({ ...money, import: 'import', sheet: bare });
    expect([
      rowBills(ROW),
      rowBills({ ...ROW, amount: '0' }),
      rowBills({ ...ROW, amount: '-1' }),
      rowBills({ ...ROW, amount: null }),
      rowBills({ ...ROW, currency: null }),
    ]).toEqual([true, true, false, false, false]);
  });
});
