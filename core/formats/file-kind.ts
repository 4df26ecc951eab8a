/** What a file is, by its beginning. */
export type FileKind =
  | 'workbook'
  | 'pdf'
  | 'picture'
  | 'page'
  | 'ledger'
  | 'zip'
  | 'geojson'
  | 'locations'
  | 'tariffs'
  | 'cdrs'
  | 'sessions'
  | 'json'
  | 'own_table'
  | 'text';
/** Where a file comes in. */
export type FileDoor = 'sheet' | 'cdrs' | 'places' | 'tariffs' | 'ledger' | 'car_log';

/** So much of a file is looked at. */
export const LOOKED_AT_BYTES = 65_536;

const starts = (bytes: Uint8Array, sign: readonly number[], at = 0): boolean => sign.every((b, i) => bytes[at + i] === b);
const ascii = (text: string): number[] => [...text].map((c) => c.charCodeAt(0));
/** First bytes by which a file is known: those of its format's own standard, from memory. */
const SIGNS: readonly [sign: readonly number[], at: number, kind: FileKind][] = [
  [ascii('%PDF-'), 0, 'pdf'],
  [[0xff, 0xd8, 0xff], 0, 'picture'],
  [[0x89, ...ascii('PNG\r\n')], 0, 'picture'],
  [ascii('GIF8'), 0, 'picture'],
  [ascii('WEBP'), 8, 'picture'],
  [ascii('ftyphei'), 4, 'picture'],
  [ascii('ftypmif'), 4, 'picture'],
  // Compound files: workbooks of before 2007.
  [[0xd0, 0xcf, 0x11, 0xe0], 0, 'workbook'],
];
/** A file in it, nothing in it, or its first of several parts. */
const ZIPS = [
  [0x50, 0x4b, 3, 4],
  [0x50, 0x4b, 5, 6],
  [0x50, 0x4b, 7, 8],
];
/** What names the first file of a zip that is one of these. */
const ZIPPED: readonly [name: RegExp, kind: FileKind][] = [
  [/^(\[Content_Types\]\.xml|_rels\/|docProps\/|xl\/|mimetype$|Index\/)/, 'workbook'],
  [/^(ledger\.json|events-\d+\.json|photos\/)/, 'ledger'],
];
/** Members that only one kind of document has, those first that hold others within them. */
const MEMBERS: readonly [member: RegExp, kind: FileKind][] = [
  [/"format"\s*:\s*"mile-ledger/, 'ledger'],
  [/"type"\s*:\s*"Feature(Collection)?"/, 'geojson'],
  [/"(cdr_location|total_energy)"\s*:/, 'cdrs'],
  [/"cdr_token"\s*:/, 'sessions'],
  [/"(evses|coordinates)"\s*:/, 'locations'],
  [/"(elements|price_components)"\s*:/, 'tariffs'],
];
/** The headings of the tables that go out of here. */
const OWN_TABLE = /^(visit,(pulled in,|attempt,(opened|at),|bill,noted,|event,at,)|site,name,network,zone,|tariff,network,sites,)/;

/** What a file is by its beginning; `null` where nothing stands there. @param bytes its first ones */
export function fileKind(bytes: Uint8Array): FileKind | null {
  const sign = SIGNS.find(([of, at]) => starts(bytes, of, at));
  if (sign) return sign[2];
  if (ZIPS.some((sign) => starts(bytes, sign))) {
    // The name of the first entry stands behind the thirty bytes of its head (APPNOTE 4.3.7).
    const name = new TextDecoder().decode(bytes.subarray(30, 30 + ((bytes[26] ?? 0) | ((bytes[27] ?? 0) << 8))));
    return ZIPPED.find(([of]) => of.test(name))?.[1] ?? 'zip';
  }
  const text = new TextDecoder().decode(bytes.subarray(0, LOOKED_AT_BYTES)).trimStart();
  if (/^<(!doctype|html|\?xml|svg|table)\b/i.test(text)) return 'page';
  // A heading in brackets is a heading.
  if (/^(\{\s*["}]|\[\s*[[{\]])/.test(text)) return MEMBERS.find(([of]) => of.test(text))?.[1] ?? 'json';
  // As a spreadsheet program writes it again.
  const head = text.slice(0, 200).replaceAll('"', '').replace(/[;\t]/g, ',');
  return OWN_TABLE.test(head) ? 'own_table' : text === '' ? null : 'text';
}

const IS: Readonly<Record<FileKind, string>> = {
  workbook: 'This is a workbook, or another office document.',
  pdf: 'This is a PDF.',
  picture: 'This is a picture.',
  page: 'This is a web page or a drawing.',
  ledger: 'This is a ledger, or places and prices, taken along.',
  zip: 'This is a zip.',
  geojson: 'This is GeoJSON.',
  locations: 'These are Locations of OCPI.',
  tariffs: 'These are Tariffs of OCPI.',
  cdrs: 'These are CDRs of OCPI.',
  sessions: 'These are Sessions of OCPI.',
  json: 'This is JSON.',
  own_table: 'This is a table that Mile Ledger wrote.',
  text: 'This is a table or other text.',
};
const GOES: Readonly<Record<FileKind, string>> = {
  workbook: 'Visits in one come in at Settings, A spreadsheet, saved as CSV.',
  pdf: 'Its figures are typed in with a visit.',
  picture: 'A receipt or a last screen is read at a visit, or at Type in a visit.',
  page: 'Save the file itself, not the page that shows it.',
  ledger: 'It comes in at Settings, Bring a ledger in.',
  zip: 'Unpack it, and choose the file in it.',
  geojson: 'Sites come in at Settings, Places from a file.',
  locations: 'Sites come in at Settings, Places from a file.',
  tariffs: 'They come in on the page of their network in Places, Prices from a file.',
  cdrs: 'They come in at Settings, Bills from a network.',
  sessions: 'What was billed comes in as CDRs, at Settings, Bills from a network.',
  json: 'A table as CSV is wanted here.',
  own_table: 'It holds figures, not the record that they were derived from: the ledger itself goes along as one file, at Settings, Take it along.',
  text: 'A table of visits comes in as CSV at Settings, A spreadsheet.',
};
/** What each door reads. JSON of whatever kind is read where JSON is: what it lacks is told by its place in it. */
const READS: Readonly<Record<FileDoor, readonly FileKind[]>> = {
  // Its figures are shown as those of any other; what they are is said.
  sheet: ['text', 'own_table'],
  car_log: ['text'],
  cdrs: ['cdrs', 'json'],
  places: ['geojson', 'locations', 'json'],
  tariffs: ['tariffs', 'json'],
  ledger: ['ledger', 'json', 'zip'],
};

/** What a file is and where it comes in. */
export const saidOf = (kind: FileKind): string => `${IS[kind]} ${GOES[kind]}`;

/**
 * What is said of a file that does not belong where it was chosen.
 * @returns `null` where it may be read here
 */
export function wrongDoor(kind: FileKind | null, door: FileDoor): string | null {
  if (kind === null || READS[door].includes(kind)) return null;
  // Who stands at a door of tables already is not sent there.
  return kind === 'workbook' && READS[door].includes('text') ? `${IS.workbook} Save its sheet as CSV, and choose that.` : saidOf(kind);
}
