import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import * as z from 'zod';
import { canonicalJson } from '@/core/records/canonical-json';
import { checkRecord, type MileRecord, RECORD_TYPES, type RecordItem } from '@/core/records/record-schema';
import { checkEvent, FUTURE_LIMIT_MS } from '@/core/visit/check-event';
import type { StoredEvent } from '@/core/visit/event';
import { isKind } from '@/core/visit/kinds';
import { payloadProblem } from '@/core/visit/payloads';
import { type FieldValue, setFields } from '@/core/visit/set-fields';
import type { Who } from '../accounts/accounts';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction } from '../db/pool';
import { recordForUpdate, writeRecord } from '../records/record-tables';
import { contentHash, eventsById, hashesById, insertEvents } from '../visits/event-rows';
import { refreshVisits } from '../visits/figures';
import { followJoins } from '../visits/follow-joins';

/** Most items of one batch. */
export const MAX_ITEMS = 500;

const batch = z.object({
  sentAt: z.int().optional(),
  items: z.array(z.looseObject({ type: z.string() })).max(MAX_ITEMS, `at most ${MAX_ITEMS} items in one batch`),
});

/** What became of one item. `other_person`: hold it until that person signs in. */
export type ItemResult = {
  id: string;
  status: 'taken' | 'already' | 'refused' | 'conflict';
  path?: string;
  reason?: string;
  code?: 'other_person' | 'other_household';
  rev?: number;
  /** What the record says here, when it was changed elsewhere since. */
  theirs?: MileRecord;
};
export type BatchResult = { ok: true; rev: number; results: ItemResult[] } | { ok: false; reason: string };

const idOf = (raw: unknown): string =>
  typeof raw === 'object' && raw !== null && typeof (raw as { id?: unknown }).id === 'string' ? (raw as { id: string }).id : '';

/**
 * Takes a batch from a phone: records and events in the order given, all accepted ones in one transaction.
 * Idempotent: what is there already with the same content is answered as such. A bad item is refused with path
 * and reason and hinders no other.
 */
export async function takeBatch(who: Who, body: unknown): Promise<BatchResult> {
  const parsed = batch.safeParse(body);
  if (!parsed.success)
    return { ok: false, reason: `${parsed.error.issues[0]?.path.join('.') || 'batch'}: ${parsed.error.issues[0]?.message ?? 'not understood'}` };
  const at = now();
  const results: ItemResult[] = [];
  const records: { i: number; record: RecordItem }[] = [];
  const events: { i: number; event: StoredEvent; newer: boolean }[] = [];
  for (const [i, item] of parsed.data.items.entries()) {
    if (item.type === 'event') {
      const check = checkEvent(item.event, at);
      results[i] = { id: idOf(item.event), status: 'refused' };
      if (!check.ok) Object.assign(results[i], { path: check.path, reason: check.reason });
      else if (check.event.householdId !== who.householdId)
        Object.assign(results[i], { path: 'householdId', reason: 'belongs to another household', code: 'other_household' });
      else if (check.event.personId !== who.personId)
        Object.assign(results[i], { path: 'personId', reason: 'was recorded by another person: it waits for them to sign in', code: 'other_person' });
      else events.push({ i, event: check.event, newer: check.newer });
    } else if (item.type === 'record') {
      const check = checkRecord(item.record);
      results[i] = { id: idOf(item.record), status: 'refused' };
      if (!check.ok) Object.assign(results[i], { path: check.path, reason: check.reason });
      else records.push({ i, record: check.record });
    } else results[i] = { id: '', status: 'refused', path: `items.${i}.type`, reason: 'is neither an event nor a record' };
  }

  let touched: string[] = [];
  const rev = await inTransaction(async (c) => {
    const [rows] = await c.execute<RowDataPacket[]>('SELECT rev FROM household WHERE id = ? FOR UPDATE', [toBin(who.householdId)]);
    const before = Number(rows[0]?.rev ?? 0);
    const next = before + 1;
    let wrote = false;
    // What another refers to comes first, wherever it stood: a change made twice keeps its early place in the outbox.
    records.sort((a, b) => RECORD_TYPES.indexOf(a.record.type) - RECORD_TYPES.indexOf(b.record.type));
    for (const { i, record } of records) {
      results[i] = await takeRecord(c, who.householdId, next, record);
      wrote ||= results[i].status === 'taken';
    }
    touched = await takeEvents(c, who, events, results, new Date(at), parsed.data.sentAt);
    wrote ||= touched.length > 0;
    if (!wrote) return before;
    await c.execute('UPDATE household SET rev = ? WHERE id = ?', [next, toBin(who.householdId)]);
    return next;
  });
  // The events are safe by now; figures that cannot be written here stay marked stale and are rebuilt when read.
  await refreshVisits(who.householdId, touched).catch((error) => console.error('figures left stale', error));
  return { ok: true, rev, results };
}

async function takeRecord(c: PoolConnection, householdId: string, rev: number, r: RecordItem): Promise<ItemResult> {
  const there = await recordForUpdate(c, householdId, r.type, r.id);
  if (there) {
    if (there.archived === (r.archived ?? false) && canonicalJson(there.fields) === canonicalJson(r.fields))
      return { id: r.id, status: 'already', rev: there.rev };
    if (there.rev > r.baseRev) return { id: r.id, status: 'conflict', reason: 'was changed elsewhere since', theirs: there };
  }
  try {
    await writeRecord(c, householdId, rev, r);
  } catch (error) {
    if ((error as { errno?: number }).errno === 1452)
      return { id: r.id, status: 'refused', path: 'fields', reason: 'refers to something that is not known here' };
    throw error;
  }
  // Figures that used the old values are out of date.
  if (there && r.type === 'site')
    await c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND site_id = ?', [toBin(householdId), toBin(r.id)]);
  return { id: r.id, status: 'taken', rev };
}

/** Writes the acceptable events and raises their visits' rev. @returns ids of the visits that changed */
async function takeEvents(
  c: PoolConnection,
  who: Who,
  events: readonly { i: number; event: StoredEvent; newer: boolean }[],
  results: ItemResult[],
  receivedAt: Date,
  sentAt: number | undefined,
): Promise<string[]> {
  const { householdId } = who;
  const seen = await hashesById(
    c,
    householdId,
    events.map((e) => e.event.id),
  );
  const inBatch = new Map(events.map((e) => [e.event.id, e.event]));
  const targets = events.flatMap(({ event }) => (event.kind === 'correction' && typeof event.payload.target === 'string' ? [event.payload.target] : []));
  const known = await eventsById(c, householdId, targets);
  const fresh: { event: StoredEvent; hash: Buffer; newer: boolean }[] = [];
  for (const { i, event, newer } of events) {
    const hash = contentHash(event);
    const before = seen.get(event.id);
    if (before) {
      results[i] = before.equals(hash)
        ? { id: event.id, status: 'already' }
        : { id: event.id, status: 'conflict', path: 'id', reason: 'is taken by an event with other content' };
      continue;
    }
    const problem =
      event.kind === 'correction'
        ? correctionProblem(event, known.get(event.payload.target as string) ?? inBatch.get(event.payload.target as string), receivedAt.getTime())
        : null;
    if (problem) {
      results[i] = { id: event.id, status: 'refused', ...problem };
      continue;
    }
    seen.set(event.id, hash);
    fresh.push({ event, hash, newer });
    results[i] = { id: event.id, status: 'taken' };
  }
  await insertEvents(c, fresh, receivedAt, sentAt === undefined ? null : new Date(sentAt));
  const byVisit = new Map(fresh.map((f) => [f.event.visitId, f]));
  for (const { event } of byVisit.values()) {
    await c.execute(
      `INSERT INTO visit (household_id, id, rev, stale, person_id, zone, sort_at) VALUES (?, ?, 1, TRUE, ?, ?, ?)
       ON DUPLICATE KEY UPDATE rev = rev + 1, stale = TRUE`,
      [toBin(householdId), toBin(event.visitId), toBin(event.personId), event.zone, new Date(event.at)],
    );
  }
  const followed = await followJoins(
    c,
    who,
    fresh.map((f) => f.event),
    receivedAt,
  );
  return [...new Set([...byVisit.keys(), ...followed])];
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
