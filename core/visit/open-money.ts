import type { Visit } from './derive';
import { holdsOf } from './holds';

export const OPEN_MONEY = ['no_bill', 'pending', 'queried', 'hold'] as const;
export type OpenMoney = (typeof OPEN_MONEY)[number];

/** What of a visit's money waits for an answer, by its own record: a charge without a bill, a bill that is pending or queried, a hold that nobody said was released. */
export function openMoney(v: Pick<Visit, 'line' | 'zone' | 'bills' | 'ended'>): OpenMoney[] {
  const is: Record<OpenMoney, boolean> = {
    no_bill: v.ended === 'charge' && !v.bills.some((b) => b.payload.what !== 'parking'),
    pending: v.bills.some((b) => b.payload.state === 'pending'),
    queried: v.bills.some((b) => b.payload.state === 'queried'),
    hold: holdsOf(v, '').some((h) => h.released === null),
  };
  return OPEN_MONEY.filter((what) => is[what]);
}
