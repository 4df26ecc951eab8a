import * as z from 'zod';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem, uuid } from '@/core/visit/payloads';
import type { Who } from '../accounts/accounts';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction } from '../db/pool';
import { contentHash, eventsOfVisits, insertEvents } from './event-rows';
import { refreshVisits } from './figures';
import { takeInto, withdrawalFor } from './follow-joins';

/** Two recordings further apart than this are two visits. */
const APART_MS = 12 * 3600 * 1000;
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
  const events = await eventsOfVisits(who.householdId, [into, from]);
  const [a, b] = [events.get(into), events.get(from)];
  if (!a || !b) return { ok: false, reason: 'One of the visits is not known here.' };
  const [one, other] = [deriveVisit(into, a, payloadProblem), deriveVisit(from, b, payloadProblem)];
  if (one.withdrawn) return { ok: false, reason: 'This visit is withdrawn: restore it first.' };
  if (one.siteId && other.siteId && one.siteId !== other.siteId) return { ok: false, reason: 'The two were recorded at different sites.' };
  if (Math.abs((one.pulledInAt ?? one.lastEventAt) - (other.pulledInAt ?? other.lastEventAt)) > APART_MS)
    return { ok: false, reason: 'The two are more than twelve hours apart.' };
  const receivedAt = new Date(now());
  const copied = await inTransaction(async (c) => {
    await c.execute('SELECT rev FROM household WHERE id = ? FOR UPDATE', [toBin(who.householdId)]);
    // Read again under the lock: what came in the meantime comes along.
    const all = (await eventsOfVisits(who.householdId, [from], c)).get(from) ?? b;
    const fresh = await takeInto(c, who, into, all, receivedAt);
    // One that was withdrawn before is joined all the same: what comes late to it follows.
    if (other.joinedInto !== into) {
      const withdrawal = withdrawalFor(who, all, { target: from, joinedInto: into }, receivedAt.getTime());
      await insertEvents(c, [{ event: withdrawal, hash: contentHash(withdrawal) }], receivedAt, null);
    }
    await c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id IN (?, ?)', [toBin(who.householdId), toBin(into), toBin(from)]);
    await c.execute('UPDATE household SET rev = rev + 1 WHERE id = ?', [toBin(who.householdId)]);
    return fresh;
  });
  await refreshVisits(who.householdId, [into, from]).catch((error) => console.error('figures left stale', error));
  return { ok: true, copied };
}
