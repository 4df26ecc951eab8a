import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { previewCdrs, takeCdrs } from '@/server/formats/import-cdrs';
import { undoBills } from '@/server/formats/imported-bills';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes, guardWrite } from '@/server/http/write-guard';

const MOST_BYTES = 10 * 1024 * 1024;
const take = perMinute(60);
const NOT_YOURS = 'Only those who record may take bills in.';

/**
 * CDRs of OCPI 2.2.1 as JSON. Without `take=yes` it says what would come of them and changes nothing. `pick=CDR~visit~n`, as often as
 * wanted: which attempt a CDR is for that was asked about. 422 where the document cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['application/json'], MOST_BYTES, 'The file is larger than 10 MB. Send it in parts.');
  if (!body.ok) return body.response;
  const late = take(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  const { searchParams } = new URL(request.url);
  // The id is the network's: whatever can stand in it.
  const picks = searchParams.getAll('pick').map((p) => /^(.+)~([^~]+)~(\d+)$/s.exec(p));
  const chosen = new Map(picks.flatMap((p) => (p ? [[p[1] as string, `${p[2]} ${p[3]}`] as const] : [])));
  const answer = searchParams.get('take') === 'yes' ? await takeCdrs(who, body.bytes, chosen) : await previewCdrs(who, body.bytes);
  if (answer.ok) return Response.json({ ...answer.preview, ...(answer.taken === undefined ? {} : { taken: answer.taken }) }, { headers: noStore });
  return Response.json({ error: 'The file cannot be read.', refused: answer.refused }, { status: 422, headers: noStore });
});

/** Takes an import back as a whole: `{id}`. Its bills are withdrawn, as one would withdraw them by hand. */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const id = (body.json as { id?: unknown } | null)?.id;
  if (!isId(id)) return Response.json({ error: 'id: must be that of an import' }, { status: 422, headers: noStore });
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  return Response.json({ undone: await undoBills(who, id) }, { headers: noStore });
});
