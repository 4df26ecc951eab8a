import type { PoolConnection } from 'mysql2/promise';
import type { Input } from '@/core/figures/figure';
import { changedInputs } from '@/core/figures/inputs';
import type { MileRecord, RecordItem } from '@/core/records/record-schema';
import { toBin } from '../db/binary-id';

/** A condition on visit v with its values. */
type Users = { sql: string; values: unknown[] };
type Change = { householdId: string; before: MileRecord | null; now: RecordItem };

const byRecord =
  (...conditions: string[]) =>
  ({ householdId, now }: Change): Users[] =>
    conditions.map((sql) => ({ sql, values: [toBin(householdId), toBin(now.id)] }));
const AT_STALL = byRecord('v.household_id = ? AND v.id IN (SELECT a.visit_id FROM attempt_figures a WHERE a.household_id = v.household_id AND a.stall_id = ?)');
/** Of the visits those with a bill: no other is held against a price. */
const BILLED = 'v.id IN (SELECT f.visit_id FROM visit_figures f WHERE f.household_id = v.household_id AND f.paid IS NOT NULL)';

/** What a record said, as far as its fields are of this type. */
const told = <T extends MileRecord['type']>(type: T, { before, now }: Change) =>
  [before, now].flatMap((r) => (r?.type === type ? [r.fields as Extract<MileRecord, { type: T }>['fields']] : []));
const month = (days: readonly string[]): string => [...days].sort()[0]?.slice(0, 7) ?? '';

/** The visits that used an input of a record: one condition after the other, each by an index. */
const USERS: Record<Input, (change: Change) => Users[]> = {
  'site.networkId': byRecord(
    'v.household_id = ? AND v.site_id = ?',
    `v.household_id = ? AND v.id IN (SELECT a.visit_id FROM stall s JOIN attempt_figures a ON a.household_id = s.household_id AND a.stall_id = s.id
       WHERE s.household_id = v.household_id AND s.site_id = ?)`,
  ),
  'stall.siteId': AT_STALL,
  'stall.model': AT_STALL,
  'stall.outlets': AT_STALL,
  'stall.plate': AT_STALL,
  'car.usableKWh': byRecord('v.household_id = ? AND v.car_id = ?'),
  // A price dated later changes no visit before its month.
  'tariff.says': (change) =>
    told('tariff', change).map((t) => ({
      sql: `v.household_id = ? AND v.network_id = ? AND v.local_month >= ? AND ${BILLED}`,
      values: [toBin(change.householdId), toBin(t.networkId), month(told('tariff', change).map((x) => x.validFrom))],
    })),
  'plan.holds': (change) => [
    { sql: `v.household_id = ? AND v.local_month >= ? AND ${BILLED}`, values: [toBin(change.householdId), month(told('plan', change).map((p) => p.from))] },
  ],
  'means.providerId': byRecord(
    `v.household_id = ? AND v.id IN (SELECT a.visit_id FROM attempt_figures a WHERE a.household_id = v.household_id AND a.means_id = ?) AND ${BILLED}`,
  ),
};

/**
 * Marks the visits whose figures used what a record said before. What that is, each figure declares; nothing else makes a visit stale.
 * @param before what the record said, `null` when it was not here
 */
export async function staleBy(c: PoolConnection, householdId: string, before: MileRecord | null, now: RecordItem): Promise<void> {
  const change = { householdId, before, now };
  for (const input of changedInputs(now.type, before?.fields ?? null, now.fields))
    for (const { sql, values } of USERS[input](change)) await c.execute(`UPDATE visit v SET v.rev = v.rev + 1, v.stale = TRUE WHERE ${sql}`, values as never[]);
}
