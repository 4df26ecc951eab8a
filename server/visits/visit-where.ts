import type { LedgerFilter } from '@/core/compare/ledger-filter';
import { POPULATIONS } from '@/core/figures/populations';
import { toBin } from '../db/binary-id';
import { conditionSql } from '../figures/condition-sql';

/** WHERE of a household's counted visits under a filter; `v` is visit, `f` visit_figures. @param currency of the household: prices are counted in it */
export function visitWhere(householdId: string, filter: LedgerFilter, currency: string): { sql: string; values: (string | number | Buffer)[] } {
  const parts = ['v.household_id = ?', 'v.withdrawn = FALSE'];
  const values: (string | number | Buffer)[] = [toBin(householdId)];
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
    const { time, mark, without } = filter;
    const counted = conditionSql(POPULATIONS[filter.counted].who({ time, mark, currency, ...(without ? { without } : {}) }));
    parts.push(counted.sql);
    values.push(...counted.values);
  }
  return { sql: parts.join(' AND '), values };
}
