import bills from './fixtures/bills.json';
import { billDifference, expectedBill, type SimpleTariff, tariffOn } from './simple-tariff';

const tariff = (more: Partial<SimpleTariff> = {}): SimpleTariff => ({
  id: 't',
  networkId: 'n',
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
  const list = [
    tariff({ id: 'old', validFrom: '2024-01-01' }),
    tariff({ id: 'new', validFrom: '2025-03-01' }),
    tariff({ id: 'other', networkId: 'm', validFrom: '2025-04-01' }),
  ];
  it('is the one that held', () => expect([tariffOn(list, 'n', '2025-02-28')?.id, tariffOn(list, 'n', '2025-03-01')?.id]).toEqual(['old', 'new']));
  it('is none before the first or at an unknown network', () =>
    expect([tariffOn(list, 'n', '2023-12-31'), tariffOn(list, null, '2025-06-01')]).toEqual([undefined, undefined]));
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
