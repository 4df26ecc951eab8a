import type { LedgerFilter, LedgerOnly } from '@/core/compare/ledger-filter';
import { inGroups, POPULATIONS } from '@/core/figures/populations';
import type { Who } from '../accounts/who';
import { toBin } from '../db/binary-id';
import { conditionSql } from '../figures/condition-sql';
import { seen, seenBy } from './seen-by';

const ONLY: Readonly<Record<LedgerOnly, string>> = {
  // One that gave nothing has none to come, one that runs has time.
  no_bill: "f.paid IS NULL AND f.ended = 'charge' AND v.pulled_out_at IS NOT NULL",
  open: 'v.pulled_out_at IS NULL',
  flagged: 'f.flags > 0',
  business: "f.marked = 'business'",
  private: "f.marked = 'private'",
  left_out: 'f.left_out = TRUE',
};

/** What a filter asks of a visit that shows itself to its driver alone: by an answer to it the others would learn what they do not see. */
const TELLS = ['network', 'site', 'faults', 'means', 'only', 'text', 'counted', 'groups'] as const satisfies readonly (keyof LedgerFilter)[];

/**
 * WHERE of a household's counted visits under a filter, as one of its people may see them; `v` is visit, `f` visit_figures.
 * @param currency of the household: prices are counted in it
 * @param others what becomes of visits that are private to somebody else: `left_out`, or `blank` where the list shows no more than their car, kWh and money
 */
export function visitWhere(
  who: Who,
  filter: LedgerFilter,
  currency: string,
  others: 'left_out' | 'blank' = 'left_out',
): { sql: string; values: (string | number | Buffer)[] } {
  const parts = ['v.household_id = ?', 'v.withdrawn = FALSE'];
  const values: (string | number | Buffer)[] = [toBin(who.householdId)];
  if (others === 'left_out' || TELLS.some((name) => filter[name])) {
    parts.push(seen());
    values.push(seenBy(who.personId));
  }
  if (filter.driver) {
    parts.push('v.driver_id = ?');
    values.push(toBin(filter.driver));
  }
  if (filter.network) {
    parts.push('v.network_id = ?');
    values.push(toBin(filter.network));
  }
  if (filter.site) {
    parts.push('v.site_id = ?');
    values.push(toBin(filter.site));
  }
  if (filter.car) {
    parts.push('v.car_id = ?');
    values.push(toBin(filter.car));
  }
  if (filter.faults === 'any') parts.push('f.faults > 0');
  else if (filter.faults) {
    parts.push('FIND_IN_SET(?, f.fault_codes) > 0');
    values.push(filter.faults);
  }
  if (filter.since) {
    parts.push('f.arrival_day >= ?');
    values.push(filter.since);
  }
  if (filter.until) {
    parts.push('f.arrival_day <= ?');
    values.push(filter.until);
  }
  if (filter.means) {
    parts.push('EXISTS (SELECT 1 FROM attempt_figures m WHERE m.household_id = v.household_id AND m.visit_id = v.id AND m.means_kind = ?)');
    values.push(filter.means);
  }
  if (filter.only) parts.push(ONLY[filter.only]);
  if (filter.text) {
    const like = `%${filter.text.replaceAll(/[\\%_]/g, (c) => `\\${c}`)}%`;
    parts.push(
      `(v.site_id IN (SELECT id FROM site WHERE household_id = v.household_id AND name LIKE ?)
        OR v.network_id IN (SELECT id FROM network WHERE household_id = v.household_id AND name LIKE ?)
        OR EXISTS (SELECT 1 FROM event e FORCE INDEX (event_visit) WHERE e.household_id = v.household_id AND e.visit_id = v.id AND e.kind IN ('note', 'correction')
          AND COALESCE(JSON_VALUE(e.payload, '$.text'), JSON_VALUE(e.payload, '$.set.text')) COLLATE utf8mb4_general_ci LIKE ?))`,
    );
    // A note is found by what it says, and by what it said before it was corrected.
    values.push(like, like, like);
  }
  if (filter.counted || filter.groups) {
    const { time, mark, without, groups } = filter;
    const counted = conditionSql(
      filter.counted
        ? POPULATIONS[filter.counted].who({ time, mark, currency, ...(without ? { without } : {}), ...(groups ? { groups } : {}) })
        : { all: inGroups(groups ?? []) },
    );
    parts.push(counted.sql);
    values.push(...counted.values);
  }
  return { sql: parts.join(' AND '), values };
}
