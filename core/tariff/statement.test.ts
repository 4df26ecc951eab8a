import { deriveVisit } from '../visit/derive';
import { CARD, IN, idOf, KW, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { periodBeside, periodOf, type StatementRow, statement, statementCsv, statementRow, taxRate, unnamed, wordsOfUse } from './statement';

const CHARGE: Step[] = [
  [20, 'plugged'],
  [30, 'means_shown', CARD],
  [60, 'power_seen', KW],
  [1860, 'power_gone', { asked: true }],
  [1860, 'reading', { screen: 'stall', kWh: '40' }],
  [2500, 'pulled_out', { reason: 'enough' }],
];
const bill = (amount: string, more: object = {}): Step => [3000, 'bill', { sessions: [], amount, currency: 'EUR', state: 'charged', ...more }];
const NAMES = { place: 'Vrba Crossing', car: 'Heron 62', driver: 'Ines' };
const row = (seen: boolean, ...steps: Step[]) => statementRow(deriveVisit(VISIT, story(IN, ...CHARGE, ...steps), payloadProblem), NAMES, seen);

describe('a visit in a statement', () => {
  it('has its bills, refunds less than nothing, and how many receipts', () => {
    const found = row(true, bill('20.00', { tax: '3.61', payee: 'Network', ref: 'No. 7' }), bill('5.00', { state: 'refunded', tax: '0.90', fx: '4.60' }), [
      3100,
      'receipt',
      { sha256: 'a'.repeat(64) },
    ]);
    expect(found).toMatchObject({
      visitId: VISIT,
      day: '2025-10-14',
      place: 'Vrba Crossing',
      car: 'Heron 62',
      driver: 'Ines',
      as: null,
      kWh: '40',
      receipts: 1,
      charged: true,
      hidden: false,
    });
    expect(found.bills).toEqual([
      { amount: '20.00', currency: 'EUR', tax: '3.61', payee: 'Network', ref: 'No. 7', state: 'charged', kind: 'charging', came: null },
      { amount: '-5', currency: 'EUR', tax: '0.90', payee: null, ref: null, state: 'refunded', kind: 'charging', came: '-4.6' },
    ]);
  });
  it('that is private to somebody else tells car, kWh and money alone', () => {
    expect(row(false, bill('20.00', { payee: 'Network', ref: 'No. 7' }))).toMatchObject({
      place: 'private',
      hidden: true,
      kWh: '40',
      bills: [{ amount: '20.00', payee: null, ref: null }],
    });
  });
});

const plain = (n: number, more: Partial<StatementRow>): StatementRow => ({
  visitId: idOf(n),
  day: '2025-10-01',
  place: 'A',
  car: 'Heron',
  driver: 'Ines',
  as: null,
  kWh: null,
  bills: [],
  receipts: 0,
  charged: true,
  hidden: false,
  ...more,
});
const paid = (amount: string, currency = 'EUR', tax: string | null = null) => ({
  amount,
  currency,
  tax,
  payee: null,
  ref: null,
  state: 'charged',
  kind: 'charging' as const,
  came: null,
});

describe('what a visit in a statement says', () => {
  it('goes by the day of arrival at its place, and by whether it was a charge', () => {
    // Half past eleven in the evening in Ljubljana is another day after midnight.
    const late = statementRow(
      deriveVisit(VISIT, story([9.5 * 3600, 'pulled_in', { siteId: idOf(7) }], [11 * 3600, 'pulled_out', { reason: 'gave_up' }]), payloadProblem),
      NAMES,
      true,
    );
    expect([late.day, late.charged, late.kWh]).toEqual(['2025-10-14', false, '0']);
    expect(row(true, bill('5.00', { fx: '4.60' })).bills[0]?.came).toBe('4.60');
  });
  it('without names is car, kWh and money alone', () => {
    const whole = row(true, bill('20.00', { payee: 'Network', ref: 'No. 7', tax: '3.61' }));
    expect(unnamed(whole)).toEqual({
      ...whole,
      place: 'private',
      hidden: true,
      bills: [{ ...whole.bills[0], payee: null, ref: null }],
    });
    expect(unnamed(whole).bills[0]).toMatchObject({ amount: '20.00', tax: '3.61' });
  });
});

describe('a statement', () => {
  const s = statement([
    plain(3, { day: '2025-10-09', car: 'Badger', as: 'business', bills: [paid('0.10', 'EUR', '0.02'), paid('0.20')], receipts: 1 }),
    plain(2, { day: '2025-10-02', as: 'private', bills: [paid('7.00', 'CHF')] }),
    plain(1, { day: '2025-10-02', bills: [paid('-0.05', 'EUR', '0.01')], receipts: 1 }),
    plain(4, { day: '2025-10-03' }),
    plain(5, { day: '2025-10-04', charged: false }),
  ]);
  it('is in the order of days, and adds within a currency alone, exactly', () => {
    expect(s.rows.map((r) => r.visitId)).toEqual([1, 2, 4, 5, 3].map(idOf));
    expect(s.sums).toEqual([
      { of: '', currency: 'CHF', bills: 1, paid: '7', tax: '0', taxed: 0 },
      { of: '', currency: 'EUR', bills: 3, paid: '0.25', tax: '0.01', taxed: 2 },
    ]);
    expect(s.byCar.map((x) => [x.of, x.currency, x.paid])).toEqual([
      ['Badger', 'EUR', '0.3'],
      ['Heron', 'CHF', '7'],
      ['Heron', 'EUR', '-0.05'],
    ]);
    expect(s.byUse.map((x) => [x.of, x.paid])).toEqual([
      ['Business', '0.3'],
      ['Not said', '-0.05'],
      ['Private', '7'],
    ]);
    expect(s.byDriver.map((x) => x.of)).toEqual(['Ines', 'Ines']);
    // Whatever the order of rows: by name, then by currency.
    const mixed = statement([
      plain(1, { car: 'Heron', bills: [paid('1', 'EUR'), paid('2', 'CHF')] }),
      plain(2, { car: 'Badger', bills: [paid('4', 'EUR')] }),
      plain(3, { car: 'Heron', driver: 'Tom', bills: [paid('8', 'EUR', '1')] }),
    ]);
    expect(mixed.byCar).toEqual([
      { of: 'Badger', currency: 'EUR', bills: 1, paid: '4', tax: '0', taxed: 0 },
      { of: 'Heron', currency: 'CHF', bills: 1, paid: '2', tax: '0', taxed: 0 },
      { of: 'Heron', currency: 'EUR', bills: 2, paid: '9', tax: '1', taxed: 1 },
    ]);
    expect(mixed.byDriver.map((x) => [x.of, x.currency, x.paid])).toEqual([
      ['Ines', 'CHF', '2'],
      ['Ines', 'EUR', '5'],
      ['Tom', 'EUR', '8'],
    ]);
    expect(s.byKind).toEqual([]);
    expect(wordsOfUse(null)).toBe('Not said');
  });
  it('is told by rates of tax, which a bill of cents says to half a per cent', () => {
    // 22 % and 9.5 % are Slovenia's rates, 20 % Austria's: from memory.
    const of = (amount: string, tax: string | null) => taxRate({ amount, tax });
    expect([of('20.00', '3.61'), of('12.41', '1.08'), of('-6.00', '1.00'), of('0.61', '0.11')]).toEqual(['22 % tax', '9.5 % tax', '20 % tax', '22 % tax']);
    expect([of('5', null), of('0', '0'), of('1', '1'), of('5', '0')]).toEqual(['Tax not said', 'Tax not said', 'Tax not said', '0 % tax']);
    const all = statement([plain(1, { bills: [paid('20.00', 'EUR', '3.61'), paid('6', 'EUR', '1')] }), plain(2, { bills: [paid('3')] })]);
    expect(all.byTax.map((x) => [x.of, x.paid, x.tax])).toEqual([
      ['20 % tax', '6', '1'],
      ['22 % tax', '20', '3.61'],
      ['Tax not said', '3', '0'],
    ]);
  });
  it('tells parking apart from charging where there is any', () => {
    const all = statement([plain(1, { bills: [paid('20'), { ...paid('2.50'), kind: 'parking' }] })]);
    expect(all.byKind.map((x) => [x.of, x.paid])).toEqual([
      ['Charging', '20'],
      ['Parking', '2.5'],
    ]);
    expect(statementCsv(all)).toContain('2.50,EUR,,,,charged,parking,,0');
  });
  it('tells what is missing', () => {
    expect(s.noBill.map((r) => r.visitId)).toEqual([idOf(4)]);
    expect(s.noReceipt.map((r) => r.visitId)).toEqual([idOf(2)]);
    expect(s.open).toEqual([]);
    const states = ['charged', 'pending', 'checked', 'queried', 'settled', 'refunded'].map((state, n) => plain(n, { bills: [{ ...paid('1'), state }] }));
    expect(statement(states).open.map((r) => r.bills[0]?.state)).toEqual(['pending', 'queried']);
  });
  it('is a line a bill for a spreadsheet, numbers as numbers, formulas told to be text', () => {
    const csv = statementCsv(statement([plain(1, { place: '=A1', bills: [paid('-5', 'EUR', '0.90')] }), plain(2, {}), plain(3, { charged: false })])).split(
      '\n',
    );
    // What is less than nothing is a number still, tax, kWh and what it came to among them.
    const less = statementCsv(statement([plain(1, { kWh: '-1', bills: [{ ...paid('-5', 'EUR', '-0.90'), came: '-4.6', payee: '-x' }] })])).split('\n')[1];
    expect(less).toBe("2025-10-01,A,Heron,Ines,,-1,-5,EUR,-0.90,'-x,,charged,charging,-4.6,0");
    expect(csv).toEqual([
      'day,place,car,driver,use,kWh,amount,currency,tax,paid to,number,state,for,came to,receipts',
      "2025-10-01,'=A1,Heron,Ines,,,-5,EUR,0.90,,,charged,charging,,0",
      '2025-10-01,A,Heron,Ines,,,,,,,,no bill,,,0',
      '2025-10-01,A,Heron,Ines,,,,,,,,no charge,,,0',
      '',
    ]);
  });
  it.each([
    ['2025', '2025'],
    ['2025-10', '2025-10'],
    ['2025-13', null],
    ['25', null],
    ['2025-10-01', null],
    [undefined, null],
  ])('of %s: %s', (text, period) => expect(periodOf(text)).toBe(period));
  it.each([
    ['2025-10', '2025-09', '2025-11'],
    ['2026-01', '2025-12', '2026-02'],
    ['2025-12', '2025-11', '2026-01'],
    ['2025', '2024', '2026'],
    ['2000-01', null, '2000-02'],
    ['2099-12', '2099-11', null],
    ['2000', null, '2001'],
    ['2099', '2098', null],
  ])('%s lies between %s and %s', (period, before, after) => expect([periodBeside(period, -1), periodBeside(period, 1)]).toEqual([before, after]));
});
