import { read, reasons, START } from './fixtures/read-rows';
import type { SheetAnswer } from './sheet-import';

describe('currencies', () => {
  const money = (amount: string, price: string, currency: string, heading = 'Cost') =>
    read([`Start;Station;${heading};Price per kWh;Currency`, `${START};${amount};${price};${currency}`], [], { currency: null });
  it('a currency that is none, and cells that disagree, are both told', () => {
    expect(reasons(money('38 £', '0,712 EUR', 'Taler'))).toEqual([['3 currency_conflict', '5 bad_currency']]);
    expect(reasons(money('38 £', '0,712 €', 'Taler'))).toEqual([['3 currency_conflict', '5 bad_currency']]);
    expect(reasons(money('38', '0,712', 'Taler'))).toEqual([['5 bad_currency']]);
    expect(reasons(money('38 €', '', 'Taler'))).toEqual([['5 bad_currency']]);
  });
  it.each([
    ['38 £', '0,712 €', '', ['3 currency_conflict']],
    ['', '$ 0,5', 'SEK', ['4 currency_conflict']],
    ['38 EUR', '', 'usd', ['3 currency_conflict']],
  ])('%s, %s and %s disagree', (amount, price, currency, want) => expect(reasons(money(amount, price, currency))).toEqual([want]));
  it.each([
    ['5 kr', '', 'SEK', 'Cost', 'SEK'],
    ['5 kr', '5 NOK', '', 'Cost', 'NOK'],
    ['5', '', '', 'Cost (CHF)', 'CHF'],
    ['5', '', '', 'Cost (£)', 'GBP'],
    ['5 £', '', '', 'Cost (CHF)', 'GBP'],
    ['R$ 5,20', '', '', 'Cost', 'BRL'],
    ['5 US$', '', '', 'Cost', 'USD'],
    ['₺5', '', 'try', 'Cost', 'TRY'],
    ['5 ALL', '', '', 'Cost', 'ALL'],
    ['$ 5', '', 'MXN', 'Cost', 'MXN'],
    ['5', '0.5', 'ZAR', 'All costs', 'ZAR'],
    ['5', '', '', 'Cost (AED)', 'AED'],
  ])('%s, %s, %s under %s is %s', (amount, price, currency, heading, want) =>
    expect(money(amount, price, currency, heading).accepted.map((r) => r.currency)).toEqual([want]),
  );
  it('a sign of several is the household’s own where that is one of them, in whichever country', () => {
    const own = (currency: string, amount = '$ 5') => read(['Start;Station;Cost', `${START};${amount}`], [], { currency });
    expect(['CAD', 'MXN'].map((c) => own(c).accepted.map((r) => r.currency))).toEqual([['CAD'], ['MXN']]);
    // One that is told without anybody is told whatever the household has.
    expect(own('EGP', '£ 5').accepted.map((r) => r.currency)).toEqual(['GBP']);
    expect(own('EUR').asks).toMatchObject([{ code: 'currency_symbol', options: ['USD', 'CAD', 'AUD', 'NZD'] }]);
    expect(reasons(money('$ 5', '', 'INR'))).toEqual([['3 currency_conflict']]);
  });
  it('a sign of several is asked for its own', () => {
    expect(money('5 kr', '', '').asks).toMatchObject([{ code: 'currency_symbol', options: ['SEK', 'NOK', 'DKK', 'ISK'], lines: [2] }]);
    expect(money('5', '', '', 'Cost ($)').asks).toMatchObject([{ code: 'currency_symbol', options: ['USD', 'CAD', 'AUD', 'NZD'] }]);
    expect(money('5', '', '').asks).toMatchObject([{ code: 'currency' }]);
    const rows = ['Start;Station;Cost', `${START};5 kr`, `${START};7`];
    const currencies = (...answers: SheetAnswer[]) => read(rows, answers, { currency: null }).accepted.map((r) => r.currency);
    expect(currencies({ code: 'currency', answer: 'SEK' })).toEqual(['SEK', 'SEK']);
    expect(currencies({ code: 'currency', answer: 'EUR' })).toEqual(['EUR']);
    expect(currencies({ code: 'currency', answer: 'SEK' }, { code: 'currency_symbol', answer: 'NOK' })).toEqual(['NOK', 'SEK']);
  });
});

it('an answer that is none leaves the question open', () => {
  const rows = ['Start;Station;Energy;Cost;Duration', '3/4/2025 10:00;Vrba Crossing;5;7;50', '26.10.2025 02:30;Vrba Crossing;5;7;50 min'];
  const codes = (...answers: SheetAnswer[]) => read(rows, answers, { currency: null }).asks.map((a) => a.code);
  const all = ['date_order', 'energy_unit', 'currency', 'duration_form', 'time_twice'];
  expect(codes().sort()).toEqual([...all].sort());
  for (const answer of ['no such', 7, null, {}, ['dmy']]) expect(codes(...all.map((code) => ({ code, answer }))).sort()).toEqual([...all].sort());
  const said = [
    { code: 'date_order', answer: 'mdy' },
    { code: 'energy_unit', column: 3, answer: 'kWh' },
    { code: 'currency', answer: 'CHF' },
    { code: 'duration_form', column: 5, answer: 'min' },
    { code: 'time_twice', answer: 'second' },
  ];
  expect(codes(...said)).toEqual([]);
});
