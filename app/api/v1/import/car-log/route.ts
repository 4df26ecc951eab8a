import { mayRecord } from '@/core/records/roles';
import { isId } from '@/core/units/id';
import { importCarLog, undoCarLog } from '@/server/formats/import-car-log';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardBytes, guardWrite } from '@/server/http/write-guard';

const MOST_BYTES = 10 * 1024 * 1024;
const limit = perMinute(60);
const refuse = (status: number, body: object) => Response.json(body, { status, headers: noStore });
const NOT_YOURS = { error: 'Only those who record may lay a log beside a visit.' };
const NO_VISIT = { error: 'There is no such visit.' };

/**
 * A car's own log as CSV beside a visit, `?visit=`: where it lies, how far each tap is from it, how many readings it would bring. With `take=yes` they come in, once however often it is
 * sent. 422 where it cannot be read, with its code.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardBytes(request, ['text/csv', 'text/plain', 'application/octet-stream'], MOST_BYTES, 'The file is larger than 10 MB.');
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  if (!mayRecord(who.role)) return refuse(403, NOT_YOURS);
  const query = new URL(request.url).searchParams;
  const visitId = query.get('visit');
  const answer = isId(visitId) ? await importCarLog(who, visitId, new Uint8Array(body.bytes), query.get('take') === 'yes') : null;
  if (!answer) return refuse(404, NO_VISIT);
  if (!answer.ok) return refuse(422, { error: 'The log cannot be read.', refused: { code: answer.refused.code, where: answer.refused.where } });
  return Response.json({ ...answer.told, ...(answer.taken === undefined ? {} : { taken: answer.taken }) }, { headers: noStore });
});

/** Takes the readings of a log back: `{visit, id}`. */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const { visit, id } = (body.json ?? {}) as { visit?: unknown; id?: unknown };
  if (!isId(visit) || !isId(id)) return refuse(422, { error: 'visit, id: must be those of a visit and of a log' });
  if (!mayRecord(who.role)) return refuse(403, NOT_YOURS);
  return Response.json({ undone: await undoCarLog(who, visit, id) }, { headers: noStore });
});
