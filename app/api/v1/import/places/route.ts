import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { ID_PATTERN } from '@/core/units/id';
import { previewPlaces, takePlaces } from '@/server/formats/import-places';
import { answering, noStore } from '@/server/http/answer';
import { type FilesTaken, fileAndAsked, guardFile } from '@/server/http/file-and-asked';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { fileRefused } from '../file-refused';

const TAKEN: FilesTaken = {
  types: ['application/json', 'application/geo+json'],
  mostBytes: 10 * 1024 * 1024,
  tooLarge: 'The file is larger than 10 MB. Send it in parts.',
};
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
const asked = z.object({ choices: choices.nullable().default(null) });

/**
 * Sites as GeoJSON or as Locations of OCPI 2.2.1. Alone it is said what would come of them, and nothing is changed; in a form of two parts, `file` and `asked`, JSON,
 * the rows that `choices` of it names come in. 422 where the document cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardFile(request, TAKEN);
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may take places in.' }, { status: 403, headers: noStore });
  const sent = await fileAndAsked(request, body.bytes, TAKEN, asked);
  if (!sent.ok) return sent.response;
  const chosen = sent.asked.choices;
  const answer = chosen ? await takePlaces(who, sent.file, chosen) : await previewPlaces(who, sent.file);
  if (!answer.ok) return fileRefused(answer.refused);
  return Response.json(
    { ...answer.preview, ...(answer.taken === undefined ? {} : { taken: answer.taken, notTaken: answer.notTaken ?? [] }) },
    { headers: noStore },
  );
});
