import { minorDigits, printMoney } from '../units/money';
import { billOf, cannotPrice } from './bill';
import { sumOfBills } from './bill-words';
import { type BillInHand, chargedAttempts, chargedUntil, type PricedVisit, visitBills } from './charged-visit';
import { type CompiledTariff, compileTariff } from './compiled-tariff';
import { runningSession } from './cost-so-far';
import { decimal } from './exact';
import { exampleStop } from './example-stop';
import type { PriceObject } from './price-draft';
import { priceQuestions } from './price-questions';

/**
 * What a stall's screen should say of the session that runs, with so many kWh on it.
 * @param kWh a decimal string, as it is typed @param at UTC ms, now
 * @returns a decimal string, tax in; `null` where nothing runs, or the tariff cannot price it
 */
export function screenCost(t: CompiledTariff, v: PricedVisit, kWh: string, at: number): string | null {
  const last = v.attempts.at(-1);
  if (!last?.proof || chargedUntil(last) !== null) return null;
  const session = runningSession(v, { ...last, proof: last.proof }, Math.max(at, last.proof.t), kWh);
  return cannotPrice(t, session).length > 0 ? null : decimal(billOf(t, session).total.incl, minorDigits(t.currency));
}

/**
 * What a bill should come to, by the whole of the tariff.
 * @param bill for which attempts, none: the whole visit
 * @returns a decimal string to the minor unit, tax in; `null` where kWh or times are missing, or the tariff cannot price it
 */
export function billCost(t: CompiledTariff, v: PricedVisit, bill: BillInHand): string | null {
  const numbers = bill.attempts.length > 0 ? bill.attempts : v.attempts.map((a) => a.n);
  const attempts = chargedAttempts(v, { ...bill, attempts: numbers });
  const bills = attempts.known ? visitBills(t, attempts.value) : attempts;
  return bills.known ? sumOfBills(bills.value, false) : null;
}

/** A price while it is typed: what one stop would cost by it, in print, `null` where it cannot say, and what looks odd about it. */
export type PriceTried = { cost: string | null; questions: string[] };
/** Tries a price. @param at UTC ms, when the stop begins @param day from which it is looked at, ISO */
export function tryPrice({ tariff, extra }: PriceObject, zone: string, at: number, day: string, stop: { kWh: number; minutes: number }): PriceTried {
  const t = compileTariff(tariff, extra ?? {});
  const session = exampleStop(zone, Math.round(at), stop.kWh, stop.minutes);
  const cost = cannotPrice(t, session).length > 0 ? null : printMoney(decimal(billOf(t, session).total.incl, minorDigits(t.currency)), t.currency);
  return { cost, questions: priceQuestions(t, day).map((q) => q.text) };
}
