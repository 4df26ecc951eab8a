import * as z from 'zod';
import { isDay } from '@/core/records/moment';
import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { previewTariffs, takeTariffs } from '@/server/formats/import-tariffs';
import { answering, noStore } from '@/server/http/answer';
import { type FilesTaken, fileAndAsked, guardFile } from '@/server/http/file-and-asked';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { fileRefused } from '../file-refused';

const TAKEN: FilesTaken = { types: ['application/json'], mostBytes: 10 * 1024 * 1024, tooLarge: 'The file is larger than 10 MB. Send it in parts.' };
const limit = perMinute(60);
const id = z.string().refine(isId, 'must be an id');
const day = z.string().refine(isDay, 'must be a day, such as 2026-10-14');
const choices = z
  .array(
    z
      .object({ pointer: z.string().max(60), planId: id.nullable(), providerId: id.nullable(), siteId: id.nullable(), from: day, until: day.nullable() })
      .refine((c) => c.until === null || c.until >= c.from, { path: ['until'], message: 'is before it begins' }),
  )
  .max(500, 'at most 500 at once');
const asked = z.object({ choices: choices.nullable().default(null) });

/**
 * Tariffs of OCPI 2.2.1 as prices of the network `network`. Alone it is said what would come of them, and nothing is changed; in a form of two parts, `file` and `asked`, JSON, the rows that
 * `choices` of it names are kept. 422 where the document cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardFile(request, TAKEN);
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may take prices in.' }, { status: 403, headers: noStore });
  const network = new URL(request.url).searchParams.get('network') ?? '';
  if (!isId(network)) return Response.json({ error: 'network: must be an id' }, { status: 422, headers: noStore });
  const sent = await fileAndAsked(request, body.bytes, TAKEN, asked);
  if (!sent.ok) return sent.response;
  const chosen = sent.asked.choices;
  const answer = chosen ? await takeTariffs(who, network, sent.file, chosen) : await previewTariffs(who, network, sent.file);
  if (!answer.ok) return fileRefused(answer.refused);
  const { preview, taken, refused } = answer;
  return Response.json({ ...preview, ...(taken === undefined ? {} : { taken, refused }) }, { headers: noStore });
});
