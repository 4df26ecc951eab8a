import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, SITE, STALL_A, type Step, story, T0, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { billedItems, billPayload, billProblem, MOST_DOCUMENT, recordedAttempts } from './cdr-bills';
import { cdrOf } from './fixtures/cdr';
import { type BillIn, cdrsIn } from './ocpi-cdrs';
import { readJson } from './strict-json';

const OF_A_DAY = { precision: 'day' } as const;
const recorded = (...steps: Step[]) =>
  recordedAttempts(deriveVisit(VISIT, story(...steps), payloadProblem), 'Lipa Barn', (id) => (id === STALL_A ? '2' : null));
const iso = (ms: number | null | undefined) => (ms == null ? ms : new Date(ms).toISOString());
const stay = (...steps: Step[]) => recorded(...steps).map((a) => [iso(a.pulledIn), iso(a.pulledOut)])[0];
const CHARGE: Step[] = [
  [10, 'stall_chosen', { stallId: STALL_A }],
  [20, 'plugged'],
  [30, 'means_shown', CARD],
  [60, 'power_seen', KW],
  [70, 'reading', { screen: 'stall', kWh: '0.0', socPct: 20 }],
  [1800, 'reading', { screen: 'stall', kWh: '31.0', socPct: 70 }],
  [1810, 'stop_asked', { by: 'button' }],
  [1815, 'power_gone', { why: 'asked' }],
  [1900, 'unplugged'],
];

describe('from when to when a bill may be of a visit', () => {
  it('from pulling in to pulling out; to no end as long as nobody pulled out', () => {
    expect(stay(IN, ...CHARGE, [2000, 'pulled_out', { reason: 'enough' }])).toEqual(['2025-10-14T11:52:00.000Z', '2025-10-14T12:25:20.000Z']);
    expect(stay(IN, ...CHARGE)).toEqual(['2025-10-14T11:52:00.000Z', null]);
  });
  it('to no end where one left on that day and no more is known', () => {
    expect(stay(IN, ...CHARGE, [2000, 'pulled_out', { reason: 'enough' }, OF_A_DAY])).toEqual(['2025-10-14T11:52:00.000Z', null]);
  });
  it('of what is known to the day alone all of that day, by the clock of the place, the day on which clocks are set, too', () => {
    const day = (at: string): Step[] => [
      [(Date.parse(at) - T0) / 1000, 'pulled_in', { siteId: SITE }, OF_A_DAY],
      [(Date.parse(at) - T0) / 1000, 'bill', { sessions: [], amount: '12.50', currency: 'EUR', kWh: '31.0', state: 'charged' }, OF_A_DAY],
      [(Date.parse(at) - T0) / 1000, 'pulled_out', { reason: 'enough' }, OF_A_DAY],
    ];
    expect(stay(...day('2025-10-14T10:00:00Z'))).toEqual(['2025-10-13T22:00:00.000Z', '2025-10-14T22:00:00.000Z']);
    expect(stay(...day('2025-10-26T11:00:00Z'))).toEqual(['2025-10-25T22:00:00.000Z', '2025-10-26T23:00:00.000Z']);
    expect(recorded(...day('2025-10-14T10:00:00Z'))).toMatchObject([
      { n: 0, start: null, kWh: '31', power: true, site: 'Lipa Barn', zone: 'Europe/Ljubljana' },
    ]);
  });
  it('begins with what was noted first where nobody noted pulling in', () => {
    expect(stay(...CHARGE)).toEqual(['2025-10-14T11:52:10.000Z', null]);
  });
});

it('an attempt begins with its power, else where it was opened; what it gave counts where all of it was read', () => {
  expect(recorded(IN, ...CHARGE)).toMatchObject([{ n: 1, stall: '2', start: T0 + 60_000, kWh: '31.0', power: true }]);
  expect(recorded(IN, ...CHARGE.slice(0, 5))).toMatchObject([{ start: T0 + 60_000, kWh: null, power: true }]);
  expect(recorded(IN, ...CHARGE.slice(0, 3), [60, 'fault', { code: 'start_error', side: 'network' }])).toMatchObject([
    { n: 1, start: T0 + 20_000, kWh: null, power: false },
  ]);
  // Of a day alone no time is told.
  const ofDay = recorded(IN, [10, 'stall_chosen', { stallId: STALL_A }], [20, 'plugged', {}, OF_A_DAY], [60, 'power_seen', KW, OF_A_DAY]);
  expect(ofDay).toMatchObject([{ n: 1, start: null, power: true }]);
  // Typed in from its receipt: no attempt is known.
  const receipt = (...more: Step[]) => recorded(IN, [10, 'stall_chosen', { stallId: STALL_A }], ...more, [2000, 'pulled_out', { reason: 'enough' }]);
  const bill = [1900, 'bill', { sessions: [], amount: '12.40', currency: 'EUR', kWh: '31.0', state: 'charged' }] as const;
  expect(receipt([...bill])).toMatchObject([{ n: 0, stall: '2', start: null, kWh: '31', power: true }]);
  // Where nothing was charged, nothing is there to be billed.
  expect(recorded(IN, [2000, 'pulled_out', { reason: 'gave_up' }])).toEqual([]);
});

it('what was billed is looked for at its place, by its time', () => {
  const bill = { id: 'SI*SMR*C1', start: T0, kWh: '31.0', credits: null } as BillIn;
  expect(billedItems([bill], () => ({ site: 'Lipa Barn', stall: '2' }))).toEqual([
    { id: 'SI*SMR*C1', site: 'Lipa Barn', stall: '2', start: T0, dayOnly: false, kWh: '31.0', credits: null },
  ]);
});

describe('a bill as it is kept', () => {
  const told = (more: object) => {
    const read = readJson(new TextEncoder().encode(JSON.stringify(cdrOf({ start: T0, end: T0 + 3_600_000 }, more))));
    if (!read.ok) throw new Error(read.code);
    const { bills, records } = cdrsIn(read.value);
    const [bill] = bills;
    if (!bill) throw new Error('no bill');
    return { bill, payload: billPayload(bill, 'session', 'import', records.get(bill.id)) };
  };
  const kept = (more: object) => told(more).payload;
  it('has its own figures; a credit takes money back, and no energy', () => {
    expect(kept({})).toMatchObject({ sessions: ['session'], amount: '5', currency: 'EUR', kWh: '10', minutes: 60, state: 'charged', import: 'import' });
    const back = kept({ credit: true, credit_reference_id: 'C-0', total_cost: { excl_vat: -5 } });
    expect(back).toMatchObject({ amount: '5', state: 'refunded', cdr: { credits: 'SI*BLU*C-0' } });
    expect(back).not.toHaveProperty('kWh');
  });
  it('has six decimals at most, as programs write sums of money and energy', () => {
    const odd = told({ total_energy: 10.000000000000002, total_cost: { excl_vat: 12.704918032786885 } });
    expect(odd.payload).toMatchObject({ amount: '12.704918', kWh: '10' });
    expect([billProblem(odd.bill), odd.payload.cdr.document]).toEqual([null, expect.stringContaining('12.704918032786885')]);
  });
  it('has the record itself beside them as long as an event holds it', () => {
    expect(kept({ remark: 'x' }).cdr.document).toContain('"remark":"x"');
    const room = MOST_DOCUMENT - new TextEncoder().encode(JSON.stringify(kept({ remark: '' }).cdr.document)).length;
    expect(kept({ remark: 'x'.repeat(room) }).cdr).toHaveProperty('document');
    expect(kept({ remark: 'x'.repeat(room + 1) }).cdr).not.toHaveProperty('document');
  });
  it('is known by its id, and by the end of one that may be a card’s number', () => {
    expect(kept({ id: '4111111111111112' }).ref).toBe('SI*BLU*4111111111111112');
    // A number of those that are published for trying payments, from memory; its check digit is right.
    const odd = kept({ id: '4111111111111111' });
    expect(odd.ref).toBe(`SI*BLU* … 1111 of ${new Date(T0).toISOString()}`);
    expect(JSON.stringify(odd)).not.toContain('4111111111111111');
    expect(payloadProblem('bill', { ...odd, sessions: [] })).toBeNull();
    const others = kept({
      credit: true,
      credit_reference_id: '4111111111111111',
      cdr_location: { ...cdrOf({ start: T0, end: T0 }).cdr_location, evse_id: 'E4111111111111111' },
    });
    expect(others.cdr).toMatchObject({ credits: 'not kept', evse: 'not kept' });
    expect(kept({ id: '4111111111111111x😀x12' }).ref).toContain('… 😀x12 of');
    expect(kept({ id: '😀'.repeat(90) }).ref).toBe(`SI*BLU*${'😀'.repeat(73)}`);
  });
  it('says why it cannot be kept; whatever is long about it is no reason', () => {
    expect(billProblem(told({}).bill)).toBeNull();
    expect(billProblem(told({ total_energy: 2000 }).bill)).toBeNull();
    expect(billProblem(told({ total_energy: 2001 }).bill)).toBe('kWh must be at most 2000 kWh');
    for (const excl_vat of [100_000_001, 1e12]) expect(billProblem(told({ total_cost: { excl_vat } }).bill)).toBe('amount must be at most 100000000');
    const long = 'x'.repeat(70_000);
    const wordy = told({ credit_reference_id: long, credit: true, cdr_location: { ...cdrOf({ start: T0, end: T0 }).cdr_location, evse_id: long } });
    expect(billProblem(wordy.bill)).toBeNull();
    expect(JSON.stringify(wordy.payload).length).toBeLessThan(2_000);
  });
});
