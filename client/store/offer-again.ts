import type { IDBPTransaction } from 'idb';
import type { Changes } from '@/core/protocol/changes';
import { canonicalJson } from '@/core/records/canonical-json';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { inReferenceOrder } from '@/core/records/reference-order';
import { type PhoneSchema, storeName } from './phone-store';

/** The epoch of a ledger that was never restored. */
export const FIRST_EPOCH = 'first';

type Tx = IDBPTransaction<PhoneSchema, ('record' | 'event' | 'outbox' | 'meta')[], 'readwrite'>;

/**
 * After a restore: puts what the server once took from this phone, and may have lost with what came after the backup, into the
 * outbox again. Events of this phone's person that are still here, whatever the ledger has of them: it says "already". Records
 * that were written after the backup and say something else than the ledger does now; one that was changed there since the
 * restore comes back as a difference to choose from.
 * @param here the name of the store, which is its person's @param body everything the server has now
 * @param waiting ids of records that are in the outbox already
 * @returns ids of the records that are offered
 */
export async function offerAgain(tx: Tx, here: string, body: Changes, waiting: ReadonlySet<string>): Promise<string[]> {
  const backupRev = body.epochRev ?? 0;
  const there = new Map(body.records.map((r) => [`${r.type} ${r.id}`, r]));
  const offered: string[] = [];
  const records = inReferenceOrder(await tx.objectStore('record').getAll(), (r) => r);
  for (const r of records) {
    const now = there.get(`${r.type} ${r.id}`);
    if (waiting.has(r.id) || r.rev <= backupRev || (now && says(now) === says(r))) continue;
    const item = { type: r.type, id: r.id, baseRev: now ? Math.min(now.rev, backupRev) : 0, archived: r.archived, fields: r.fields } as RecordItem;
    await tx
      .objectStore('outbox')
      .add({ type: 'record', id: r.id, item, ...(now ? { base: now.fields as Record<string, unknown>, baseArchived: now.archived } : {}) });
    offered.push(r.id);
  }
  for (const k of await tx.objectStore('event').getAll()) {
    if (k.state !== 'sent' || storeName(k.event.householdId, k.event.personId) !== here) continue;
    await tx.objectStore('event').put({ event: k.event, state: 'kept' });
    await tx.objectStore('outbox').add({ type: 'event', id: k.event.id });
  }
  return offered;
}

const says = (r: MileRecord): string => canonicalJson({ archived: r.archived, fields: r.fields });
