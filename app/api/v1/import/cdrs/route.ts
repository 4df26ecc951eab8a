import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { ID_PATTERN, isId } from '@/core/units/id';
import { previewCdrs, takeCdrs } from '@/server/formats/import-cdrs';
import { undoBills } from '@/server/formats/imported-bills';
import { answering, noStore } from '@/server/http/answer';
import { type FilesTaken, fileAndAsked, guardFile } from '@/server/http/file-and-asked';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { fileRefused } from '../file-refused';

const TAKEN: FilesTaken = { types: ['application/json'], mostBytes: 10 * 1024 * 1024, tooLarge: 'The file is larger than 10 MB. Send it in parts.' };
const take = perMinute(60);
const asked = z.object({
  // The id of a CDR is the network's: whatever can stand in it.
  picks: z
    .array(z.object({ id: z.string(), visitId: z.string().regex(ID_PATTERN), n: z.int().min(0).max(1000) }))
    .max(5000, 'at most 5,000 at once')
    .default([]),
});
const NOT_YOURS = 'Only those who record may take bills in.';

/**
 * CDRs of OCPI 2.2.1 as JSON, alone or as a form of two parts: `file`, and `asked`, JSON, `picks` of which says which attempt a CDR is for that was asked about. Without `take=yes` it
 * says what would come of them and changes nothing. 422 where the document cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardFile(request, TAKEN);
  if (!body.ok) return body.response;
  const late = take(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  const sent = await fileAndAsked(request, body.bytes, TAKEN, asked);
  if (!sent.ok) return sent.response;
  const chosen = new Map(sent.asked.picks.map((p) => [p.id, `${p.visitId} ${p.n}`]));
  const takes = new URL(request.url).searchParams.get('take') === 'yes';
  const answer = takes ? await takeCdrs(who, sent.file, chosen) : await previewCdrs(who, sent.file);
  if (answer.ok) return Response.json({ ...answer.preview, ...(answer.taken === undefined ? {} : { taken: answer.taken }) }, { headers: noStore });
  return fileRefused(answer.refused);
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
