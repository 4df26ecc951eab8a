import * as z from 'zod';
import type { ItemResult } from '@/core/protocol/outbox';
import type { RecordChange } from '@/core/records/change-of';
import { applyChange, checkChange, wholeFields } from '@/core/records/record-change';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { inReferenceOrder } from '@/core/records/reference-order';
import { refusedTo } from '@/core/records/roles';
import { isInstant } from '@/core/units/instant';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { checkEvent, FUTURE_LIMIT_MS, MOST_VISIT_EVENTS } from '@/core/visit/check-event';
import type { StoredEvent } from '@/core/visit/event';
import { isKind } from '@/core/visit/kinds/registry';
import { payloadProblem } from '@/core/visit/payloads';
import { type FieldValue, setFields } from '@/core/visit/set-fields';
import type { Member } from '../accounts/who';
import { now } from '../clock';
import { isDataError, isTaken } from '../db/away';
import { refreshVisits } from '../figures/refresh';
import { staleBy } from '../figures/stale-by-record';
import { recordForUpdate, writeRecord } from '../records/record-tables';
import { contentHash, countOfVisits, eventRow, eventsById, hashesById, insertEvents, visitRow } from '../visits/event-rows';
import { followJoins } from '../visits/follow-joins';
import { followWishes } from '../visits/join-wishes';
import { lookOnOnly } from './look-on-only';
import { type Writing, writing } from './writing';

/** Most items of one batch. */
export const MAX_ITEMS = 500;

const batch = z.object({
  // It only tells how far the phone's clock is off: one that no calendar holds tells nothing, and hinders nothing.
  sentAt: z.unknown().optional(),
  items: z.array(z.unknown()).max(MAX_ITEMS, `at most ${MAX_ITEMS} items in one batch`),
});

export type BatchResult = { ok: true; rev: number; results: ItemResult[] } | { ok: false; reason: string };
/** An event that was checked, and where its answer stands; its row as SQL, where nothing of that is still to be known. */
export type EventItem = { i: number; event: StoredEvent; hash: string; row?: string };
export const eventItem = (event: StoredEvent, i: number): EventItem => ({ i, event, hash: contentHash(event) });

const idOf = (raw: unknown): string =>
  typeof raw === 'object' && raw !== null && typeof (raw as { id?: unknown }).id === 'string' ? (raw as { id: string }).id : '';

/**
 * Takes a batch from a phone: records and events in the order given, all accepted ones in one transaction.
 * Idempotent: what is there already with the same content is answered as such. A bad item is refused with path
 * and reason and hinders no other. What somebody's role does not let them write is refused with that reason.
 */
export async function takeBatch(who: Member, body: unknown): Promise<BatchResult> {
  const parsed = batch.safeParse(body, { error: ownWords });
  if (!parsed.success) {
    const { path, reason } = firstProblem(parsed.error, '');
    return { ok: false, reason: `${path === 'item' ? 'batch' : path}: ${reason}` };
  }
  const at = now();
  const results: ItemResult[] = [];
  const records: { i: number; record: RecordChange }[] = [];
  const events: EventItem[] = [];
  for (const [i, raw] of parsed.data.items.entries()) {
    const item = (typeof raw === 'object' && raw !== null ? raw : {}) as { type?: unknown; event?: unknown; record?: unknown };
    if (item.type === 'event') {
      const check = checkEvent(item.event, at, events.at(-1)?.event);
      results[i] = { id: idOf(item.event), status: 'refused' };
      if (!check.ok) Object.assign(results[i], { path: check.path, reason: check.reason });
      else if (check.event.householdId !== who.householdId)
        Object.assign(results[i], { path: 'householdId', reason: 'belongs to another household', code: 'other_household' });
      else if (check.event.personId !== who.personId)
        Object.assign(results[i], { path: 'personId', reason: 'was recorded by another person: it waits for them to sign in', code: 'other_person' });
      else if (who.role === 'reader') results[i].reason = refusedTo('reader') as string;
      else events.push(eventItem(check.event, i));
    } else if (item.type === 'record') {
      const check = checkChange(item.record);
      results[i] = { id: idOf(item.record), status: 'refused' };
      const notTheirs = refusedTo(who.role);
      if (notTheirs) results[i].reason = notTheirs;
      else if (!check.ok) Object.assign(results[i], { path: check.path, reason: check.reason });
      else records.push({ i, record: check.change });
    } else results[i] = { id: '', status: 'refused', path: `items.${i}.type`, reason: 'is neither an event nor a record' };
  }
  // What another refers to comes first, wherever it stood: a change made twice keeps its early place in the outbox.
  const ordered = inReferenceOrder(records, (r) => r.record);
  const sentAt = isInstant(parsed.data.sentAt) ? new Date(parsed.data.sentAt) : null;

  const { rev, result: touched } = await writing(who, new Date(at), async (w) => {
    for (const { i, record } of ordered) results[i] = await takeRecord(w, record);
    if (who.role !== 'observer') return followed(w, await takeEvents(w, events, results, sentAt));
    const refused = await lookOnOnly(
      w,
      events.map((e) => e.event),
    );
    for (const { i, event } of events) Object.assign(results[i] as ItemResult, refused.get(event.id));
    const theirs = events.filter((e) => !refused.has(e.event.id));
    return followed(w, await takeEvents(w, theirs, results, sentAt));
  });
  // The events are safe by now; figures that cannot be written here stay marked stale and are rebuilt when read.
  await refreshVisits(who.householdId, touched).catch((error) => console.error('figures left stale', error));
  return { ok: true, rev, results };
}

/** Events that the server itself made of a file, checked and ready to be written. */
export type MadeEvents = { at: number; events: EventItem[]; results: ItemResult[] };
/** So many are checked before others have a turn. */
const AT_ONE_GO = 25;

/** Checks events that the server itself made of a file: each is held to what events from outside are. What else is under way goes on meanwhile. */
export async function checkMade(made: readonly StoredEvent[]): Promise<MadeEvents> {
  const at = now();
  const received = new Date(at);
  const results: ItemResult[] = [];
  const events: EventItem[] = [];
  for (const [i, raw] of made.entries()) {
    if (i % AT_ONE_GO === 0) await new Promise(setImmediate);
    const check = checkEvent(raw, at, events.at(-1)?.event);
    if (check.ok) {
      const hash = contentHash(check.event);
      events.push({ i, event: check.event, hash, row: eventRow(check.event, hash, received, null) });
    } else results[i] = { id: raw.id, status: 'refused', path: check.path, reason: check.reason };
  }
  return { at, events, results };
}

/**
 * Writes checked events, as many as there are, in one transaction.
 * @param figures `later`: they are derived when they are read, for thousands of visits that nobody looks at meanwhile
 */
export async function takeMade(who: Member, { at, events, results }: MadeEvents, figures: 'now' | 'later'): Promise<ItemResult[]> {
  const write = (looked: Looked) => writing(who, new Date(at), async (w) => followed(w, await takeEvents(w, events, results, null, looked)));
  // An id that stands in another visit is told by the database as it is written; asking it of each of thousands is a tenth of the work.
  const { result: touched } = await write('visits here').catch((error) => {
    if (!isTaken(error)) throw error;
    return write('each');
  });
  if (figures === 'now') await refreshVisits(who.householdId, touched).catch((error) => console.error('figures left stale', error));
  return results;
}

/** Writes one record or change in a writing transaction, and says what became of it. */
export async function takeRecord(w: Writing, change: RecordChange): Promise<ItemResult> {
  const { c, who, rev } = w;
  const { type, id } = change;
  const there = await recordForUpdate(c, who.householdId, type, id);
  const said = there ? applyChange(there.standing, change) : null;
  if (there && said?.is === 'same') return { id, status: 'already', rev: there.record.rev };
  if (there && said?.is === 'elsewhere') return { id, status: 'conflict', reason: 'was changed elsewhere since', theirs: there.record };
  const whole = wholeFields(type, said?.is === 'changed' ? said.fields : change.fields);
  if (!whole.ok && !there && change.baseRev > 0) return { id, status: 'refused', reason: 'is not known here', code: 'whole_wanted' };
  if (!whole.ok) return { id, status: 'refused', path: whole.path, reason: whole.reason };
  const archived = said?.is === 'changed' ? said.archived : (change.archived ?? false);
  const record = { type, id, baseRev: change.baseRev, archived, fields: whole.fields } as RecordItem;
  try {
    await writeRecord(w, record, there?.standing ?? null, said?.is === 'changed' ? said.changed : null);
  } catch (error) {
    if ((error as { errno?: number }).errno === 1452) return { id, status: 'refused', path: 'fields', reason: 'refers to something that is not known here' };
    if (isDataError(error)) return { id, status: 'refused', path: 'fields', reason: 'cannot be kept as it is' };
    throw error;
  }
  await staleBy(c, who.householdId, there?.record ?? null, record);
  return { id, status: 'taken', rev, ...(there ? { now: { type, id, rev, archived, fields: whole.fields } as MileRecord } : {}) };
}

/** Which events are looked up before they are written: each, or those of visits that are here. */
type Looked = 'each' | 'visits here';

/**
 * Writes the acceptable events, each once, and raises their visits' rev; what became of each is told in `results`.
 * @param sentAt when the device sent them by its own clock, where it said
 * @param looked with `visits here` an id that stands in another visit is the database's to refuse: isTaken has it
 * @returns what was written, for those who follow it
 */
export async function takeEvents(
  w: Writing,
  events: readonly EventItem[],
  results: ItemResult[],
  sentAt: Date | null | ((e: StoredEvent) => Date | null),
  looked: Looked = 'each',
): Promise<StoredEvent[]> {
  const { c, who, at } = w;
  w.begun.clear();
  const room = await countOfVisits(
    c,
    who.householdId,
    events.map((e) => e.event.visitId),
  );
  const seen = await hashesById(
    c,
    who.householdId,
    events.flatMap(({ event }) => (looked === 'each' || room.has(event.visitId) ? [event.id] : [])),
  );
  const inBatch = new Map(events.map((e) => [e.event.id, e.event]));
  const targets = events.flatMap(({ event }) => (event.kind === 'correction' && typeof event.payload.target === 'string' ? [event.payload.target] : []));
  const known = await eventsById(c, who.householdId, targets);
  const fresh: EventItem[] = [];
  for (const item of events) {
    const { i, event, hash } = item;
    const before = seen.get(event.id);
    if (before) {
      results[i] =
        before === hash
          ? { id: event.id, status: 'already' }
          : { id: event.id, status: 'conflict', path: 'id', reason: 'is taken by an event with other content' };
      continue;
    }
    const count = room.get(event.visitId) ?? 0;
    const problem =
      count >= MOST_VISIT_EVENTS
        ? { path: 'visitId', reason: `is a visit that holds ${MOST_VISIT_EVENTS} events already, the most that can be shown` }
        : event.kind === 'correction'
          ? correctionProblem(event, known.get(event.payload.target as string) ?? inBatch.get(event.payload.target as string), at.getTime())
          : null;
    if (problem) {
      results[i] = { id: event.id, status: 'refused', ...problem };
      continue;
    }
    if (count === 0) w.begun.add(event.visitId);
    room.set(event.visitId, count + 1);
    seen.set(event.id, hash);
    fresh.push(item);
    results[i] = { id: event.id, status: 'taken' };
  }
  const lost = await insertEvents(w, fresh, sentAt);
  const written: StoredEvent[] = [];
  for (const { i, event } of fresh) {
    if (lost.has(event.id)) results[i] = { id: event.id, status: 'refused', path: 'payload', reason: 'cannot be kept as it is' };
    else written.push(event);
  }
  const byVisit = new Map(written.map((event) => [event.visitId, event]));
  if (byVisit.size > 0)
    await c.query(
      `INSERT INTO visit (household_id, id, rev, stale, person_id, zone, sort_at) VALUES ${[...byVisit.values()].map(visitRow).join(',')}
       ON DUPLICATE KEY UPDATE rev = rev + 1, stale = TRUE`,
    );
  return written;
}

/** What events just written mean for other visits of the household. @returns ids of all visits that changed */
async function followed(w: Writing, written: readonly StoredEvent[]): Promise<string[]> {
  return [...new Set([...written.map((e) => e.visitId), ...(await followJoins(w, written)), ...(await followWishes(w, written))])];
}

/** A correction is held to the same bounds as what it corrects, as far as that is known here. */
function correctionProblem(c: StoredEvent, target: StoredEvent | undefined, nowMs: number): { path: string; reason: string } | null {
  const { at, set } = c.payload as { at?: number; set?: Record<string, FieldValue> };
  if (at !== undefined && at > nowMs + FUTURE_LIMIT_MS) return { path: 'payload.at', reason: 'is more than 48 hours in the future' };
  if (!target) return null;
  if (target.visitId !== c.visitId) return { path: 'payload.target', reason: 'is an event of another visit' };
  if (!isKind(target.kind) || target.kind === 'correction' || target.kind === 'withdrawal')
    return { path: 'payload.target', reason: 'is not an event that can be corrected' };
  if (!set) return null;
  return payloadProblem(target.kind, setFields(target.payload, set));
}
