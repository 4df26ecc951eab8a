import { trialCsv, trialJson } from '@/core/trials/trial-share';
import { isId } from '@/core/units/id';
import { answering, noStore } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { trialFound } from '@/server/trials/trial-visits';

export const dynamic = 'force-dynamic';

/** A trial as a file: `?as=csv` its rounds, else JSON; `&places=no` without names, places and times of day. */
export const GET = answering(async (request: Request, { params }: { params: Promise<{ trialId: string }> }): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const { trialId } = await params;
  const found = isId(trialId) ? await trialFound(who, trialId) : null;
  if (!found) return Response.json({ error: 'This trial is not known here.' }, { status: 404, headers: noStore });
  const query = new URL(request.url).searchParams;
  const places = query.get('places') !== 'no';
  const csv = query.get('as') === 'csv';
  const shared = { id: trialId, plan: found.trial.fields, rounds: found.rounds, result: found.result };
  return new Response(csv ? trialCsv(shared, places) : trialJson(shared, places), {
    headers: {
      ...noStore,
      'content-type': csv ? 'text/csv; charset=utf-8' : 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="trial.${csv ? 'csv' : 'json'}"`,
    },
  });
});
