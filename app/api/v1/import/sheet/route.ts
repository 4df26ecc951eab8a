import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { importSheet, type SheetAsked } from '@/server/formats/import-sheet';
import { undoneTo, undoSheet } from '@/server/formats/undo-sheet';
import { answering, noStore } from '@/server/http/answer';
import { type FilesTaken, fileAndAsked, guardFile } from '@/server/http/file-and-asked';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';
import { fileRefused } from '../file-refused';

const TAKEN: FilesTaken = { types: ['text/csv'], mostBytes: 25 * 1024 * 1024, tooLarge: 'The file is larger than 25 MB. Send it in parts.' };
const take = perMinute(120);
const NOT_YOURS = 'Only those who record may take visits in.';
const asked = z.object({
  answers: z
    .array(z.object({ code: z.string().max(40), column: z.int().nullish(), lines: z.array(z.int()).max(100_000).optional(), answer: z.unknown() }))
    .max(500)
    .nullable()
    .default(null),
  sites: z
    .array(z.object({ name: z.string().trim().min(1).max(80), network: z.string().trim().min(1, 'of which network?').max(80) }))
    .max(200)
    .default([]),
  allRefused: z.boolean().default(false),
});

/**
 * A spreadsheet as CSV in whatever dialect, alone or as a form of two parts: `file`, and `asked`, JSON of answers to what was asked, of the sites to make, and whether every refused row is told (`allRefused`), not the first thousand. Without answers what was said of a sheet
 * of the same headings before holds. Without `take=yes` it says what would come of it and changes nothing; with it the next rows come in, and `left` says how many are still to come. 422 where
 * the file cannot be read, with its code and place.
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
  const told = await importSheet(who, sent.file, sent.asked as SheetAsked, new URL(request.url).searchParams.get('take') === 'yes');
  if (!told.ok) return fileRefused(told.refused);
  const { preview, taken, left } = told;
  return Response.json({ ...preview, ...(taken === undefined ? {} : { taken, left }) }, { headers: noStore });
});

/**
 * Takes an import back, some visits with each request: `{id}`, then `{id, next}` with what the last answer said until it says null. Its visits are withdrawn, as one would withdraw them by
 * hand; sites made for it stay.
 */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const { id, next } = (body.json ?? {}) as { id?: unknown; next?: unknown };
  if (!isId(id)) return Response.json({ error: 'id: must be that of an import' }, { status: 422, headers: noStore });
  const from = next === undefined || next === null ? null : undoneTo(next);
  if (next && !from) return Response.json({ error: 'next: must be as the last answer said it' }, { status: 422, headers: noStore });
  if (!mayRecord(who.role)) return Response.json({ error: NOT_YOURS }, { status: 403, headers: noStore });
  return Response.json(await undoSheet(who, id, from), { headers: noStore });
});
