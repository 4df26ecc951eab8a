import { attemptsNamed, forCharging } from '@/core/visit/billed';
import type { Visit } from '@/core/visit/derive';

/** What a bill says was paid. Amounts are decimals as text. */
export type Paid = { amount: string; currency: string };

/** What bills for charging say was paid for an attempt, or for the whole visit, refunds apart. @param by `person`: what somebody noted alone, not what was brought in */
export function paidFor(v: Visit, n: number, by?: 'person'): Paid[] {
  return forCharging(v.bills).flatMap(({ origin, payload: { sessions, state, amount, currency } }) => {
    if (state === 'refunded' || (by && origin === 'imported')) return [];
    const named = attemptsNamed(sessions, v.attempts, v.line);
    return named.length === 0 || named.includes(n) ? [{ amount, currency }] : [];
  });
}
