import type { LedgerFilter } from '@/core/compare/ledger-filter';
import { judgedSessions, type PowerBy, type PowerGroup, powerGroups } from '@/core/compare/power-groups';
import type { Who } from '../accounts/who';
import { pastSessions } from '../power/past-sessions';
import { groupNames } from '../records/group-names';

/** Sessions that are compared at once: the newest. */
export const MOST_COMPARED = 10_000;

/** The look at power: how stalls kept their word, by what is asked. */
export async function comparedPower(
  who: Who,
  by: PowerBy,
  filter: LedgerFilter,
): Promise<{ rows: PowerGroup[]; ungrouped: number; nameOf: (key: string) => string; read: number }> {
  const past = await pastSessions(who, filter, MOST_COMPARED);
  const { rows, ungrouped } = powerGroups(judgedSessions(past), by);
  const named = await groupNames(who.householdId, new Map([[by, rows.map((r) => r.key)]]));
  return { rows, ungrouped, nameOf: (key) => named({ by, key }), read: past.length };
}
