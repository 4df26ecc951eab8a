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

describe('of a file that could be Windows-1252 or -1250', () => {
  // E8 is è in one and č in the other, 9A is š in both (tables of WHATWG's Encoding standard, from memory).
  const read = (heading: string, site: string, ...answers: SheetAnswer[]) => {
    const bytes = Buffer.from([`Start;${heading};Energy (kWh)`, `2025-10-14 13:52;${site};12.5`, '2025-10-15 13:52;Lipa Barn;12.5', ''].join('\n'), 'latin1');
    const got = readSheet(bytes, sheets.world, settings, answers);
    if (!got.ok) throw new Error(got.code);
    return [got.dialect.encoding, got.accepted.map((r) => r.site), got.asks.filter((a) => a.code === 'encoding'), got.waiting];
  };
  const ASKED = { code: 'encoding', column: null, options: ['windows-1252', 'windows-1250'], lines: [2] };
  it('it is asked of the rows alone where it matters, and the answer settles it', () => {
    expect(read('Station', 'Re\u00e8ica')).toEqual(['windows-1252', ['Lipa Barn'], [ASKED], [2]]);
    expect(read('Station', 'Re\u00e8ica', { code: 'encoding', answer: 'windows-1250' })).toEqual(['windows-1250', ['Rečica', 'Lipa Barn'], [], []]);
    expect(read('Station', 'Re\u00e8ica', { code: 'encoding', answer: 'windows-1252' })).toEqual(['windows-1252', ['Reèica', 'Lipa Barn'], [], []]);
    expect(read('Station', 'Re\u00e8ica', { code: 'encoding', answer: 'KOI8-R' })).toEqual(['windows-1252', ['Lipa Barn'], [ASKED], [2]]);
  });
  it('the one in which more of its headings are known is taken', () => {
    const heads = (...of: string[]) => {
      const bytes = Buffer.from([of.join(';'), '2025-10-14 13:52;Lipa Barn;12.5;3', ''].join('\n'), 'latin1');
      const got = readSheet(bytes, sheets.world, settings);
      return got.ok && [got.dialect.encoding, got.accepted.length, got.asks.length];
    };
    // začetek, and Coût with the û of the one, which is ű in the other.
    expect(heads('Za\u00e8etek', 'Station', 'Energy (kWh)', 'Note')).toEqual(['windows-1250', 1, 0]);
    expect(heads('Start', 'Station', 'Energy (kWh)', 'Co\u00fbt (EUR)')).toEqual(['windows-1252', 1, 0]);
  });
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
