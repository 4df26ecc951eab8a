import type { PoolConnection } from 'mysql2/promise';
import type { Input } from '@/core/figures/figure';
import { changedInputs } from '@/core/figures/inputs';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { toBin } from '../db/binary-id';

const AT_STALL = [
  'v.household_id = ? AND v.id IN (SELECT a.visit_id FROM attempt_figures a WHERE a.household_id = v.household_id AND a.stall_id = ?)',
] as const;

/** The visits that used an input of a record, as conditions on visit v: one after the other, each by an index. `?`: household and record. */
const USERS: Record<Input, readonly string[]> = {
  'site.networkId': [
    'v.household_id = ? AND v.site_id = ?',
    `v.household_id = ? AND v.id IN (SELECT a.visit_id FROM stall s JOIN attempt_figures a ON a.household_id = s.household_id AND a.stall_id = s.id
       WHERE s.household_id = v.household_id AND s.site_id = ?)`,
  ],
  'stall.siteId': AT_STALL,
  'stall.model': AT_STALL,
  'stall.outlets': AT_STALL,
};

/**
 * Marks the visits whose figures used what a record said before. What that is, each figure declares; nothing else makes a visit stale.
 * @param before what the record said, `null` when it was not here
 */
export async function staleBy(c: PoolConnection, householdId: string, before: MileRecord | null, now: RecordItem): Promise<void> {
  for (const input of changedInputs(now.type, before?.fields ?? null, now.fields))
    for (const users of USERS[input])
      await c.execute(`UPDATE visit v SET v.rev = v.rev + 1, v.stale = TRUE WHERE ${users}`, [toBin(householdId), toBin(now.id)]);
}
