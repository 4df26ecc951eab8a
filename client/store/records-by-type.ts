import type { MileRecord } from '@/core/records/record-schema';
import { RECORD_TYPES, type RecordType } from '@/core/records/record-types';

/** The phone's copy of the household's records, archived ones too. */
export type Records = { [T in RecordType]: Extract<MileRecord, { type: T }>[] };

export const noRecords = (): Records => Object.fromEntries(RECORD_TYPES.map((type) => [type, []])) as unknown as Records;

/** Sorts records into their types. A type of a newer version is left aside; a price that was put away stays that of its days. */
export function byType(all: readonly MileRecord[], withArchived = false): Records {
  const out = noRecords();
  for (const r of all) if (withArchived || !r.archived || r.type === 'tariff') (out[r.type] as MileRecord[] | undefined)?.push(r);
  return out;
}
