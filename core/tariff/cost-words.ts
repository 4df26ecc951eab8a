import { printMoney, printPerKWh } from '../units/money';
import { printSeen, printTime } from '../units/zoned';
import type { CostNext, CostSoFar, PricesFrom, PricesNow } from './cost-so-far';

function pricesText(p: PricesNow, before: PricesNow, currency: string): string {
  const some = [
    p.perKWh !== null && p.perKWh !== before.perKWh ? `${printPerKWh(p.perKWh, currency)} per kWh` : '',
    p.perMin !== null && p.perMin !== before.perMin ? `${printPerKWh(p.perMin, currency)} per minute` : '',
    p.perKWh === null && before.perKWh !== null ? 'nothing per kWh' : '',
    p.perMin === null && before.perMin !== null ? 'nothing per minute' : '',
  ];
  return some.filter(Boolean).join(' and ');
}

/** What comes next, in one sentence: other prices from then on, or a fee that is asked once. */
function nextText({ at, prices, fee }: CostNext, before: PricesNow, currency: string, zone: string): string {
  const changed = pricesText(prices, before, currency);
  const once = fee === null ? '' : `${printMoney(fee, currency)} more, once`;
  return `From ${printTime(at, zone)} ${[changed, once].filter(Boolean).join(' and ')}.`;
}

/** Of whom a sum or a price is: guests, or those who pay by a plan or through a provider, with what it is called. */
export type CostAs = { cost: CostSoFar; by: string | null };
const withName = (by: string | null): string => (by === null ? '' : ` with ${by}`);

/** What a visit has cost so far in one line, and what comes next by the price of the first; `null` where no sum is known. @param zone of the place */
export function costWords(costs: readonly CostAs[], zone: string): string | null {
  const [first] = costs;
  if (!first) return null;
  const { next, now, currency } = first.cost;
  const sums = costs.map(({ cost, by }) => `${printMoney(cost.total, cost.currency)}${withName(by)}`);
  return `By tariff about ${sums.join(', ')} so far.${next ? ` ${nextText(next, now, currency, zone)}` : ''}`;
}

/** Of which price it is said: from which day it is on file, an ISO date, and whose, `null` for guests. */
type OnFile = { currency: string; since: string; by: string | null };
/** What is asked of a charge that begins now, with the age of the price: "€0.550/kWh and €0.050/min, €1.00 per start since 1 Mar 2026". */
export function priceNowWords({ now, next, start }: PricesFrom, { currency, since, by }: OnFile, zone: string): string {
  const listed = (p: PricesNow) =>
    [p.perKWh === null ? '' : `${printPerKWh(p.perKWh, currency)}/kWh`, p.perMin === null ? '' : `${printPerKWh(p.perMin, currency)}/min`]
      .filter(Boolean)
      .join(' and ');
  const first = listed(now) || (next && listed(next.prices) ? `${listed(next.prices)} from ${printTime(next.at, zone)}` : start === null ? 'free' : '');
  const all = [first, start === null ? '' : `${printMoney(start, currency)} per start`].filter(Boolean).join(', ');
  return `${all}${withName(by)} since ${printSeen(since)} ${since.slice(0, 4)}`;
}
