import type { HeldEvents } from '../store/held-events';
import { type PhoneStore, STRICT } from '../store/phone-store';
import type { Photo } from './take-photo';

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
  try {
    const { status } = await fetch(`/api/v1/photos/${photo.sha256}`, { method: 'PUT', headers: { 'content-type': 'image/jpeg' }, body: photo.bytes });
    return status === 200 || status === 201 ? 'sent' : status === 413 || status === 422 ? 'refused' : 'unreachable';
  } catch {
    return 'unreachable';
  }
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
