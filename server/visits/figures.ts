import { createHash } from 'node:crypto';
import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { valueOrNull } from '@/core/units/known';
import { localMonth } from '@/core/units/zoned';
import { meansOf } from '@/core/visit/attempt-times';
import { kWhBilledFor } from '@/core/visit/billed';
import { DEFINITION_VERSION } from '@/core/visit/definitions-version';
import { sessionStallKWh } from '@/core/visit/delivered';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { thinTape } from '@/core/visit/tape';
import type { Timing } from '@/core/visit/timing';
import { fromBin, toBin, toBinOrNull } from '../db/binary-id';
import { type Database, inTransaction, pool } from '../db/pool';
import { eventsOfVisits } from './event-rows';

const seconds = (t: Timing): number | null => (t.known ? t.s : null);
/** A visit that is counted by the kilometre of text must still fit its row. */
const cut = (text: string, max: number) => (text.length <= max ? text : text.slice(0, max));

/** Visits of a household whose figures are out of date, at most `limit`. */
async function staleVisits(householdId: string, limit: number): Promise<string[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `(SELECT id FROM visit WHERE household_id = ? AND stale = TRUE LIMIT ${limit}) UNION (SELECT id FROM visit WHERE household_id = ? AND (definition_version < ? OR definition_version > ?) LIMIT ${limit})`,
    [toBin(householdId), toBin(householdId), DEFINITION_VERSION, DEFINITION_VERSION],
  );
  return rows.map((r) => fromBin(r.id));
}

/** Who refreshes a household just now, so that the queries of one page do not all do the same work. */
const running = new Map<string, Promise<number>>();

/** Rebuilds what is out of date before something is read, in portions. @returns how many visits */
export function refreshStale(householdId: string): Promise<number> {
  const under = running.get(householdId);
  if (under) return under;
  const work = refreshPortions(householdId).finally(() => running.delete(householdId));
  running.set(householdId, work);
  return work;
}

async function refreshPortions(householdId: string): Promise<number> {
  let total = 0;
  for (;;) {
    const ids = await staleVisits(householdId, 200);
    if (ids.length === 0) return total;
    const done = await refreshVisits(householdId, ids);
    total += done;
    // What cannot be derived stays stale and is told in the log; a read must end all the same.
    if (done < ids.length) return total;
  }
}

/** The database for reading the projection of visits or their figures: what is stale is brought up to date first. There is no other way to them. */
export async function figuresOf(householdId: string): Promise<Database> {
  await refreshStale(householdId);
  return pool();
}

/**
 * Derives the visits anew from their events and writes projection and figures, each visit in one transaction.
 * @returns how many; one that cannot be derived hinders no other
 */
export async function refreshVisits(householdId: string, visitIds: readonly string[]): Promise<number> {
  if (visitIds.length === 0) return 0;
  const [revRows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, rev FROM visit WHERE household_id = ? AND id IN (${visitIds.map(() => '?').join(', ')})`,
    [toBin(householdId), ...visitIds.map(toBin)],
  );
  const revs = new Map(revRows.map((r) => [fromBin(r.id), Number(r.rev)]));
  const events = await eventsOfVisits(householdId, visitIds);
  const places = await placesOf(householdId);
  let done = 0;
  for (const id of visitIds) {
    const rev = revs.get(id);
    if (rev === undefined) continue;
    try {
      const visit = deriveVisit(id, events.get(id) ?? [], payloadProblem);
      await inTransaction((c) => writeFigures(c, householdId, rev, visit, places));
      done += 1;
    } catch (error) {
      console.error(`the figures of visit ${id} could not be written`, error);
    }
  }
  return done;
}

/** Writes the figures of visits anew on a connection of the caller's, which keeps them or not. */
export async function figuresAnew(c: PoolConnection, householdId: string, visitIds: readonly string[]): Promise<void> {
  const events = await eventsOfVisits(householdId, visitIds, c);
  const places = await placesOf(householdId);
  const [revs] = await c.execute<RowDataPacket[]>(`SELECT id, rev FROM visit WHERE household_id = ? AND id IN (${visitIds.map(() => '?').join(', ')})`, [
    toBin(householdId),
    ...visitIds.map(toBin),
  ]);
  for (const { id, rev } of revs) {
    const visitId = fromBin(id);
    await writeFigures(c, householdId, Number(rev), deriveVisit(visitId, events.get(visitId) ?? [], payloadProblem), places);
  }
}

type Places = { networkOfSite: Map<string, string>; siteOfStall: Map<string, string> };
async function placesOf(householdId: string): Promise<Places> {
  const [sites] = await pool().execute<RowDataPacket[]>('SELECT id, network_id FROM site WHERE household_id = ?', [toBin(householdId)]);
  const [stalls] = await pool().execute<RowDataPacket[]>('SELECT id, site_id FROM stall WHERE household_id = ?', [toBin(householdId)]);
  return {
    networkOfSite: new Map(sites.map((s) => [fromBin(s.id), fromBin(s.network_id)])),
    siteOfStall: new Map(stalls.map((s) => [fromBin(s.id), fromBin(s.site_id)])),
  };
}

async function writeFigures(c: PoolConnection, householdId: string, rev: number, v: Visit, places: Places): Promise<void> {
  const network = v.siteId ? (places.networkOfSite.get(v.siteId) ?? null) : null;
  const hh = toBin(householdId);
  const vid = toBin(v.id);
  const sortAt = v.pulledInAt ?? v.line[0]?.t ?? v.lastEventAt;
  // An event that came in between has raised rev: that writer's refresh will do it over, this one leaves no mark.
  const [updated] = await c.execute(
    `UPDATE visit SET stale = FALSE, definition_version = ?, zone = ?, sort_at = COALESCE(?, sort_at), pulled_in_at = ?, pulled_out_at = ?, last_event_at = ?, local_month = ?, site_id = ?, network_id = ?, car_id = ?, withdrawn = ?, newer = ?, linked_visit = ?
      WHERE household_id = ? AND id = ? AND rev = ?`,
    [
      DEFINITION_VERSION,
      v.zone,
      sortAt ? new Date(sortAt) : null,
      v.pulledInAt === null ? null : new Date(v.pulledInAt),
      v.pulledOutAt === null ? null : new Date(v.pulledOutAt),
      v.lastEventAt ? new Date(v.lastEventAt) : null,
      sortAt ? localMonth(sortAt, v.zone) : '',
      toBinOrNull(v.siteId),
      toBinOrNull(network),
      toBinOrNull(v.carId),
      v.withdrawn,
      v.newer,
      toBinOrNull(v.linkedVisitId),
      hh,
      vid,
      rev,
    ],
  );
  if ((updated as { affectedRows: number }).affectedRows === 0) return;
  const session = v.attempts.find((a) => a.proof);
  const handshake = session?.times.handshake;
  const paid = v.paid.known ? v.paid.value : null;
  const inputs = createHash('sha256')
    .update(JSON.stringify([v.siteId, network, v.carId]))
    .digest();
  await c.execute(
    `REPLACE INTO visit_figures (household_id, visit_id, rev, definition_version, inputs_hash, attempts, failed, first_try, ended, left_reason, faults, fault_codes, delivered_kwh, paid, currency, handshake_s, handshake_bound, lost_s, charging_s, idle_s, queue_s, visit_s, average_kw, peak_kw, soc_from, soc_to, tape)
     VALUES (?${', ?'.repeat(26)})`,
    [
      hh,
      vid,
      rev,
      DEFINITION_VERSION,
      inputs,
      v.attempts.length,
      v.attempts.filter((a) => a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up').length,
      v.firstTry.answer,
      v.ended,
      v.leftReason,
      v.faults.length,
      cut([...new Set(v.faults.map((f) => f.code))].join(','), 500),
      valueOrNull(v.delivered),
      paid?.amount ?? null,
      paid?.currency ?? null,
      handshake ? seconds(handshake) : null,
      handshake?.known ? handshake.bound : null,
      seconds(v.times.lost),
      seconds(v.times.charging),
      seconds(v.times.idle),
      seconds(v.times.queue),
      seconds(v.times.visit),
      valueOrNull(v.average),
      v.peak.known ? v.peak.value.kW : null,
      v.socFrom,
      v.socTo,
      JSON.stringify(thinTape(v.tape)),
    ],
  );
  await c.execute('DELETE FROM attempt_figures WHERE household_id = ? AND visit_id = ?', [hh, vid]);
  if (v.attempts.length === 0) return;
  const rows = v.attempts.map((a) => {
    const site = a.stallId ? places.siteOfStall.get(a.stallId) : undefined;
    const means = meansOf(a);
    const o = a.outcome;
    return [
      hh,
      vid,
      a.n,
      rev,
      DEFINITION_VERSION,
      toBinOrNull(a.stallId),
      toBinOrNull((site && places.networkOfSite.get(site)) ?? network),
      a.connectorId ?? null,
      means?.meansKind ?? null,
      toBinOrNull(means?.meansId),
      toBinOrNull(a.adapterId),
      o.kind,
      o.kind === 'power' ? null : cut(o.reason, 200),
      o.kind === 'failed' || o.kind === 'gave_up' ? o.side : null,
      a.shows.length,
      a.proof?.mark ?? null,
      a.proof?.late ?? false,
      seconds(a.times.handshake),
      a.times.handshake.known ? a.times.handshake.pm_s : null,
      seconds(a.times.authorisation),
      seconds(a.times.setUp),
      seconds(a.times.plugToPower),
      seconds(a.times.meansToPower),
      seconds(a.times.handsOn),
      seconds(a.times.plugCardGap),
      seconds(a.times.charging),
      sessionStallKWh(a) ?? kWhBilledFor(a.n, v.billed) ?? null,
    ];
  });
  await c.query(
    'INSERT INTO attempt_figures (household_id, visit_id, n, rev, definition_version, stall_id, network_id, connector, means_kind, means_id, adapter_id, outcome, reason, side, shows, end_mark, late, handshake_s, handshake_pm_s, authorisation_s, set_up_s, plug_to_power_s, means_to_power_s, hands_on_s, plug_card_gap_s, charging_s, kwh) VALUES ?',
    [rows],
  );
}
