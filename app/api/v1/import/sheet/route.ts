import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { importSheet, undoSheet } from '@/server/formats/import-sheet';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes, guardWrite } from '@/server/http/write-guard';

const MOST_BYTES = 10 * 1024 * 1024;
const take = perMinute(120);
const NOT_YOURS = 'Only those who record may take visits in.';
const asked = z.object({
  answers: z
    .array(z.object({ code: z.string().max(40), column: z.int().nullish(), lines: z.array(z.int()).max(1000).optional(), answer: z.unknown() }))
    .max(500)
    .default([]),
  sites: z
    .array(z.object({ name: z.string().trim().min(1).max(80), network: z.string().trim().min(1, 'of which network?').max(80) }))
    .max(200)
    .default([]),
});

/**
 * A spreadsheet as CSV in whatever dialect. Without `take=yes` it says what would come of it and changes nothing; with it the next rows come in, and `left`
 * says how many are still to come. `asked`: JSON of answers to what was asked, and of the sites to make. 422 where the file cannot be read, with its code and place.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['text/csv'], MOST_BYTES, 'The file is larger than 10 MB. Send it in parts.');
  if (!body.ok) return body.response;
  const late = take(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  const { searchParams } = new URL(request.url);
  const said = readAsked(searchParams.get('asked'));
  if ('error' in said) return Response.json(said, { status: 422, headers: noStore });
  const told = await importSheet(who, body.bytes, said.asked, searchParams.get('take') === 'yes');
  if (!told.ok) return Response.json({ error: 'The file cannot be read.', refused: told.refused }, { status: 422, headers: noStore });
  const { preview, taken, left } = told;
  return Response.json({ ...preview, ...(taken === undefined ? {} : { taken, left }) }, { headers: noStore });
});

function readAsked(text: string | null) {
  let json: unknown = {};
  try {
    json = JSON.parse(text ?? '{}');
  } catch {
    return { error: 'asked: is not JSON' };
  }
  const parsed = asked.safeParse(json, { error: ownWords });
  if (parsed.success) return { asked: { answers: parsed.data.answers as Parameters<typeof importSheet>[2]['answers'], sites: parsed.data.sites } };
  const { path, reason } = firstProblem(parsed.error, 'asked');
  return { error: `${path}: ${reason}` };
}

/** Takes an import back as a whole: `{id}`. Its visits are withdrawn, as one would withdraw them by hand; sites made for it stay. */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const id = (body.json as { id?: unknown } | null)?.id;
  if (!isId(id)) return Response.json({ error: 'id: must be that of an import' }, { status: 422, headers: noStore });
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  return Response.json({ undone: await undoSheet(who, id) }, { headers: noStore });
});
