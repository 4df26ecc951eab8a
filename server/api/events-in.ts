import * as z from 'zod';
import { eventsFrom, idsIn } from '@/core/formats/event-in';
import { pointerPart } from '@/core/formats/strict-json';
import { privateNumber } from '@/core/records/private-number';
import { unkeepable } from '@/core/units/keepable-json';
import { ownWords, problemsOf } from '@/core/units/own-words';
import { membersOf } from '../accounts/members';
import { pool } from '../db/pool';
import { idOf } from '../formats/imported-events';
import { notForRole } from '../http/not-for-role';
import { MAX_ITEMS, takeBatch } from '../outbox/take-batch';
import { eventsById, lastSeqs } from '../visits/event-rows';
import type { Caller } from './caller';
import { asProblem, problem } from './problem';

const keepable = (text: string, on: z.RefinementCtx) => {
  const bad = unkeepable(text, '')?.reason ?? privateNumber(text);
  if (bad) on.addIssue({ code: 'custom', message: bad });
};

/** What a program sends. */
export const eventsBody = z.strictObject({
  /** What the events come from; the token's name where it is not said. */
  source: z.string().trim().min(1).max(60).superRefine(keepable).optional(),
  events: z.array(z.unknown()).min(1, 'must hold at least one event').max(MAX_ITEMS, `at most ${MAX_ITEMS} events in one request`),
});
export type EventResult = { id: string; status: 'taken' | 'already' | 'refused' | 'conflict'; pointer?: string; detail?: string };

const pointerOf = (i: number, path: string): string => `/events/${i}${path === '' ? '' : `/${path.replaceAll('.', '/')}`}`;

/** Who an event says that drove, and where it says so: a correction too. */
function driverIn({ drivenBy, set }: Record<string, unknown>): { id: string; path: string } | undefined {
  if (typeof drivenBy === 'string') return { id: drivenBy, path: 'payload/drivenBy' };
  const corrected = typeof set === 'object' && set !== null ? (set as { drivenBy?: unknown }).drivenBy : undefined;
  return typeof corrected === 'string' ? { id: corrected, path: 'payload/set/drivenBy' } : undefined;
}

/** Takes events as a program sends them: each by itself, what is there already is told so. */
export async function takeEventsIn(caller: Caller, json: unknown): Promise<Response> {
  const role = notForRole(caller.role);
  if (role) return asProblem(role);
  const body = eventsBody.safeParse(json, { error: ownWords });
  if (!body.success)
    return problem(422, 'The body is not understood.', {
      errors: problemsOf(body.error).map(({ path, reason }) => ({ pointer: path.map((p) => pointerPart(String(p))).join(''), detail: reason })),
    });
  const source = body.data.source ?? caller.source;
  const ids = idsIn(body.data.events);
  const [there, last] = await Promise.all([eventsById(pool(), caller.householdId, ids.events), lastSeqs(pool(), caller.householdId, ids.visits, ids.events)]);
  const seqs = new Map([...there].map(([id, e]) => [id, e.seq]));
  const read = eventsFrom(body.data.events, { ...caller, source, deviceId: idOf(caller.householdId, `source ${source}`) }, { seqs, last });
  const people = new Set((await membersOf(caller.householdId)).map((m) => m.personId));
  // Whose a private visit is sees it: of one driven by nobody here that would be nobody.
  const found = read.map((f) => {
    if (!f.ok) return f;
    const driver = driverIn(f.event.payload);
    return driver && !people.has(driver.id) ? { ok: false as const, id: f.event.id, path: driver.path, reason: 'is nobody of this household' } : f;
  });
  const answer = await takeBatch(caller, { items: found.flatMap((f) => (f.ok ? [{ type: 'event', event: f.event }] : [])) });
  if (!answer.ok) return problem(422, answer.reason);
  const taken = answer.results.values();
  const results = found.map((f, i): EventResult => {
    if (!f.ok) return { id: f.id, status: 'refused', pointer: f.path === '' ? `/events/${i}` : `/events/${i}/${f.path}`, detail: f.reason };
    const r = taken.next().value;
    if (!r) return { id: f.event.id, status: 'refused', pointer: pointerOf(i, ''), detail: 'was not answered' };
    return {
      id: r.id,
      status: r.status,
      ...(r.status === 'refused' || r.status === 'conflict' ? { pointer: pointerOf(i, r.path ?? ''), detail: r.reason ?? '' } : {}),
    };
  });
  return Response.json({ results }, { headers: { 'cache-control': 'no-store' } });
}
