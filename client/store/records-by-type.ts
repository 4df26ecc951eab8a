import type { MileRecord, RecordType } from '@/core/records/record-schema';

/** The phone's copy of the household's records, archived ones too. */
export type Records = { [T in RecordType]: Extract<MileRecord, { type: T }>[] };

export const noRecords = (): Records => ({
  network: [],
  provider: [],
  site: [],
  stall: [],
  car: [],
  adapter: [],
  means: [],
  plan: [],
  enrolment: [],
  tariff: [],
});

/** Sorts records into their types. A type of a newer version is left aside. */
export function byType(all: readonly MileRecord[], withArchived = false): Records {
  const out = noRecords();
  for (const r of all) if (withArchived || !r.archived) (out[r.type] as MileRecord[] | undefined)?.push(r);
  return out;
}
