import { createHash } from 'node:crypto';
import { escape, type PoolConnection, type RowDataPacket } from 'mysql2/promise';
import { canonicalJson } from '@/core/records/canonical-json';
import { grouped } from '@/core/units/grouped';
import type { StoredEvent } from '@/core/visit/event';
import { isDataError } from '../db/away';
import { fromBin, toBin } from '../db/binary-id';
import { pool, type Reader } from '../db/pool';
import type { Writing } from '../outbox/writing';

const COLUMNS = 'id, visit_id, person_id, kind, v, at, at_precision, zone, device_id, life, mono, awake, seq, origin, role, payload';

function fromRow(householdId: string, r: RowDataPacket): StoredEvent {
  return {
    id: fromBin(r.id),
    householdId,
    personId: fromBin(r.person_id),
    visitId: fromBin(r.visit_id),
    kind: r.kind,
    v: r.v,
    at: (r.at as Date).getTime(),
    precision: r.at_precision,
    zone: r.zone,
    deviceId: fromBin(r.device_id),
    life: fromBin(r.life),
    mono: r.mono,
    awake: r.awake === 1,
    seq: r.seq,
    origin: r.origin,
    role: r.role,
    payload: typeof r.payload === 'string' ? JSON.parse(r.payload) : r.payload,
  };
}

/** Every event of the given visits, by visit, each with what its batch said of its device's clock. @param on the transaction whose own writes are seen too */
export async function eventsOfVisits(householdId: string, visitIds: readonly string[], on: Reader = pool()): Promise<Map<string, StoredEvent[]>> {
  const byVisit = new Map<string, StoredEvent[]>();
  if (visitIds.length === 0) return byVisit;
  const [rows] = await on.execute<RowDataPacket[]>(
    `SELECT ${COLUMNS}, received_at, sent_at FROM event WHERE household_id = ? AND visit_id IN (${visitIds.map(() => '?').join(', ')})`,
    [toBin(householdId), ...visitIds.map(toBin)],
  );
  for (const r of rows) {
    const e: StoredEvent = {
      ...fromRow(householdId, r),
      ...(r.sent_at ? { heard_ms: (r.received_at as Date).getTime() - (r.sent_at as Date).getTime() } : {}),
    };
    const list = byVisit.get(e.visitId) ?? [];
    list.push(e);
    byVisit.set(e.visitId, list);
  }
  return byVisit;
}

/** Events by id within a transaction; unknown ids are simply absent. */
export async function eventsById(c: Reader, householdId: string, ids: readonly string[]): Promise<Map<string, StoredEvent>> {
  if (ids.length === 0) return new Map();
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT ${COLUMNS} FROM event WHERE household_id = ? AND id IN (${ids.map(() => '?').join(', ')})`, [
    toBin(householdId),
    ...ids.map(toBin),
  ]);
  return new Map(rows.map((r) => [fromBin(r.id), fromRow(householdId, r)]));
}

/** SHA-256 over what the device wrote: what the server adds is no part of it. */
export function contentHash(event: StoredEvent): Buffer {
  const written = event.heard_ms === undefined ? event : { ...event, heard_ms: undefined };
  return createHash('sha256').update(canonicalJson(written)).digest();
}

/** Content hashes of the events of these ids that are there already. */
export async function hashesById(c: PoolConnection, householdId: string, ids: readonly string[]): Promise<Map<string, Buffer>> {
  if (ids.length === 0) return new Map();
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT id, content_hash FROM event WHERE household_id = ? AND id IN (${ids.map(() => '?').join(', ')})`, [
    toBin(householdId),
    ...ids.map(toBin),
  ]);
  return new Map(rows.map((r) => [fromBin(r.id), r.content_hash as Buffer]));
}

/** Columns of an event's row and its values in the same order: the one place where the two meet. */
export const EVENT_COLUMNS =
  'household_id, id, visit_id, person_id, kind, v, at, at_precision, zone, device_id, life, mono, awake, seq, origin, role, payload, content_hash, received_at, sent_at';
export const eventRow = (e: StoredEvent, hash: Buffer, receivedAt: Date, sentAt: Date | null) => [
  toBin(e.householdId),
  toBin(e.id),
  toBin(e.visitId),
  toBin(e.personId),
  e.kind,
  e.v,
  new Date(e.at),
  e.precision,
  e.zone,
  toBin(e.deviceId),
  toBin(e.life),
  e.mono,
  e.awake,
  e.seq,
  e.origin,
  e.role,
  JSON.stringify(e.payload),
  hash,
  receivedAt,
  sentAt,
];

/** A value of a row as SQL. The driver's own way asks much more of each of them; of a hundred thousand events that is a third of the work. */
function literal(v: ReturnType<typeof eventRow>[number]): string {
  if (typeof v === 'string') return escape(v);
  if (typeof v === 'number') return Number.isFinite(v) ? String(v) : 'NULL';
  if (typeof v === 'boolean') return v ? '1' : '0';
  if (v === null) return 'NULL';
  return v instanceof Date ? `'${v.toISOString().slice(0, -1).replace('T', ' ')}'` : `x'${v.toString('hex')}'`;
}

/** Letters of one statement, of three bytes each at most: well within what the database takes at once, 16 MiB where nobody says otherwise. */
const MOST_LETTERS = 4_000_000;

/** An event with its row as SQL. */
type Line = { event: StoredEvent; hash: Buffer; values: string };
function* statements(lines: readonly Line[]): Generator<Line[]> {
  let some: Line[] = [];
  let letters = 0;
  for (const line of lines) {
    if (some.length > 0 && letters + line.values.length > MOST_LETTERS) {
      yield some;
      [some, letters] = [[], 0];
    }
    some.push(line);
    letters += line.values.length;
  }
  if (some.length > 0) yield some;
}

/**
 * Appends events, in one statement where the database takes them all. One that it cannot keep is left out and hinders no other.
 * @returns ids of those that were kept
 */
export async function insertEvents(
  w: Writing,
  events: readonly { event: StoredEvent; hash: Buffer }[],
  sentAt: Date | null | ((e: StoredEvent) => Date | null),
): Promise<Set<string>> {
  const insert = async (some: readonly Line[]) => {
    await w.c.query(`INSERT INTO event (${EVENT_COLUMNS}) VALUES ${some.map((l) => l.values).join(',')}`);
    for (const { event, hash } of some) w.written.push({ type: 'event', id: event.id, hash });
  };
  const lines = events.map(({ event, hash }): Line => {
    const row = eventRow(event, hash, w.at, typeof sentAt === 'function' ? sentAt(event) : sentAt);
    return { event, hash, values: `(${row.map(literal).join(',')})` };
  });
  for (const some of statements(lines)) {
    try {
      await insert(some);
    } catch (error) {
      if (!isDataError(error)) throw error;
      for (const one of some)
        await insert([one]).catch((alone) => {
          if (!isDataError(alone)) throw alone;
          console.error(`event ${one.event.id} cannot be kept: ${(alone as Error).message}`);
        });
    }
  }
  const kept = new Set(w.written.map((x) => x.id));
  return new Set(events.flatMap(({ event }) => (kept.has(event.id) ? [event.id] : [])));
}

/** How many events each of these visits has, in a transaction. */
export async function countOfVisits(c: PoolConnection, householdId: string, visitIds: readonly string[]): Promise<Map<string, number>> {
  const ids = [...new Set(visitIds)];
  if (ids.length === 0) return new Map();
  const [rows] = await c.execute<RowDataPacket[]>(
    `SELECT visit_id, COUNT(*) AS n FROM event WHERE household_id = ? AND visit_id IN (${ids.map(() => '?').join(', ')}) GROUP BY visit_id`,
    [toBin(householdId), ...ids.map(toBin)],
  );
  return new Map(rows.map((r) => [fromBin(r.visit_id), Number(r.n)]));
}

/** The greatest seq of each of these visits that has events. @param without ids of events that do not count */
export async function lastSeqs(c: Reader, householdId: string, visitIds: readonly string[], without: readonly string[]): Promise<Map<string, number>> {
  if (visitIds.length === 0) return new Map();
  const [rows] = await c.execute<RowDataPacket[]>(
    `SELECT visit_id, MAX(seq) AS last FROM event WHERE household_id = ? AND visit_id IN (${visitIds.map(() => '?').join(', ')})
       ${without.length > 0 ? `AND id NOT IN (${without.map(() => '?').join(', ')})` : ''} GROUP BY visit_id`,
    [toBin(householdId), ...visitIds.map(toBin), ...without.map(toBin)],
  );
  return new Map(rows.map((r) => [fromBin(r.visit_id), Number(r.last)]));
}

/** The withdrawals of visits that have some, in a transaction. */
export async function withdrawalsOf(c: PoolConnection, householdId: string, visitIds: readonly string[]): Promise<Map<string, StoredEvent[]>> {
  if (visitIds.length === 0) return new Map();
  const [rows] = await c.execute<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM event WHERE household_id = ? AND visit_id IN (${visitIds.map(() => '?').join(', ')}) AND kind = 'withdrawal'`,
    [toBin(householdId), ...visitIds.map(toBin)],
  );
  return grouped(
    rows.map((r) => fromRow(householdId, r)),
    (e) => e.visitId,
  );
}
