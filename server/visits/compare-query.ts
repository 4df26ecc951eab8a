import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import type { AttemptRow, VisitRow } from '@/core/compare/visit-row';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { refreshStale } from './figures';
import { visitWhere } from './visit-where';

/** Every counted visit of a household, or of one of its sites, with its attempts. Visits at an unknown network are not compared. */
export async function compareRows(householdId: string, siteId?: string): Promise<VisitRow[]> {
  await refreshStale(householdId);
  const where = visitWhere(
    householdId,
    readLedgerFilter((name) => (name === 'site' && siteId ? siteId : null)),
  );
  const [visits] = await pool().execute<RowDataPacket[]>(
    `SELECT v.id, v.network_id, v.site_id, f.first_try, f.lost_s, f.delivered_kwh, f.paid, f.currency
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
    where.values,
  );
  // All attempts in the order they lie in: those of visits that are not counted find no visit below.
  const [attempts] = await pool().execute<RowDataPacket[]>(
    `SELECT visit_id, outcome, end_mark, late, handshake_s, set_up_s, plug_to_power_s, means_to_power_s, hands_on_s FROM attempt_figures
      WHERE household_id = ?${siteId ? ' AND visit_id IN (SELECT id FROM visit WHERE household_id = ? AND site_id = ?)' : ''} ORDER BY visit_id, n`,
    siteId ? [toBin(householdId), toBin(householdId), toBin(siteId)] : [toBin(householdId)],
  );
  const byVisit = new Map<string, AttemptRow[]>();
  for (const a of attempts) {
    const key = (a.visit_id as Buffer).toString('hex');
    const list = byVisit.get(key) ?? [];
    list.push({
      outcome: a.outcome,
      endMark: a.end_mark,
      late: a.late === 1,
      seconds: { handshake: a.handshake_s, setUp: a.set_up_s, plugToPower: a.plug_to_power_s, meansToPower: a.means_to_power_s, handsOn: a.hands_on_s },
    });
    byVisit.set(key, list);
  }
  return visits.map(
    (v): VisitRow => ({
      visitId: fromBin(v.id),
      networkId: fromBin(v.network_id),
      siteId: fromBin(v.site_id),
      firstTry: v.first_try,
      attempts: byVisit.get((v.id as Buffer).toString('hex')) ?? [],
      lost_s: v.lost_s,
      deliveredKWh: v.delivered_kwh,
      paid: v.paid,
      currency: v.currency,
    }),
  );
}
