import Big from 'big.js';
import type { RecordFields } from '../records/record-schema';
import { printMoney, toMinor } from '../units/money';
import { printCount } from '../units/print';
import { printSeen } from '../units/zoned';

export type Rate = Pick<RecordFields<'rate'>, 'currency' | 'into' | 'rate' | 'on'>;

/**
 * The rate that holds on a day: the last that was noted on or before it, as it is written; a rate the other way round is not turned, since banks' are not the
 * same both ways. @param day `2025-10-14`
 */
export const rateOn = (rates: readonly Rate[], currency: string, into: string, day: string): Rate | undefined =>
  rates.filter((r) => r.currency === currency && r.into === into && r.on <= day).sort((a, b) => (a.on < b.on ? 1 : -1))[0];

/** `came`: what it came to on the account in the one currency: no rate is needed. */
export type Amount = { amount: string; currency: string; day: string; came?: string | null };
/** What amounts come to in one currency, with every rate that was used; `null`: some have none, and which. */
export type Exchanged = { sum: string; rates: Rate[]; came: number } | { sum: null; missing: { currency: string; day: string } };

/**
 * Amounts of several currencies in one, each by the rate of its own day, added up exactly and rounded once to the minor unit.
 * @returns without a sum where a rate is missing: a sum that leaves some out would be taken for all
 */
export function inOneCurrency(amounts: readonly Amount[], into: string, rates: readonly Rate[]): Exchanged {
  const used = new Set<Rate>();
  let sum = new Big(0);
  let came = 0;
  for (const a of amounts) {
    if (a.currency === into) {
      sum = sum.plus(a.amount);
      continue;
    }
    if (a.came != null) {
      sum = sum.plus(a.came);
      came += 1;
      continue;
    }
    const rate = rateOn(rates, a.currency, into, a.day);
    if (!rate) return { sum: null, missing: { currency: a.currency, day: a.day } };
    used.add(rate);
    sum = sum.plus(new Big(a.amount).times(rate.rate));
  }
  return {
    sum: toMinor(sum, into),
    came,
    rates: [...used].sort((a, b) => (a.currency < b.currency ? -1 : a.currency > b.currency ? 1 : a.on < b.on ? -1 : 1)),
  };
}

const dated = (day: string) => `${printSeen(day)} ${day.slice(0, 4)}`;

/** The sum in one currency with the rates beside it, or why there is none. */
export const inOneWords = (x: Exchanged & { into: string }): string =>
  x.sum === null
    ? `No sum in ${x.into}: no rate for ${x.missing.currency} is noted on or before ${dated(x.missing.day)}. Exchange rates are kept in the garage.`
    : `All of it in ${x.into}: ${printMoney(x.sum, x.into)}, ${[
        x.rates.length > 0 ? `by ${x.rates.map((r) => `1 ${r.currency} = ${r.rate} ${r.into} of ${dated(r.on)}`).join(', ')}` : '',
        x.came > 0 ? `${printCount(x.came, 'bill')} as ${x.came === 1 ? 'it' : 'they'} came to the account` : '',
      ]
        .filter(Boolean)
        .join(', ')}, as noted.`;
