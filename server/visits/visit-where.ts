import type { Counted, LedgerFilter } from '@/core/compare/ledger-filter';
import type { PowerTime } from '@/core/compare/visit-row';
import { toBin } from '../db/binary-id';

/** Which column holds which time. */
export const TIME_COLUMN: Record<PowerTime, string> = {
  handshake: 'handshake_s',
  setUp: 'set_up_s',
  plugToPower: 'plug_to_power_s',
  meansToPower: 'means_to_power_s',
  handsOn: 'hands_on_s',
};

const attemptExists = (condition: string) =>
  `EXISTS (SELECT 1 FROM attempt_figures a WHERE a.household_id = v.household_id AND a.visit_id = v.id AND ${condition})`;

/** The population of a counted number, as SQL over visit v and its figures f. Mirrors core/compare/league.ts. */
function countedWhere(counted: Counted, f: LedgerFilter): [string, (string | Buffer)[]] {
  switch (counted) {
    case 'attempted':
      return ['f.attempts > 0', []];
    case 'first_yes':
      return ["f.attempts > 0 AND f.first_try = 'yes'", []];
    case 'first_no':
      return ["f.attempts > 0 AND f.first_try = 'no'", []];
    case 'first_left_out':
      return ["f.attempts > 0 AND f.first_try = 'left_out'", []];
    case 'timed':
      return [attemptExists(`a.outcome = 'power' AND a.late = FALSE AND a.end_mark = ? AND a.${TIME_COLUMN[f.time]} IS NOT NULL`), [f.mark]];
    case 'never':
      return [attemptExists("a.outcome IN ('failed', 'gave_up')"), []];
    case 'lost':
      return ['f.attempts > 0 AND f.lost_s IS NOT NULL', []];
    case 'priced':
      return ['f.paid IS NOT NULL AND f.delivered_kwh IS NOT NULL', []];
  }
}

/** WHERE of a household's counted visits under a filter; `v` is visit, `f` visit_figures. */
export function visitWhere(householdId: string, filter: LedgerFilter): { sql: string; values: (string | Buffer)[] } {
  const parts = ['v.household_id = ?', 'v.withdrawn = FALSE'];
  const values: (string | Buffer)[] = [toBin(householdId)];
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
  if (filter.counted) {
    const [sql, more] = countedWhere(filter.counted, filter);
    parts.push(sql);
    values.push(...more);
  }
  return { sql: parts.join(' AND '), values };
}
