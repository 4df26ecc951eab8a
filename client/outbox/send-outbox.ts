import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { StoredEvent } from '@/core/visit/event';
import { type OutboxEntry, type PhoneStore, STRICT } from '../store/phone-store';
import { phoneNow } from '../touch/touch-time';

/** Well under the server's 500 items and 1 MB. */
const BATCH = 100;
/** Answers that a repetition would not change. */
const NOT_UNDERSTOOD = new Set([400, 413, 422]);

type ItemResult = { id: string; status: 'taken' | 'already' | 'refused' | 'conflict'; path?: string; reason?: string; code?: string; theirs?: MileRecord };
/** `sent`: the outbox is empty but for what waits. `signed_out`: kept until somebody signs in. `unreachable`: try again later. */
export type SendOutcome = 'sent' | 'signed_out' | 'unreachable';

/**
 * Sends the outbox in order, batch after batch. Exactly once in effect: what the server has already it says so,
 * and an entry leaves the outbox only in answer to that.
 */
export async function sendOutbox(store: PhoneStore): Promise<SendOutcome> {
  let after = 0;
  let size = BATCH;
  for (;;) {
    const entries = await store.getAll('outbox', IDBKeyRange.lowerBound(after, true), size);
    if (entries.length === 0) return 'sent';
    const items: ({ type: 'event'; event: StoredEvent } | { type: 'record'; record: RecordItem })[] = [];
    for (const e of entries) {
      if (e.type === 'record') items.push({ type: 'record', record: e.item });
      else {
        const kept = await store.get('event', e.id);
        if (kept) items.push({ type: 'event', event: kept.event });
      }
    }
    let results: ItemResult[];
    try {
      const response = await fetch('/api/v1/outbox', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ sentAt: phoneNow(), items }),
      });
      if (response.status === 401) return 'signed_out';
      if (NOT_UNDERSTOOD.has(response.status)) {
        // Too large, or one item spoils the batch: halves find it, and alone it is set aside, so that it holds nothing up.
        if (entries.length > 1) {
          size = Math.ceil(entries.length / 2);
          continue;
        }
        await settle(store, entries, new Map(entries.map((e) => [e.id, { id: e.id, status: 'refused', reason: 'the server does not understand it' }])));
        size = BATCH;
        continue;
      }
      if (!response.ok) return 'unreachable';
      results = (await response.json()).results;
    } catch {
      return 'unreachable';
    }
    await settle(store, entries, new Map(results.map((r) => [r.id, r])));
    // What waits for another person to sign in stays, and must not be sent in a ring.
    after = entries.at(-1)?.n ?? after;
  }
}

async function settle(store: PhoneStore, entries: readonly OutboxEntry[], results: ReadonlyMap<string, ItemResult>): Promise<void> {
  const tx = store.transaction(['event', 'record', 'outbox'], 'readwrite', STRICT);
  for (const e of entries) {
    const r = results.get(e.id);
    const kept = e.type === 'event' ? await tx.objectStore('event').get(e.id) : undefined;
    if (r?.code === 'other_person') continue;
    if (!r && !(e.type === 'event' && !kept)) continue;
    if (kept && r) {
      const fine = r.status === 'taken' || r.status === 'already';
      await tx
        .objectStore('event')
        .put(
          fine
            ? { event: kept.event, state: 'sent' }
            : { event: kept.event, state: 'refused', reason: r.reason ?? 'refused', ...(r.path ? { path: r.path } : {}) },
        );
    }
    // Changed elsewhere since: what stands there is what this phone shows too.
    if (r?.theirs) await tx.objectStore('record').put(r.theirs);
    await tx.objectStore('outbox').delete(e.n as number);
  }
  await tx.done;
}
