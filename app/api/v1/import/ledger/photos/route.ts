import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { answering, noStore } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { photosLacking } from '@/server/photos/photo-table';

const asked = z.object({ names: z.array(z.string().regex(/^[0-9a-f]{64}$/, 'is no SHA-256')).max(500, 'at most 500 at once') });

/** Of pictures of a ledger that was taken along, by their names, those that are not here: `{names}` is answered `{lacking}`. Changes nothing. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may bring photos in.' }, { status: 403, headers: noStore });
  const parsed = asked.safeParse(body.json, { error: ownWords });
  if (parsed.success) return Response.json({ lacking: await photosLacking(who.householdId, parsed.data.names) }, { headers: noStore });
  const { path, reason } = firstProblem(parsed.error, '');
  return Response.json({ error: `${path}: ${reason}` }, { status: 422, headers: noStore });
});
