import { printMoney } from '../units/money';
import { printKWh } from '../units/print';
import { printDate, printTime } from '../units/zoned';
import type { Explanation } from './bill-check';

/** What a query is written from. Amounts are decimal strings; times UTC ms. */
export type BillQuery = {
  network: string;
  site: string;
  stall: string;
  zone: string;
  from: number | null;
  to: number | null;
  kWh: string | null;
  /** Of which only the day is known: `from` stands for order. */
  dayOnly?: boolean;
  /** Who says the kWh; the stall where it is not said. */
  kWhBy?: 'stall' | 'receipt';
  charged: string;
  expected: string;
  currency: string;
  bills: readonly { amount: string; currency: string; ref: string | null }[];
  lines: readonly { label: string; how: string; amount: string }[];
  explanations: readonly Explanation[];
};

/**
 * A plain message to whoever billed it: what was charged, what the price says line by line, what would explain it. A draft: the driver reads it, changes it and
 * sends it. It names no person and no card.
 */
export function draftQuery(q: BillQuery): string {
  const money = (amount: string) => printMoney(amount, q.currency);
  const when =
    q.from === null
      ? ''
      : q.dayOnly
        ? ` on ${printDate(q.from, q.zone)}`
        : ` on ${printDate(q.from, q.zone)}${q.to === null ? ` at ${printTime(q.from, q.zone)}` : ` from ${printTime(q.from, q.zone)} to ${printTime(q.to, q.zone)}`}`;
  const refs = q.bills.flatMap((b) => (b.ref ? [b.ref] : []));
  const [likely] = q.explanations;
  return [
    `To ${q.network}`,
    '',
    `I charged at ${q.site}${q.stall ? `, stall ${q.stall}` : ''}${when}${q.kWh === null ? '' : `, ${printKWh(q.kWh)} by the ${q.kWhBy ?? 'stall'}`}.`,
    `I was charged ${money(q.charged)}${refs.length > 0 ? ` (${refs.join(', ')})` : ''}. By your price it should be ${money(q.expected)}${q.lines.length > 0 ? ':' : '.'}`,
    ...q.lines.map((l) => `- ${l.label}${l.how ? `, ${l.how}` : ''}: ${money(l.amount)}`),
    '',
    ...(likely ? [likely.text, ''] : []),
    'Please check this bill and refund the difference, or tell me how it comes about.',
  ].join('\n');
}
