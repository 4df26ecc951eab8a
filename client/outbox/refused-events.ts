import { type KeptEvent, type PhoneStore, STRICT } from '../store/phone-store';

/** Events that the server refused, of every visit, oldest first: kept here with the reason. */
export async function refusedEvents(store: PhoneStore): Promise<KeptEvent[]> {
  return (await store.getAllFromIndex('event', 'byState', 'refused')).sort((a, b) => a.event.at - b.event.at);
}

/** Puts refused events into the outbox again, as they are: a reason such as a wrong clock may have passed. */
export async function sendRefusedAgain(store: PhoneStore): Promise<void> {
  const again = await refusedEvents(store);
  const tx = store.transaction(['event', 'outbox'], 'readwrite', STRICT);
  for (const k of again) {
    await tx.objectStore('event').put({ event: k.event, state: 'kept' });
    await tx.objectStore('outbox').add({ type: 'event', id: k.event.id });
  }
  await tx.done;
}

/**
 * Sends a refused event again as mended: it never was part of the record, so it keeps its id.
 * The touch it was made at stays known by its seq and its page life.
 */
export async function sendMended(store: PhoneStore, id: string, mended: { at: number; payload: Record<string, unknown> }): Promise<void> {
  const tx = store.transaction(['event', 'outbox'], 'readwrite', STRICT);
  const kept = await tx.objectStore('event').get(id);
  if (kept?.state === 'refused') {
    const moved = mended.at !== kept.event.at;
    await tx.objectStore('event').put({
      event: { ...kept.event, ...mended, ...(moved ? { origin: 'typed' as const, precision: 's' as const } : {}) },
      state: 'kept',
    });
    await tx.objectStore('outbox').add({ type: 'event', id });
  }
  await tx.done;
}
