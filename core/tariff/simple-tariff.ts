import Big from 'big.js';
import type { ExtraPricing, OcpiTariff } from '../records/ocpi-tariff';
import { known, type Maybe, unknown } from '../units/known';
import { toMinor } from '../units/money';

/** Whether a price says no more than its one line: so much per kWh and per start. What is behind it, if anything, is one element of these without conditions. */
export function isOneLine({ tariff, extra }: { tariff: OcpiTariff | null; extra: ExtraPricing | null }): boolean {
  if (extra && Object.keys(extra).length > 0) return false;
  if (!tariff) return true;
  const [first, ...more] = tariff.elements;
  if (!first || more.length > 0 || Object.keys(first.restrictions ?? {}).length > 0 || tariff.min_price || tariff.max_price) return false;
  return first.price_components.every((c) => c.type === 'FLAT' || (c.type === 'ENERGY' && c.step_size <= 1) || c.price === 0);
}

/** `how`: how much of it at what price, and when. */
export type BillLine = { label: string; how?: string; amount: string };
export type ExpectedBill = { lines: BillLine[]; total: string; currency: string };

/** Charged less expected, decimal string; unknown when the currencies differ. */
export function billDifference(expected: ExpectedBill, charged: { amount: string; currency: string }): Maybe<string> {
  if (expected.currency !== charged.currency) return unknown('the bill is in another currency than the tariff');
  return known(toMinor(new Big(charged.amount).minus(expected.total), expected.currency));
}
