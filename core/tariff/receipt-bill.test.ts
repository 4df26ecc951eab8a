import { type MileRecord, RECORDS } from '../records/record-schema';
import type { RecordType } from '../records/record-types';
import { deriveVisit } from '../visit/derive';
import { idOf, SITE, STALL_A, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { chargedAttempts } from './charged-visit';
import { type BillRecords, billVerdict, checkedBill } from './checked-bill';
import { NO_PRICE, objectOfPlain, oneLineOf, type PlainPrice } from './plain-price';

// A visit typed in from its receipt: kWh and an amount, and no attempt.
const NETWORK = idOf(40);
const record = <T extends RecordType>(type: T, n: number, fields: object): MileRecord<T> =>
  ({ type, id: idOf(n), rev: 1, archived: false, fields: RECORDS[type].parse(fields) }) as MileRecord<T>;
const around = (p: Partial<PlainPrice>): BillRecords => {
  const whole = { ...NO_PRICE, ...p };
  const { tariff, extra } = objectOfPlain(whole, { id: idOf(50), currency: 'EUR', day: '2025-01-01' });
  return {
    site: record('site', 7, { networkId: NETWORK, name: 'Vrba Crossing', zone: 'Europe/Ljubljana' }),
    network: 'Saltmarsh Rapid',
    stalls: [record('stall', 8, { siteId: SITE, name: '2', outlets: [{ connector: 'CCS2', ratedKW: 150 }] })],
    tariffs: [record('tariff', 50, { networkId: NETWORK, currency: 'EUR', ...oneLineOf(whole), tariff, extra, validFrom: '2025-01-01' })],
    sites: [],
    plans: [],
    means: [],
    providers: [],
  };
};
const visitOf = (...steps: Step[]) =>
  deriveVisit(
    VISIT,
    story([0, 'pulled_in', { siteId: SITE }], [5, 'stall_chosen', { stallId: STALL_A }], [20, 'pulled_out', { reason: 'enough' }], ...steps),
    payloadProblem,
  );
const bill = (amount: string, more: object = {}): Step => [30, 'bill', { sessions: [], amount, currency: 'EUR', state: 'charged', kWh: '31.4', ...more }];
const priced = (p: Partial<PlainPrice>, ...steps: Step[]) => {
  const found = checkedBill(visitOf(...steps), around(p));
  return found && 'unpriced' in found ? found.unpriced : found && [found.total, found.difference];
};

describe('the bill of a receipt', () => {
  it('is held against a price of energy and starts', () => {
    expect(chargedAttempts(visitOf(bill('15.70')))).toMatchObject({ known: true, value: [{ n: 0, kWh: '31.4', timed: false }] });
    expect(priced({ perKWh: '0.5' }, bill('15.70'))).toEqual(['15.70', { known: true, value: '0.00' }]);
    expect(priced({ perKWh: '0.5', startFee: '1' }, bill('15.70'))).toEqual(['16.70', { known: true, value: '-1.00' }]);
    const off = checkedBill(visitOf(bill('18.84')), around({ perKWh: '0.5' }));
    if (!off || 'unpriced' in off) throw new Error();
    expect(off.difference).toEqual({ known: true, value: '3.14' });
    // Whom to ask is told which stall, and that it is the receipt that says the kWh.
    expect(off.query).toContain('at Vrba Crossing, stall 2 on 14 Oct 2025 at 13:52, 31.4 kWh by the receipt.');
    const dayOnly = deriveVisit(
      VISIT,
      story([0, 'pulled_in', { siteId: SITE }], bill('18.84')).map((e) => ({ ...e, precision: 'day' as const })),
      payloadProblem,
    );
    const asked = checkedBill(dayOnly, around({ perKWh: '0.5' }));
    expect(asked && 'query' in asked && asked.query).toContain('at Vrba Crossing on 14 Oct 2025, 31.4 kWh by the receipt.');
    expect([billVerdict(visitOf(bill('15.70')), around({ perKWh: '0.5' })), billVerdict(visitOf(bill('15')), around({ perKWh: '0.5' }))]).toEqual([
      'right',
      'off',
    ]);
  });
  it('by the price of what it was paid with', () => {
    const guests = around({ perKWh: '0.5' });
    const [own] = around({ perKWh: '0.3' }).tariffs as [MileRecord<'tariff'>];
    const provider = { ...own, id: idOf(51), fields: { ...own.fields, providerId: idOf(60) } };
    const means = record('means', 61, { kind: 'rfid', label: 'Card', providerId: idOf(60) });
    const records = { ...guests, tariffs: [...guests.tariffs, provider], means: [means], providers: [record('provider', 60, { name: 'Roamer' })] };
    const total = (meansId?: string) => {
      const found = checkedBill(visitOf(bill('9.42', meansId ? { meansKind: 'rfid', meansId } : {})), records);
      return found && 'total' in found ? found.total : null;
    };
    expect([total(), total(means.id)]).toEqual(['15.70', '9.42']);
  });
  it('is not, with the reason, where the price asks for times, or nothing was charged that is known', () => {
    expect(priced({ perKWh: '0.5', perMin: '0.1' }, bill('15.70'))).toBe('the price depends on times that were not recorded');
    expect(priced({ perKWh: '0.5' }, [30, 'bill', { sessions: [], amount: '15.70', currency: 'EUR', state: 'charged' }])).toBe(
      'no charge was noted that it could be for',
    );
    expect(priced({ perKWh: '0.5' }, bill('0', { kWh: '0' }))).toBe('no charge was noted that it could be for');
    expect(priced({ perKWh: '0.5' })).toBeNull();
  });
});
