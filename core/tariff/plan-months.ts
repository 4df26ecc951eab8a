import { minorDigits } from '../units/money';
import { printMonth } from '../units/zoned';
import { sumOfBills } from './bill-words';
import { breakEven } from './break-even';
import { type ChargedAttempt, visitBills } from './charged-visit';
import { decimal } from './exact';
import { plainOfObject } from './plain-price';
import { compiledOf, objectOf } from './tariff-object';
import type { KeptTariff } from './tariff-on';

/** A visit that a plan would have been of: its day's prices as a guest and with the plan. Decimal kWh; `month` by the clock of the place. */
export type PlanVisit = { month: string; attempts: readonly ChargedAttempt[]; guest: KeptTariff; member: KeptTariff };
/** A month: what its visits cost as a guest and with the plan, its fee in; what the plan saved, less than nothing where it cost more. To the currency’s smallest coin. */
export type PlanMonth = { month: string; visits: number; kWh: number; guest: number; plan: number; saved: number; held: boolean };

/**
 * The months of which every visit is looked at; the newest alone where not even that is.
 * @param months in order, `2025-10` @param oldest the month of the oldest visit that is looked at @param beyond how many older ones are not
 */
export function wholeMonths(months: readonly string[], oldest: string | null, beyond: number): readonly string[] {
  if (beyond === 0 || oldest === null) return months;
  const whole = months.filter((month) => month > oldest);
  return whole.length > 0 ? whole : months.slice(-1);
}

/**
 * What a plan would have saved, month by month; a month without visits costs its fee.
 * @param visits priced in the currency of the fee @param months in order, `2025-10` @param heldIn whether it was held in a month
 */
export function planMonths(
  visits: readonly PlanVisit[],
  months: readonly string[],
  fee: { monthlyFee: number; currency: string },
  heldIn: (month: string) => boolean,
): PlanMonth[] {
  const coins = 10 ** minorDigits(fee.currency);
  const rounded = (n: number) => Math.round(n * coins) / coins;
  return months.map((month) => {
    const own = visits.filter((v) => v.month === month);
    const cost = (tariff: (v: PlanVisit) => KeptTariff): number =>
      own.reduce((sum, v) => {
        const bills = visitBills(compiledOf(tariff(v)), v.attempts);
        return sum + (bills.known ? Number(sumOfBills(bills.value, true)) : 0);
      }, 0);
    const [guest, member] = [cost((v) => v.guest), cost((v) => v.member)];
    const plan = rounded(member + fee.monthlyFee);
    return {
      month,
      visits: own.length,
      kWh: own.reduce((s, v) => s + v.attempts.reduce((t, a) => t + Number(a.kWh), 0), 0),
      guest: rounded(guest),
      plan,
      saved: rounded(guest - plan),
      held: heldIn(month),
    };
  });
}

/** Whether a visit can be priced both ways. */
export const pricedBothWays = (v: PlanVisit): boolean =>
  visitBills(compiledOf(v.guest), v.attempts).known && visitBills(compiledOf(v.member), v.attempts).known;

/** The last twelve months up to one, in order. */
export function twelveMonths(last: string): string[] {
  const [year, month] = last.split('-').map(Number) as [number, number];
  return Array.from({ length: 12 }, (_, i) => new Date(Date.UTC(year, month - 12 + i, 15)).toISOString().slice(0, 7));
}

/** From how many kWh a month a plan pays, where both prices are so much per kWh and nothing else; `null`: it cannot be said so simply. */
export function paysFrom(guest: KeptTariff, member: KeptTariff, monthlyFee: number): string | null {
  const plain = (t: KeptTariff) => {
    const { tariff, extra } = objectOf(t);
    const p = plainOfObject(tariff, extra);
    return p && p.perKWh !== '' && p.windows.length === 0 && p.byPower.length === 0 && p.perMin === '' && p.taxOnTop === '' ? Number(p.perKWh) : null;
  };
  const [a, b] = [plain(guest), plain(member)];
  if (a === null || b === null) return null;
  const { crossings, inTheLimit } = breakEven({ price_per_kwh: a }, { price_per_kwh: b, monthly_fee: monthlyFee });
  const [first] = crossings;
  return first && inTheLimit === 'b' ? decimal(first, 0) : null;
}

/** One sentence: from when on it pays, in how many months it would have, and whether it did in the last that it was held. @param money prints an amount */
export function planSentence(months: readonly PlanMonth[], from: string | null, money: (amount: number) => string): string {
  const would = months.filter((m) => m.saved > 0).length;
  if (months.every((m) => m.visits === 0)) return 'No visit of these months was where it holds.';
  const last = months.findLast((m) => m.held);
  const sum = months.reduce((s, m) => s + m.saved, 0);
  return [
    from === null ? '' : `Pays from ${from} kWh a month.`,
    `In ${would} of ${months.length} months it would have paid: ${money(Math.abs(sum))} ${sum < 0 ? 'more spent' : 'saved'} over all of them.`,
    last
      ? `In ${printMonth(last.month)} it ${last.saved === 0 ? 'made no difference' : `${last.saved > 0 ? 'did' : 'did not'}, by ${money(Math.abs(last.saved))}`}.`
      : '',
  ]
    .filter(Boolean)
    .join(' ');
}
