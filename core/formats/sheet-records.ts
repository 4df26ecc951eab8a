import { finish, ROWS_A_STEP, type Steps } from '../units/steps';

/** A record of a sheet. `bad`: the cell whose quotes cannot be read; nothing else of it is looked at. */
export type SheetRecord = { line: number; cells: string[]; bad: { column: number; code: 'open_quote' | 'stray_quote' } | null; from: number; to: number };
export type LineEnd = 'CRLF' | 'LF' | 'CR';
export type SheetRecords = { records: SheetRecord[]; lineEnds: Set<LineEnd>; tooLong: number | null; tooWide: number | null };

/** A quoted cell longer than this was never closed; a record longer than that is none; wider nobody looks at. */
const MOST = { cell: 65_536, record: 1_048_576, columns: 500 };

/** How a line ends at a place, `null` where it does not. */
const endAt = (text: string, at: number): LineEnd | null => (text[at] === '\r' ? (text[at + 1] === '\n' ? 'CRLF' : 'CR') : text[at] === '\n' ? 'LF' : null);
const lengthOf = (end: LineEnd) => (end === 'CRLF' ? 2 : 1);

/**
 * Cuts a text into records: quotes double inside quotes, lines are counted as they stand, those inside quotes too. A cell
 * whose quotes cannot be read costs its record alone: reading goes on at the line after the one where the cell began.
 * @param most records to read
 */
export const sheetRecords = (text: string, delimiter: string, most = Number.POSITIVE_INFINITY): SheetRecords => finish(cutRecords(text, delimiter, most));

/** The same in steps. */
export function* cutRecords(text: string, delimiter: string, most = Number.POSITIVE_INFINITY): Steps<SheetRecords> {
  const out: SheetRecords = { records: [], lineEnds: new Set(), tooLong: null, tooWide: null };
  let [at, line] = [0, 1];
  while (at < text.length && out.records.length < most) {
    const record: SheetRecord = { line, cells: [], bad: null, from: at, to: at };
    let [ended, wide] = [false, false];
    while (!ended) {
      if (record.cells.length >= MOST.columns) wide = true;
      const cell = text[at] === '"' ? quoted(text, at, delimiter) : plain(text, at, delimiter);
      if ('code' in cell) {
        record.bad = { column: record.cells.length + 1, code: cell.code };
        // On with the line after the one where the cell began.
        while (at < text.length && !endAt(text, at)) at += 1;
        ended = true;
      } else {
        if (!wide) record.cells.push(cell.value);
        line += cell.lines;
        at = cell.end;
        if (text.startsWith(delimiter, at)) at += delimiter.length;
        else ended = true;
      }
      if (at - record.from > MOST.record) {
        out.tooLong = record.line;
        return out;
      }
    }
    const end = endAt(text, at);
    if (end) {
      out.lineEnds.add(end);
      at += lengthOf(end);
      line += 1;
    }
    if (wide) {
      out.tooWide = record.line;
      return out;
    }
    record.to = at;
    out.records.push(record);
    if (out.records.length % ROWS_A_STEP === 0) yield;
  }
  return out;
}

type Cell = { value: string; end: number; lines: number } | { code: 'open_quote' | 'stray_quote' };

function plain(text: string, from: number, delimiter: string): Cell {
  let at = from;
  while (at < text.length && at - from <= MOST.record + 1 && !text.startsWith(delimiter, at) && !endAt(text, at)) at += 1;
  return { value: text.slice(from, at), end: at, lines: 0 };
}

function quoted(text: string, from: number, delimiter: string): Cell {
  let value = '';
  let at = from + 1;
  let lines = 0;
  for (;;) {
    const quote = text.indexOf('"', at);
    if (quote < 0 || quote - from > MOST.cell) return { code: 'open_quote' };
    value += text.slice(at, quote);
    for (let i = at; i < quote; i++) {
      const end = endAt(text, i);
      if (!end) continue;
      lines += 1;
      i += lengthOf(end) - 1;
    }
    if (text[quote + 1] === '"') {
      value += '"';
      at = quote + 2;
      continue;
    }
    const after = quote + 1;
    if (after >= text.length || text.startsWith(delimiter, after) || endAt(text, after)) return { value, end: after, lines };
    return { code: lines === 0 ? 'stray_quote' : 'open_quote' };
  }
}

/** True for a record in which nothing stands. */
export const isBlank = (r: SheetRecord): boolean => !r.bad && r.cells.every((c) => c.trim() === '');
