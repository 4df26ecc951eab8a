import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { type PhoneStore, STRICT } from './phone-store';

/** Keeps records made on the spot together with their places in the outbox, in the order given. */
export async function keepRecords(store: PhoneStore, items: readonly RecordItem[]): Promise<void> {
  const tx = store.transaction(['record', 'outbox'], 'readwrite', STRICT);
  for (const item of items) {
    await tx.objectStore('record').put({ type: item.type, id: item.id, rev: item.baseRev, archived: false, fields: item.fields } as MileRecord);
    await tx.objectStore('outbox').add({ type: 'record', id: item.id, item });
  }
  await tx.done;
}

/**
 * Takes the household's changes into the phone's copy. Records still in the outbox keep what was typed here.
 * @returns false when the server could not be reached or nobody is signed in
 */
export async function pullChanges(store: PhoneStore): Promise<boolean> {
  const since = ((await store.get('meta', 'rev')) as number | undefined) ?? 0;
  let body: { rev: number; records: MileRecord[] };
  try {
    const response = await fetch(`/api/v1/changes?since=${since}`, { cache: 'no-store' });
    if (!response.ok) return false;
    body = await response.json();
  } catch {
    return false;
  }
  const tx = store.transaction(['record', 'outbox', 'meta'], 'readwrite', STRICT);
  const waiting = new Set((await tx.objectStore('outbox').getAll()).filter((o) => o.type === 'record').map((o) => o.id));
  for (const r of body.records) if (!waiting.has(r.id)) await tx.objectStore('record').put(r);
  await tx.objectStore('meta').put(body.rev, 'rev');
  await tx.done;
  return true;
}
