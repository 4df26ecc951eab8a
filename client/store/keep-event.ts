import { v7 } from 'uuid';
import { EVENT_VERSION, type Origin, type Precision, type StoredEvent } from '@/core/visit/event';
import type { Kind, Payload } from '@/core/visit/payloads';
import { deviceId, life, takeAwake } from '../touch/page-life';
import type { TouchTime } from '../touch/touch-time';
import { type PhoneStore, STRICT } from './phone-store';
import type { PhoneWho } from './who';

export type EventDraft<K extends Kind = Kind> = {
  visitId: string;
  kind: K;
  payload: Payload<K>;
  zone: string;
  touch: TouchTime;
  origin?: Origin;
  precision?: Precision;
  /** Greatest seq known from elsewhere, for a visit that this phone did not record. */
  knownSeq?: number;
};

/**
 * Makes an event and keeps it on the phone together with its place in the outbox: both or neither.
 * `seq` is taken inside the same transaction, so that two tabs never share one.
 * @param opensVisit the phone is at this visit from now on, also after a reload
 * @returns the events as kept, once they are on the disk
 */
export async function keepEvents(store: PhoneStore, who: PhoneWho, drafts: readonly EventDraft[], opensVisit = false): Promise<StoredEvent[]> {
  const awake = takeAwake();
  const tx = store.transaction(['event', 'outbox', 'meta'], 'readwrite', STRICT);
  const events = tx.objectStore('event');
  const made: StoredEvent[] = [];
  const seqs = new Map<string, number>();
  for (const d of drafts) {
    const known = seqs.get(d.visitId) ?? Math.max(0, ...(await events.index('byVisit').getAll(d.visitId)).map((k) => k.event.seq));
    const seq = Math.max(d.knownSeq ?? 0, known) + 1;
    seqs.set(d.visitId, seq);
    const event: StoredEvent = {
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
      seq,
      origin: d.origin ?? 'tap',
      role: 'recorder',
      payload: d.payload as Record<string, unknown>,
    };
    await events.put({ event, state: 'kept' });
    await tx.objectStore('outbox').add({ type: 'event', id: event.id });
    made.push(event);
  }
  const first = made[0];
  if (opensVisit && first) await tx.objectStore('meta').put(first.visitId, 'openVisit');
  await tx.done;
  return made;
}

/** Events of one visit as this phone has them, refused ones included: they are on the driver's tape until mended. */
export async function eventsOfVisit(store: PhoneStore, visitId: string) {
  return store.getAllFromIndex('event', 'byVisit', visitId);
}
