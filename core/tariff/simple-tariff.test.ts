import type { MileRecord } from '../records/record-schema';
import { RECORDS } from '../records/record-schema';
import bills from './fixtures/bills.json';
import { billDifference, expectedBill } from './simple-tariff';
import { type KeptTariff, offersOn, pricesByPlace, tariffOn } from './tariff-on';

const idOf = (name: string) =>
  `01900000-0000-7000-8000-${[...name]
    .map((c) => c.charCodeAt(0).toString(16))
    .join('')
    .padStart(12, '0')}`;
const tariff = ({ id = 't', networkId = 'n', siteId = null, ...more }: Partial<KeptTariff> = {}): KeptTariff => ({
  id: idOf(id),
  ...RECORDS.tariff.parse({
    networkId: idOf(networkId),
    siteId: siteId && idOf(siteId),
    currency: 'EUR',
    perKWh: '0.55',
    validFrom: '2025-01-01',
    ...more,
  }),
});

describe('the expected bill', () => {
  it.each(bills.cases.map((c) => [c.title, c] as const))('%s', (_title, c) => {
    expect(expectedBill(tariff({ perKWh: c.perKWh, startFee: c.startFee }), c.kWh, 1).total).toBe(c.total);
  });
  // Common practice, no source: at 0.30 per kWh.
  it.each([
    ['13.074', '3.92'],
    ['15.278', '4.58'],
    ['16.34', '4.90'],
    ['16.534', '4.96'],
  ])('%s kWh at 0.30 costs %s', (kWh, total) => {
    expect(expectedBill(tariff({ perKWh: '0.30' }), kWh, 1).total).toBe(total);
  });
  it('charges the start fee for each session and rounds only the total', () => {
    const b = expectedBill(tariff({ perKWh: '0.333', startFee: '0.005' }), '1.005', 2);
    expect(b.lines).toHaveLength(2);
    expect(b.total).toBe('0.34');
  });
  it('is decimal: 0.1 and 0.2 make 0.3', () => expect(expectedBill(tariff({ perKWh: '0.1', startFee: '0.2' }), '1', 1).total).toBe('0.30'));
});

describe('the price of a day', () => {
  const kept = ({ id, ...fields }: KeptTariff, archived = false): MileRecord<'tariff'> => ({ type: 'tariff', id, rev: 1, archived, fields });
  const list = [
    kept(tariff({ id: 'old', validFrom: '2024-01-01' })),
    kept(tariff({ id: 'new', validFrom: '2025-03-01' })),
    kept(tariff({ id: 'other', networkId: 'm', validFrom: '2025-04-01' })),
  ];
  const at = (records: typeof list, day: string, siteId: string | null = 's', networkId: string | null = 'n') => {
    const id = tariffOn(records, { siteId: siteId && idOf(siteId), networkId: networkId && idOf(networkId) }, day)?.id;
    return ['old', 'new', 'other', 'own', 'gone', 'ends', 'member'].find((name) => idOf(name) === id);
  };
  it('is the one that held', () => expect([at(list, '2025-02-28'), at(list, '2025-03-01')]).toEqual(['old', 'new']));
  it('is none before the first or at an unknown network', () =>
    expect([at(list, '2023-12-31'), at(list, '2025-06-01', null, null)]).toEqual([undefined, undefined]));
  it('is the sites’ own from its day, and no other site’s', () => {
    const own = [...list, kept(tariff({ id: 'own', siteId: 's', moreSiteIds: [idOf('u')], validFrom: '2025-02-01' }))];
    expect([at(own, '2025-01-31'), at(own, '2025-02-01'), at(own, '2025-06-01', 'u'), at(own, '2025-06-01', 't')]).toEqual(['old', 'own', 'own', 'new']);
  });
  it('ends with its last day, and counts for its days also when it was put away', () => {
    const ends = [...list, kept(tariff({ id: 'ends', validFrom: '2025-03-05', validUntil: '2025-03-06' }))];
    expect([at(ends, '2025-03-06'), at(ends, '2025-03-07')]).toEqual(['ends', 'new']);
    expect(at([kept(tariff({ id: 'gone' }), true)], '2025-06-01')).toBe('gone');
  });
  it('is the same among the prices that a place could have', () => {
    const many = [...list, kept(tariff({ id: 'own', siteId: 's', moreSiteIds: [idOf('u')] })), kept(tariff({ id: 'gone', siteId: 't', networkId: 'm' }))];
    const of = pricesByPlace(many);
    for (const siteId of ['s', 't', 'u', 'x', null])
      for (const networkId of ['n', 'm', 'x', null]) {
        const place = { siteId: siteId && idOf(siteId), networkId: networkId && idOf(networkId) };
        expect(tariffOn(of(place), place, '2025-06-01')).toBe(tariffOn(many, place, '2025-06-01'));
        expect(of(place).length).toBeLessThan(many.length);
      }
  });
  it('is a guest’s, unless a plan is held that day', () => {
    const plan = (from: string, until: string | null): MileRecord<'plan'> => ({
      type: 'plan',
      id: idOf('p'),
      rev: 1,
      archived: false,
      fields: RECORDS.plan.parse({ name: 'Plan', networkId: idOf('n'), currency: 'EUR', from, until }),
    });
    const both = [
      ...list,
      kept(tariff({ id: 'member', planId: idOf('p'), validFrom: '2025-01-01' })),
      kept(tariff({ id: 'own', providerId: idOf('q'), validFrom: '2025-01-01' })),
    ];
    expect(at(both, '2025-06-01')).toBe('new');
    const offers = (day: string, plans: MileRecord<'plan'>[], providers: string[] = []) =>
      offersOn(both, plans, providers, { siteId: null, networkId: idOf('n') }, day).map((o) => o.tariff.id);
    expect(offers('2025-06-01', [plan('2025-06-01', '2025-06-30')])).toEqual([idOf('new'), idOf('member')]);
    expect(offers('2025-07-01', [plan('2025-06-01', '2025-06-30')])).toEqual([idOf('new')]);
    expect(offers('2025-05-31', [plan('2025-06-01', null)], [idOf('q'), idOf('q')])).toEqual([idOf('new'), idOf('own')]);
  });
});

describe('the difference from what was charged', () => {
  const expected = expectedBill(tariff({ startFee: '0.46' }), '40.5', 1);
  it('is signed', () =>
    expect([billDifference(expected, { amount: '23.20', currency: 'EUR' }), billDifference(expected, { amount: '22.00', currency: 'EUR' })]).toEqual([
      { known: true, value: '0.46' },
      { known: true, value: '-0.74' },
    ]));
  it('is unknown across currencies', () => expect(billDifference(expected, { amount: '22', currency: 'CHF' }).known).toBe(false));
});
