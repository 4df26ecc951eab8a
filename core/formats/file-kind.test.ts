import { strToU8, zipSync } from 'fflate';
import { csvHead } from './csv-out';
import { type FileDoor, type FileKind, fileKind, wrongDoor } from './file-kind';
import { LEDGER_FORMAT } from './ledger-schema';
import { SITE_COLUMNS, TARIFF_COLUMNS, VISIT_SHEETS } from './ledger-tables';

const text = (of: string) => new TextEncoder().encode(of);
const zip = (...names: string[]) => zipSync(Object.fromEntries(names.map((n) => [n, strToU8('x')])), { level: 0 });
const bytes = (...of: (number | string)[]) => Uint8Array.from(of.flatMap((b) => (typeof b === 'string' ? [...b].map((c) => c.charCodeAt(0)) : [b])));

/** Signatures of the formats' own standards, from memory: ISO 32000 7.5.2, ITU-T T.81, PNG 5.2, GIF89a 17, RFC 9649, ISO/IEC 23008-12, MS-CFB 2.2, APPNOTE 4.3.7, ECMA-376 part 2, ODF 1.2 part 3. */
const KINDS: readonly [what: string, of: Uint8Array, kind: FileKind | null][] = [
  ['a PDF', text('%PDF-1.7\n'), 'pdf'],
  ['a JPEG', bytes(0xff, 0xd8, 0xff, 0xe0), 'picture'],
  ['a PNG', bytes(0x89, 'PNG\r\n', 0x1a, '\n'), 'picture'],
  ['a GIF', text('GIF89a'), 'picture'],
  ['a WebP', bytes('RIFF', 1, 2, 3, 4, 'WEBPVP8 '), 'picture'],
  ['an HEIC', bytes(0, 0, 0, 0x18, 'ftypheic'), 'picture'],
  ['an image collection', bytes(0, 0, 0, 0x18, 'ftypmif1'), 'picture'],
  ['a workbook of 2003', bytes(0xd0, 0xcf, 0x11, 0xe0, 0xa1), 'workbook'],
  ['a workbook', zip('[Content_Types].xml', 'xl/workbook.xml'), 'workbook'],
  ['a workbook that begins with its sheets', zip('xl/worksheets/sheet1.xml'), 'workbook'],
  ['an open document', zip('mimetype', 'content.xml'), 'workbook'],
  ['a ledger', zip('ledger.json', 'photos/a.jpg'), 'ledger'],
  ['a ledger whose photos come first', zip('photos/a.jpg'), 'ledger'],
  ['some zip', zip('xls/readme.txt'), 'zip'],
  ['a zip that ends at once', bytes('PK', 3, 4), 'zip'],
  ['a zip of nothing', bytes('PK', 5, 6, ...Array(18).fill(0)), 'zip'],
  ['a zip in parts', bytes('PK', 7, 8, 'PK', 3, 4), 'zip'],
  ['two letters', text('PKW;kWh\n'), 'text'],
  ['a page', text('\n <!DOCTYPE html><html>'), 'page'],
  ['a drawing', text('<svg xmlns="x"/>'), 'page'],
  ['a workbook as XML', text('<?xml version="1.0"?><Workbook/>'), 'page'],
  ['a ledger of before zips', text(`{"format": "${LEDGER_FORMAT}-household","people":[]}`), 'ledger'],
  ['GeoJSON', text('{"type" : "FeatureCollection","features":[]}'), 'geojson'],
  ['a Feature', text('{"id":1,"type":"Feature"}'), 'geojson'],
  ['CDRs, which hold tariffs and places', text('[{"cdr_token":{},"cdr_location":{"coordinates":{}},"tariffs":[{"elements":[]}]}]'), 'cdrs'],
  ['Sessions', text('{"data":[{"cdr_token":{},"kwh":1}]}'), 'sessions'],
  ['Locations', text('[ {"id":"a","evses":[]}]'), 'locations'],
  ['a Location without posts', text('{"coordinates":{"latitude":"1.0"}}'), 'locations'],
  ['Tariffs', text('\uFEFF[{"id":"a","elements":[]}]'), 'tariffs'],
  ['other JSON', text('{}'), 'json'],
  ['lists', text('[[1]]'), 'json'],
  ['headings in brackets', text('[Date];[kWh]\n'), 'text'],
  ['braces that are no JSON', text('{Date};{kWh}\n'), 'text'],
  ['a less-than sign', text('<50 kWh;Date\n'), 'text'],
  ['a table', text('Date;Energy (kWh)\n'), 'text'],
  ['letters of another page', bytes(0x44, 0xe9, 0x62, 0x75, 0x74), 'text'],
  ['nothing', text(''), null],
  ['blanks', text(' \n\n'), null],
];

describe('what a file is, by its beginning', () => {
  it.each(KINDS)('%s', (_what, of, kind) => expect(fileKind(of)).toBe(kind));
  it.each([
    ...Object.entries(VISIT_SHEETS).map(([name, { columns }]) => [name, columns] as const),
    ['sites', SITE_COLUMNS] as const,
    ['tariffs', TARIFF_COLUMNS] as const,
  ])('our own table of %s, with a mark of byte order or without', (_name, columns) => {
    const head = csvHead(columns);
    expect(fileKind(text(head))).toBe('own_table');
    expect(fileKind(text(`\uFEFF${head}`))).toBe('own_table');
    expect(fileKind(text(`note,${head}`))).toBe('text');
    // As a spreadsheet program writes it again.
    expect(fileKind(text(head.replaceAll(',', ';')))).toBe('own_table');
    expect(fileKind(text(`"${head.trim().split(',').join('"\t"')}"`))).toBe('own_table');
  });
});

describe('a file at a door', () => {
  const DOORS: readonly FileDoor[] = ['sheet', 'cdrs', 'places', 'tariffs', 'ledger', 'car_log'];
  const READ: Partial<Record<FileKind, FileDoor[]>> = {
    ledger: ['ledger'],
    zip: ['ledger'],
    geojson: ['places'],
    locations: ['places'],
    tariffs: ['tariffs'],
    cdrs: ['cdrs'],
    json: ['cdrs', 'places', 'tariffs', 'ledger'],
    own_table: ['sheet'],
    text: ['sheet', 'car_log'],
  };
  const kinds = [...new Set(KINDS.flatMap(([, , kind]) => kind ?? [])), 'own_table' as const];
  it.each(kinds)('%s is read where it belongs, and elsewhere it is said what it is', (kind) => {
    for (const door of DOORS)
      expect([door, wrongDoor(kind, door)]).toEqual([
        door,
        READ[kind]?.includes(door) ? null : expect.stringMatching(/^(This is|These are) [^.]+\. [A-Z][^.]+\./),
      ]);
  });
  it('what holds nothing is told so where it is read', () => {
    for (const door of DOORS) expect(wrongDoor(null, door)).toBeNull();
  });
  it.each([
    ['workbook', 'sheet', 'This is a workbook, or another office document. Save its sheet as CSV, and choose that.'],
    ['workbook', 'car_log', 'This is a workbook, or another office document. Save its sheet as CSV, and choose that.'],
    ['workbook', 'cdrs', 'This is a workbook, or another office document. Visits in one come in at Settings, A spreadsheet, saved as CSV.'],
    ['cdrs', 'sheet', 'These are CDRs of OCPI. They come in at Settings, Bills from a network.'],
    ['ledger', 'sheet', 'This is a ledger, or places and prices, taken along. It comes in at Settings, Bring a ledger in.'],
  ] as const)('%s at the door of %s', (kind, door, said) => expect(wrongDoor(kind, door)).toBe(said));
});
