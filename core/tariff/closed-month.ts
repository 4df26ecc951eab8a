import Big from 'big.js';
import * as z from '@/core/units/schema';
import { printMoney } from '../units/money';
import { printCount, printKWh } from '../units/print';
import { type StatementBill, type StatementRow, wordsOfUse } from './statement';

/** What of a visit came to a closed month since: it is new, is gone, or differs, and how. `by`: what that adds to its sum, by currency. */
export type ClosedChange = { visitId: string; day: string; place: string; hidden: boolean; what: string[]; by: { currency: string; amount: string }[] };

const paidIn = (row: StatementRow | undefined): Map<string, Big> => {
  const sums = new Map<string, Big>();
  for (const b of row?.bills ?? []) sums.set(b.currency, (sums.get(b.currency) ?? new Big(0)).plus(b.amount));
  return sums;
};
const billSaid = (b: StatementBill): string =>
  [printMoney(b.amount, b.currency), b.tax === null ? '' : `tax ${printMoney(b.tax, b.currency)}`, b.state === 'charged' ? '' : b.state]
    .filter(Boolean)
    .join(', ');
const billsSaid = (r: StatementRow): string => (r.bills.length === 0 ? 'no bill' : r.bills.map(billSaid).join('; '));

/** What is told of a row beside its bills; names of cars, people and places may be written otherwise without any change to the books. */
const SAID: readonly [name: string, of: (r: StatementRow) => string][] = [
  ['paid', billsSaid],
  ['energy', (r) => (r.kWh === null ? 'not known' : printKWh(r.kWh))],
  ['use', (r) => wordsOfUse(r.as).toLowerCase()],
  ['day', (r) => r.day],
  ['receipts', (r) => printCount(r.receipts, 'receipt')],
];

/**
 * What changed of a month since its books were closed, in the order of the days.
 * @param then the rows as they were closed @param now as the ledger has them, of visits that are in the month or were
 */
export function changesToClosed(then: readonly StatementRow[], now: readonly StatementRow[]): ClosedChange[] {
  const [before, after] = [new Map(then.map((r) => [r.visitId, r])), new Map(now.map((r) => [r.visitId, r]))];
  const ids = [...new Set([...before.keys(), ...after.keys()])];
  return ids
    .flatMap((visitId): ClosedChange[] => {
      const [was, is] = [before.get(visitId), after.get(visitId)];
      const row = (is ?? was) as StatementRow;
      const what = !was
        ? [`came later: ${billsSaid(row)}`]
        : !is
          ? [`is no longer in it: it had ${billsSaid(was)}`]
          : SAID.flatMap(([name, of]) => (of(was) === of(is) ? [] : [`${name} ${of(is)}, was ${of(was)}`]));
      if (what.length === 0) return [];
      const [sumThen, sumNow] = [paidIn(was), paidIn(is)];
      const by = [...new Set([...sumThen.keys(), ...sumNow.keys()])].sort().flatMap((currency) => {
        const more = (sumNow.get(currency) ?? new Big(0)).minus(sumThen.get(currency) ?? new Big(0));
        return more.eq(0) ? [] : [{ currency, amount: more.toString() }];
      });
      return [{ visitId, day: row.day, place: row.place, hidden: row.hidden, what, by }];
    })
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.visitId < b.visitId ? -1 : 1));
}

/** What the page sends to close a month. */
export const closeForm = z.object({ month: z.string().check(z.regex(/^20\d\d-(0[1-9]|1[0-2])$/, 'A month such as 2025-10')) });

/** Whether a month is over, so that its books can be closed. @param today `2025-11-02` */
export const isOver = (month: string, today: string): boolean => month < today.slice(0, 7);
