import * as z from 'zod';
import { isId, NOT_AN_ID } from '@/core/units/id';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { logSecurity } from '@/server/accounts/security-log';
import { endOtherSessions, endSession } from '@/server/accounts/sessions';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';

const request = z.union([z.object({ id: z.string().refine(isId, NOT_AN_ID) }), z.object({ others: z.literal(true) })]);

/** Ends one signed-in device of who asks, `{id}`, or all but this one, `{others: true}`. Somebody else's are not here. */
export const DELETE = answering(async (req: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(req);
  if (!body.ok) return body.response;
  const asked = request.safeParse(body.json, { error: ownWords });
  if (!asked.success) return Response.json({ error: `request: ${firstProblem(asked.error, '').reason}` }, { status: 422 });
  if ('others' in asked.data) {
    const ended = await endOtherSessions(who.personId, who.sessionId);
    if (ended > 0) await logSecurity({ kind: 'session_ended', ...who });
    return Response.json({ ended });
  }
  if (!(await endSession(who.personId, asked.data.id))) return Response.json({ error: 'There is no such device.' }, { status: 404 });
  await logSecurity({ kind: 'session_ended', ...who, sessionId: asked.data.id });
  return Response.json({ ended: 1 });
});
