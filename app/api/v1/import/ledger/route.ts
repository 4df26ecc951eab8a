import * as z from 'zod';
import { mayRecord } from '@/core/records/roles';
import { ID_PATTERN, NOT_AN_ID } from '@/core/units/id';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { takeLedger } from '@/server/formats/ledger-in';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';

const limit = perMinute(1200);
const some = z.array(z.unknown()).max(500, 'at most 500 in one piece').default([]);
const piece = z.object({
  people: z.record(z.string().max(40), z.string().max(40)).default({}),
  theirs: z.record(z.string().max(40), z.array(z.string().max(80)).max(200)).default({}),
  records: some,
  events: some,
  watches: some,
  views: some,
  closed: some,
  /** Places of one name are one: ids here by those of the file. */
  same: z.record(z.string().regex(ID_PATTERN, NOT_AN_ID), z.string().regex(ID_PATTERN, NOT_AN_ID)).optional(),
  take: z.boolean().default(false),
});

/**
 * A piece of a ledger that was taken along: `{people, records, events, watches, views, closed, theirs, take}`. Without `take` it says what would come of it and changes nothing.
 * Sent twice it is written once.
 */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const late = limit(who.personId);
  if (late) return late;
  const parsed = piece.safeParse(body.json, { error: ownWords });
  if (!parsed.success) {
    const { path, reason } = firstProblem(parsed.error, '');
    return Response.json({ error: `${path}: ${reason}` }, { status: 422, headers: noStore });
  }
  const { take, ...ask } = parsed.data;
  // Places and prices alone are of nobody: whoever records may bring them.
  const ofPeople = ask.events.length + ask.watches.length + ask.views.length + ask.closed.length > 0;
  if (ofPeople ? who.role !== 'owner' : !mayRecord(who.role))
    return Response.json(
      { error: ofPeople ? 'Only the owner brings a whole ledger in.' : 'Only those who record may bring places in.' },
      { status: 403, headers: noStore },
    );
  return Response.json(await takeLedger(who, ask, take), { headers: noStore });
});
