/** What a spreadsheet takes for a formula, after any white space and apostrophes; full-width signs count. Common practice, no source. */
const FORMULA = /^[\s']*[=+\-@＝＋－＠\t\r\n]/u;

/** A text as a cell: one that a spreadsheet would take for a formula is told to be a text by one apostrophe. */
export const defused = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);
/** The text that a cell was before: the identity after [defused]. */
export const undefused = (cell: string): string => (cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell);

/** A value as a cell of CSV: what is not known is empty. */
export const csvText = (value: string | number | null): string => (typeof value === 'string' ? defused(value) : value === null ? '' : String(value));
