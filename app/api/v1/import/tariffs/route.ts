import * as z from 'zod';
import { isDay } from '@/core/records/moment';
import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { previewTariffs, takeTariffs } from '@/server/formats/import-tariffs';
import { answering, noStore } from '@/server/http/answer';
import { jsonQuery } from '@/server/http/json-query';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes } from '@/server/http/write-guard';

const MOST_BYTES = 10 * 1024 * 1024;
const limit = perMinute(60);
const id = z.string().refine(isId, 'must be an id');
const day = z.string().refine(isDay, 'must be a day, such as 2026-10-14');
const choices = z
  .array(
    z
      .object({ pointer: z.string().max(60), planId: id.nullable(), providerId: id.nullable(), siteId: id.nullable(), from: day, until: day.nullable() })
      .refine((c) => c.until === null || c.until >= c.from, { path: ['until'], message: 'is before it begins' }),
  )
  .max(50, 'at most 50 at once');

/**
 * Tariffs of OCPI 2.2.1 as prices of the network `network`. Without `choices` it says what would come of them and changes nothing; with it the rows named there are kept. 422 where
 * the document cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['application/json'], MOST_BYTES, 'The file is larger than 10 MB. Send it in parts.');
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: 'Only those who record may take prices in.' }, { status: 403, headers: noStore });
  const network = new URL(request.url).searchParams.get('network') ?? '';
  const chosen = jsonQuery(request, 'choices', choices);
  if (!isId(network)) return Response.json({ error: 'network: must be an id' }, { status: 422, headers: noStore });
  if (typeof chosen === 'string') return Response.json({ error: chosen }, { status: 422, headers: noStore });
  const answer = chosen ? await takeTariffs(who, network, body.bytes, chosen) : await previewTariffs(who, network, body.bytes);
  if (!answer.ok) return Response.json({ error: 'The file cannot be read.', refused: answer.refused }, { status: 422, headers: noStore });
  const { preview, taken, refused } = answer;
  return Response.json({ ...preview, ...(taken === undefined ? {} : { taken, refused }) }, { headers: noStore });
});
