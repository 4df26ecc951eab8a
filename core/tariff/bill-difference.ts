import Big from 'big.js';
import { known, type Maybe, unknown } from '../units/known';
import { toMinor } from '../units/money';

/** `how`: how much of it at what price, and when. */
export type BillLine = { label: string; how?: string; amount: string };
export type ExpectedBill = { lines: BillLine[]; total: string; currency: string };

/** Charged less expected, decimal string; unknown when the currencies differ. */
export function billDifference(expected: ExpectedBill, charged: { amount: string; currency: string }): Maybe<string> {
  if (expected.currency !== charged.currency) return unknown('the bill is in another currency than the tariff');
  return known(toMinor(new Big(charged.amount).minus(expected.total), expected.currency));
}
