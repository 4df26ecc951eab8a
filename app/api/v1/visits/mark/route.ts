import { answering, noStore } from '@/server/http/answer';
import { notForRole } from '@/server/http/not-for-role';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { markVisits } from '@/server/visits/mark-visits';

/** Marks visits, `{ids, as, reason?}`: business, private or neither; left out of comparisons or counted again; withdrawn or restored. Repeating it changes nothing. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const refused = notForRole(who.role);
  if (refused) return refused;
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const answer = await markVisits(who, body.json);
  return answer.ok
    ? Response.json({ changed: answer.changed }, { headers: noStore })
    : Response.json({ error: answer.reason }, { status: 422, headers: noStore });
});
