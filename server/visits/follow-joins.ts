import { v5, v7 } from 'uuid';
import { checkEvent } from '@/core/visit/check-event';
import { effectiveEvents } from '@/core/visit/effective';
import { EVENT_VERSION, MOST_SEQ, type StoredEvent } from '@/core/visit/event';
import { joinedEvents, joinedInto, takenBackTo } from '@/core/visit/join-visits';
import type { Kind } from '@/core/visit/payloads';
import type { Who } from '../accounts/who';
import { toBin } from '../db/binary-id';
import type { Writing } from '../outbox/writing';
import { contentHash, eventsOfVisits, hashesById, insertEvents, withdrawalsOf } from './event-rows';

/** The same copy of an event into a visit always has the same id. */
const copyId = (into: string) => (eventId: string) => v5(eventId, into);

/**
 * An event made by the server on a person's behalf, after all that stands in the visit.
 * @param there the events of the visit
 */
export function eventFor(who: Who, there: readonly StoredEvent[], kind: Kind, payload: Record<string, unknown>, at: number, nth = 1): StoredEvent {
  const device = v5('joined', who.householdId);
  const last = there.reduce((a, b) => (b.seq > a.seq ? b : a));
  return {
    id: v7(),
    householdId: who.householdId,
    personId: who.personId,
    visitId: last.visitId,
    kind,
    v: EVENT_VERSION,
    at,
    precision: 's',
    zone: last.zone,
    deviceId: device,
    life: device,
    mono: 0,
    awake: true,
    seq: Math.min(last.seq + nth, MOST_SEQ),
    origin: 'typed',
    role: 'recorder',
    payload,
  };
}

export const withdrawalFor = (who: Who, there: readonly StoredEvent[], payload: { target: string; [more: string]: string }, at: number, nth = 1): StoredEvent =>
  eventFor(who, there, 'withdrawal', payload, at, nth);

/**
 * Why events made of somebody's words are not kept: they are held to what those of a phone are.
 * @returns a sentence, or `null`
 */
export function whyNotKept(made: readonly StoredEvent[], at: number): string | null {
  for (const event of made) {
    const check = checkEvent(event, at);
    // What is no sentence says what is the matter with the words.
    if (!check.ok) return /^[A-Z]/.test(check.reason) ? check.reason : `${check.path.replace('payload.', 'The ')} ${check.reason}.`;
  }
  return null;
}

/** Takes a recording into another: what is not there yet is copied, what parting took back stands again. @returns how many were copied */
export async function takeInto(w: Writing, into: string, from: readonly StoredEvent[]): Promise<number> {
  const { c, who, at } = w;
  const there = (await eventsOfVisits(who.householdId, [into], c)).get(into);
  // What no visit of this household is takes nothing.
  if (!there || !from[0]) return 0;
  const copies = joinedEvents(into, from, copyId(into));
  const known = await hashesById(
    c,
    who.householdId,
    copies.map((e) => e.id),
  );
  const fresh = copies.filter((e) => !known.has(e.id));
  const restored = takenBackTo('join_again', there, into, from[0].visitId).map((target, i) => withdrawalFor(who, there, { target }, at.getTime(), i + 1));
  await append(w, into, [...fresh, ...restored]);
  return fresh.length;
}

/** Parts a recording from the one that it was joined into: its copies there are taken back. */
async function part(w: Writing, into: string, from: string): Promise<void> {
  const { c, who, at } = w;
  const there = (await eventsOfVisits(who.householdId, [into], c)).get(into) ?? [];
  const gone = takenBackTo('part', there, into, from).map((target, i) => withdrawalFor(who, there, { target, partedFrom: from }, at.getTime(), i + 1));
  await append(w, into, gone);
}

async function append(w: Writing, visitId: string, events: readonly StoredEvent[]): Promise<void> {
  if (events.length === 0) return;
  await insertEvents(
    w,
    events.map((event) => ({ event, hash: contentHash(event) })),
    // A copy keeps what the batch of its original said of the device's clock.
    (e) => (e.heard_ms === undefined ? null : new Date(w.at.getTime() - e.heard_ms)),
  );
  await w.c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id = ?', [toBin(w.who.householdId), toBin(visitId)]);
}

/**
 * What the events just written mean for other recordings: what comes late to a recording that was joined follows into
 * the one it was joined into, and a recording that is restored is parted from it.
 * @param how `late`: joins that these events make or end themselves are told by others that come with them; only what comes late to one that stood is followed
 * @returns ids of the visits that changed by it
 */
export async function followJoins(w: Writing, written: readonly StoredEvent[], how: 'all' | 'late' = 'all'): Promise<string[]> {
  const { c, who } = w;
  const fresh = new Set(written.map((e) => e.id));
  const changed = new Set<string>();
  const followed = new Set<string>();
  // What a recording takes over goes on to the one that it was joined into itself, to the end.
  const next = [...new Set(written.map((e) => e.visitId))];
  // Of those just written all at once; of what they lead to each as it stands then. A visit of which nothing was here before has those that came with it.
  const withdrawn = new Set(written.flatMap((e) => (e.kind === 'withdrawal' ? [e.visitId] : [])));
  const known = await withdrawalsOf(
    c,
    who.householdId,
    next.filter((id) => withdrawn.has(id) || !w.begun.has(id)),
  );
  const first = new Set(next);
  for (let visitId = next.shift(); visitId !== undefined; visitId = next.shift()) {
    if (followed.has(visitId)) continue;
    followed.add(visitId);
    const own = (first.has(visitId) && changed.size === 0 ? known : await withdrawalsOf(c, who.householdId, [visitId])).get(visitId) ?? [];
    const standsIn = (events: readonly StoredEvent[]) => joinedInto(events, effectiveEvents(events, visitId, () => null).visitWithdrawals);
    const into = standsIn(own);
    const before = standsIn(own.filter((e) => !fresh.has(e.id)));
    if (how === 'all' && before && before !== into) {
      await part(w, before, visitId);
      changed.add(before);
      next.push(before);
    }
    if (into && (how === 'all' || before === into)) {
      await takeInto(w, into, (await eventsOfVisits(who.householdId, [visitId], c)).get(visitId) ?? []);
      changed.add(into);
      next.push(into);
    }
  }
  return [...changed];
}
