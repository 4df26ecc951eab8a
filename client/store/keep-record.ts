import { canonicalJson } from '@/core/records/canonical-json';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { changesSince } from './changes-from-server';
import { FIRST_EPOCH, offerAgain } from './offer-again';
import { type PhoneStore, STRICT } from './phone-store';

/**
 * Keeps records made or changed here together with their places in the outbox, in the order given. One that still
 * waits there is changed where it waits, so that nobody conflicts with himself.
 * @param was what they said when they were shown, where that may not be what this device's copy says: the change is told from it
 */
export async function keepRecords(store: PhoneStore, items: readonly RecordItem[], was: readonly MileRecord[] = []): Promise<void> {
  const tx = store.transaction(['record', 'outbox', 'unsettled'], 'readwrite', STRICT);
  const waiting = new Map((await tx.objectStore('outbox').getAll()).flatMap((o) => (o.type === 'record' ? [[`${o.item.type} ${o.id}`, o] as const] : [])));
  for (const asked of items) {
    const here = await tx.objectStore('record').get([asked.type, asked.id]);
    const shown = was.find((r) => r.type === asked.type && r.id === asked.id);
    const before = shown ?? here;
    // What was shown stands here, taken by the server meanwhile: the change is one of that, and conflicts with nobody.
    const item = shown && here && here.rev > asked.baseRev && sameStanding(shown, here) ? { ...asked, baseRev: here.rev } : asked;
    const there = waiting.get(`${item.type} ${item.id}`);
    await tx
      .objectStore('record')
      .put({ type: item.type, id: item.id, rev: item.baseRev, archived: item.archived ?? false, fields: item.fields } as MileRecord);
    await tx.objectStore('unsettled').delete([item.type, item.id]);
    if (there) await tx.objectStore('outbox').put({ ...there, item: { ...item, baseRev: there.item.baseRev } });
    else
      await tx
        .objectStore('outbox')
        .add({ type: 'record', id: item.id, item, ...(before ? { base: before.fields as Record<string, unknown>, baseArchived: before.archived } : {}) });
  }
  await tx.done;
}

/**
 * Takes the household's changes into the phone's copy. Records still in the outbox keep what was typed here. Where the ledger
 * was restored from a backup since, everything is fetched afresh, and what this phone sent and still holds is offered again.
 * @returns false when the server could not be reached or nobody is signed in
 */
export async function pullChanges(store: PhoneStore): Promise<boolean> {
  let body = await changesSince(((await store.get('meta', 'rev')) as number | undefined) ?? 0);
  if (!body) return false;
  const epoch = body.epoch ?? FIRST_EPOCH;
  const restored = epoch !== (((await store.get('meta', 'epoch')) as string | undefined) ?? FIRST_EPOCH);
  if (restored) body = await changesSince(0);
  if (!body) return false;
  const tx = store.transaction(['record', 'event', 'outbox', 'meta'], 'readwrite', STRICT);
  const waiting = new Set((await tx.objectStore('outbox').getAll()).flatMap((o) => (o.type === 'record' ? [o.id] : [])));
  if (restored) for (const id of await offerAgain(tx, store.name, body, waiting)) waiting.add(id);
  for (const r of body.records) {
    if (waiting.has(r.id)) continue;
    // Changed here and taken while this answer was on its way: it tells what was before.
    const here = restored ? undefined : await tx.objectStore('record').get([r.type, r.id]);
    if (!here || here.rev <= Math.max(body.rev, r.rev)) await tx.objectStore('record').put(r);
  }
  const meta = tx.objectStore('meta');
  await meta.put(body.rev, 'rev');
  await meta.put(epoch, 'epoch');
  if (body.lately) await meta.put(body.lately, 'lately');
  if (body.usual) await meta.put(body.usual, 'usual');
  if (body.dangers) await meta.put(body.dangers, 'dangers');
  if (body.trials) await meta.put(body.trials, 'trials');
  if (body.outlooks) await meta.put(body.outlooks, 'outlooks');
  await tx.done;
  return true;
}

/** True when an answer of the server told of a restore that this phone has not followed yet. */
export const wasRestored = async (store: PhoneStore): Promise<boolean> =>
  ((await store.get('meta', 'epochSeen')) ?? FIRST_EPOCH) !== ((await store.get('meta', 'epoch')) ?? FIRST_EPOCH);

const sameStanding = (a: MileRecord, b: MileRecord): boolean => a.archived === b.archived && canonicalJson(a.fields) === canonicalJson(b.fields);

/** True when two items say the same. */
export const sameItem = (a: RecordItem, b: RecordItem): boolean =>
  (a.archived ?? false) === (b.archived ?? false) && canonicalJson(a.fields) === canonicalJson(b.fields);
