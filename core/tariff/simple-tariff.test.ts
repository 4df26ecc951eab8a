import bills from './fixtures/bills.json';
import { billDifference, expectedBill, type SimpleTariff, tariffOn } from './simple-tariff';

const tariff = (more: Partial<SimpleTariff> = {}): SimpleTariff => ({
  id: 't',
  networkId: 'n',
  siteId: null,
  currency: 'EUR',
  perKWh: '0.55',
  startFee: '0',
  validFrom: '2025-01-01',
  ...more,
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

describe('the tariff of a day', () => {
  const kept = ({ id, ...fields }: SimpleTariff, archived = false) => ({ type: 'tariff' as const, id, rev: 1, archived, fields });
  const list = [
    kept(tariff({ id: 'old', validFrom: '2024-01-01' })),
    kept(tariff({ id: 'new', validFrom: '2025-03-01' })),
    kept(tariff({ id: 'other', networkId: 'm', validFrom: '2025-04-01' })),
  ];
  const on = (day: string, networkId: string | null = 'n', siteId: string | null = 's') => tariffOn(list, { siteId, networkId }, day)?.id;
  it('is the one that held', () => expect([on('2025-02-28'), on('2025-03-01')]).toEqual(['old', 'new']));
  it('is none before the first or at an unknown network', () => expect([on('2023-12-31'), on('2025-06-01', null)]).toEqual([undefined, undefined]));
  it('is the site’s own from its day, and no other site’s', () => {
    const own = [...list, kept(tariff({ id: 'own', siteId: 's', validFrom: '2025-02-01' }))];
    const at = (siteId: string, day: string) => tariffOn(own, { siteId, networkId: 'n' }, day)?.id;
    expect([at('s', '2025-01-31'), at('s', '2025-02-01'), at('s', '2025-06-01'), at('t', '2025-06-01')]).toEqual(['old', 'own', 'own', 'new']);
  });
  it('counts for its days also when it was put away', () =>
    expect(tariffOn([kept(tariff({ id: 'gone' }), true)], { siteId: 's', networkId: 'n' }, '2025-06-01')?.id).toBe('gone'));
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
