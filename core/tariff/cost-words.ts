import { printMoney, printPerKWh } from '../units/money';
import { printTime } from '../units/zoned';
import type { CostSoFar, PricesNow } from './cost-so-far';

function pricesText(p: PricesNow, before: PricesNow, currency: string): string {
  const some = [
    p.perKWh !== null && p.perKWh !== before.perKWh ? `${printPerKWh(p.perKWh, currency)} per kWh` : '',
    p.perMin !== null && p.perMin !== before.perMin ? `${printPerKWh(p.perMin, currency)} per minute` : '',
    p.perKWh === null && before.perKWh !== null ? 'nothing per kWh' : '',
    p.perMin === null && before.perMin !== null ? 'nothing per minute' : '',
  ];
  return some.filter(Boolean).join(' and ');
}

/** Of whom a sum is: guests, or those who hold a plan, with what it is called. */
export type CostAs = { cost: CostSoFar; plan: string | null };

/** What a charge has cost so far in one line, and when the price of the first changes; `null` where no sum is known. @param zone of the place */
export function costWords(costs: readonly CostAs[], zone: string): string | null {
  const [first] = costs;
  if (!first) return null;
  const { next, now, currency } = first.cost;
  const sums = costs.map(({ cost, plan }) => `${printMoney(cost.total, cost.currency)}${plan === null ? '' : ` with ${plan}`}`);
  return `By tariff about ${sums.join(', ')} so far.${next ? ` From ${printTime(next.at, zone)} ${pricesText(next.prices, now, currency)}.` : ''}`;
}
