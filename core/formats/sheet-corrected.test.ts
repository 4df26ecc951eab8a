import sheets from './fixtures/sheets-in.json';
import { readSheet, type SheetAnswer } from './sheet-import';

// What the file says or proves of itself can be wrong; the person who holds it knows.
const settings = { zone: 'Europe/Ljubljana', now: Date.UTC(2025, 10, 20), currency: 'EUR' };
const read = (heading: string, cells: readonly string[], answers: readonly SheetAnswer[]) => {
  const lines = [`Start;Station;${heading}`, ...cells.map((c, i) => `2025-10-1${i} 13:52;Vrba Crossing;${c}`)];
  const got = readSheet(new TextEncoder().encode(lines.join('\n')), sheets.world, settings, answers);
  if (!got.ok) throw new Error(got.code);
  return got;
};
const column = (of: object): SheetAnswer => ({ code: 'columns', answer: { 3: of } });

describe('a unit or a currency said of a column goes before that of its heading', () => {
  it.each([
    ['Energy (kWh)', '12500', { field: 'kWh', unit: 'Wh' }, 'kWh', '12.5'],
    ['Energy (kWh)', '12500 Wh', { field: 'kWh', unit: 'kWh' }, 'kWh', '12.5'],
    ['Duration (min)', '1:05', { field: 'minutes', unit: 'h' }, 'minutes', 65],
    ['Duration', '90', { field: 'minutes', unit: 's' }, 'minutes', 1.5],
    ['Handshake', '2', { field: 'handshake_s', unit: 'min' }, 'handshake_s', 120],
    ['Cost', '12.50', { field: 'amount', currency: 'GBP' }, 'currency', 'GBP'],
    ['Cost (EUR)', '12.50', { field: 'amount', currency: 'CHF' }, 'currency', 'CHF'],
    // What stands in the cell itself goes before both.
    ['Cost', '€12.50', { field: 'amount', currency: 'GBP' }, 'currency', 'EUR'],
    ['Cost', '12.50 usd', { field: 'amount', currency: 'GBP' }, 'currency', 'USD'],
  ] as const)('%s, %s, %j', (heading, cell, of, field, want) => expect(read(heading, [cell], [column(of)]).accepted.map((r) => r[field])).toEqual([want]));

  it.each([
    [{ field: 'kWh', unit: 'MWh' }, '12.5'],
    [{ field: 'kWh', unit: 'constructor' }, '12.5'],
    [{ field: 'kWh', unit: '' }, '12.5'],
    [{ field: 'nothing', unit: 'Wh' }, '12.5'],
  ])('what is none says nothing: %j', (of, want) => expect(read('Energy (kWh)', ['12.5'], [column(of)]).accepted.map((r) => r.kWh)).toEqual([want]));
  it.each(['', 'XQX', 'constructor'])('nor does a currency that nobody knows: %j', (currency) =>
    expect(read('Cost', ['12.50'], [column({ field: 'amount', currency })]).accepted.map((r) => r.currency)).toEqual(['EUR']),
  );
});

describe('the order of dates and the decimal mark, said of all of a file', () => {
  const dates = (answers: readonly SheetAnswer[], ...cells: string[]) => {
    const got = readSheet(new TextEncoder().encode(['Start,Station', ...cells.map((c) => `${c},Vrba Crossing`)].join('\n')), sheets.world, settings, answers);
    return got.ok ? [got.dialect.dateOrder, ...got.accepted.map((r) => new Date(r.start).getUTCMonth() + 1), got.refused.length] : got.code;
  };
  it('go before the one cell that proves another', () => {
    // A slip of the pen: the thirteenth month.
    const cells = ['04/13/2025 10:00', '03/04/2025 10:00'];
    expect(dates([], ...cells)).toEqual(['mdy', 4, 3, 0]);
    expect(dates([{ code: 'dates', answer: 'dmy' }], ...cells)).toEqual(['dmy', 4, 1]);
    expect(dates([{ code: 'dates', answer: null }], ...cells)).toEqual(['mdy', 4, 3, 0]);
    expect(
      dates(
        [
          { code: 'date_order', answer: 'mdy' },
          { code: 'dates', answer: 'dmy' },
        ],
        '03/04/2025 10:00',
      ),
    ).toEqual(['dmy', 4, 0]);
  });
  it('a figure that can be read by one mark alone is read by that', () => {
    const kWh = (answers: readonly SheetAnswer[]) => read('Energy (kWh)', ['12.5', '1,234'], answers).accepted.map((r) => r.kWh);
    expect(kWh([])).toEqual(['12.5', '1234']);
    expect(kWh([{ code: 'decimal', answer: ',' }])).toEqual(['12.5', '1.234']);
    expect(kWh([{ code: 'decimal', answer: null }])).toEqual(['12.5', '1234']);
    expect(read('Energy (kWh)', ['12,345'], [{ code: 'decimal', answer: '.' }]).refused.map((r) => r.reasons[0]?.code)).toEqual(['out_of_bounds']);
  });
});
