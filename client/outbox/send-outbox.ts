import { type ItemResult, type OutboxAnswer, type OutboxBatch, type OutboxItem, waitsThere } from '@/core/protocol/outbox';
import { changeOf } from '@/core/records/change-of';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { askServer } from '../server/ask-server';
import { type HeldEvents, waitingOf } from '../store/held-events';
import { sameItem } from '../store/keep-record';
import { type OutboxEntry, type PhoneStore, type RecordEntry, STRICT } from '../store/phone-store';
import { phoneNow } from '../touch/touch-time';

/** Well under the server's 500 items and 1 MB. */
const BATCH = 100;
/** Answers that a repetition would not change. */
const NOT_UNDERSTOOD = new Set([400, 413, 422]);

/** In so many passes, each with others that got through, the server failed at one item before it is set aside. */
const FAILED_PASSES = 2;
/** So many items fail, one by one, and nothing gets through: then it is the server, not the items. */
const ALL_FAIL = 10;

/** `sent`: the outbox is empty but for what waits. `signed_out`: kept until somebody signs in. `unreachable`: try again later. */
export type SendOutcome = 'sent' | 'signed_out' | 'unreachable';

async function post(
  items: readonly OutboxItem[],
  onEpoch: (epoch: string) => unknown = () => {},
): Promise<ItemResult[] | 'signed_out' | 'unreachable' | 'not_understood' | 'failed'> {
  const said = await askServer('/api/v1/outbox', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ sentAt: phoneNow(), items } satisfies OutboxBatch),
  });
  if (!said) return 'unreachable';
  if (said.status === 401) return 'signed_out';
  if (NOT_UNDERSTOOD.has(said.status)) return 'not_understood';
  // 503 and its kin say "later" themselves; a plain 500 may come back for ever because of one item.
  if (said.status === 500) return 'failed';
  const answer = said.body as Partial<OutboxAnswer> | null;
  if (!said.ok || !Array.isArray(answer?.results)) return 'unreachable';
  if (typeof answer.epoch === 'string') await onEpoch(answer.epoch);
  return answer.results;
}

/** Sends records at once, where this device keeps nothing. @returns why not, else null */
export async function sendRecords(records: readonly RecordItem[]): Promise<string | null> {
  const results = await post(records.map((record) => ({ type: 'record', record: changeOf(record) })));
  if (results === 'failed') return 'the server failed at it: try again later';
  if (typeof results === 'string') return results === 'signed_out' ? 'nobody is signed in' : 'the server could not be reached';
  const bad = results.find((r) => r.status !== 'taken' && r.status !== 'already');
  return bad ? `${bad.path ?? ''} ${bad.reason ?? 'was refused'}`.trim() : null;
}

/** Sends what could not be written down, one by one: there are never many. */
export async function sendHeld(held: HeldEvents): Promise<SendOutcome> {
  let failed = false;
  for (const k of waitingOf(held)) {
    const results = await post([{ type: 'event', event: k.event }]);
    if (results === 'not_understood') held.settle(k.event.id, { state: 'refused', reason: 'the server does not understand it' });
    else if (results === 'failed') failed = true;
    else if (typeof results === 'string') return results;
    else {
      const r = results[0];
      if (r?.status === 'taken' || r?.status === 'already') held.settle(k.event.id, { state: 'sent' });
      else if (!waitsThere(r)) held.settle(k.event.id, { state: 'refused', reason: r?.reason ?? 'refused', ...(r?.path ? { path: r.path } : {}) });
    }
  }
  return failed ? 'unreachable' : 'sent';
}

/**
 * Sends the outbox in order, batch after batch. Exactly once in effect: what the server has already it says so,
 * and an entry leaves the outbox only in answer to that. A batch that the server fails at is halved until the item is
 * found that it fails at; that one waits while the others go, and is set aside with its reason when it goes on failing.
 * @param onRecords told when records were answered: what the store says of places and garage may be another
 */
export async function sendOutbox(store: PhoneStore, onRecords: () => void = () => {}): Promise<SendOutcome> {
  let after = 0;
  let size = BATCH;
  let through = false;
  const failing: OutboxEntry[] = [];
  for (;;) {
    const entries = await store.getAll('outbox', IDBKeyRange.lowerBound(after, true), size);
    if (entries.length === 0) return (await waitOrSetAside(store, failing, through)) ? 'unreachable' : 'sent';
    const items: OutboxItem[] = [];
    for (const e of entries) {
      if (e.type === 'record') items.push({ type: 'record', record: changeOf(e.item, e.base && { fields: e.base, archived: e.baseArchived ?? false }) });
      else {
        const kept = await store.get('event', e.id);
        if (kept) items.push({ type: 'event', event: kept.event });
      }
    }
    const results = await post(items, (epoch) => store.put('meta', epoch, 'epochSeen'));
    if ((results === 'not_understood' || results === 'failed') && entries.length > 1) {
      // Too large, or one item spoils the batch: halves find it.
      size = Math.ceil(entries.length / 2);
      continue;
    }
    if (results === 'failed') {
      failing.push(...entries);
      if (!through && failing.length >= ALL_FAIL) return 'unreachable';
      after = entries.at(-1)?.n ?? after;
      size = BATCH;
      continue;
    }
    if (results === 'not_understood') {
      // Alone it is set aside, so that it holds nothing up.
      await settle(store, entries, new Map(entries.map((e) => [e.id, { id: e.id, status: 'refused', reason: 'the server does not understand it' }])));
      size = BATCH;
      continue;
    }
    if (typeof results === 'string') return results;
    await settle(store, entries, new Map(results.map((r) => [r.id, r])));
    if (entries.some((e) => e.type === 'record')) onRecords();
    through = true;
    size = Math.min(BATCH, size * 2);
    // What waits for another person to sign in stays, and must not be sent in a ring.
    after = entries.at(-1)?.n ?? after;
  }
}

/** What the server failed at waits in the outbox; when others got through twice and it did not, it is set aside. @returns whether any waits */
async function waitOrSetAside(store: PhoneStore, failing: readonly OutboxEntry[], through: boolean): Promise<boolean> {
  const [waiting, aside] = [[] as OutboxEntry[], [] as OutboxEntry[]];
  for (const e of failing) {
    const passes = (e.failedPasses ?? 0) + (through ? 1 : 0);
    (passes >= FAILED_PASSES ? aside : waiting).push({ ...e, failedPasses: passes });
  }
  const reason = 'the server fails at this one and takes the others: it is kept here, and can be sent again';
  await settle(store, aside, new Map(aside.map((e) => [e.id, { id: e.id, status: 'refused', reason }])));
  const tx = store.transaction('outbox', 'readwrite', STRICT);
  for (const e of waiting) if (await tx.store.get(e.n as number)) await tx.store.put(e);
  await tx.done;
  return waiting.length > 0;
}

async function settle(store: PhoneStore, entries: readonly OutboxEntry[], results: ReadonlyMap<string, ItemResult>): Promise<void> {
  const tx = store.transaction(['event', 'record', 'outbox', 'unsettled'], 'readwrite', STRICT);
  for (const e of entries) {
    const r = results.get(e.id);
    const kept = e.type === 'event' ? await tx.objectStore('event').get(e.id) : undefined;
    if (waitsThere(r)) continue;
    if (!r && !(e.type === 'event' && !kept)) continue;
    if (e.type === 'record' && r?.code === 'whole_wanted' && e.base) {
      // The ledger has lost what this changes: all of it is sent with the next round.
      const { base: _, ...whole } = e;
      await tx.objectStore('outbox').put({ ...whole, item: { ...e.item, baseRev: 0 } });
      continue;
    }
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
        if (rev !== undefined)
          await tx.objectStore('outbox').put({ ...now, item: { ...now.item, baseRev: rev }, base: e.item.fields, baseArchived: e.item.archived ?? false });
        continue;
      }
      if (fine) await tx.objectStore('record').put(r.now ?? ({ ...e.item, archived: e.item.archived ?? false, rev: r.rev ?? e.item.baseRev } as MileRecord));
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
