import type { PoolConnection } from 'mysql2/promise';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { toBin } from '../db/binary-id';

/**
 * Marks the visits whose figures used what a record said before: a site's network is theirs, a stall's site gives its attempts
 * one. A record that comes after its visits counts as a change, for they were without it. Nothing else makes a visit stale.
 * @param before what the record said, `null` when it was not here
 */
export async function staleBy(c: PoolConnection, householdId: string, before: MileRecord | null, now: RecordItem): Promise<void> {
  const hh = toBin(householdId);
  if (now.type === 'site' && (before?.type !== 'site' || before.fields.networkId !== now.fields.networkId)) {
    await c.execute('UPDATE visit SET rev = rev + 1, stale = TRUE WHERE household_id = ? AND site_id = ?', [hh, toBin(now.id)]);
    await c.execute(
      `UPDATE visit v JOIN (SELECT DISTINCT a.visit_id FROM attempt_figures a JOIN stall s ON s.household_id = a.household_id AND s.id = a.stall_id
          WHERE s.household_id = ? AND s.site_id = ?) used ON used.visit_id = v.id SET v.rev = v.rev + 1, v.stale = TRUE WHERE v.household_id = ?`,
      [hh, toBin(now.id), hh],
    );
  }
  if (now.type === 'stall' && (before?.type !== 'stall' || before.fields.siteId !== now.fields.siteId))
    await c.execute(
      `UPDATE visit v JOIN (SELECT DISTINCT visit_id FROM attempt_figures WHERE household_id = ? AND stall_id = ?) used ON used.visit_id = v.id
          SET v.rev = v.rev + 1, v.stale = TRUE WHERE v.household_id = ?`,
      [hh, toBin(now.id), hh],
    );
}
