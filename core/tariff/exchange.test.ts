import { inOneCurrency, inOneWords, type Rate, rateOn } from './exchange';

const rate = (currency: string, of: string, on: string, into = 'EUR'): Rate => ({ currency, into, rate: of, on });
const RATES = [
  rate('CHF', '0.93', '2025-09-01'),
  rate('CHF', '1.0625', '2025-10-10'),
  rate('EUR', '0.94', '2025-01-01', 'CHF'),
  rate('GBP', '1.15', '2025-10-01'),
];

describe('a dated rate', () => {
  it.each([
    ['2025-08-31', undefined],
    ['2025-09-01', '0.93'],
    ['2025-10-09', '0.93'],
    ['2025-10-10', '1.0625'],
    ['2026-01-01', '1.0625'],
  ])('on %s', (day, of) => expect(rateOn(RATES, 'CHF', 'EUR', day)?.rate).toBe(of));
  it('is not turned round', () => {
    expect(rateOn(RATES, 'EUR', 'CHF', '2025-10-10')?.rate).toBe('0.94');
    expect(rateOn([rate('EUR', '0.94', '2025-01-01', 'CHF')], 'CHF', 'EUR', '2025-10-10')).toBeUndefined();
  });
});

describe('several currencies in one', () => {
  const amount = (a: string, currency: string, day: string) => ({ amount: a, currency, day });
  it('each by the rate of its day, added up exactly, rounded once', () => {
    // 10.00 + 3.34 × 0.93 + 1.10 × 1.0625 = 10 + 3.1062 + 1.16875 = 14.27495
    const x = inOneCurrency([amount('10', 'EUR', '2025-01-01'), amount('3.34', 'CHF', '2025-09-30'), amount('1.10', 'CHF', '2025-10-11')], 'EUR', RATES);
    expect(x).toEqual({ sum: '14.27', rates: [RATES[0], RATES[1]], came: 0 });
    // Rounded one by one it would be 3.11 + 3.11 = 6.22.
    const twice = [amount('3.34', 'CHF', '2025-09-30'), amount('3.34', 'CHF', '2025-09-30')];
    expect(inOneCurrency(twice, 'EUR', RATES).sum).toBe('6.21');
  });
  it('a refund is taken off, and none of nothing is nothing', () => {
    expect(inOneCurrency([amount('5', 'CHF', '2025-10-10'), amount('-5', 'CHF', '2025-10-10')], 'EUR', RATES).sum).toBe('0.00');
    expect(inOneCurrency([], 'EUR', RATES)).toEqual({ sum: '0.00', rates: [], came: 0 });
  });
  it('what it came to on the account goes before any rate, and needs none', () => {
    const came = { ...amount('10', 'SEK', '2025-10-12'), came: '0.91' };
    const x = inOneCurrency([came, amount('1', 'EUR', '2025-10-12')], 'EUR', RATES);
    expect(x).toEqual({ sum: '1.91', rates: [], came: 1 });
    expect(inOneWords({ ...x, into: 'EUR' })).toBe('All of it in EUR: €1.91, 1 bill as it came to the account, as noted.');
    const both = inOneCurrency([came, { ...came, came: '0.90' }, amount('1', 'GBP', '2025-10-12')], 'EUR', RATES);
    expect(inOneWords({ ...both, into: 'EUR' })).toBe(
      'All of it in EUR: €2.96, by 1 GBP = 1.15 EUR of 1 Oct 2025, 2 bills as they came to the account, as noted.',
    );
  });
  it('without a rate for one of them there is no sum', () => {
    const x = inOneCurrency([amount('5', 'CHF', '2025-10-10'), amount('5', 'SEK', '2025-10-12')], 'EUR', RATES);
    expect(x).toEqual({ sum: null, missing: { currency: 'SEK', day: '2025-10-12' } });
    expect(inOneWords({ ...x, into: 'EUR' })).toBe('No sum in EUR: no rate for SEK is noted on or before 12 Oct 2025. Exchange rates are kept in the garage.');
  });
  it('names every rate beside the sum, in order', () => {
    const x = inOneCurrency([amount('1', 'GBP', '2025-10-10'), amount('1', 'CHF', '2025-10-10'), amount('1', 'CHF', '2025-09-10')], 'EUR', RATES);
    expect(inOneWords({ ...x, into: 'EUR' })).toBe(
      'All of it in EUR: €3.14, by 1 CHF = 0.93 EUR of 1 Sep 2025, 1 CHF = 1.0625 EUR of 10 Oct 2025, 1 GBP = 1.15 EUR of 1 Oct 2025, as noted.',
    );
  });
});
