import { type ClosedChange, changesToClosed, isOver } from '@/core/tariff/closed-month';
import { type Exchanged, inOneCurrency } from '@/core/tariff/exchange';
import { type Statement, type StatementRow, statement } from '@/core/tariff/statement';
import { localDay } from '@/core/units/zoned';
import { membersOf } from '../accounts/members';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { recordsOf } from '../records/record-tables';
import { type ClosedMonth, closedMonths } from './closed-months';
import { statementRows } from './statement-rows';

export type StatementPage = {
  statement: Statement;
  /** Visits that are not in it for being too many. */
  beyond: number;
  /** What all of it comes to in the household's currency by the rates that were noted; `null`: it is all of one currency. */
  inOne: (Exchanged & { into: string }) | null;
  closed: { month: string; at: number; by: string }[];
  /** What changed of closed months since. */
  changes: ClosedChange[];
  /** A month of the period whose books can be closed now, by this person. */
  canClose: string | null;
};

/** What a household paid in a month, `2025-10`, or a year. A closed month is told as it was closed, with what changed since beside it. */
export async function statementPage(who: SignedIn, period: string): Promise<StatementPage> {
  const { householdId } = who;
  const [live, closed, people, rates] = await Promise.all([
    statementRows(who, period),
    closedMonths(who, period),
    membersOf(householdId),
    recordsOf(householdId, 'rate'),
  ]);
  const { rows, changes } = closed.length === 0 ? { rows: live.rows, changes: [] } : asClosed(live.rows, closed);
  const said = statement(rows);
  const amounts = rows.flatMap((r) => r.bills.map((b) => ({ amount: b.amount, currency: b.currency, day: r.day, came: b.came })));
  const inOne = amounts.some((a) => a.currency !== who.currency)
    ? {
        ...inOneCurrency(
          amounts,
          who.currency,
          rates.filter((r) => !r.archived).map((r) => r.fields),
        ),
        into: who.currency,
      }
    : null;
  const open = period.length === 7 && closed.length === 0 && isOver(period, localDay(now(), who.zone)) && said.rows.length > 0;
  return {
    statement: said,
    beyond: live.beyond,
    inOne,
    closed: closed.map((m) => ({ month: m.month, at: m.closedAt, by: people.find((p) => p.personId === m.closedBy)?.name ?? 'somebody else' })),
    changes,
    canClose: open && who.role === 'owner' ? period : null,
  };
}

/** The rows with those of closed months as they were closed, and what differs. @param live as this person sees them @param closed likewise */
function asClosed(live: readonly StatementRow[], closed: readonly ClosedMonth[]): { rows: StatementRow[]; changes: ClosedChange[] } {
  const months = new Set(closed.map((m) => m.month));
  const inClosed = (r: StatementRow) => months.has(r.day.slice(0, 7));
  const own = new Map(live.filter((r) => !r.hidden).map((r) => [r.visitId, r]));
  // Books are closed as nobody in particular: what was private then has its place for whom it is private to.
  const then = closed
    .flatMap((m) => m.rows)
    .map((r) => (r.hidden && own.has(r.visitId) ? { ...r, place: own.get(r.visitId)?.place ?? r.place, hidden: false } : r));
  return { rows: [...live.filter((r) => !inClosed(r)), ...then], changes: changesToClosed(then, live.filter(inClosed)) };
}
