import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import * as z from 'zod';
import { isOver } from '@/core/tariff/closed-month';
import { type StatementRow, unnamed } from '@/core/tariff/statement';
import { ID_PATTERN } from '@/core/units/id';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import { DECIMAL } from '@/core/units/money';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { localDay } from '@/core/units/zoned';
import type { Member, Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { hiddenOf } from '../visits/seen-by';
import { statementRows } from './statement-rows';

/** A month whose books are closed, as they were then: nobody's view of it, so that what is private tells car, kWh and money alone. */
export type ClosedMonth = { month: string; closedAt: number; closedBy: string; rows: StatementRow[] };

const fromRow = (r: RowDataPacket): ClosedMonth => ({
  month: r.month,
  closedAt: (r.closed_at as Date).getTime(),
  closedBy: fromBin(r.closed_by),
  rows: (typeof r.book === 'string' ? JSON.parse(r.book) : r.book) as StatementRow[],
});

/**
 * The closed months of a period, `2025-10` or `2025`, as somebody may see them; of all when none is said. What was made private after its month was closed is private
 * there, too.
 */
export async function closedMonths(who: Who, period = ''): Promise<ClosedMonth[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    'SELECT month, closed_at, closed_by, book FROM closed_month WHERE household_id = ? AND month LIKE ? ORDER BY month',
    [toBin(who.householdId), `${period}%`],
  );
  const months = rows.map(fromRow);
  const hidden = await hiddenOf(who, [...new Set(months.flatMap((m) => m.rows.map((r) => r.visitId)))]);
  return months.map((m) => ({ ...m, rows: m.rows.map((r) => (hidden.has(r.visitId) ? unnamed(r) : r)) }));
}

/**
 * Closes the books of a month that is over, as they stand now. A month that is closed stays as it was closed.
 * @returns why not, or `null`
 */
export async function closeMonth(who: Member & { zone: string }, month: string): Promise<string | null> {
  if (who.role !== 'owner') return 'Only the owner closes the books.';
  if (!isOver(month, localDay(now(), who.zone))) return 'A month is closed once it is over.';
  const { rows, beyond } = await statementRows(who, month, 'nobody');
  if (beyond > 0) return `${beyond} more visits than a statement holds: it cannot be closed whole.`;
  await inTransaction((c) => insertClosed(c, who.householdId, { month, closedAt: now(), closedBy: who.personId, rows }));
  return null;
}

/** Writes a closed month once: one that is closed here already stays as it is. */
export async function insertClosed(c: PoolConnection, householdId: string, m: ClosedMonth): Promise<'taken' | 'already'> {
  const [done] = await c.execute('INSERT IGNORE INTO closed_month (household_id, month, closed_at, closed_by, book) VALUES (?, ?, ?, ?, ?)', [
    toBin(householdId),
    m.month,
    new Date(m.closedAt),
    toBin(m.closedBy),
    JSON.stringify(m.rows),
  ]);
  return (done as { affectedRows: number }).affectedRows > 0 ? 'taken' : 'already';
}

const decimal = z.string().regex(DECIMAL, 'must be a decimal number');
const text = (most: number) => z.string().max(most);
const day = z.string().regex(/^\d{4}-\d\d-\d\d$/);
const rowSchema = z.object({
  visitId: z.string().regex(ID_PATTERN),
  day,
  place: text(200),
  car: text(200),
  driver: text(200),
  as: z.enum(['business', 'private']).nullable(),
  kWh: decimal.nullable(),
  bills: z
    .array(
      z.object({
        amount: decimal,
        currency: z.string().regex(/^[A-Z]{3}$/),
        tax: decimal.nullable(),
        payee: text(200).nullable(),
        ref: text(200).nullable(),
        state: text(20),
        kind: z.enum(['charging', 'parking']).default('charging'),
        came: decimal.nullable().default(null),
      }),
    )
    .max(1500),
  receipts: z.int().min(0).max(5000),
  charged: z.boolean(),
  hidden: z.boolean(),
});
const closedSchema = z.object({
  month: z.string().regex(/^20\d\d-(0[1-9]|1[0-2])$/, 'must be a month such as 2025-10'),
  closedAt: z.int().min(FIRST_INSTANT).max(LAST_INSTANT),
  rows: z.array(rowSchema).max(3_000),
});

/** A closed month of a ledger that is brought in. @param personId who closed it, here */
export function readClosed(raw: unknown, personId: string): ClosedMonth | { path: string; reason: string } {
  const read = closedSchema.safeParse(raw, { error: ownWords });
  return read.success ? { ...read.data, closedBy: personId } : firstProblem(read.error, '');
}
