import { hash } from 'node:crypto';
import { escape, type PoolConnection, type RowDataPacket } from 'mysql2/promise';
import { canonicalJson } from '@/core/records/canonical-json';
import { grouped } from '@/core/units/grouped';
import { EVENT_FIELDS } from '@/core/visit/check-event';
import type { StoredEvent } from '@/core/visit/event';
import { isDataError, isTaken } from '../db/away';
import { binLiteral, binLiterals, fromBin, toBin } from '../db/binary-id';
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

/** SHA-256 over the canonical JSON of what the device wrote, in hex: what the server adds is no part of it. */
export function contentHash(event: StoredEvent): string {
  let members = '';
  for (const name of EVENT_FIELDS) members += `,"${name}":${canonicalJson(event[name])}`;
  return hash('sha256', `{${members.slice(1)}}`, 'hex');
}

/** Content hashes of the events of these ids that are there already. */
export async function hashesById(c: PoolConnection, householdId: string, ids: readonly string[]): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const [rows] = await c.query<RowDataPacket[]>(
    `SELECT id, content_hash FROM event WHERE household_id = ${binLiteral(householdId)} AND id IN (${binLiterals(ids)})`,
  );
  return new Map(rows.map((r) => [fromBin(r.id), (r.content_hash as Buffer).toString('hex')]));
}

/** Columns of an event's row and its values in the same order: the one place where the two meet. */
export const EVENT_COLUMNS =
  'household_id, id, visit_id, person_id, kind, v, at, at_precision, zone, device_id, life, mono, awake, seq, origin, role, payload, content_hash, received_at, sent_at';
const moment = (at: number | Date) => `'${new Date(at).toISOString().slice(0, -1).replace('T', ' ')}'`;
/** The same of what it was last asked: most of an event's row is that of the event before. */
function asBefore<T>(literal: (value: T) => string): (value: T) => string {
  let last: { value: T; text: string } | null = null;
  return (value) => {
    if (last?.value !== value) last = { value, text: literal(value) };
    return last.text;
  };
}
const household = asBefore(binLiteral);
const visit = asBefore(binLiteral);
const person = asBefore(binLiteral);
const device = asBefore(binLiteral);
const life = asBefore(binLiteral);
const zoneText = asBefore(escape);
const precision = asBefore(escape);
const origin = asBefore(escape);
const role = asBefore(escape);
const at = asBefore(moment);
const received = asBefore(moment);
/** Written as SQL here, without its brackets: the driver's own way asks much more of each value; of a hundred thousand events that is a third of the work. */
export function eventRow(e: StoredEvent, sha256: string, receivedAt: Date, sentAt: Date | null): string {
  // Put together at once: pieces that wait for it are each an object of their own, of two thousand rows too many.
  const values = [
    household(e.householdId),
    binLiteral(e.id),
    visit(e.visitId),
    person(e.personId),
    escape(e.kind),
    Number(e.v),
    at(e.at),
    precision(e.precision),
    zoneText(e.zone),
    device(e.deviceId),
    life(e.life),
    Number(e.mono),
    e.awake ? 1 : 0,
    Number(e.seq),
    origin(e.origin),
    role(e.role),
    escape(JSON.stringify(e.payload)),
    `x'${sha256}'`,
    received(receivedAt),
    sentAt ? moment(sentAt) : 'NULL',
  ];
  return values.join(',');
}

/** The row of a visit that an event is of, as SQL: household_id, id, rev, stale, person_id, zone, sort_at. */
export const visitRow = (e: StoredEvent): string =>
  `(${binLiteral(e.householdId)},${binLiteral(e.visitId)},1,TRUE,${binLiteral(e.personId)},${escape(e.zone)},${moment(e.at)})`;

/** Letters of one statement, of three bytes each at most: well within what the database takes at once, 16 MiB where nobody says otherwise. */
const MOST_LETTERS = 4_000_000;

/** Where statements of these rows begin and end. */
function* statements(rows: readonly string[]): Generator<[from: number, to: number]> {
  let [from, letters] = [0, 0];
  for (const [i, row] of rows.entries()) {
    if (i > from && letters + row.length > MOST_LETTERS) {
      yield [from, i];
      [from, letters] = [i, 0];
    }
    letters += row.length;
  }
  if (rows.length > from) yield [from, rows.length];
}

/**
 * Appends events, in one statement where the database takes them all. One that it cannot keep is left out and hinders no other.
 * @throws where the id of one is taken (isTaken): nothing is known then of the others
 * @returns ids of those that were left out
 */
export async function insertEvents(
  w: Writing,
  events: readonly { event: StoredEvent; hash: string; row?: string }[],
  sentAt: Date | null | ((e: StoredEvent) => Date | null),
): Promise<Set<string>> {
  const rows = events.map(({ event, hash, row }) => row ?? eventRow(event, hash, w.at, typeof sentAt === 'function' ? sentAt(event) : sentAt));
  const insert = async (from: number, to: number) => {
    await w.c.query(`INSERT INTO event (${EVENT_COLUMNS}) VALUES (${rows.slice(from, to).join('),(')})`);
    for (const { event, hash } of events.slice(from, to)) w.written.push({ type: 'event', id: event.id, hash });
  };
  const lost = new Set<string>();
  for (const [from, to] of statements(rows)) {
    try {
      await insert(from, to);
    } catch (error) {
      if (!isDataError(error) || isTaken(error)) throw error;
      for (let i = from; i < to; i++)
        await insert(i, i + 1).catch((alone) => {
          if (!isDataError(alone) || isTaken(alone)) throw alone;
          const { id } = (events[i] as { event: StoredEvent }).event;
          lost.add(id);
          console.error(`event ${id} cannot be kept: ${(alone as Error).message}`);
        });
    }
  }
  return lost;
}

/** How many events each of these visits has, in a transaction. */
export async function countOfVisits(c: PoolConnection, householdId: string, visitIds: readonly string[]): Promise<Map<string, number>> {
  const ids = [...new Set(visitIds)];
  if (ids.length === 0) return new Map();
  const [rows] = await c.query<RowDataPacket[]>(
    `SELECT visit_id, COUNT(*) AS n FROM event WHERE household_id = ${binLiteral(householdId)} AND visit_id IN (${binLiterals(ids)}) GROUP BY visit_id`,
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
  const [rows] = await c.query<RowDataPacket[]>(
    `SELECT ${COLUMNS} FROM event WHERE household_id = ${binLiteral(householdId)} AND visit_id IN (${binLiterals(visitIds)}) AND kind = 'withdrawal'`,
  );
  return grouped(
    rows.map((r) => fromRow(householdId, r)),
    (e) => e.visitId,
  );
}
