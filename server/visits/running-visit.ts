import type { RowDataPacket } from 'mysql2/promise';
import { LEFT_OPEN_MS } from '@/core/visit/definitions-version';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';

/** True while a visit of the household runs that this person recorded something of. */
export async function hasRunningVisit(who: { householdId: string; personId: string }): Promise<boolean> {
  const figures = await figuresOf(who.householdId);
  const [rows] = await figures.execute<RowDataPacket[]>(
    `SELECT 1 FROM visit v
      WHERE v.household_id = ? AND v.withdrawn = 0 AND v.pulled_in_at IS NOT NULL AND v.pulled_out_at IS NULL AND v.last_event_at >= ?
        AND EXISTS (SELECT 1 FROM event e FORCE INDEX (event_visit) WHERE e.household_id = v.household_id AND e.visit_id = v.id AND e.person_id = ?)
      LIMIT 1`,
    [toBin(who.householdId), new Date(now() - LEFT_OPEN_MS), toBin(who.personId)],
  );
  return rows.length > 0;
}
