import fixtures from './fixtures/receipts.json';
import { readReceipt } from './receipt-text';
import { whereRead } from './receipt-where';

const now = Date.parse(fixtures.now);
const where = (text: string) => {
  const lines = text
    .trimEnd()
    .split('\n')
    .map((t) => ({ text: t }));
  return whereRead(readReceipt(text, fixtures.sites, now), lines, fixtures.sites, now);
};

describe('where on a receipt a figure was read', () => {
  it('is the line that says it by itself, the figure of a label a line above too', () => {
    const text = fixtures.cases.find((c) => c.id === '04-hold-tax-total')?.text as string;
    expect(where(text)).toEqual({ site: 0, date: 1, kWh: 3, amount: 7, currency: 7, minutes: 8 });
  });
  it('the currency is where the amount is, else where it stands first', () => {
    expect(where('0,55 EUR/kWh\nTotal 12,20 EUR')).toEqual({ amount: 1, currency: 1 });
    expect(where('0,55 EUR/kWh\nTotal 12,20')).toEqual({ amount: 1, currency: 0 });
  });
  it('is nowhere for what is not told, and for what no line says alone', () => {
    expect(where('2 kWh\n3 kWh')).toEqual({});
    expect(where('Date 25/03/2025\nStart 03/04/2025')).toEqual({});
    expect(where('')).toEqual({});
  });
  it('keeps figures as they are printed', () => {
    expect(readReceipt('19.10 kWh\nTotal 1.234,50 EUR', [], now).proposal).toMatchObject({ kWh: '19.10', amount: '1234.50' });
    expect(readReceipt('12,50 kWh\n500 Wh', [], now).emptyBecause.kWh).toBe('several');
  });
});
