import { dsvFormat } from 'd3-dsv';
import { defused } from '../units/csv-text';
import { REASONS_HEADING } from './sheet-columns';

/** A figure with its sign is no formula. */
const SIGNED = /^\s*[+\-\u2212][\d.,\s]+$/;
const cell = (text: string): string => (SIGNED.test(text) ? text : defused(text));

/**
 * The rows that were refused as a sheet of their own, to be mended and tried again: headings and separator as they were, and why in a last column.
 * @param why what a reason is called, by its column and code
 */
export function refusedSheet(
  of: {
    dialect: { delimiter: string };
    columns: readonly { heading: string }[];
    refused: readonly { line: number; reasons: readonly { column: number; code: string }[]; cells: readonly string[] }[];
  },
  why: (r: { column: number; code: string }) => string,
): string {
  const width = Math.max(of.columns.length, ...of.refused.map((r) => r.cells.length));
  const full = (cells: readonly string[]) => Array.from({ length: width }, (_, i) => cell(cells[i] ?? ''));
  const rows = of.refused.map((r) => [...full(r.cells), `line ${r.line}: ${r.reasons.map(why).join('; ')}`]);
  const { formatRows } = dsvFormat(of.dialect.delimiter);
  const head = [...full(of.columns.map((c) => c.heading)), REASONS_HEADING];
  return `\uFEFF${[head, ...rows].map((row) => `${formatRows([row])}\r\n`).join('')}`;
}
