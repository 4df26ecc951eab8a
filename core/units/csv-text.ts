/** A value as a cell of CSV: what is not known is empty, and a text that a spreadsheet would take for a formula is told to be a text. Common practice, no source. */
export const csvText = (value: string | number | null): string =>
  typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : value === null ? '' : String(value);
