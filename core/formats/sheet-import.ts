import { finish, ROWS_A_STEP, type Steps } from '../units/steps';
import { fold } from './match-sessions';
import { type SheetEncoding, type SheetRefused, sheetText } from './sheet-bytes';
import { isEmpty } from './sheet-cells';
import { type ColumnsSaid, columnsOf, currencyWord, isUnit, knownHeadings, SHEET_FIELDS, type SheetColumn, type SheetField } from './sheet-columns';
import type { Mark } from './sheet-figures';
import { knowsNetwork, type SheetWorld, zoneAt } from './sheet-place';
import { formsOf, marksOf, orderOf } from './sheet-proofs';
import { cutRecords, isBlank, type LineEnd, type SheetRecord, sheetRecords } from './sheet-records';
import { readRow, type SheetRow } from './sheet-row';
import type { RowReason, SheetRules, SheetSettings } from './sheet-rules';
import { duplicatesOf } from './sheet-twice';
import words from './sheet-words.json';

/**
 * What somebody said of a sheet: an answer to what it asks, by its code; what its columns are of (`columns`); or, whatever its own cells prove, in which order all its dates are
 * (`dates`: dmy or mdy) and which mark is decimal (`decimal`: comma or point) where a figure can be read by both.
 */
export type SheetAnswer = { code: string; column?: number | null; lines?: readonly number[]; answer: unknown };
export type SheetAsk = { code: string; column: number | null; lines: number[]; options: readonly (string | number)[] };
export type SheetImport = {
  dialect: {
    encoding: SheetEncoding;
    bom: boolean;
    delimiter: string;
    lineEnds: LineEnd[];
    headingLine: number | null;
    decimal: Mark | 'mixed' | null;
    dateOrder: 'dmy' | 'mdy' | null;
  };
  columns: SheetColumn[];
  accepted: SheetRow[];
  /** `cells`: as they stand; of a row whose quotes cannot be read, all of its line in one. */
  refused: { line: number; reasons: RowReason[]; cells: string[] }[];
  skipped: { line: number; code: SheetSkip }[];
  asks: SheetAsk[];
  /** Lines that an open question holds back. */
  waiting: number[];
  proposed: { sites: [name: string, network: string | null][]; networks: string[] };
  /** The beginnings of the cells of the first row, to know its columns by. */
  first: string[];
};
/** Why a line is no row: `withdrawn` in a sheet of ours, where it counts nowhere. */
export type SheetSkip = 'preamble' | 'blank' | 'heading_again' | 'totals' | 'withdrawn';
export type SheetRead = ({ ok: true } & SheetImport) | ({ ok: false } & SheetRefused);

const DELIMITERS = ['\t', ';', ',', '|'] as const;
const LOOKED_AT = 30;
const MOST_ROWS = 100_000;
/**
 * Reads a spreadsheet of whatever dialect: each row as it would be, or every reason why not; what cannot be told is asked
 * and holds back those rows alone. The same bytes and answers always give the same.
 */
export const readSheet = (bytes: Uint8Array, world: SheetWorld, settings: SheetSettings, answers: readonly SheetAnswer[] = []): SheetRead =>
  finish(readingSheet(bytes, world, settings, answers));

/** The same in steps. */
export function* readingSheet(bytes: Uint8Array, world: SheetWorld, settings: SheetSettings, answers: readonly SheetAnswer[] = []): Steps<SheetRead> {
  const decoded = sheetText(bytes);
  if (!decoded.ok) return decoded;
  if (decoded.text.trim() === '') return { ok: false, code: 'empty', where: null };
  const answer = (code: string, column: number | null = null, line: number | null = null): unknown =>
    answers.find(
      (a) => a.code === code && (column === null || a.column == null || a.column === column) && (line === null || !a.lines || a.lines.includes(line)),
    )?.answer;

  const { text, encoding, askEncoding } = byEncoding(decoded, answer('encoding'));
  const head = headingOf(text);
  const { records, lineEnds, tooLong, tooWide } = yield* cutRecords(text, head.delimiter);
  if (tooLong !== null) return { ok: false, code: 'record_too_long', where: { line: tooLong } };
  if (tooWide !== null) return { ok: false, code: 'too_many_columns', where: { line: tooWide } };

  const skipped: SheetImport['skipped'] = [];
  const refused: SheetImport['refused'] = [];
  const heading = head.line === null ? null : (records.find((r) => r.line === head.line) as SheetRecord);
  const width = heading?.cells.length ?? Math.max(0, ...records.slice(0, 1).map((r) => r.cells.length));
  const mapped = columnsSaid(answer('columns'));
  const columns = columnsOf(
    Array.from({ length: width }, (_, i) => heading?.cells[i] ?? ''),
    mapped ?? undefined,
  );
  const asks: SheetAsk[] = [];
  const open = settleColumns(columns, answer, asks);

  const data: SheetRecord[] = [];
  let rows = 0;
  for (const [i, r] of records.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    if (heading && r.line < heading.line) {
      skipped.push({ line: r.line, code: isBlank(r) ? 'blank' : 'preamble' });
      continue;
    }
    if (r === heading) continue;
    if (isBlank(r)) {
      skipped.push({ line: r.line, code: 'blank' });
      continue;
    }
    rows += 1;
    if (rows > MOST_ROWS) return { ok: false, code: 'too_many_rows', where: { line: r.line } };
    if (r.bad) refused.push({ line: r.line, reasons: [r.bad], cells: [text.slice(r.from, r.to).trim()] });
    else if (heading && isHeadingAgain(r, heading)) {
      skipped.push({ line: r.line, code: 'heading_again' });
      rows -= 1;
    } else {
      const beyond = r.cells.findIndex((c, i) => i >= width && c.trim() !== '');
      if (beyond >= 0) refused.push({ line: r.line, reasons: [{ column: beyond + 1, code: 'too_many_cells' }], cells: r.cells });
      else if (isTotal(r, columns)) skipped.push({ line: r.line, code: 'totals' });
      else if (isWithdrawn(r, columns)) skipped.push({ line: r.line, code: 'withdrawn' });
      else data.push(r);
    }
  }

  const lines = data.map((r) => r.line);
  const first = (data[0]?.cells ?? []).map((c) => c.trim().slice(0, 80));
  const result = (
    more: Pick<SheetImport, 'accepted' | 'waiting' | 'proposed'>,
    decimal: Mark | 'mixed' | null,
    dateOrder: 'dmy' | 'mdy' | null,
  ): SheetRead => ({
    ok: true,
    dialect: { encoding, bom: decoded.bom, delimiter: head.delimiter, lineEnds: [...lineEnds].sort(), headingLine: head.line, decimal, dateOrder },
    columns,
    ...more,
    refused: refused.sort((a, b) => a.line - b.line),
    skipped: skipped.sort((a, b) => a.line - b.line),
    asks,
    first,
  });
  if (!heading && !mapped) {
    asks.push({ code: 'columns', column: null, lines, options: [] });
    return result({ accepted: [], waiting: lines, proposed: { sites: [], networks: [] } }, null, null);
  }

  const marks = yield* marksOf(data, columns, answer);
  const order =
    among(['dmy', 'mdy'] as const, answer('dates')) ?? among(['dmy', 'mdy'] as const, answer('date_order')) ?? (yield* orderOf(data, columns, settings));
  const forms = yield* formsOf(data, { columns, order }, answer, marks, world, settings);
  const ofTimes = answers.filter((a) => a.code === 'time_twice').map((a) => ({ ...a, lines: a.lines && new Set(a.lines) }));
  const rules: SheetRules = {
    columns,
    mark: (n) => marks.of.get(n) ?? null,
    order,
    form: forms.form,
    formOptions: forms.options,
    energyUnit: (n) => among(['kWh', 'Wh'] as const, answer('energy_unit', n)),
    currency: among(words.currencies, answer('currency')),
    // Which currency is meant where none stands says it of a sign as well, if it is one of the sign's.
    symbol: (set) =>
      ['currency_symbol', 'currency'].flatMap((code) => answers.filter((a) => a.code === code).map((a) => among(set, a.answer))).find((c) => c !== null) ??
      null,
    timeTwice: (line, n) =>
      among(['first', 'second'] as const, ofTimes.find((a) => (a.column == null || a.column === n) && (!a.lines || a.lines.has(line)))?.answer),
  };

  const ask = asking(asks);
  const accepted: SheetRow[] = [];
  const lightly = keptLightly();
  const waiting = new Set<number>();
  for (const [i, r] of data.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    const { row, reasons, asks: own } = readRow(r.line, r.cells, rules, world, settings);
    const doubtful =
      askEncoding && decoded.other !== null && text.slice(r.from, r.to) !== (text === decoded.text ? decoded.other : decoded.text).slice(r.from, r.to);
    // While it is not known what a column is of, nothing is refused for what stands in it.
    if (reasons.length > 0 && !open) refused.push({ line: r.line, reasons, cells: r.cells });
    else if (open || doubtful || !row) {
      waiting.add(r.line);
      for (const a of own) ask(a, r.line);
      if (doubtful) ask({ code: 'encoding', column: null, options: ['windows-1252', 'windows-1250'] }, r.line);
    } else accepted.push(lightly(row));
    // Nobody asks for its cells again: those of a hundred thousand records take more room than the file.
    r.cells = NO_CELLS;
  }
  if (open) for (const a of asks) if (a.code === 'column_meaning' || a.code === 'column_twice') for (const line of waiting) a.lines.push(line);
  // They are taken, and asked.
  for (const lines of yield* duplicatesOf(accepted, world, settings)) asks.push({ code: 'duplicate', column: null, lines, options: ['same', 'different'] });
  return result({ accepted, waiting: [...waiting], proposed: proposedOf(accepted, world) }, marks.decimal, rules.order);
}

const NO_CELLS: string[] = [];
const TOLD_AGAIN = ['site', 'stall', 'network', 'car', 'kWh', 'amount', 'currency', 'perKWh', 'means'] as const;
const [NO_REST, NO_WARNINGS]: [SheetRow['rest'], SheetRow['warnings']] = [{}, []];
/** Texts of rows that are looked out for: more are hardly told again. */
const MOST_TEXTS = 20_000;
/** Makes rows of one sheet share what they say alike: in a hundred thousand of them a few dozen places, cars and prices come over and over. */
function keptLightly(): (row: SheetRow) => SheetRow {
  const texts = new Map<string, string>();
  const same = (text: string): string => {
    const before = texts.get(text);
    if (before === undefined && texts.size < MOST_TEXTS) texts.set(text, text);
    return before ?? text;
  };
  return (row) => {
    for (const field of TOLD_AGAIN) {
      const text = row[field];
      if (text !== null) row[field] = same(text);
    }
    const rest = Object.entries(row.rest);
    for (const [name, text] of rest) row.rest[name] = same(text);
    if (rest.length === 0) row.rest = NO_REST;
    if (row.warnings.length === 0) row.warnings = NO_WARNINGS;
    return row;
  };
}

/** What was said, where it is one of what can be said. */
const among = <T>(can: readonly T[], said: unknown): T | null => can.find((c) => c === said) ?? null;

/** What somebody said of columns, by their number: `field` null keeps a column as it is, a unit and a currency go before those of its heading. What is no such answer says nothing. */
function columnsSaid(said: unknown): ColumnsSaid | null {
  if (typeof said !== 'object' || said === null) return null;
  const out = new Map<number, Partial<Pick<SheetColumn, 'field' | 'unit' | 'currency'>>>();
  for (const [n, raw] of Object.entries(said)) {
    const { field, unit, currency } = (typeof raw === 'object' && raw !== null ? raw : {}) as Record<string, unknown>;
    if (field !== null && !(SHEET_FIELDS as readonly unknown[]).includes(field)) continue;
    out.set(Number(n), {
      field: field as SheetField | null,
      ...(typeof unit === 'string' && isUnit(unit) ? { unit } : {}),
      ...(typeof currency === 'string' && currencyWord(currency.toLowerCase()) ? { currency } : {}),
    });
  }
  return out;
}

function byEncoding(
  decoded: Extract<ReturnType<typeof sheetText>, { ok: true }>,
  said: unknown,
): { text: string; encoding: SheetEncoding; askEncoding: boolean } {
  const { text, other, encoding } = decoded;
  if (other === null) return { text, encoding, askEncoding: false };
  if (said === 'windows-1250') return { text: other, encoding: 'windows-1250', askEncoding: false };
  if (said === 'windows-1252') return { text, encoding, askEncoding: false };
  const [a, b] = [headingOf(text).known, headingOf(other).known];
  if (a === b) return { text, encoding, askEncoding: true };
  return a > b ? { text, encoding, askEncoding: false } : { text: other, encoding: 'windows-1250', askEncoding: false };
}

/** The separator and the record of the headings: where most are known, at least two; else where the first record falls into most cells. */
function headingOf(text: string): { delimiter: string; line: number | null; known: number } {
  const said = /^sep=(.)(?=\r|\n|$)/.exec(text)?.[1];
  let best: { delimiter: string; line: number | null; known: number } | null = null;
  let widest = { delimiter: said ?? ',', cells: 0 };
  for (const delimiter of said ? [said] : DELIMITERS) {
    const { records, tooWide } = sheetRecords(text, delimiter, LOOKED_AT);
    for (const r of records) {
      const known = r.bad ? 0 : knownHeadings(r.cells);
      if (known >= 2 && (!best || known > best.known || (known === best.known && r.line < (best.line ?? 0)))) best = { delimiter, line: r.line, known };
    }
    const cells = records.find((r) => !isBlank(r))?.cells.length ?? (tooWide === null ? 0 : Number.POSITIVE_INFINITY);
    if (cells > widest.cells) widest = { delimiter, cells };
  }
  return best ?? { delimiter: widest.delimiter, line: null, known: 0 };
}

/** A heading that may mean two things, and a field that two columns have. @returns whether one of them is open */
function settleColumns(columns: SheetColumn[], answer: (code: string, column?: number | null) => unknown, asks: SheetAsk[]): boolean {
  let open = false;
  for (const c of columns) {
    if (c.field !== 'price?') continue;
    const said = answer('column_meaning', c.n);
    if (said === 'amount' || said === 'perKWh') c.field = said;
    else {
      open = true;
      asks.push({ code: 'column_meaning', column: c.n, lines: [], options: ['amount', 'perKWh'] });
    }
  }
  for (const field of new Set(columns.map((c) => c.field))) {
    const same = columns.filter((c) => c.field === field);
    if (field === null || field === 'price?' || same.length < 2) continue;
    const first = same[0] as SheetColumn;
    const said = Number(answer('column_twice', first.n));
    if (same.some((c) => c.n === said)) for (const c of same) c.field = c.n === said ? field : null;
    else {
      open = true;
      asks.push({ code: 'column_twice', column: first.n, lines: [], options: same.map((c) => c.n) });
    }
  }
  return open;
}

const trimmed = (cells: readonly string[]): string[] => {
  const all = cells.map((c) => c.trim().toLowerCase());
  while (all.at(-1) === '') all.pop();
  return all;
};
const isHeadingAgain = (r: SheetRecord, heading: SheetRecord): boolean => trimmed(r.cells).join('\n') === trimmed(heading.cells).join('\n');

/** In further languages, and of means. Common practice, no source. */
const FURTHER_TOTALS =
  'totale totali totais soma average durchschnitt mittelwert moyenne promedio povprečje gemiddelde summa totalt yhteensä razem łącznie ukupno zbroj celkem součet celkom súčet összesen toplam σύνολο итого всего усього общо kokku kopā viso';
const TOTALS = new Set([...words.totals, ...FURTHER_TOTALS.split(' ')]);
const firstWord = (cell: string | undefined): string => /\p{L}+/u.exec((cell ?? '').normalize('NFC').toLowerCase())?.[0] ?? '';
/** A line of sums: no time of its own, and a word for a sum somewhere. */
function isTotal(r: SheetRecord, columns: readonly SheetColumn[]): boolean {
  const timed = columns.filter((c) => c.field === 'date' || c.field === 'start' || c.field === 'end');
  return timed.every((c) => isEmpty(r.cells[c.n - 1]) || TOTALS.has(firstWord(r.cells[c.n - 1]))) && r.cells.some((c) => TOTALS.has(firstWord(c)));
}

/** A row of a sheet of ours that says that its visit was withdrawn. */
const isWithdrawn = (r: SheetRecord, columns: readonly SheetColumn[]): boolean =>
  columns.some((c) => c.heading.toLowerCase() === 'withdrawn' && r.cells[c.n - 1]?.trim().toLowerCase() === 'yes');

/** Rows that ask the same ask it once. A time that comes twice is each row's own question. */
function asking(asks: SheetAsk[]): (a: { code: string; column: number | null; options: readonly (string | number)[] }, line: number) => void {
  const open = new Map<string, SheetAsk>();
  return (a, line) => {
    const key = `${a.code} ${a.column} ${a.options.join()}`;
    const same = a.code === 'time_twice' ? undefined : open.get(key);
    if (same) {
      if (same.lines.at(-1) !== line) same.lines.push(line);
      return;
    }
    const made = { ...a, lines: [line] };
    open.set(key, made);
    asks.push(made);
  };
}

/** Sites and networks that are not known: proposed once, never made. */
function proposedOf(rows: readonly SheetRow[], world: SheetWorld): SheetImport['proposed'] {
  const sites = new Map<string, [string, string | null]>();
  const networks = new Map<string, string>();
  for (const r of rows) {
    if (zoneAt(world, r.site) === undefined) {
      const key = `${fold(r.site)}\n${fold(r.network ?? '')}`;
      if (!sites.has(key)) sites.set(key, [r.site, r.network]);
    }
    if (r.network !== null && !knowsNetwork(world, r.network) && !networks.has(fold(r.network))) networks.set(fold(r.network), r.network);
  }
  return { sites: [...sites.values()], networks: [...networks.values()] };
}
