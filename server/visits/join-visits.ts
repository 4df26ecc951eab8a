import * as z from 'zod';
import { MOST_VISIT_EVENTS } from '@/core/visit/check-event';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem, uuid } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { refreshVisits } from '../figures/refresh';
import { type Writing, writing } from '../outbox/writing';
import { contentHash, eventsOfVisits, insertEvents } from './event-rows';
import { takeInto, withdrawalFor } from './follow-joins';

/** Two recordings further apart than this are two visits. */
export const APART_MS = 12 * 3600 * 1000;
const request = z.object({ into: uuid(), from: uuid() });
type Answer = { ok: true; copied: number } | { ok: false; reason: string };

/**
 * Takes the recording `from` into the recording `into` of the same visit, and withdraws `from`: all in one transaction.
 * Nothing is changed or deleted: the copies say where they came from, and the other recording can be restored.
 */
export async function joinVisits(who: Who, body: unknown): Promise<Answer> {
  const parsed = request.safeParse(body);
  if (!parsed.success) return { ok: false, reason: 'Two visits are needed.' };
  const { into, from } = parsed.data;
  if (into === from) return { ok: false, reason: 'A visit cannot be joined with itself.' };
  // Everything is read and decided under the household's lock: of several that join at once, one does.
  const { result } = await writing(who, new Date(now()), (w) => joinUnder(w, into, from));
  await refreshVisits(who.householdId, [into, from]).catch((error) => console.error('figures left stale', error));
  return result;
}

/** The same within a writing transaction of the caller's, who brings the figures of both up to date. */
export async function joinUnder(w: Writing, into: string, from: string, passed: readonly string[] = []): Promise<Answer> {
  const { who } = w;
  const events = await eventsOfVisits(who.householdId, [into, from], w.c);
  const [a, b] = [events.get(into), events.get(from)];
  if (!a || !b) return { ok: false, reason: 'One of the visits is not known here.' };
  const [one, other] = [deriveVisit(into, a, payloadProblem), deriveVisit(from, b, payloadProblem)];
  if (!seesAll(one, who.personId) || !seesAll(other, who.personId)) return { ok: false, reason: 'One of the visits is not known here.' };
  // One that was joined itself: what it was joined into is the visit. What a phone says goes round in a ring leads nowhere.
  const { joinedInto } = one;
  if (one.withdrawn && joinedInto && ![from, into, ...passed].includes(joinedInto)) return joinUnder(w, joinedInto, from, [...passed, into]);
  if (one.withdrawn) return { ok: false, reason: 'This visit is withdrawn: restore it first.' };
  if (one.siteId && other.siteId && one.siteId !== other.siteId) return { ok: false, reason: 'The two were recorded at different sites.' };
  if (Math.abs((one.pulledInAt ?? one.lastEventAt) - (other.pulledInAt ?? other.lastEventAt)) > APART_MS)
    return { ok: false, reason: 'The two are more than twelve hours apart.' };
  if (a.length + b.length > MOST_VISIT_EVENTS) return { ok: false, reason: 'Together the two hold more events than one visit can show.' };
  const copied = await takeInto(w, into, b);
  // One that was withdrawn before is joined all the same: what comes late to it follows.
  if (other.joinedInto !== into) {
    const withdrawal = withdrawalFor(who, b, { target: from, joinedInto: into }, w.at.getTime());
    await insertEvents(w, [{ event: withdrawal, hash: contentHash(withdrawal) }], null);
  }
  if (w.written.length > 0)
    await w.c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id IN (?, ?)', [
      toBin(who.householdId),
      toBin(into),
      toBin(from),
    ]);
  return { ok: true, copied };
}
