import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import type { StoredEvent } from '@/core/visit/event';
import { type HeldEvents, waitingOf } from '../store/held-events';
import { sameItem } from '../store/keep-record';
import { type OutboxEntry, type PhoneStore, type RecordEntry, STRICT } from '../store/phone-store';
import { phoneNow } from '../touch/touch-time';

/** Well under the server's 500 items and 1 MB. */
const BATCH = 100;
/** Answers that a repetition would not change. */
const NOT_UNDERSTOOD = new Set([400, 413, 422]);

type ItemResult = {
  id: string;
  status: 'taken' | 'already' | 'refused' | 'conflict';
  path?: string;
  reason?: string;
  code?: string;
  rev?: number;
  theirs?: MileRecord;
};
/** `sent`: the outbox is empty but for what waits. `signed_out`: kept until somebody signs in. `unreachable`: try again later. */
export type SendOutcome = 'sent' | 'signed_out' | 'unreachable';

type Item = { type: 'event'; event: StoredEvent } | { type: 'record'; record: RecordItem };
async function post(items: readonly Item[]): Promise<ItemResult[] | 'signed_out' | 'unreachable' | 'not_understood'> {
  try {
    const response = await fetch('/api/v1/outbox', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ sentAt: phoneNow(), items }),
    });
    if (response.status === 401) return 'signed_out';
    if (NOT_UNDERSTOOD.has(response.status)) return 'not_understood';
    if (!response.ok) return 'unreachable';
    return (await response.json()).results;
  } catch {
    return 'unreachable';
  }
}

/** Sends records at once, where this device keeps nothing. @returns why not, else null */
export async function sendRecords(records: readonly RecordItem[]): Promise<string | null> {
  const results = await post(records.map((record) => ({ type: 'record', record })));
  if (typeof results === 'string') return results === 'signed_out' ? 'nobody is signed in' : 'the server could not be reached';
  const bad = results.find((r) => r.status !== 'taken' && r.status !== 'already');
  return bad ? `${bad.path ?? ''} ${bad.reason ?? 'was refused'}`.trim() : null;
}

/** Sends what could not be written down, one by one: there are never many. */
export async function sendHeld(held: HeldEvents): Promise<SendOutcome> {
  for (const k of waitingOf(held)) {
    const results = await post([{ type: 'event', event: k.event }]);
    if (results === 'not_understood') held.settle(k.event.id, { state: 'refused', reason: 'the server does not understand it' });
    else if (typeof results === 'string') return results;
    else {
      const r = results[0];
      if (r?.status === 'taken' || r?.status === 'already') held.settle(k.event.id, { state: 'sent' });
      else if (r?.code !== 'other_person') held.settle(k.event.id, { state: 'refused', reason: r?.reason ?? 'refused', ...(r?.path ? { path: r.path } : {}) });
    }
  }
  return 'sent';
}

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
    const items: Item[] = [];
    for (const e of entries) {
      if (e.type === 'record') items.push({ type: 'record', record: e.item });
      else {
        const kept = await store.get('event', e.id);
        if (kept) items.push({ type: 'event', event: kept.event });
      }
    }
    const results = await post(items);
    if (results === 'not_understood') {
      // Too large, or one item spoils the batch: halves find it, and alone it is set aside, so that it holds nothing up.
      if (entries.length > 1) {
        size = Math.ceil(entries.length / 2);
        continue;
      }
      await settle(store, entries, new Map(entries.map((e) => [e.id, { id: e.id, status: 'refused', reason: 'the server does not understand it' }])));
      size = BATCH;
      continue;
    }
    if (typeof results === 'string') return results;
    await settle(store, entries, new Map(results.map((r) => [r.id, r])));
    // What waits for another person to sign in stays, and must not be sent in a ring.
    after = entries.at(-1)?.n ?? after;
  }
}

async function settle(store: PhoneStore, entries: readonly OutboxEntry[], results: ReadonlyMap<string, ItemResult>): Promise<void> {
  const tx = store.transaction(['event', 'record', 'outbox', 'unsettled'], 'readwrite', STRICT);
  for (const e of entries) {
    const r = results.get(e.id);
    const kept = e.type === 'event' ? await tx.objectStore('event').get(e.id) : undefined;
    if (r?.code === 'other_person') continue;
    if (!r && !(e.type === 'event' && !kept)) continue;
    const fine = r?.status === 'taken' || r?.status === 'already';
    if (kept && r) {
      await tx
        .objectStore('event')
        .put(
          fine
            ? { event: kept.event, state: 'sent' }
            : { event: kept.event, state: 'refused', reason: r.reason ?? 'refused', ...(r.path ? { path: r.path } : {}) },
        );
    }
    if (e.type === 'record' && r) {
      // Changed again here while it was on its way: it stays, now as a change of what was just taken.
      const now = (await tx.objectStore('outbox').get(e.n as number)) as RecordEntry | undefined;
      if (now && !sameItem(now.item, e.item)) {
        const rev = fine ? r.rev : undefined;
        if (rev !== undefined) await tx.objectStore('outbox').put({ ...now, item: { ...now.item, baseRev: rev }, base: e.item.fields });
        continue;
      }
      if (fine) await tx.objectStore('record').put({ ...e.item, archived: e.item.archived ?? false, rev: r.rev ?? e.item.baseRev } as MileRecord);
      else {
        // Neither version is lost: this phone shows what stands there, and keeps what was typed here until somebody chooses.
        await tx.objectStore('unsettled').put({
          type: e.item.type,
          id: e.id,
          mine: e.item,
          reason: r.reason ?? 'was refused',
          ...(e.base ? { base: e.base } : {}),
          ...(r.path ? { path: r.path } : {}),
          ...(r.theirs ? { theirs: r.theirs } : {}),
        });
        if (r.theirs) await tx.objectStore('record').put(r.theirs);
      }
    }
    await tx.objectStore('outbox').delete(e.n as number);
  }
  await tx.done;
}
