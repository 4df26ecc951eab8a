import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { StoredEvent } from '@/core/visit/event';

/** An event as the phone keeps it. Refused ones stay, with the reason, until they are mended or withdrawn. */
export type KeptEvent = { event: StoredEvent; state: 'kept' | 'sent' | 'refused'; reason?: string; path?: string };
export type OutboxEntry = { n?: number; type: 'event'; id: string } | { n?: number; type: 'record'; id: string; item: RecordItem };

interface PhoneSchema extends DBSchema {
  event: { key: string; value: KeptEvent; indexes: { byVisit: string } };
  outbox: { key: number; value: OutboxEntry };
  record: { key: [string, string]; value: MileRecord };
  meta: { key: string; value: unknown };
}
export type PhoneStore = IDBPDatabase<PhoneSchema>;

const nameOf = (householdId: string, personId: string) => `mile-${householdId}-${personId}`;
/** Acknowledged means on the disk, not in a buffer that dies with the phone. */
export const STRICT = { durability: 'strict' } as const;

/** Opens the store of one person in one household. Upgrades never drop the outbox. */
export function openPhoneStore(householdId: string, personId: string): Promise<PhoneStore> {
  return openDB<PhoneSchema>(nameOf(householdId, personId), 1, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('event', { keyPath: 'event.id' }).createIndex('byVisit', 'event.visitId');
        db.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true });
        db.createObjectStore('record', { keyPath: ['type', 'id'] });
        db.createObjectStore('meta');
      }
    },
    blocking(_from, _to, event) {
      // Another tab wants a newer store: let go rather than hold it up.
      (event.target as IDBDatabase).close();
    },
  });
}

/** Signing out clears what is read here, never what is not sent yet. */
export async function clearSentData(store: PhoneStore): Promise<void> {
  const tx = store.transaction(['event', 'record', 'meta'], 'readwrite', STRICT);
  for (let c = await tx.objectStore('event').openCursor(); c; c = await c.continue()) if (c.value.state === 'sent') await c.delete();
  await tx.objectStore('record').clear();
  await tx.objectStore('meta').delete('rev');
  await tx.done;
}
