import { JSON_WORDS } from './breach-words';
import type { LedgerRefused } from './ledger-file';

const ZIP: Readonly<Record<string, string>> = {
  zip_broken: 'The zip is cut short or damaged.',
  zip_entries: 'The zip has more than 20,000 files.',
  zip_encrypted: 'The zip is encrypted. Take the password off and try again.',
  zip_name: 'A file in the zip has a name that leads out of it.',
  zip_duplicate: 'A file stands twice in the zip.',
  zip_method: 'A file in the zip is packed in a way that is not known here.',
  zip_size: 'A file in the zip is larger than it says, or than 25 MB.',
  zip_ratio: 'A file in the zip would come out more than 200 times as large.',
};
const LEDGER: Readonly<Record<string, string>> = {
  not_a_ledger: 'This is no ledger of Mile Ledger.',
  newer_version: 'This was written by a newer version of Mile Ledger: bring it in there, or bring this one up to date first.',
  parts_apart: 'This is one file out of a ledger’s zip. Choose the zip, or put the whole folder into one again.',
  part_missing: 'A file of it is missing from the zip.',
  part_differs: 'A file of it is not the one that the ledger speaks of.',
  field: 'It is not as a ledger has to be.',
};

/** Why a file cannot be read, and where. */
export function refusedWords(r: LedgerRefused): string {
  const words = r.of === 'zip' ? ZIP[r.code] : r.of === 'ledger' ? LEDGER[r.code] : JSON_WORDS[r.code];
  const where = r.of === 'json' ? ('byte' in r.where ? `byte ${r.where.byte}` : r.where.pointer || 'at its root') : r.of === 'ledger' ? r.reason : null;
  return [words, r.entry, where].filter(Boolean).join(' · ');
}
