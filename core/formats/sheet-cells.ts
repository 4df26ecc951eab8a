import { undefused } from '../units/csv-text';
import type { SheetColumn } from './sheet-columns';

const EMPTY: ReadonlySet<string> = new Set(['', '-', '–', '—', 'n/a', 'null', '?']);
/** Whether nothing stands in a cell: what is empty is not known, never zero. */
export const isEmpty = (cell: string | undefined): boolean => EMPTY.has((cell ?? '').trim().toLowerCase());

/** What stands in a column of a record; `null` where nothing does. */
export const cellAt = (cells: readonly string[], c: SheetColumn | undefined): string | null =>
  c && !isEmpty(cells[c.n - 1]) ? (cells[c.n - 1] as string).trim() : null;

/** A text that a program wrote as a formula of itself, so that a spreadsheet leaves its zeros alone: `="007"`. */
const OF_ITSELF = /^="((?:[^"]|"")*)"$/;
/** A cell as a text: the apostrophe that defuses it off, its line ends alike. */
export const plainText = (cell: string): string => (OF_ITSELF.exec(cell)?.[1]?.replaceAll('""', '"') ?? undefused(cell)).replace(/\r\n?/g, '\n').trim();
