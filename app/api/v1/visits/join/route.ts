import { answering } from '@/server/http/answer';
import { notForRole } from '@/server/http/not-for-role';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { joinVisits } from '@/server/visits/join-visits';

export const dynamic = 'force-dynamic';

/** Two recordings of one visit become one: `from` is taken into `into` and withdrawn. Repeating it changes nothing. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const refused = notForRole(who.role);
  if (refused) return refused;
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const answer = await joinVisits(who, body.json);
  return answer.ok ? Response.json({ copied: answer.copied }) : Response.json({ error: answer.reason }, { status: 422 });
});
