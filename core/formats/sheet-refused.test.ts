import sheets from './fixtures/sheets-in.json';
import { headingsBefore } from './sheet-columns';
import { readSheet } from './sheet-import';
import { refusedSheet } from './sheet-refused';

const settings = { zone: 'Europe/Ljubljana', now: Date.UTC(2025, 10, 20), currency: 'EUR' };
const read = (text: string) => {
  const got = readSheet(new TextEncoder().encode(text), sheets.world, settings);
  if (!got.ok) throw new Error(got.code);
  return got;
};
const FILE = [
  'Start;Station;Energy (kWh);Cost (EUR);Note',
  '2025-10-14 13:52;Vrba Crossing;41,37;23,10;',
  '2025-10-14 25:00;Vrba Crossing;4x;-3,20;=1+1',
  '2025-10-15 10:00;"Vrba Crossing;1;1;',
  '2025-10-15 11:00;Vrba Crossing;99999;1;"two; parts and a ""quote"""',
  '2025-10-15 12:00;Vrba Crossing;1;1;x;y',
].join('\r\n');

it('what was refused is a sheet of its own, and refused for the same reasons until it is mended', () => {
  const first = read(FILE);
  const sheet = refusedSheet(first, (r) => `${r.column} ${r.code}`);
  const lines = sheet.split('\r\n');
  expect(lines.slice(0, 2)).toEqual([
    '\uFEFFStart;Station;Energy (kWh);Cost (EUR);Note;;why it was refused',
    '2025-10-14 25:00;Vrba Crossing;4x;-3,20;\'=1+1;;"line 3: 3 bad_number; 1 bad_time"',
  ]);
  // A line whose quotes cannot be read stands whole in one cell.
  expect(lines[2]).toBe('"2025-10-15 10:00;""Vrba Crossing;1;1;";;;;;;line 4: 2 open_quote');
  expect(lines).toHaveLength(6);
  const again = read(sheet);
  const codes = (of: typeof first, line: number) => of.refused.find((r) => r.line === line)?.reasons.map((r) => r.code);
  expect([codes(again, 2), codes(again, 4)]).toEqual([codes(first, 3), codes(first, 5)]);
  const mended = read(sheet.replace('25:00', '15:00').replace('4x', '4').replace('99999', '9,5'));
  expect(mended.accepted.map((r) => [r.kWh, r.amount, r.note, r.rest])).toEqual([
    ['4', '-3.2', '=1+1', {}],
    ['9.5', '1', 'two; parts and a "quote"', {}],
    ['1', '1', 'x', { 'column 6': 'y' }],
  ]);
  // It is known by the headings of the sheet that it is of.
  expect(headingsBefore(mended.columns.map((c) => c.heading))).toEqual(['Start', 'Station', 'Energy (kWh)', 'Cost (EUR)', 'Note']);
});

it.each([
  [
    ['Start', '', 'Note', '', ''],
    ['Start', '', 'Note', '', ''],
  ],
  [
    ['Start', '', 'Note', 'why it was refused'],
    ['Start', '', 'Note'],
  ],
  [
    ['Start', 'why it was refused', 'Note'],
    ['Start', 'why it was refused', 'Note'],
  ],
  [['', 'why it was refused'], []],
  [[], []],
])('headings %j are those of %j', (headings, before) => {
  expect(headingsBefore(headings)).toEqual(before);
});
