import { mayRecord } from '@/core/records/roles';
import { importsMade } from '@/server/formats/imports-made';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';

export const dynamic = 'force-dynamic';
const limit = perMinute(60);

/** The imports of spreadsheets and CDRs that this person sees, newest first: what can be taken back without its file. */
export const GET = answering(async (): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may take imports back.' }, { status: 403, headers: noStore });
  return Response.json(await importsMade(who), { headers: noStore });
});
