import { csvFormatRows, csvParseRows } from 'd3-dsv';
import { defused, undefused } from '../units/csv-text';
import { localIso } from '../units/local-iso';

/** What stands in a cell: figures as they were kept, and where one is not known why. */
export type CsvValue = string | number | boolean | null | { at: number; zone: string; precision: 'ms' | 's' | 'min' | 'day' } | { unknown: string };
export type CsvColumn = {
  heading: string;
  type: 'text' | 'number' | 'decimal' | 'instant' | 'yesno' /** A column beside it says why a figure is not known. */;
  reason: boolean;
};

/** Half a surrogate pair, and NUL, stand in no file. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: NUL is looked for
const UNWRITABLE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]|\u0000/g;
const writable = (text: string) => text.replace(UNWRITABLE, '\uFFFD');

function cell(value: CsvValue, type: CsvColumn['type']): string {
  if (value === null || (typeof value === 'object' && 'unknown' in value)) return '';
  if (typeof value === 'object') return localIso(value.at, value.zone, value.precision);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return plainNumber(value);
  // A figure is never defused: −3.20 stays a number.
  return type === 'text' ? defused(writable(value)) : value;
}
/** Without an exponent, and never −0. */
const plainNumber = (n: number): string =>
  n === 0 ? '0' : String(n).includes('e') ? n.toLocaleString('en-US', { useGrouping: false, maximumFractionDigits: 20 }) : String(n);

/**
 * Rows as CSV (RFC 4180, from memory): UTF-8 without a BOM, CRLF after every record, quotes where they are needed. What a
 * spreadsheet would take for a formula is told to be a text by one apostrophe.
 */
export const csvOut = (columns: readonly CsvColumn[], rows: readonly (readonly CsvValue[])[]): string => csvHead(columns) + csvLines(columns, rows);

const written = (lines: readonly (readonly string[])[]): string => lines.map((line) => `${csvFormatRows([[...line]])}\r\n`).join('');

/** The headings alone. */
export function csvHead(columns: readonly CsvColumn[]): string {
  const head = columns.flatMap((c) => [defused(writable(c.heading)), ...(c.reason ? [defused(writable(`${c.heading}: unknown because`))] : [])]);
  return written([head]);
}

/** Rows without their headings, for a file that is written piece by piece. */
export function csvLines(columns: readonly CsvColumn[], rows: readonly (readonly CsvValue[])[]): string {
  const lines = rows.map((row) =>
    columns.flatMap((c, i) => {
      const value = row[i] ?? null;
      const why = value !== null && typeof value === 'object' && 'unknown' in value ? defused(writable(value.unknown)) : '';
      return [cell(value, c.type), ...(c.reason ? [why] : [])];
    }),
  );
  return written(lines);
}

/** The cells of such a file as they were before: one apostrophe comes off where it tells of a text. */
export const csvBack = (text: string): string[][] => csvParseRows(text).map((row) => row.map(undefused));
