import type { VoidForm } from '@/core/trials/void-form';
import { toldRounds, voidedRounds } from '@/core/trials/voided-rounds';
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
export async function voidRound(who: Who, { visitId, trialId, run, reason }: VoidForm): Promise<string | null> {
  const { result } = await writing(who, new Date(now()), async (w): Promise<{ why: string | null; touched: string[] }> => {
    const events = (await eventsOfVisits(who.householdId, [visitId], w.c)).get(visitId) ?? [];
    const visit = deriveVisit(visitId, events, payloadProblem);
    const told = toldRounds(visit, trialId).find((r) => r.id === run);
    if (!told || !seesAll(visit, who.personId)) return { why: 'That round is not known here.', touched: [] };
    if (voidedRounds(visit, trialId).has(run)) return { why: null, touched: [] };
    const { round, side } = told.payload;
    const made = eventFor(who, events, 'trial_voided', { trialId, round, ...(side === undefined ? {} : { side }), run, reason }, w.at.getTime());
    const why = whyNotKept([made], w.at.getTime());
    if (why) return { why, touched: [] };
    await insertEvents(w, [{ event: made, hash: contentHash(made) }], null);
    await w.c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND id = ?', [toBin(who.householdId), toBin(visitId)]);
    return { why: null, touched: [visitId, ...(await followJoins(w, [made]))] };
  });
  if (result.touched.length > 0) await refreshVisits(who.householdId, result.touched).catch((error) => console.error('figures left stale', error));
  return result.why;
}
