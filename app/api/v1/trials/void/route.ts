import { answering, noStore } from '@/server/http/answer';
import { notForRole } from '@/server/http/not-for-role';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { voidRound } from '@/server/trials/void-round';

/** Voids the round of a trial that a visit holds, `{visitId, trialId, round, side, reason}`. Repeating it changes nothing. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const refused = notForRole(who.role);
  if (refused) return refused;
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const why = await voidRound(who, body.json);
  return why === null ? Response.json({ ok: true }, { headers: noStore }) : Response.json({ error: why }, { status: 422, headers: noStore });
});
