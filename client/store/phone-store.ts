import { type DBSchema, type IDBPDatabase, type IDBPIndex, openDB } from 'idb';
import { fromOlderShape } from '@/core/records/older-shape';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { RecordType } from '@/core/records/record-types';
import type { StoredEvent } from '@/core/visit/event';
import type { PhoneWho } from './who';

/** An event as the phone keeps it. Refused ones stay, with the reason, until they are mended or withdrawn. */
export type KeptEvent = { event: StoredEvent; state: 'kept' | 'sent' | 'refused'; reason?: string; path?: string };
/** `failedPasses`: how often the server failed at it while others got through. */
type Place = { n?: number; failedPasses?: number };
/** `base`: what the record said before it was changed here, when it is known, and whether it was put away. */
export type RecordEntry = Place & { type: 'record'; id: string; item: RecordItem; base?: Record<string, unknown>; baseArchived?: boolean };
export type OutboxEntry = (Place & { type: 'event'; id: string }) | RecordEntry;
/** A record that the server did not take: changed elsewhere since (`theirs`), or refused with a reason. Kept until somebody chooses. */
export type Unsettled = { type: RecordType; id: string; mine: RecordItem; base?: Record<string, unknown>; theirs?: MileRecord; path?: string; reason: string };

export interface PhoneSchema extends DBSchema {
  event: { key: string; value: KeptEvent; indexes: { byVisit: string; bySeq: [string, number]; byState: string } };
  outbox: { key: number; value: OutboxEntry };
  record: { key: [string, string]; value: MileRecord };
  meta: { key: string; value: unknown };
  unsettled: { key: [string, string]; value: Unsettled };
  photo: { key: string; value: KeptPhoto; indexes: { byState: string } };
}
export type PhoneStore = IDBPDatabase<PhoneSchema>;
export type SeqIndex = IDBPIndex<PhoneSchema, ('event' | 'outbox' | 'meta')[], 'event', 'bySeq', 'readwrite'>;

/** The name of the store of one person in one household. */
export const storeName = (householdId: string, personId: string) => `mile-${householdId}-${personId}`;
/** Whose a store is, for when somebody else, or the same person elsewhere, is told of what waits in it. */
export type Whose = Pick<PhoneWho, 'name' | 'householdName' | 'currency' | 'zone'>;
/** Acknowledged means on the disk, not in a buffer that dies with the phone. */
export const STRICT = { durability: 'strict' } as const;

/** Opens the store of one person in one household. Upgrades never drop the outbox. */
export function openPhoneStore(householdId: string, personId: string): Promise<PhoneStore> {
  return openDB<PhoneSchema>(storeName(householdId, personId), 4, {
    async upgrade(db, from, _to, tx) {
      if (from < 1) {
        db.createObjectStore('event', { keyPath: 'event.id' }).createIndex('byVisit', 'event.visitId');
        db.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true });
        db.createObjectStore('record', { keyPath: ['type', 'id'] });
        db.createObjectStore('meta');
      }
      if (from < 2) {
        db.createObjectStore('unsettled', { keyPath: ['type', 'id'] });
        db.createObjectStore('photo', { keyPath: 'sha256' });
        // The copy is brought to today's shape at once, and fetched whole at the next chance.
        const records = tx.objectStore('record');
        for (let c = await records.openCursor(); c; c = await c.continue())
          await c.update({ ...c.value, fields: fromOlderShape(c.value.type, c.value.fields as Record<string, unknown>) } as MileRecord);
        await tx.objectStore('meta').delete('rev');
      }
      if (from < 3) tx.objectStore('event').createIndex('bySeq', ['event.visitId', 'event.seq']);
      if (from < 4) {
        tx.objectStore('event').createIndex('byState', 'state');
        tx.objectStore('photo').createIndex('byState', 'state');
      }
    },
    blocking(_from, _to, event) {
      // Another tab wants a newer store: let go rather than hold it up.
      (event.target as IDBDatabase).close();
    },
  });
}

/** The same, and has it remember whose it is. */
export async function openOwnStore(who: Whose & Pick<PhoneWho, 'householdId' | 'personId'>): Promise<PhoneStore> {
  const store = await openPhoneStore(who.householdId, who.personId);
  const { name, householdName, currency, zone } = who;
  // One that is full or refuses is used all the same, and nameless then.
  await store.put('meta', { name, householdName, currency, zone } satisfies Whose, 'whose').catch(() => {});
  return store;
}

/** A photo on the phone: its bytes until the server has them. `sent`: left by an earlier version, and goes at the next sending. */
export type KeptPhoto = { sha256: string; bytes: Blob; state: 'kept' | 'refused' | 'sent' };

/** How much of a store the server does not have: what waits, what it refused, and what somebody has to choose of. */
export async function unsentIn(store: PhoneStore): Promise<number> {
  return (
    (await store.count('outbox')) +
    (await store.countFromIndex('photo', 'byState', 'kept')) +
    (await store.countFromIndex('event', 'byState', 'refused')) +
    (await store.count('unsettled'))
  );
}

/** Signing out clears what is read here, never what is not sent yet; whose that is stays with it. */
export async function clearSentData(store: PhoneStore): Promise<void> {
  const tx = store.transaction(['event', 'record', 'meta', 'photo'], 'readwrite', STRICT);
  for (let c = await tx.objectStore('event').openCursor(); c; c = await c.continue()) if (c.value.state === 'sent') await c.delete();
  for (let c = await tx.objectStore('photo').openCursor(); c; c = await c.continue()) if (c.value.state === 'sent') await c.delete();
  await tx.objectStore('record').clear();
  for (const key of ['rev', 'epoch', 'epochSeen', 'lately', 'usual', 'dangers', 'trials', 'outlooks', 'lastVisits']) await tx.objectStore('meta').delete(key);
  await tx.done;
  if ((await unsentIn(store)) === 0) await store.delete('meta', 'whose');
}
