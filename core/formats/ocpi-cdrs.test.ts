import { cdrOf } from './fixtures/cdr';
import { cdrsIn } from './ocpi-cdrs';
import { plainJson } from './plain-json';
import { readJson } from './strict-json';

const START = Date.UTC(2025, 9, 14, 11);
const read = (minutes: number, more: object, text = JSON.stringify(cdrOf({ start: START, end: START + minutes * 60_000 }, more))) => {
  const found = readJson(new TextEncoder().encode(text));
  if (!found.ok) throw new Error(found.code);
  return cdrsIn(found.value);
};
const said = (got: ReturnType<typeof read>) => got.breaches.map((b) => `${b.pointer} ${b.code}`);

it.each([
  // Twenty minutes are a third of an hour, which no decimal is.
  [20, 0.35, []],
  [20, 0.316_666_666_666, ['/total_time sum']],
  [20, 0.350_000_000_01, ['/total_time sum']],
  [19, 0.333_333_333_333, []],
  [60, 1, []],
])('%d minutes from start to end and a total of %d h', (minutes, total_time, want) => expect(said(read(minutes, { total_time }))).toEqual(want));
it('the times of its periods go before its start and end', () => {
  const periods = (hours: number) => ({
    charging_periods: [
      {
        start_date_time: new Date(START).toISOString(),
        dimensions: [
          { type: 'ENERGY', volume: 10 },
          { type: 'TIME', volume: hours },
        ],
      },
    ],
  });
  expect(said(read(60, { ...periods(0.5), total_time: 0.5 }))).toEqual([]);
  expect(said(read(60, { ...periods(0.5), total_time: 1 }))).toEqual(['/total_time sum']);
});

describe('periods', () => {
  const period = (minute: number, type = 'ENERGY', volume = 5) => ({
    start_date_time: new Date(START + minute * 60_000).toISOString(),
    dimensions: [{ type, volume }],
  });
  const told = (...minutes: number[]) => said(read(60, { charging_periods: minutes.map((m) => period(m)), total_energy: 5 * minutes.length }));
  it('within the session and in order of time nothing is said of, the first moment and the last within it', () => {
    expect(told(0, 20, 60)).toEqual([]);
    expect(told(20, 20)).toEqual([]);
  });
  it('outside it each is told; out of order the first', () => {
    expect(told(-1, 20)).toEqual(['/charging_periods/0/start_date_time outside']);
    expect(told(0, 61, 62)).toEqual(['/charging_periods/1/start_date_time outside', '/charging_periods/2/start_date_time outside']);
    expect(told(0, 30, 20, 40, 10)).toEqual(['/charging_periods/2/start_date_time unsorted']);
  });
  it('tell the energy as ENERGY, else as what was imported', () => {
    const kWh = (...of: ReturnType<typeof period>[]) => read(60, { charging_periods: of }).bills[0]?.periods.map((p) => p.kWh);
    expect(kWh(period(0, 'ENERGY_IMPORT', 7))).toEqual(['7']);
    expect(kWh(period(0, 'ENERGY_EXPORT', 7))).toEqual([null]);
    const both = { ...period(0, 'ENERGY', 6), dimensions: [...period(0, 'ENERGY', 6).dimensions, ...period(0, 'ENERGY_IMPORT', 7).dimensions] };
    expect(kWh(both)).toEqual(['6']);
    expect(said(read(60, { charging_periods: [both], total_energy: 6 }))).toEqual([]);
    expect(said(read(60, { charging_periods: [both], total_energy: 6.02 }))).toEqual(['/total_energy sum']);
  });
  it('keep beside what has no place of its own: what was imported where ENERGY is said too, and never twice', () => {
    const other = (...dimensions: object[]) => read(60, { charging_periods: [{ ...period(0), dimensions }] }).bills[0]?.periods[0]?.other;
    const [energy, imported, current] = [
      { type: 'ENERGY', volume: 6 },
      { type: 'ENERGY_IMPORT', volume: 7 },
      { type: 'MAX_CURRENT', volume: 32 },
    ];
    expect(other(energy, imported, current)).toEqual([
      { type: 'ENERGY_IMPORT', volume: '7' },
      { type: 'MAX_CURRENT', volume: '32' },
    ]);
    expect(other(imported, current)).toEqual([{ type: 'MAX_CURRENT', volume: '32' }]);
    expect(other(energy)).toEqual([]);
  });
});

it.each([
  [{ total_cost: { excl_vat: -5 }, credit: true, credit_reference_id: 'C-0' }, []],
  [{ total_cost: { excl_vat: 5 }, credit: true, credit_reference_id: 'C-0' }, ['/total_cost/excl_vat credit_sign']],
  [{ total_cost: { excl_vat: 5, incl_vat: 6 }, credit: true, credit_reference_id: 'C-0' }, ['/total_cost/incl_vat credit_sign']],
  [{ total_cost: { excl_vat: 0 }, credit: true, credit_reference_id: 'C-0' }, []],
  [{ total_cost: { excl_vat: 5 }, credit: false }, []],
])('a credit takes money back: %j', (more, want) => expect(said(read(60, more))).toEqual(want));

const [DAY, NEXT] = ['2025-10-14T00:00:00Z', '2025-10-15T00:00:00Z'];
const tariff = (more: object) => ({
  country_code: 'SI',
  party_id: 'BLU',
  id: 'T-1',
  currency: 'EUR',
  elements: [{ price_components: [{ type: 'ENERGY', price: 0.5, step_size: 1 }] }],
  last_updated: new Date(START).toISOString(),
  ...more,
});
it('a session ends when it began or after; a tariff that comes with it is checked where it stands', () => {
  expect(said(read(0, {}))).toEqual([]);
  expect(said(read(-1, {}))).toContain('/end_date_time order');
  expect(said(read(60, { tariffs: [tariff({ start_date_time: DAY, end_date_time: NEXT })] }))).toEqual([]);
  expect(said(read(60, { tariffs: [tariff({}), tariff({ start_date_time: NEXT, end_date_time: DAY })] }))).toEqual(['/tariffs/1/end_date_time order']);
  expect(said(read(60, { tariffs: [tariff({}), 7] }))).toEqual(['/tariffs/1 type']);
});
it('a price is never below nothing but in a credit', () => {
  const below = { tariffs: [tariff({ min_price: { excl_vat: -1 } })] };
  for (const more of [{}, { credit: false }, { credit: null }]) expect(said(read(60, { ...below, ...more }))).toEqual(['/tariffs/0/min_price/excl_vat bounds']);
  expect(said(read(60, { ...below, credit: true, credit_reference_id: 'C-0', total_cost: { excl_vat: -5 } }))).toEqual([]);
  expect(cdrsIn([7 as never]).breaches).toEqual([{ pointer: '/0', code: 'type', refuses: true }]);
});

it('of whose token it was nothing is kept, and what was there is named', () => {
  expect(read(60, {}).notKept).toEqual(['/cdr_token/contract_id', '/cdr_token/uid']);
  expect(read(60, { cdr_token: { uid: 'X', type: 'RFID', contract_id: null } }).breaches.map((b) => b.pointer)).toEqual(['/cdr_token/contract_id']);
});

it.each([
  ['"4111 1111 1111 1111 12/27"', 'not kept'],
  ['4111111111111111', 'not kept'],
  // Milliseconds and what was measured pass the check digit once in ten, too.
  ['1760446328005', 1_760_446_328_005],
  ['0.4111111111111111', 0.4111111111111111],
  ['411111111111111111', 411111111111111100],
])('of %s in a record is kept %s', (written, kept) => {
  const text = JSON.stringify(cdrOf({ start: START, end: START + 3_600_000 }, { x_more: { list: ['HERE'] } })).replace('"HERE"', written);
  const [record] = read(60, {}, text).records.values();
  expect(plainJson(record as never)).toMatchObject({ total_energy: 10, x_more: { list: [kept] } });
});
