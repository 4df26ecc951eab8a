import { ATTEMPT_FIGURES } from '@/core/figures/attempt-figures';
import type { Figure } from '@/core/figures/figure';
import { VISIT_KEYS, type VisitKey } from '@/core/figures/groupings';
import type { Condition, On } from '@/core/figures/populations';
import { VISIT_FIGURES, type VisitFigure } from '@/core/figures/visit-figures';
import { toBin } from '../db/binary-id';

export type Sql = { sql: string; values: (string | number | Buffer)[] };

const ALWAYS: Sql = { sql: 'TRUE', values: [] };
const joined = (parts: readonly Sql[], by: 'AND' | 'OR', none: Sql): Sql =>
  parts.length === 0 ? none : { sql: `(${parts.map((p) => p.sql).join(` ${by} `)})`, values: parts.flatMap((p) => p.values) };

function onColumn(table: string, figure: Pick<Figure<never>, 'column' | 'is'>, on: On<string>): Sql {
  const column = `${table}.${figure.column}`;
  const value = (x: string | number | boolean) => (typeof x === 'boolean' ? Number(x) : figure.is === 'id' ? toBin(String(x)) : x);
  if ('known' in on) return { sql: `${column} IS NOT NULL`, values: [] };
  // What is not known is no answer, so that "not" of it holds, as in core.
  if ('above' in on) return { sql: `COALESCE(${column} > ?, FALSE)`, values: [on.above] };
  if ('isNot' in on) return { sql: `COALESCE(${column} NOT IN (${on.isNot.map(() => '?').join(', ')}), TRUE)`, values: on.isNot.map(value) };
  return { sql: `COALESCE(${column} IN (${on.is.map(() => '?').join(', ')}), FALSE)`, values: on.is.map(value) };
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
      c.attempt.map((on) => onColumn('a', ATTEMPT_FIGURES[on.figure], on)),
      'AND',
      ALWAYS,
    );
    return { sql: `EXISTS (SELECT 1 FROM attempt_figures a WHERE a.household_id = v.household_id AND a.visit_id = v.id AND ${met.sql})`, values: met.values };
  }
  return c.figure in VISIT_KEYS ? onColumn('v', VISIT_KEYS[c.figure as VisitKey], c) : onColumn('f', VISIT_FIGURES[c.figure as VisitFigure], c);
}
