import { useEffect, useMemo, useState } from 'react';
import { phoneNow } from '@/client/touch/touch-time';
import { fetchedLater } from '@/client/visit-session/fetched-later';
import type { BillInHand } from '@/core/tariff/charged-visit';
import { printMoney } from '@/core/units/money';
import type { Live, LiveFacts } from './live-facts';

const parts = fetchedLater(() => import('./advice-parts'));

/** What the price on file says of this visit; amounts are decimal strings, `null` where it cannot say. */
export type Pricing = {
  /** What the stall's screen should say at so many kWh. */
  screen: (kWh: string) => string | null;
  /** What a bill should come to, and in print. */
  bill: (bill: BillInHand) => { amount: string; text: string } | null;
};

/** @returns `null` while its part is not on the phone, or no price is on file: nothing is said of sums until then */
export function usePricing(visit: Live['visit'], tariff: LiveFacts['tariff']): Pricing | null {
  const [money, setMoney] = useState<Awaited<ReturnType<typeof parts>> | null>(null);
  useEffect(() => {
    parts().then(setMoney, () => {});
  }, []);
  return useMemo(() => {
    if (!money || !tariff) return null;
    const t = money.compiledOf(tariff);
    return {
      screen: (kWh) => money.screenCost(t, visit, kWh, phoneNow()),
      bill: (bill) => {
        const amount = money.billCost(t, visit, bill);
        return amount === null ? null : { amount, text: printMoney(amount, tariff.currency) };
      },
    };
  }, [money, tariff, visit]);
}
