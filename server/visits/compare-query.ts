import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import type { AttemptRow, VisitRow } from '@/core/compare/visit-row';
import { fromBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { refreshStale } from './figures';
import { visitWhere } from './visit-where';

/** Every counted visit of a household with its attempts, as Compare takes them. Visits at an unknown network are not compared. */
export async function compareRows(householdId: string): Promise<VisitRow[]> {
  await refreshStale(householdId);
  const where = visitWhere(
    householdId,
    readLedgerFilter(() => null),
  );
  const [visits] = await pool().execute<RowDataPacket[]>(
    `SELECT v.id, v.network_id, v.site_id, f.first_try, f.lost_s, f.delivered_kwh, f.paid, f.currency
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
    where.values,
  );
  const [attempts] = await pool().execute<RowDataPacket[]>(
    `SELECT a.visit_id, a.outcome, a.end_mark, a.late, a.handshake_s, a.set_up_s, a.plug_to_power_s, a.means_to_power_s, a.hands_on_s
       FROM attempt_figures a JOIN visit v ON v.household_id = a.household_id AND v.id = a.visit_id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND v.network_id IS NOT NULL ORDER BY a.visit_id, a.n`,
    where.values.slice(0, 1),
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
