import type { Visit } from './derive';
import { holdsOf } from './holds';

export const OPEN_MONEY = ['no_bill', 'pending', 'queried', 'differs', 'hold'] as const;
export type OpenMoney = (typeof OPEN_MONEY)[number];

/** A difference that somebody has looked into is not open any more. */
export const SEEN_TO: ReadonlySet<string> = new Set(['checked', 'settled', 'queried', 'refunded']);

/** What of a visit's money waits for an answer, by its own record: a charge without a bill, a bill that is pending or queried, one of which something else was brought in than was noted, a hold that nobody said was released. */
export function openMoney(v: Pick<Visit, 'line' | 'zone' | 'bills' | 'billsAgain' | 'ended'>): OpenMoney[] {
  const is: Record<OpenMoney, boolean> = {
    no_bill: v.ended === 'charge' && !v.bills.some((b) => b.payload.what !== 'parking'),
    pending: v.bills.some((b) => b.payload.state === 'pending'),
    queried: v.bills.some((b) => b.payload.state === 'queried'),
    differs: v.billsAgain.some((a) => a.how === 'other') && !v.bills.some((b) => SEEN_TO.has(b.payload.state)),
    hold: holdsOf(v, '').some((h) => h.released === null),
  };
  return OPEN_MONEY.filter((what) => is[what]);
}
