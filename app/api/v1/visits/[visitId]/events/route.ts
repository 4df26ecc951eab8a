import { type VisitEvents, visitEventsAnswer } from '@/core/protocol/visit-events';
import { isId } from '@/core/units/id';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { seesAll } from '@/core/visit/private';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { eventsOfVisits } from '@/server/visits/event-rows';

export const dynamic = 'force-dynamic';

/**
 * Every event of a visit, for a phone that joins it or follows it.
 * `have`: how many of them the phone has. Nothing is ever taken away, so the same number means nothing new: `events` is then null.
 */
export const GET = answering(async (request: Request, { params }: { params: Promise<{ visitId: string }> }): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const { visitId } = await params;
  const events = isId(visitId) ? (await eventsOfVisits(who.householdId, [visitId])).get(visitId) : undefined;
  // A visit that is private to somebody else is not here.
  if (!events || !seesAll(deriveVisit(visitId, events, payloadProblem), who.personId)) return Response.json({ error: 'No such visit.' }, { status: 404 });
  const have = Number(new URL(request.url).searchParams.get('have') ?? '0');
  const answer: VisitEvents = events.length === have ? { events: null } : visitEventsAnswer(events);
  return Response.json(answer, { headers: { 'cache-control': 'no-store' } });
});
