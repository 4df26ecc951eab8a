import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { sendPhotos, writePhoto } from '../photos/photo-outbox';
import { takePhoto } from '../photos/take-photo';
import { keepRecords } from '../store/keep-record';
import { openOwnStore, type PhoneStore, type Unsettled } from '../store/phone-store';
import { askWho, readWho } from '../store/who';
import { type SendOutcome, sendOutbox } from './send-outbox';

export type Kept = { is: 'sent' } | { is: 'kept_here' } | { is: 'unsettled'; unsettled: Unsettled } | { is: 'failed'; why: string };

/** So long somebody waits at a form for the server, in all; what was typed is kept before, and sent behind them. */
const PATIENCE_MS = { who: 5_000, sending: 15_000 } as const;

async function openStore(): Promise<PhoneStore> {
  const asked = await askWho(PATIENCE_MS.who);
  const who = typeof asked === 'object' ? asked : readWho();
  if (!who || asked === 'signed_out') throw new Error('Sign in again, then repeat this.');
  return openOwnStore(who);
}
async function withStore<T>(work: (store: PhoneStore) => Promise<T>): Promise<T> {
  const store = await openStore();
  try {
    return await work(store);
  } finally {
    store.close();
  }
}

/** Words first, then the pictures that they name. */
async function sendAll(store: PhoneStore): Promise<SendOutcome> {
  const outcome = await sendOutbox(store);
  return outcome === 'sent' && !(await sendPhotos(store)) ? 'unreachable' : outcome;
}

/** What takes longer goes on behind whoever waits; what does not get through is still in the outbox, and goes with another round. */
async function inTime(sending: Promise<SendOutcome>): Promise<SendOutcome> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<SendOutcome>((done) => {
    timer = setTimeout(() => done('unreachable'), PATIENCE_MS.sending);
  });
  return Promise.race([sending, late]).finally(() => clearTimeout(timer));
}

/**
 * Keeps records on this device and sends them at once, by the same way as the Stall does.
 * @param was what the changed ones said when the page was opened: the device's copy follows, and a difference is told from it
 */
export async function keepAndSend(items: readonly RecordItem[], was: readonly MileRecord[]): Promise<Kept> {
  let sending: Promise<SendOutcome> | null = null;
  let store: PhoneStore | null = null;
  try {
    store = await openStore();
    for (const r of was) {
      const here = await store.get('record', [r.type, r.id]);
      if (!here || here.rev < r.rev) await store.put('record', r);
    }
    await keepRecords(store, items, was);
    sending = sendAll(store).catch(() => 'unreachable' as const);
    const outcome = await inTime(sending);
    for (const i of items) {
      const unsettled = await store.get('unsettled', [i.type, i.id]);
      if (unsettled) return { is: 'unsettled', unsettled };
    }
    return { is: outcome === 'sent' ? 'sent' : 'kept_here' };
  } catch (error) {
    return { is: 'failed', why: error instanceof Error ? error.message : String(error) };
  } finally {
    // An answer that comes late is still written down: what is typed again meanwhile is a change of it, no conflict with it.
    if (sending) void sending.finally(() => store?.close());
    else store?.close();
  }
}

/** Keeps a photo on this device for sending. @returns its SHA-256 @throws with a sentence */
export async function keepPhotoHere(file: Blob): Promise<string> {
  const photo = await takePhoto(file);
  await withStore((store) => writePhoto(store, photo));
  return photo.sha256;
}

/** What waits for a choice on this device. */
export const unsettledHere = (): Promise<Unsettled[]> => withStore((store) => store.getAll('unsettled')).catch(() => []);
/** Lets go of what was typed here: what stands at the server stays. */
export const dropUnsettled = (u: Unsettled): Promise<void> => withStore((store) => store.delete('unsettled', [u.type, u.id]));
