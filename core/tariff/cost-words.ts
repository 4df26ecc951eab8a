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

/** What a charge has cost so far in one line, and when its price changes. @param member the same for those who hold a plan, with what it is called @param zone of the place */
export function costWords(c: CostSoFar, member: { cost: CostSoFar; name: string } | null, zone: string): string {
  const withPlan = member ? `, ${printMoney(member.cost.total, member.cost.currency)} with ${member.name}` : '';
  const next = c.next ? ` From ${printTime(c.next.at, zone)} ${pricesText(c.next.prices, c.now, c.currency)}.` : '';
  return `By tariff about ${printMoney(c.total, c.currency)}${withPlan} so far.${next}`;
}
