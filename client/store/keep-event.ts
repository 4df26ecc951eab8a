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
 * @returns the event as kept, once it is on the disk
 */
export async function keepEvents(store: PhoneStore, who: PhoneWho, drafts: readonly EventDraft[]): Promise<StoredEvent[]> {
  const awake = takeAwake();
  const tx = store.transaction(['event', 'outbox'], 'readwrite', STRICT);
  const events = tx.objectStore('event');
  const made: StoredEvent[] = [];
  for (const d of drafts) {
    const before = await events.index('byVisit').getAll(d.visitId);
    const seq = Math.max(d.knownSeq ?? 0, 0, ...before.map((k) => k.event.seq)) + 1;
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
  await tx.done;
  return made;
}

/** Events of one visit as this phone has them, refused ones included: they are on the driver's tape until mended. */
export async function eventsOfVisit(store: PhoneStore, visitId: string) {
  return store.getAllFromIndex('event', 'byVisit', visitId);
}
