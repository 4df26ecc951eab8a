import { sendPhotos, waitingPhotos } from '../photos/photo-outbox';
import { type HeldEvents, refusedOf, waitingOf } from '../store/held-events';
import { pullChanges, wasRestored } from '../store/keep-record';
import type { PhoneStore } from '../store/phone-store';
import { type SendOutcome, sendHeld, sendOutbox } from './send-outbox';

/** `waiting`: events, records and photos. `inMemory`: of those, how many live only as long as the page; `photos`: how many of these are pictures. `records`: what the store says of places and garage may have changed by sending. */
export type OutboxStatus = {
  waiting: number;
  inMemory: number;
  photos: number;
  refused: number;
  unsettled: number;
  last: SendOutcome | null;
  records: boolean;
};

/** What of this person's has not reached the server, written down or not. */
export async function waitingHere(store: PhoneStore | null, held: HeldEvents): Promise<Pick<OutboxStatus, 'waiting' | 'inMemory' | 'photos'>> {
  const photos = held.photos().length;
  const inMemory = waitingOf(held).length + photos;
  return { waiting: (store ? (await store.count('outbox')) + (await waitingPhotos(store)) : 0) + inMemory, inMemory, photos };
}

/** Seconds to the next try after a failure: doubling up to a minute. @param failures in a row, ≥ 1 */
export const backOffSeconds = (failures: number): number => Math.min(60, 2 ** (failures - 1));

/**
 * Keeps sending in the background: at once when woken, again with back-off while the server is away, and when
 * the phone says it is online or is looked at again.
 * @param store `null` where this device keeps nothing: then only what is held in memory is sent
 * @returns `wake` to send soon, `stop` to end
 */
export function startOutbox(
  store: PhoneStore | null,
  held: HeldEvents,
  onStatus: (status: OutboxStatus) => void,
): { wake: () => Promise<void>; stop: () => void } {
  let running: Promise<void> | null = null;
  let again = false;
  let pictures = false;
  let morePictures = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let stopped = false;

  const tell = async (last: SendOutcome | null, records = false) => {
    if (stopped) return;
    const refused = store ? await store.countFromIndex('event', 'byState', 'refused') : 0;
    onStatus({
      ...(await waitingHere(store, held)),
      refused: refused + refusedOf(held).length,
      unsettled: store ? await store.count('unsettled') : 0,
      last,
      records,
    });
  };
  const run = async () => {
    do {
      again = false;
      let records = false;
      const heard = () => {
        records = true;
      };
      // A disk that is full cannot note what was answered: it is sent again later, and keeps nothing in memory from being sent.
      let stuck = false;
      const full = (): SendOutcome => {
        stuck = true;
        return 'sent';
      };
      let outcome: SendOutcome = store ? await sendOutbox(store, heard).catch(full) : 'sent';
      // Restored from a backup meanwhile: what may be gone there is put into the outbox again, and sent in another round.
      if (store && outcome === 'sent' && !stuck && (await wasRestored(store)) && (await pullChanges(store))) {
        again = true;
        heard();
      }
      if (outcome === 'sent') outcome = await sendHeld(held);
      if (outcome === 'sent' && stuck) outcome = 'unreachable';
      await tell(outcome, records);
      if (outcome === 'unreachable') later();
      // Pictures come after the words that name them, and no word waits for a picture on its way.
      else if (outcome === 'sent') void sendPictures();
    } while (again && !stopped);
  };
  const later = () => {
    clearTimeout(timer);
    failures += 1;
    if (!stopped) timer = setTimeout(wake, backOffSeconds(failures) * 1000);
  };
  const sendPictures = async () => {
    morePictures = true;
    if (pictures) return;
    pictures = true;
    let reached = true;
    while (morePictures && reached && !stopped) {
      morePictures = false;
      reached = await sendPhotos(store, held).catch(() => false);
    }
    pictures = false;
    if (reached) failures = 0;
    else later();
    await tell(null).catch(() => {});
  };
  const wake = async (): Promise<void> => {
    clearTimeout(timer);
    if (stopped) return;
    await tell(null);
    if (running) {
      again = true;
      return running;
    }
    running = run().finally(() => {
      running = null;
    });
    return running;
  };
  const onLook = () => {
    if (document.visibilityState === 'visible') void wake();
  };
  const onOnline = () => void wake();
  addEventListener('online', onOnline);
  document.addEventListener('visibilitychange', onLook);
  void wake();
  return {
    wake,
    stop: () => {
      stopped = true;
      clearTimeout(timer);
      removeEventListener('online', onOnline);
      document.removeEventListener('visibilitychange', onLook);
    },
  };
}
