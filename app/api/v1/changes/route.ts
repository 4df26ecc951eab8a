import type { Changes } from '@/core/protocol/changes';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { householdRev } from '@/server/outbox/household-rev';
import { recordsSince } from '@/server/records/record-tables';
import { summedUp } from '@/server/visits/summed-up';

export const dynamic = 'force-dynamic';

/** Records of the household written after `since`, the rev they bring the phone to, and where something was written since, what happened lately at each stall and its usual waiting. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const since = Number(new URL(request.url).searchParams.get('since') ?? '0');
  if (!Number.isSafeInteger(since) || since < 0) return Response.json({ error: 'since: must be a whole number' }, { status: 422 });
  // Read the rev first: what is written in between comes again next time, never too little.
  const household = await householdRev(who.householdId);
  // Nothing written since: the device has it all, and nothing is summed up.
  const changes: Changes =
    since === household.rev
      ? { ...household, records: [] }
      : { ...household, records: await recordsSince(who.householdId, since), ...(await summedUp(who, household.rev)) };
  return Response.json(changes, { headers: { 'cache-control': 'no-store' } });
});
