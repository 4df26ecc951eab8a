import type { RowDataPacket } from 'mysql2/promise';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import type { AttemptRow, VisitRow } from '@/core/compare/visit-row';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from './figures';
import { visitWhere } from './visit-where';

/** Columns of the two queries below, in their order: ten thousand visits are read as arrays, not as objects. */
type VisitColumns = [Buffer, Buffer, Buffer, VisitRow['firstTry'], number | null, string | null, string | null, string | null];
type AttemptColumns = [Buffer, AttemptRow['outcome'], AttemptRow['endMark'], number, ...(number | null)[]];

/** Every counted visit of a household, or of one of its sites, with its attempts. Visits at an unknown network are not compared. */
export async function compareRows(householdId: string, siteId?: string): Promise<VisitRow[]> {
  const figures = await figuresOf(householdId);
  const where = visitWhere(
    householdId,
    readLedgerFilter((name) => (name === 'site' && siteId ? siteId : null)),
  );
  const [[visits], [attempts]] = await Promise.all([
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT v.id, v.network_id, v.site_id, f.first_try, f.lost_s, f.delivered_kwh, f.paid, f.currency
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id WHERE ${where.sql} AND v.network_id IS NOT NULL`,
        rowsAsArray: true,
      },
      where.values,
    ),
    // All attempts in the order they lie in: those of visits that are not counted find no visit below.
    figures.execute<RowDataPacket[][]>(
      {
        sql: `SELECT visit_id, outcome, end_mark, late, handshake_s, set_up_s, plug_to_power_s, means_to_power_s, hands_on_s FROM attempt_figures
      WHERE household_id = ?${siteId ? ' AND visit_id IN (SELECT id FROM visit WHERE household_id = ? AND site_id = ?)' : ''} ORDER BY visit_id, n`,
        rowsAsArray: true,
      },
      siteId ? [toBin(householdId), toBin(householdId), toBin(siteId)] : [toBin(householdId)],
    ),
  ]);
  const byVisit = new Map<string, AttemptRow[]>();
  for (const a of attempts as unknown as AttemptColumns[]) {
    const [visitId, outcome, endMark, late, handshake, setUp, plugToPower, meansToPower, handsOn] = a;
    const row = { outcome, endMark, late: late === 1, seconds: { handshake, setUp, plugToPower, meansToPower, handsOn } };
    const key = visitId.toString('latin1');
    const list = byVisit.get(key);
    if (list) list.push(row);
    else byVisit.set(key, [row]);
  }
  // A household has few networks and sites: each id is written out once.
  const texts = new Map<string, string>();
  const text = (id: Buffer): string => {
    const key = id.toString('latin1');
    const known = texts.get(key) ?? fromBin(id);
    texts.set(key, known);
    return known;
  };
  return (visits as unknown as VisitColumns[]).map(
    ([id, networkId, siteId, firstTry, lost_s, deliveredKWh, paid, currency]): VisitRow => ({
      networkId: text(networkId),
      siteId: text(siteId),
      firstTry,
      attempts: byVisit.get(id.toString('latin1')) ?? [],
      lost_s,
      deliveredKWh,
      paid,
      currency,
    }),
  );
}
