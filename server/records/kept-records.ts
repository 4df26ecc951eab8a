import { LRUCache } from 'lru-cache';
import type { MileRecord } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import { RECORD_TYPES } from '@/core/records/types/registry';

/** The records of one type of a household as they were last read: up to which rev, in which epoch of its ledger. Later ones stand last. */
export type KeptRecords = { epoch: string; rev: number; records: Map<string, MileRecord>; list: readonly MileRecord[] };

/** Records that are kept in memory, of all households: some 50 MB. */
const MOST_RECORDS = 40_000;

// Pages and route handlers are bundled apart, and share one memory.
const shared = globalThis as unknown as { mileRecords?: LRUCache<string, KeptRecords> };
const kept = (): LRUCache<string, KeptRecords> => {
  shared.mileRecords ??= new LRUCache({ maxSize: MOST_RECORDS, sizeCalculation: (k) => k.records.size + 1 });
  return shared.mileRecords;
};
const keyOf = (householdId: string, type: RecordType) => `${householdId} ${type}`;

/** What is kept of a type of a household, if anything is. */
export const keptRecords = (householdId: string, type: RecordType): KeptRecords | undefined => kept().get(keyOf(householdId, type));

/** Forgets what is kept of a household: it was deleted. */
export function forgetRecords(householdId: string): void {
  for (const type of RECORD_TYPES) kept().delete(keyOf(householdId, type));
}

/** What several pages are given is changed by none of them. */
function frozen<T>(value: T): T {
  if (typeof value !== 'object' || value === null || Object.isFrozen(value)) return value;
  for (const part of Object.values(value)) frozen(part);
  return Object.freeze(value);
}

/**
 * Lays what was read now upon what is kept. A household's writing transactions follow one another under its lock, so whoever reads one of them has
 * read all before; of two that read at once the slower one puts back nothing.
 * @param epoch of the household as it was read; another one than is kept: its ledger was restored, and nothing kept holds
 * @param since the rev after which was read; -1: all
 * @param fresh what was read, in the order in which it was written
 * @returns every record of the type, in the order in which they were written, the same list for as long as nothing is written; `null`: what was read does
 * not go on from what is kept, read all
 */
export function keepRecords(householdId: string, type: RecordType, epoch: string, since: number, fresh: readonly MileRecord[]): readonly MileRecord[] | null {
  const standing = keptRecords(householdId, type);
  const goesOn = standing?.epoch === epoch && since <= standing.rev;
  if (!goesOn && since >= 0) return null;
  if (goesOn && fresh.length === 0) return standing.list;
  const records = goesOn ? standing.records : new Map<string, MileRecord>();
  let rev = goesOn ? standing.rev : -1;
  for (const r of fresh) {
    if ((records.get(r.id)?.rev ?? -1) >= r.rev) continue;
    records.delete(r.id);
    records.set(r.id, frozen(r));
    rev = Math.max(rev, r.rev);
  }
  const list = Object.freeze([...records.values()]);
  // Another object each time: only then is it measured anew.
  kept().set(keyOf(householdId, type), { epoch, rev, records, list });
  return list;
}
