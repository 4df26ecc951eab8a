import * as z from 'zod';
import { deriveVisit } from '@/core/visit/derive';
import { MARKINGS, markEvents } from '@/core/visit/mark-events';
import { payloadProblem, uuid } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { refreshVisits } from '../figures/refresh';
import { writing } from '../outbox/writing';
import { contentHash, eventsOfVisits, insertEvents } from './event-rows';
import { eventFor, followJoins, whyNotKept } from './follow-joins';

/** Most visits marked at once: more than a page of the ledger holds. */
const MOST = 200;
const request = z.object({
  ids: z.array(uuid()).min(1).max(MOST),
  as: z.enum(MARKINGS),
  reason: z.string().trim().max(200).optional(),
});
type Answer = { ok: true; changed: number } | { ok: false; reason: string };

/**
 * Marks visits: all that were asked for or none, in one transaction. What is marked so already is left as it is.
 * A visit that is not here, or private to somebody else, is answered as not known.
 */
export async function markVisits(who: Who, body: unknown): Promise<Answer> {
  const parsed = request.safeParse(body);
  if (!parsed.success) return { ok: false, reason: `Choose up to ${MOST} visits, and what they count as.` };
  const { as, reason = '' } = parsed.data;
  const ids = [...new Set(parsed.data.ids)];
  if (as === 'left_out' && reason === '') return { ok: false, reason: 'Say why they are left out of comparisons.' };
  const { result } = await writing(who, new Date(now()), async (w): Promise<Answer & { touched?: string[] }> => {
    const known = await eventsOfVisits(who.householdId, ids, w.c);
    const visits = ids.map((id) => ({ id, events: known.get(id) ?? [] })).map((v) => ({ ...v, visit: deriveVisit(v.id, v.events, payloadProblem) }));
    if (visits.some((v) => v.events.length === 0 || !seesAll(v.visit, who.personId))) return { ok: false, reason: 'One of the visits is not known here.' };
    const made = visits.flatMap((v) => markEvents(v.visit, as, reason).map((d, i) => eventFor(who, v.events, d.kind, d.payload, w.at.getTime(), i + 1)));
    const why = whyNotKept(made, w.at.getTime());
    if (why) return { ok: false, reason: why };
    const changed = [...new Set(made.map((e) => e.visitId))];
    if (made.length > 0) {
      await insertEvents(
        w,
        made.map((event) => ({ event, hash: contentHash(event) })),
        null,
      );
      await w.c.execute(`UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id IN (${changed.map(() => '?').join(', ')})`, [
        toBin(who.householdId),
        ...changed.map(toBin),
      ]);
    }
    return { ok: true, changed: changed.length, touched: [...changed, ...(await followJoins(w, made))] };
  });
  if (result.ok) await refreshVisits(who.householdId, result.touched ?? []).catch((error) => console.error('figures left stale', error));
  return result.ok ? { ok: true, changed: result.changed } : result;
}
