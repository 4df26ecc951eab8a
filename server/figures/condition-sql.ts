import { ATTEMPT_FIGURES } from '@/core/figures/attempt-figures';
import type { Condition, On } from '@/core/figures/populations';
import { VISIT_FIGURES } from '@/core/figures/visit-figures';

export type Sql = { sql: string; values: (string | number | Buffer)[] };

const ALWAYS: Sql = { sql: 'TRUE', values: [] };
const joined = (parts: readonly Sql[], by: 'AND' | 'OR', none: Sql): Sql =>
  parts.length === 0 ? none : { sql: `(${parts.map((p) => p.sql).join(` ${by} `)})`, values: parts.flatMap((p) => p.values) };

function onColumn(column: string, on: On<string>): Sql {
  if ('known' in on) return { sql: `${column} IS NOT NULL`, values: [] };
  // What is not known is no answer, so that "not" of it holds, as in core.
  if ('above' in on) return { sql: `COALESCE(${column} > ?, FALSE)`, values: [on.above] };
  return { sql: `COALESCE(${column} IN (${on.is.map(() => '?').join(', ')}), FALSE)`, values: on.is.map((x) => (typeof x === 'boolean' ? Number(x) : x)) };
}

/** A condition of core/figures as SQL over visit v and its figures f: a list is of those that core counts. */
export function conditionSql(c: Condition): Sql {
  if ('all' in c) return joined(c.all.map(conditionSql), 'AND', ALWAYS);
  if ('any' in c) return joined(c.any.map(conditionSql), 'OR', { sql: 'FALSE', values: [] });
  if ('not' in c) {
    const inner = conditionSql(c.not);
    return { sql: `NOT ${inner.sql}`, values: inner.values };
  }
  if ('attempt' in c) {
    const met = joined(
      c.attempt.map((on) => onColumn(`a.${ATTEMPT_FIGURES[on.figure].column}`, on)),
      'AND',
      ALWAYS,
    );
    return { sql: `EXISTS (SELECT 1 FROM attempt_figures a WHERE a.household_id = v.household_id AND a.visit_id = v.id AND ${met.sql})`, values: met.values };
  }
  return onColumn(`f.${VISIT_FIGURES[c.figure].column}`, c);
}
