import { printMoney } from '../units/money';
import { printCount } from '../units/print';
import { printDate, printMonth, printSeen } from '../units/zoned';
import type { ClosedChange } from './closed-month';
import type { Statement, StatementRow } from './statement';

/** `Oct 2025` or `2025`. @param period a month, `2025-10`, or a year */
export const periodWords = (period: string): string => (period.length === 4 ? period : printMonth(period));

/** What a statement comes to, in a sentence. */
export const statementWords = ({ rows, sums }: Pick<Statement, 'rows' | 'sums'>): string => {
  if (rows.length === 0) return 'Nothing was charged or paid then.';
  if (sums.length === 0) return `${printCount(rows.length, 'visit')}, and no bill yet.`;
  return `${sums.map((x) => `${printMoney(x.paid, x.currency)} in ${printCount(x.bills, 'bill')}`).join('; ')}, from ${printCount(rows.length, 'visit')}.`;
};
/** Visits that one statement leaves out; empty for none. */
export const beyondWords = (beyond: number): string =>
  beyond > 0 ? `Left out: ${printCount(beyond, 'more visit')}, as no statement holds so many. Ask for a month.` : '';

/** By whom a bill is, its number and state; of those that say nothing of it, whether a receipt is there. */
export const billWords = (r: Pick<StatementRow, 'bills' | 'receipts'>): string =>
  r.bills.length === 0
    ? 'no bill'
    : r.bills.map((b) => [b.payee, b.ref, b.state === 'charged' ? null : b.state].filter(Boolean).join(', ')).join('; ') ||
      (r.receipts === 0 ? 'no receipt' : printCount(r.receipts, 'receipt'));

/** When and by whom the books of its months were closed. @param zone the household's */
export const closedWords = (period: string, closed: readonly { month: string; at: number; by: string }[], zone: string): string =>
  closed.map((m) => `${period.length === 4 ? `${printMonth(m.month)} closed` : 'Closed'} on ${printDate(m.at, zone)} by ${m.by}`).join('; ');

/** A visit by its day and place. */
export const dayAndPlace = (r: Pick<StatementRow, 'day' | 'place'>): string => `${printSeen(r.day)} ${r.place}`;

/** What changed of a visit since its month was closed, and what that adds to the sum. */
export const changeWords = ({ what, by }: Pick<ClosedChange, 'what' | 'by'>): string =>
  `${what.join('; ')}${by.length > 0 ? ` (${by.map((x) => `${Number(x.amount) > 0 ? '+' : ''}${printMoney(x.amount, x.currency)}`).join(', ')})` : ''}`;

export const NOTHING_OPEN = 'Nothing: every charge has its bill, every bill its receipt, and none waits for an answer.';
/** What of a statement is still to be done: of which rows, in which words. */
export const OPEN_KINDS = [
  ['open', 'with a bill that is pending or queried'],
  ['noBill', 'charged, and no bill'],
  ['noReceipt', 'billed, and no receipt'],
] as const satisfies readonly (readonly [keyof Statement, string])[];
export const OF_STATEMENTS =
  'Sums are of one currency each. Tax is that of the bills that say it. What is private to somebody else is told by its car, kWh and money alone.';
