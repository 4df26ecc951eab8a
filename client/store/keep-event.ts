import { v7 } from 'uuid';
import { EVENT_VERSION, MOST_SEQ, type Origin, type Precision, type Role, type StoredEvent } from '@/core/visit/event';
import type { Kind, Payload } from '@/core/visit/payloads';
import { deviceId, life, takeAwake } from '../touch/page-life';
import type { TouchTime } from '../touch/touch-time';
import { type KeptEvent, type PhoneStore, type SeqIndex, STRICT } from './phone-store';
import type { PhoneWho } from './who';

export type EventDraft<K extends Kind = Kind> = {
  visitId: string;
  kind: K;
  payload: Payload<K>;
  zone: string;
  touch: TouchTime;
  origin?: Origin;
  precision?: Precision;
  role?: Role;
  /** Greatest seq known from elsewhere, for a visit that this phone did not record. */
  knownSeq?: number;
};
/** What stays the same for everything made at one touch. */
type Made = { who: PhoneWho; awake: boolean };

export function makeEvent(d: EventDraft, seq: number, { who, awake }: Made): StoredEvent {
  return {
    id: v7(),
    householdId: who.householdId,
    personId: who.personId,
    visitId: d.visitId,
    kind: d.kind,
    v: EVENT_VERSION,
    at: d.touch.at,
    precision: d.precision ?? 'ms',
    zone: d.zone,
    deviceId: deviceId(),
    life,
    mono: Math.max(0, d.touch.mono),
    awake,
    seq: Math.min(seq, MOST_SEQ),
    origin: d.origin ?? 'tap',
    role: d.role ?? 'recorder',
    payload: d.payload as Record<string, unknown>,
  };
}

/**
 * Makes events and keeps them on the phone together with their places in the outbox: all or none.
 * `seq` is taken inside the same transaction, so that two tabs never share one.
 * @returns the events as kept, once they are on the disk
 */
export async function keepEvents(store: PhoneStore, who: PhoneWho, drafts: readonly EventDraft[]): Promise<StoredEvent[]> {
  return keepMade(store, { who, awake: takeAwake() }, drafts, false);
}

/**
 * The same for touches whose wakefulness was asked for already.
 * @param opensVisit the phone is at this visit from now on, also after a reload
 */
export async function keepMade(store: PhoneStore, made: Made, drafts: readonly EventDraft[], opensVisit: boolean): Promise<StoredEvent[]> {
  const tx = store.transaction(['event', 'outbox', 'meta'], 'readwrite', STRICT);
  try {
    const events = tx.objectStore('event');
    const out: StoredEvent[] = [];
    const seqs = new Map<string, number>();
    for (const d of drafts) {
      const known = seqs.get(d.visitId) ?? (await greatestSeq(events.index('bySeq'), d.visitId));
      const seq = Math.max(d.knownSeq ?? 0, known) + 1;
      seqs.set(d.visitId, seq);
      const event = makeEvent(d, seq, made);
      await events.put({ event, state: 'kept' });
      await tx.objectStore('outbox').add({ type: 'event', id: event.id });
      out.push(event);
    }
    const first = out[0];
    if (opensVisit && first) await tx.objectStore('meta').put(first.visitId, 'openVisit');
    await tx.done;
    return out;
  } catch (error) {
    // Half a touch must not stay: what failed here goes on in memory, whole.
    tx.done.catch(() => {});
    try {
      tx.abort();
    } catch {
      // It is over already.
    }
    throw error;
  }
}

/** The greatest seq known of a visit, 0 when nothing is: one step of a cursor, however long the visit is. */
async function greatestSeq(index: SeqIndex, visitId: string): Promise<number> {
  const last = await index.openKeyCursor(IDBKeyRange.bound([visitId, 0], [visitId, Number.POSITIVE_INFINITY]), 'prev');
  return last ? last.key[1] : 0;
}

/** Events of one visit as this phone has them, refused ones included: they are on the driver's tape until mended. */
export async function eventsOfVisit(store: PhoneStore, visitId: string): Promise<KeptEvent[]> {
  return store.getAllFromIndex('event', 'byVisit', visitId);
}

/** Takes in events of a visit as the server has them, made on any device. What this phone has itself stays as it is, but for what the server heard of its clock. */
export async function keepFromServer(store: PhoneStore, events: readonly StoredEvent[]): Promise<void> {
  const tx = store.transaction('event', 'readwrite', STRICT);
  for (const event of events) {
    const here = await tx.store.get(event.id);
    if (!here) await tx.store.put({ event, state: 'sent' });
    else if (event.heard_ms !== undefined && here.event.heard_ms === undefined)
      await tx.store.put({ ...here, event: { ...here.event, heard_ms: event.heard_ms } });
  }
  await tx.done;
}
