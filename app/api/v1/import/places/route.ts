import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { ID_PATTERN } from '@/core/units/id';
import { previewPlaces, takePlaces } from '@/server/formats/import-places';
import { answering, noStore } from '@/server/http/answer';
import { jsonQuery } from '@/server/http/json-query';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes } from '@/server/http/write-guard';

const MOST_BYTES = 10 * 1024 * 1024;
const limit = perMinute(60);
const choices = z
  .array(
    z.object({
      pointer: z.string().max(60),
      network: z.string().trim().min(1, 'of which network?').max(80),
      position: z.enum(['file', 'turned', 'none']),
      siteId: z.string().regex(ID_PATTERN).nullable().optional(),
    }),
  )
  .max(500, 'at most 500 at once');

/**
 * Sites as GeoJSON or as Locations of OCPI 2.2.1. Without `choices` it says what would come of them and changes nothing; with it the rows named there come in. 422 where the document
 * cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['application/json'], MOST_BYTES, 'The file is larger than 10 MB. Send it in parts.');
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may take places in.' }, { status: 403, headers: noStore });
  const chosen = jsonQuery(request, 'choices', choices);
  if (typeof chosen === 'string') return Response.json({ error: chosen }, { status: 422, headers: noStore });
  const answer = chosen ? await takePlaces(who, body.bytes, chosen) : await previewPlaces(who, body.bytes);
  if (!answer.ok) return Response.json({ error: 'The file cannot be read.', refused: answer.refused }, { status: 422, headers: noStore });
  return Response.json(
    { ...answer.preview, ...(answer.taken === undefined ? {} : { taken: answer.taken, notTaken: answer.notTaken ?? [] }) },
    { headers: noStore },
  );
});
