import type { RowDataPacket } from 'mysql2/promise';
import type { StoredEvent } from '@/core/visit/event';
import { binLiteral, fromBin, toBin } from '../db/binary-id';
import type { Writing } from '../outbox/writing';
import { APART_MS, joinUnder } from './join-visits';

/** The visit whose code that is, and which began about then; null while it is not here. */
async function visitByCode({ c, who }: Writing, code: Buffer, at: Date, not: Buffer): Promise<string | null> {
  const [rows] = await c.execute<RowDataPacket[]>(
    `SELECT id FROM visit WHERE household_id = ? AND SUBSTRING(id, 13, 4) = ? AND id <> ? AND sort_at BETWEEN ? AND ? ORDER BY ABS(TIMESTAMPDIFF(SECOND, sort_at, ?)) LIMIT 1`,
    [toBin(who.householdId), code, not, new Date(at.getTime() - APART_MS), new Date(at.getTime() + APART_MS), at],
  );
  return rows[0] ? fromBin(rows[0].id) : null;
}

const wishIn = (e: StoredEvent): Buffer | null =>
  e.kind === 'pulled_in' && typeof e.payload.joins === 'string' && /^[0-9A-F]{8}$/.test(e.payload.joins) ? Buffer.from(e.payload.joins, 'hex') : null;

/** The recordings among these events' that say of which other they are one, and that other: null while it is not here. */
export async function wishesOf(w: Writing, events: readonly StoredEvent[]): Promise<Map<string, string | null>> {
  const { c, who } = w;
  const found = new Map<string, string | null>();
  for (const e of events) {
    const code = wishIn(e);
    if (code) found.set(e.visitId, await visitByCode(w, code, new Date(e.at), toBin(e.visitId)));
  }
  for (const visitId of new Set(events.map((e) => e.visitId))) {
    if (found.has(visitId)) continue;
    const [rows] = await c.execute<RowDataPacket[]>('SELECT code, at FROM join_wish WHERE household_id = ? AND visit_id = ?', [
      toBin(who.householdId),
      toBin(visitId),
    ]);
    const r = rows[0];
    if (r) found.set(visitId, await visitByCode(w, r.code, r.at, toBin(visitId)));
  }
  return found;
}

/**
 * A recording that was begun as one of a visit that another phone records is joined to it as soon as both are here, whichever
 * came first. Two that do not go together (another site, another day) stay two.
 * @returns ids of the visits that changed by it
 */
export async function followWishes(w: Writing, written: readonly StoredEvent[]): Promise<string[]> {
  const { c, who } = w;
  const hh = toBin(who.householdId);
  for (const e of written) {
    const code = wishIn(e);
    if (code)
      await c.execute('INSERT IGNORE INTO join_wish (household_id, visit_id, code, at) VALUES (?, ?, ?, ?)', [hh, toBin(e.visitId), code, new Date(e.at)]);
  }
  const ids = [...new Set(written.map((e) => e.visitId))].map(binLiteral);
  if (ids.length === 0) return [];
  // Those of these recordings, and those that waited for them: a code is the end of an id.
  const codes = ids.map((id) => `x'${id.slice(-9)}`);
  const [wishes] = await c.query<RowDataPacket[]>(
    `SELECT visit_id, code, at FROM join_wish WHERE household_id = ${binLiteral(who.householdId)}
       AND (visit_id IN (${ids.join(',')}) OR code IN (${codes.join(',')})) ORDER BY at, visit_id`,
  );
  const changed: string[] = [];
  for (const wish of wishes) {
    const into = await visitByCode(w, wish.code, wish.at, wish.visit_id);
    if (!into) continue;
    const from = fromBin(wish.visit_id);
    const joined = await joinUnder(w, into, from);
    await c.execute('DELETE FROM join_wish WHERE household_id = ? AND visit_id = ?', [hh, wish.visit_id]);
    if (joined.ok) changed.push(into, from);
  }
  return changed;
}
