import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { faultLabel } from '@/core/faults/fault-list';
import type { Where } from '@/core/figures/figure';
import { sessionDoubts } from '@/core/power/session-doubts';
import { sessionLooks } from '@/core/power/session-looks';
import { findWords } from '@/core/records/find-text';
import type { RecordFields } from '@/core/records/record-schema';
import { localDay, localMonth, printDate, printLongDate } from '@/core/units/zoned';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import type { Visit } from '@/core/visit/derive';
import { privateTo } from '@/core/visit/private';
import { thinTape } from '@/core/visit/tape';
import { fromBin, toBin, toBinOrNull } from '../db/binary-id';
import { pool, type Reader } from '../db/pool';
import { derivedVisits } from '../visits/derived-visits';
import { eventsOfVisits } from '../visits/event-rows';
import { billsAgainst } from './bills-against';
import { ATTEMPT_COLUMNS, attemptRows, VISIT_COLUMNS, visitRow } from './figure-rows';

const marks = (list: readonly unknown[]) => list.map(() => '?').join(', ');

/** A visit derived from its events as they were at a rev. */
export type Derived = { visit: Visit; rev: number };

/**
 * Derives visits from their events.
 * @param on the transaction whose own writes are seen too
 * @returns those that could be derived; one that cannot is told in the log and hinders no other
 */
export async function deriveVisits(householdId: string, visitIds: readonly string[], on: Reader = pool()): Promise<Derived[]> {
  if (visitIds.length === 0) return [];
  // The rev first: what comes in between raises it, and the figures are left for that writer to do over.
  const [revs] = await on.execute<RowDataPacket[]>(`SELECT id, rev FROM visit WHERE household_id = ? AND id IN (${marks(visitIds)})`, [
    toBin(householdId),
    ...visitIds.map(toBin),
  ]);
  const events = await eventsOfVisits(householdId, visitIds, on);
  const derived = await derivedVisits(revs.map(({ id }) => [fromBin(id), events.get(fromBin(id)) ?? []] as const));
  return revs.flatMap(({ id, rev }): Derived[] => {
    const visit = derived.get(fromBin(id));
    return visit ? [{ visit, rev: Number(rev) }] : [];
  });
}

/** Where the places that these visits name belong. */
async function whereOf(householdId: string, visits: readonly Visit[], on: Reader): Promise<Where> {
  const named = async (sql: string, ids: ReadonlySet<string>): Promise<RowDataPacket[]> => {
    if (ids.size === 0) return [];
    const [rows] = await on.execute<RowDataPacket[]>(`${sql} AND id IN (${marks([...ids])})`, [toBin(householdId), ...[...ids].map(toBin)]);
    return rows;
  };
  const stalls = new Map(
    (
      await named(
        "SELECT id, site_id, JSON_VALUE(fields, '$.model') AS model, JSON_EXTRACT(fields, '$.outlets') AS outlets FROM stall WHERE household_id = ?",
        new Set(visits.flatMap((v) => v.attempts.flatMap((a) => (a.stallId ? [a.stallId] : [])))),
      )
    ).map((r) => {
      const outlets = (typeof r.outlets === 'string' ? JSON.parse(r.outlets) : (r.outlets ?? [])) as RecordFields<'stall'>['outlets'];
      return [fromBin(r.id), { siteId: fromBin(r.site_id), model: r.model as string | null, connectors: outlets.map((o) => o.connector), outlets }];
    }),
  );
  const networkOfSite = new Map(
    (
      await named(
        'SELECT id, network_id FROM site WHERE household_id = ?',
        new Set([...[...stalls.values()].map((s) => s.siteId), ...visits.flatMap((v) => (v.siteId ? [v.siteId] : []))]),
      )
    ).map((r) => [fromBin(r.id), fromBin(r.network_id)]),
  );
  const bill = visits.some((v) => v.bills.length > 0) ? await billsAgainst(householdId, new Set(networkOfSite.values()), on) : undefined;
  const cars = await named(
    "SELECT id, JSON_VALUE(fields, '$.usableKWh') AS usable FROM car WHERE household_id = ?",
    new Set(visits.flatMap((v) => v.carId ?? [])),
  );
  const usable = new Map(cars.map((r) => [fromBin(r.id), Number(r.usable)]));
  return {
    networkOfSite: (id) => networkOfSite.get(id),
    stall: (id) => stalls.get(id),
    doubts: (v) => sessionDoubts(v, { stall: (id) => stalls.get(id), usableKWh: usable.get(v.carId ?? '') ?? null }).length,
    ...(bill ? { bill } : {}),
  };
}

/** As many as the column holds. */
const FIND_WORDS_MAX = 480;
/** The words by which a visit is found: "14 Oct", "October 2025", "2025-10-14", the faults there, what was noted. */
const foundBy = (v: Visit, at: number): string =>
  findWords(
    [
      printDate(at, v.zone),
      printLongDate(at, v.zone),
      localDay(at, v.zone),
      ...new Set(v.faults.map((f) => faultLabel(f.code))),
      ...v.line.flatMap((e) => (e.kind === 'note' ? [e.payload.text] : [])),
    ].join(' '),
  ).slice(0, FIND_WORDS_MAX);

const dateOf = (ms: number | null): Date | null => (ms === null ? null : new Date(ms));

/**
 * Writes projection, figures and tape of derived visits in a transaction of the caller's, all at once. A visit to which an event
 * came meanwhile is left as it is.
 * @returns ids of those that were written
 */
export async function writeFigures(c: PoolConnection, householdId: string, derived: readonly Derived[]): Promise<string[]> {
  if (derived.length === 0) return [];
  const hh = toBin(householdId);
  const [held] = await c.execute<RowDataPacket[]>(
    `SELECT id, rev, person_id, sort_at FROM visit WHERE household_id = ? AND id IN (${marks(derived)}) ORDER BY id FOR UPDATE`,
    [hh, ...derived.map((d) => toBin(d.visit.id))],
  );
  const now = new Map(held.map((r) => [fromBin(r.id), r]));
  const fresh = derived.filter((d) => Number(now.get(d.visit.id)?.rev) === d.rev).map((d) => d.visit);
  if (fresh.length === 0) return [];
  const where = await whereOf(householdId, fresh, c);
  const rows = fresh.map((v) => {
    const before = now.get(v.id) as RowDataPacket;
    const sortAt = dateOf(v.pulledInAt ?? v.line[0]?.t ?? (v.lastEventAt || null));
    return [
      hh,
      toBin(v.id),
      before.rev,
      before.person_id,
      false,
      DEFINITION_VERSION,
      v.zone,
      sortAt ?? before.sort_at,
      // An arrival of which only the day is known has no time.
      v.dayOnly ? null : dateOf(v.pulledInAt),
      dateOf(v.pulledOutAt),
      dateOf(v.lastEventAt || null),
      sortAt ? localMonth(sortAt.getTime(), v.zone) : '',
      toBinOrNull(v.siteId),
      toBinOrNull(v.siteId ? where.networkOfSite(v.siteId) : null),
      toBinOrNull(v.carId),
      v.withdrawn,
      v.newer,
      toBinOrNull(v.linkedVisitId),
      toBinOrNull(v.driverId),
      toBinOrNull(privateTo(v)),
      sortAt ? foundBy(v, sortAt.getTime()) : '',
    ];
  });
  const own = PROJECTION.slice(4).map((column) => `${column} = VALUES(${column})`);
  await c.query(`INSERT INTO visit (${PROJECTION.join(', ')}) VALUES ? ON DUPLICATE KEY UPDATE ${own.join(', ')}`, [rows]);
  await c.query(`REPLACE INTO visit_figures (${VISIT_COLUMNS}) VALUES ?`, [fresh.map((v) => visitRow(hh, v, where))]);
  await c.query('REPLACE INTO visit_tape (household_id, visit_id, tape) VALUES ?', [fresh.map((v) => [hh, toBin(v.id), JSON.stringify(thinTape(v.tape))])]);
  await c.execute(`DELETE FROM stall_danger WHERE household_id = ? AND visit_id IN (${marks(fresh)})`, [hh, ...fresh.map((v) => toBin(v.id))]);
  const dangers = fresh.flatMap((v) => (v.withdrawn ? [] : v.dangers.map((d) => [hh, toBin(v.id), toBin(d.stallId), d.is, d.on])));
  if (dangers.length > 0) await c.query('INSERT INTO stall_danger (household_id, visit_id, stall_id, danger, on_day) VALUES ?', [dangers]);
  await c.execute(`DELETE FROM attempt_figures WHERE household_id = ? AND visit_id IN (${marks(fresh)})`, [hh, ...fresh.map((v) => toBin(v.id))]);
  const attempts = fresh.flatMap((v) => attemptRows(hh, v, where));
  if (attempts.length > 0) await c.query(`INSERT INTO attempt_figures (${ATTEMPT_COLUMNS}) VALUES ?`, [attempts]);
  await c.execute(`DELETE FROM session_power WHERE household_id = ? AND visit_id IN (${marks(fresh)})`, [hh, ...fresh.map((v) => toBin(v.id))]);
  const power = fresh.flatMap((v) =>
    v.attempts.flatMap((a) => {
      const looks = sessionLooks(v, a);
      return looks ? [[hh, toBin(v.id), a.n, JSON.stringify(looks)]] : [];
    }),
  );
  if (power.length > 0) await c.query('INSERT INTO session_power (household_id, visit_id, n, looks) VALUES ?', [power]);
  return fresh.map((v) => v.id);
}

/** The projection's columns; from the fifth on they are derived. */
const PROJECTION = [
  'household_id',
  'id',
  'rev',
  'person_id',
  'stale',
  'definition_version',
  'zone',
  'sort_at',
  'pulled_in_at',
  'pulled_out_at',
  'last_event_at',
  'local_month',
  'site_id',
  'network_id',
  'car_id',
  'withdrawn',
  'newer',
  'linked_visit',
  'driver_id',
  'private_to',
  'find_words',
];
