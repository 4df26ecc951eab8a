import Big from 'big.js';
import { known, type Maybe, unknown } from '../units/known';
import { toMinor } from '../units/money';
import { printKWh } from '../units/print';

/** What a post says in one line: so much per kWh and so much per start, tax in. Amounts are decimal strings. */
export type PostPrice = { currency: string; perKWh: string | null; startFee: string };

/** `how`: how much of it at what price, and when. */
export type BillLine = { label: string; how?: string; amount: string };
export type ExpectedBill = { lines: BillLine[]; total: string; currency: string };

/**
 * About what a visit costs by the one line on the post; each line rounded half up to the minor unit only in the total.
 * @param kWh delivered, decimal string
 * @param sessions number of attempts that got power: each pays the start fee
 */
export function expectedBill(tariff: PostPrice, kWh: string, sessions: number): ExpectedBill {
  const energy = new Big(kWh).times(tariff.perKWh ?? 0);
  const start = new Big(tariff.startFee).times(sessions);
  const lines: BillLine[] = [{ label: `Energy ${printKWh(kWh)} × ${tariff.perKWh ?? '0'}`, amount: toMinor(energy, tariff.currency) }];
  if (!start.eq(0)) lines.push({ label: sessions === 1 ? 'Start fee' : `Start fee × ${sessions}`, amount: toMinor(start, tariff.currency) });
  return { lines, total: toMinor(energy.plus(start), tariff.currency), currency: tariff.currency };
}

/** Charged less expected, decimal string; unknown when the currencies differ. */
export function billDifference(expected: ExpectedBill, charged: { amount: string; currency: string }): Maybe<string> {
  if (expected.currency !== charged.currency) return unknown('the bill is in another currency than the tariff');
  return known(toMinor(new Big(charged.amount).minus(expected.total), expected.currency));
}
