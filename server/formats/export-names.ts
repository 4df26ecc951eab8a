import { DOCUMENTS } from './export-documents';
import { SHEET_NAMES } from './export-sheets';

/** Places and prices without visits, as a ledger of their own. */
export const PLACES_ZIP = 'places.zip';

/** Every file that goes out beside the whole ledger, with its type. */
export const EXPORTS: Readonly<Record<string, string>> = {
  ...Object.fromEntries(SHEET_NAMES.map((name) => [`${name}.csv`, 'text/csv'])),
  ...DOCUMENTS,
  [PLACES_ZIP]: 'application/zip',
};
