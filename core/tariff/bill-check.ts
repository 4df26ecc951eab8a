import Big from 'big.js';
import { minorDigits, printMoney } from '../units/money';
import { printKWh } from '../units/print';
import type { Bill } from './bill';
import { sumOfBills } from './bill-words';
import { type ChargedAttempt, visitBills } from './charged-visit';
import type { CompiledTariff } from './compiled-tariff';
import { decimal } from './exact';

/** What could explain why a bill is not what the price on file says. */
export const CAUSES = [
  'member_price',
  'start_twice',
  'failed_billed',
  'other_kwh',
  'idle_or_overstay',
  'tax_missing',
  'tax_twice',
  'rounding',
  'wrong_stall',
  'other_price',
] as const;
export type Cause = (typeof CAUSES)[number];
/** A cause that would give the amount charged, with its arithmetic. `fit`: to the cent, or about. */
export type Explanation = { cause: Cause; text: string; fit: 'exact' | 'about' };

/** What is known of a bill. Amounts are decimal strings in the currency of the tariff, tax in. */
export type BillFacts = {
  tariff: CompiledTariff;
  attempts: readonly ChargedAttempt[];
  /** Tries without power. */
  failed: number;
  charged: string;
  /** Each session was billed by itself. */
  apart: boolean;
  /** kWh on the bills, where each says some. */
  billedKWh: string | null;
  /** Other prices on file that day: as guest, with a plan, elsewhere; what each is called. */
  asGuest: CompiledTariff | null;
  elsewhere: readonly { name: string; tariff: CompiledTariff }[];
  /** Price per kWh as somebody noted it from the post or the app, tax in. */
  shownPerKWh: string | null;
};

/** A meter may be off by so much, and a display counts in steps. Class A of EN 50470-3 allows 2 %; from memory. */
const METER_SHARE = 0.02;
const DISPLAY_STEP_KWH = 0.1;
/** What an AC-side meter reads above the DC the car got. Common practice, no source. */
const AC_ABOVE: readonly [number, number] = [0.05, 0.08];

/** What is said of two figures of energy: nothing within what meter and display allow. */
export function kWhDifference(delivered: string, billed: string): 'same' | 'ac_side' | 'other' {
  const d = new Big(delivered);
  const above = new Big(billed).minus(d);
  if (above.abs().lte(d.times(METER_SHARE).plus(DISPLAY_STEP_KWH))) return 'same';
  return above.gte(d.times(AC_ABOVE[0])) && above.lte(d.times(AC_ABOVE[1])) ? 'ac_side' : 'other';
}

const ofKind = (bills: readonly Bill[], ...kinds: string[]): Big =>
  bills
    .flatMap((b) => b.lines)
    .filter((l) => kinds.includes(l.of))
    .reduce((s, l) => s.plus(decimal(l.incl, 6)), new Big(0));
/** The same sessions with other energy, spread as it was. */
function withKWh(attempts: readonly ChargedAttempt[], kWh: Big): ChargedAttempt[] {
  const all = attempts.reduce((s, a) => s.plus(a.kWh), new Big(0));
  if (all.eq(0)) return [...attempts];
  return attempts.map((a) => ({
    ...a,
    session: { ...a.session, periods: a.session.periods.map((p) => ({ ...p, kwh: Number(new Big(p.kwh).times(kWh).div(all).toFixed(6)) })) },
  }));
}

/**
 * What a known cause would have made of the bill, and whether that is what was charged: a likelihood, not a verdict. Those that fit to the cent come first.
 * @returns nothing where what was charged is what was expected
 */
export function explainBill(facts: BillFacts): Explanation[] {
  const { tariff, attempts, currency } = { ...facts, currency: facts.tariff.currency };
  const priced = visitBills(tariff, attempts);
  if (!priced.known) return [];
  const bills = priced.value;
  const sum = (of: readonly Bill[]): Big => new Big(sumOfBills(of, facts.apart));
  const [expected, charged] = [sum(bills), new Big(facts.charged)];
  const difference = charged.minus(expected);
  if (difference.eq(0)) return [];
  const cent = new Big(10).pow(-minorDigits(currency));
  const money = (b: Big) => printMoney(b.toString(), currency);
  const out: Explanation[] = [];
  const offer = (cause: Cause, would: Big, text: string) => {
    const off = would.minus(charged).abs();
    if (off.lte(cent)) out.push({ cause, text, fit: 'exact' });
    else if (off.lte(expected.times(0.005)) && off.lt(difference.abs())) out.push({ cause, text, fit: 'about' });
  };
  const totalBy = (t: CompiledTariff, of: readonly ChargedAttempt[] = attempts): Big | null => {
    const p = visitBills(t, of);
    return p.known && t.currency === currency ? sum(p.value) : null;
  };
  const guest = facts.asGuest ? totalBy(facts.asGuest) : null;
  if (guest) offer('member_price', guest, `The price for guests was taken: ${money(guest)} instead of ${money(expected)} with your plan.`);
  const start = ofKind(bills, 'FLAT').div(bills.length);
  if (start.gt(0)) {
    offer('start_twice', expected.plus(start), `The start fee was taken once more: ${money(expected)} + ${money(start)} = ${money(expected.plus(start))}.`);
    if (facts.failed > 0)
      offer(
        'failed_billed',
        expected.plus(start.times(facts.failed)),
        `${facts.failed === 1 ? 'The try' : `The ${facts.failed} tries`} without power cost a start fee each: ${money(expected)} + ${facts.failed} × ${money(start)} = ${money(expected.plus(start.times(facts.failed)))}.`,
      );
  }
  const delivered = attempts.reduce((s, a) => s.plus(a.kWh), new Big(0));
  if (facts.billedKWh !== null && kWhDifference(delivered.toString(), facts.billedKWh) !== 'same') {
    const by = totalBy(tariff, withKWh(attempts, new Big(facts.billedKWh)));
    const ac = kWhDifference(delivered.toString(), facts.billedKWh) === 'ac_side' ? ' A meter on the AC side reads 5 to 8 % more than the car gets.' : '';
    if (by) offer('other_kwh', by, `${printKWh(facts.billedKWh)} were billed, ${printKWh(delivered.toString())} read: at the same price ${money(by)}.${ac}`);
  }
  const extras = ofKind(bills, 'X_IDLE', 'X_OVERSTAY', 'PARKING_TIME');
  if (extras.gt(0)) offer('idle_or_overstay', expected.minus(extras), `Without the ${money(extras)} for standing on: ${money(expected.minus(extras))}.`);
  const { idle_fee: idle, overstay_fee: over } = tariff.extra;
  if (over && ofKind(bills, 'X_OVERSTAY').eq(0))
    offer(
      'idle_or_overstay',
      expected.plus(over.fee),
      `The overstay fee was taken: ${money(expected)} + ${money(new Big(over.fee))}, though the car stood less than ${over.after_minutes} min.`,
    );
  for (const rate of idle?.rates ?? [])
    if (difference.gt(0) && rate.price_per_min > 0) {
      const minutes = difference.div(rate.price_per_min);
      if (minutes.minus(minutes.round()).abs().lte(0.01) && minutes.lte(600))
        out.push({
          cause: 'idle_or_overstay',
          text: `${minutes.round().toString()} more idle minutes at ${money(new Big(rate.price_per_min))} make the ${money(difference)}.`,
          fit: 'about',
        });
    }
  const excl = new Big(bills.reduce((s, b) => s.plus(decimal(b.total.excl, 6)), new Big(0)));
  if (excl.gt(0) && bills.some((b) => !b.total.excl.equals(b.total.incl))) {
    offer('tax_missing', excl, `Tax is missing: ${money(expected)} are ${money(excl)} without it.`);
    const twice = expected.times(expected).div(excl);
    offer('tax_twice', twice, `Tax was added twice: ${money(expected)} and once more the same share is ${money(twice)}.`);
  }
  if (difference.abs().lte(cent.times(Math.max(1, 2 * bills.length))))
    out.push({ cause: 'rounding', text: `${money(difference.abs())} apart: lines rounded one by one can differ by so much.`, fit: 'exact' });
  if (facts.shownPerKWh !== null) {
    const energy = ofKind(bills, 'ENERGY');
    const would = expected.minus(energy).plus(delivered.times(facts.shownPerKWh));
    offer('other_price', would, `At ${facts.shownPerKWh} per kWh, as it was noted on the spot, it is ${money(would)}: the price on file may be out of date.`);
  }
  for (const { name, tariff: other } of facts.elsewhere) {
    const would = totalBy(other);
    if (would) offer('wrong_stall', would, `At ${name} the same would cost ${money(would)}: the bill may be for another stall.`);
  }
  const order = (e: Explanation) => (e.fit === 'exact' ? 0 : 1) * CAUSES.length + CAUSES.indexOf(e.cause);
  // One cause is said once, as it fits best.
  return out.sort((a, b) => order(a) - order(b)).filter((e, i, all) => all.findIndex((f) => f.cause === e.cause) === i);
}
