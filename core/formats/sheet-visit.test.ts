import { deriveVisit } from '../visit/derive';
import type { StoredEvent } from '../visit/event';
import { payloadProblem } from '../visit/payloads';
import type { SheetRow } from './sheet-row';
import { rowBill, rowBills, rowEvents, rowKey, rowTells } from './sheet-visit';

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
    expect(rowTells({ ...ROW, kWh: '0', amount: '0' })).toBe('failed');
    expect(rowTells({ ...ROW, kWh: '0.01', amount: null })).toBe('charged');
  });
  it('a row is the same on another line and under other words for its place, and another with other figures', () => {
    expect(rowKey({ ...ROW, line: 9, site: 'VRBA  Crossing', note: null })).toBe(rowKey(ROW));
    expect(rowKey({ ...ROW, kWh: '41.38' })).not.toBe(rowKey(ROW));
    expect(rowKey({ ...ROW, start: START + 60_000 })).not.toBe(rowKey(ROW));
  });
  it('as a bill beside a recorded visit it keeps what it tells, and is one that can be kept', () => {
    const bill = rowBill({ ...ROW, minutes: 24, rest: { Tariff: 'guest' } }, refs.siteId, 'import');
    expect(bill).toMatchObject({
      sessions: [refs.siteId],
      amount: ROW.amount,
      currency: ROW.currency,
      kWh: ROW.kWh,
      minutes: 24,
      state: 'charged',
      import: 'import',
      sheet: { line: ROW.line, start: ROW.start, end: ROW.end, rest: { Tariff: 'guest' } },
    });
    expect(payloadProblem('bill', bill)).toBeNull();
    expect(rowBill({ ...ROW, kWh: null, minutes: null, note: null }, null, 'import')).not.toHaveProperty('kWh');
    expect(rowBill(ROW, null, 'import').sessions).toEqual([]);
    expect([
      rowBills(ROW),
      rowBills({ ...ROW, amount: '0' }),
      rowBills({ ...ROW, amount: '-1' }),
      rowBills({ ...ROW, amount: null }),
      rowBills({ ...ROW, currency: null }),
    ]).toEqual([true, true, false, false, false]);
  });
});
