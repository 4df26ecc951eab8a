import { askServer } from '../server/ask-server';
import type { HeldEvents } from '../store/held-events';
import { type PhoneStore, STRICT } from '../store/phone-store';
import type { Photo } from './take-photo';

/** Half a megabyte gets through in it at 14 kbit/s. */
const WAIT_MS = 300_000;

/** Writes a photo down on the phone until the server has it. @throws when nothing can be written down */
export async function writePhoto(store: PhoneStore, photo: Photo): Promise<void> {
  const tx = store.transaction('photo', 'readwrite', STRICT);
  try {
    if (!(await tx.store.get(photo.sha256))) await tx.store.put({ ...photo, state: 'kept' });
    await tx.done;
  } catch (error) {
    tx.done.catch(() => {});
    throw error;
  }
}

/** How many photos the server has not got. */
export const waitingPhotos = (store: PhoneStore): Promise<number> => store.countFromIndex('photo', 'byState', 'kept');

/** `refused`: the server cannot read it and never will. */
async function sendPhoto(photo: Photo): Promise<'sent' | 'refused' | 'unreachable'> {
  const said = await askServer(`/api/v1/photos/${photo.sha256}`, { method: 'PUT', headers: { 'content-type': 'image/jpeg' }, body: photo.bytes }, WAIT_MS);
  // Away from the phone only what the server says itself that it has.
  const has = typeof (said?.body as { already?: unknown } | null | undefined)?.already === 'boolean';
  return said?.ok && has ? 'sent' : said?.status === 413 || said?.status === 422 ? 'refused' : 'unreachable';
}

/**
 * Sends the photos that the server has not got. One that it has leaves the phone; one that it refuses stays, and is not
 * sent in a ring.
 * @returns false when it cannot be reached or nobody is signed in
 */
export async function sendPhotos(store: PhoneStore | null, held?: HeldEvents): Promise<boolean> {
  for (const p of store ? await store.getAll('photo') : []) {
    const outcome = p.state === 'kept' ? await sendPhoto(p) : p.state;
    if (outcome === 'unreachable') return false;
    if (outcome === 'sent') await store?.delete('photo', p.sha256);
    else if (p.state === 'kept') await store?.put('photo', { ...p, state: 'refused' });
  }
  for (const p of held?.photos() ?? []) {
    if ((await sendPhoto(p)) === 'unreachable') return false;
    held?.dropPhoto(p.sha256);
  }
  return true;
}
