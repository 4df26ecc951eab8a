import { CsvError, type Options, parse } from 'csv-parse/sync';
import { finish, ROWS_A_STEP, type Steps } from '../units/steps';

/** A record of a sheet. `bad`: the cell whose quotes cannot be read; nothing else of it is looked at. */
export type SheetRecord = { line: number; cells: string[]; bad: { column: number; code: 'open_quote' | 'stray_quote' } | null; from: number; to: number };
export type LineEnd = 'CRLF' | 'LF' | 'CR';
export type SheetRecords = { records: SheetRecord[]; lineEnds: Set<LineEnd>; tooLong: number | null; tooWide: number | null };

/** A quoted cell longer than this was never closed; a record longer than that is none; wider nobody looks at. */
const MOST = { cell: 65_536, record: 1_048_576, columns: 500 };

/** The cells of a record. `open`: it does not end, and these are those before the one that is not closed, or too long. */
type Cut = { cells: string[]; open: boolean };

/** How a line ends at a place, `null` where it does not. */
const endAt = (text: string, at: number): LineEnd | null => (text[at] === '\r' ? (text[at + 1] === '\n' ? 'CRLF' : 'CR') : text[at] === '\n' ? 'LF' : null);
const lengthOf = (end: LineEnd | null) => (end === null ? 0 : end === 'CRLF' ? 2 : 1);
const linesIn = (text: string): number => text.match(/\r\n|\r|\n/g)?.length ?? 0;

/**
 * Cuts a text into records: quotes double inside quotes, lines are counted as they stand, those inside quotes too. A cell
 * whose quotes cannot be read costs its record alone: reading goes on at the line after the one where the cell began.
 * @param most records to read
 */
export const sheetRecords = (text: string, delimiter: string, most = Number.POSITIVE_INFINITY): SheetRecords => finish(cutRecords(text, delimiter, most));

/** The same in steps. */
export function* cutRecords(text: string, delimiter: string, most = Number.POSITIVE_INFINITY): Steps<SheetRecords> {
  const out: SheetRecords = { records: [], lineEnds: new Set(), tooLong: null, tooWide: null };
  const bytes = Buffer.from(text);
  let [at, byte, line, atOnce] = [0, 0, 1, ROWS_A_STEP];
  while (at < text.length && out.records.length < most) {
    for (const cut of cutSome(bytes.subarray(byte), delimiter, Math.min(atOnce, most - out.records.length))) {
      const { bad, ended, lines } = read(cut, text, at, delimiter);
      const end = endAt(text, ended);
      const record: SheetRecord = { line, cells: bad ? cut.cells.slice(0, bad.column - 1) : cut.cells, bad, from: at, to: ended + lengthOf(end) };
      if (ended - at > MOST.record) return { ...out, tooLong: line };
      if (end) out.lineEnds.add(end);
      if ((bad?.column ?? cut.cells.length) > MOST.columns) return { ...out, tooWide: line };
      out.records.push(record);
      line += lines + (end ? 1 : 0);
      at = record.to;
      byte += Buffer.byteLength(text.slice(record.from, at));
      // What was cut after quotes that cannot be read is not what stands on the next line.
      atOnce = bad ? 1 : Math.min(2 * atOnce, ROWS_A_STEP);
      if (bad) break;
    }
    yield;
  }
  return out;
}

/** The next records; where one of them does not end, those before it and what there is of it. */
function cutSome(bytes: Buffer, delimiter: string, most: number): Cut[] {
  const options: Options = {
    delimiter,
    record_delimiter: ['\r\n', '\n', '\r'],
    relax_column_count: true,
    // A quote in a cell that does not begin with one is text; quotes that close too early are looked for afterwards.
    relax_quotes: true,
    max_record_size: MOST.record,
    to: most,
  };
  try {
    return (parse(bytes, options) as string[][]).map((cells) => ({ cells, open: false }));
  } catch (error) {
    if (!(error instanceof CsvError)) throw error;
  }
  // Cell by cell, which takes ten times as long: no further than anybody looks.
  const cuts: Cut[] = [{ cells: [], open: true }];
  const cast = (cell: string) => {
    if ((cuts.at(-1)?.cells.push(cell) ?? 0) > MOST.columns) throw new Error('too wide');
    return cell;
  };
  const on_record = (cells: string[]) => {
    cuts.splice(-1, 1, { cells, open: false }, { cells: [], open: true });
    return null;
  };
  try {
    parse(bytes, { ...options, cast, on_record });
  } catch {
    // It does not end, as before.
  }
  return cuts;
}

/** Where the cells of a record stand, and whether their quotes close as they should. `ended`: where its own line ends; `lines`: how many ended in it */
function read(cut: Cut, text: string, from: number, delimiter: string): Pick<SheetRecord, 'bad'> & { ended: number; lines: number } {
  let [at, lines] = [from, 0];
  for (const [i, value] of cut.cells.entries()) {
    if (i > 0) at += delimiter.length;
    if (text[at] !== '"') {
      at += value.length;
      continue;
    }
    const raw = `"${value.replaceAll('"', '""')}"`;
    const code = value.startsWith('"') && !standsAt(raw, text, at, delimiter) ? howItCloses(text, at) : raw.length > MOST.cell + 1 ? 'open_quote' : null;
    if (code) return { bad: { column: i + 1, code }, ended: lineEndFrom(text, at), lines };
    lines += linesIn(value);
    at += raw.length;
  }
  if (!cut.open || cut.cells.length > MOST.columns) return { bad: null, ended: at, lines };
  if (cut.cells.length > 0) at += delimiter.length;
  if (text[at] === '"') return { bad: { column: cut.cells.length + 1, code: 'open_quote' }, ended: lineEndFrom(text, at), lines };
  return { bad: null, ended: from + MOST.record + 1, lines };
}

function standsAt(raw: string, text: string, at: number, delimiter: string): boolean {
  const after = at + raw.length;
  return text.startsWith(raw, at) && (after === text.length || text.startsWith(delimiter, after) || endAt(text, after) !== null);
}

/** The quotes of a cell close before its end: on the line where it began, or later. */
function howItCloses(text: string, at: number): 'stray_quote' | 'open_quote' {
  const closed = /^"[^"]*(?:""[^"]*)*"(?!")/.exec(text.slice(at, at + MOST.cell + 2))?.[0];
  return closed !== undefined && closed.length <= MOST.cell + 1 && linesIn(closed) === 0 ? 'stray_quote' : 'open_quote';
}

function lineEndFrom(text: string, from: number): number {
  const next = /[\r\n]/g;
  next.lastIndex = from;
  return next.exec(text)?.index ?? text.length;
}

/** True for a record in which nothing stands. */
export const isBlank = (r: SheetRecord): boolean => !r.bad && r.cells.every((c) => c.trim() === '');
