import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';

/** The phone's copy of the household's records, archived ones too. */
export type Records = { readonly [T in RecordType]: Extract<MileRecord, { type: T }>[] };

const NONE: MileRecord[] = [];

/** Sorts records into their types; of a type there is none of, an empty list. A price that was put away stays that of its days. */
export function byType(all: readonly MileRecord[], withArchived = false): Records {
  const lists: { [type: string]: MileRecord[] } = {};
  for (const r of all)
    if (withArchived || !r.archived || r.type === 'tariff') {
      lists[r.type] ??= [];
      lists[r.type]?.push(r);
    }
  // The names of the types stand with their schemas, which a phone fetches apart.
  return new Proxy(lists, { get: (of, type: string) => of[type] ?? NONE }) as unknown as Records;
}
export const noRecords = (): Records => byType([]);

/** The records as changes of them say, each in its place, new ones after the others. Of two changes of one the later counts. */
export function changedBy(all: readonly MileRecord[], changes: readonly RecordItem[]): MileRecord[] {
  const changed = new Map(all.map((r) => [`${r.type} ${r.id}`, r]));
  for (const c of changes) changed.set(`${c.type} ${c.id}`, { ...c, rev: c.baseRev, archived: c.archived ?? false } as MileRecord);
  return [...changed.values()];
}
