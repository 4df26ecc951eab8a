import { type KeptEvent, type PhoneStore, STRICT } from '../store/phone-store';

/** Events that the server refused, of every visit, oldest first: kept here with the reason. */
export async function refusedEvents(store: PhoneStore): Promise<KeptEvent[]> {
  return (await store.getAll('event')).filter((k) => k.state === 'refused').sort((a, b) => a.event.at - b.event.at);
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
