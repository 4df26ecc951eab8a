import type { VoidForm } from '@/core/trials/void-form';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { refreshVisits } from '../figures/refresh';
import { writing } from '../outbox/writing';
import { contentHash, eventsOfVisits, insertEvents } from '../visits/event-rows';
import { eventFor, followJoins, whyNotKept } from '../visits/follow-joins';

/**
 * Voids a round of a trial in a visit, for a reason that has nothing to do with how they came out. What is void stays so; voided again it
 * changes nothing.
 * @returns why not, or `null`
 */
export async function voidRound(who: Who, { visitId, trialId, round, side, reason }: VoidForm): Promise<string | null> {
  const { result } = await writing(who, new Date(now()), async (w): Promise<{ why: string | null; touched: string[] }> => {
    const events = (await eventsOfVisits(who.householdId, [visitId], w.c)).get(visitId) ?? [];
    const visit = deriveVisit(visitId, events, payloadProblem);
    const told = visit.line.some((e) => e.kind === 'trial_round' && e.payload.trialId === trialId && e.payload.round === round && e.payload.side === side);
    if (events.length === 0 || !seesAll(visit, who.personId) || !told) return { why: 'That round is not known here.', touched: [] };
    if (visit.line.some((e) => e.kind === 'trial_voided' && e.payload.trialId === trialId && e.payload.round === round && e.payload.side === side))
      return { why: null, touched: [] };
    const made = eventFor(who, events, 'trial_voided', { trialId, round, side, reason }, w.at.getTime());
    const why = whyNotKept([made], w.at.getTime());
    if (why) return { why, touched: [] };
    await insertEvents(w, [{ event: made, hash: contentHash(made) }], null);
    await w.c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id = ?', [toBin(who.householdId), toBin(visitId)]);
    return { why: null, touched: [visitId, ...(await followJoins(w, [made]))] };
  });
  if (result.touched.length > 0) await refreshVisits(who.householdId, result.touched).catch((error) => console.error('figures left stale', error));
  return result.why;
}
