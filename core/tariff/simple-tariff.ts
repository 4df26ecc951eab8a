import Big from 'big.js';
import type { MileRecord } from '../records/record-schema';
import { known, type Maybe, unknown } from '../units/known';
import { toMinor } from '../units/money';
import { printKWh } from '../units/print';

/**
 * The smallest tariff: so much per kWh and so much per start, tax in. Amounts are decimal strings.
 * As an OCPI 2.2.1 Tariff it is one element with an ENERGY and a FLAT price component, prices given with VAT in.
 */
export type SimpleTariff = {
  id: string;
  networkId: string /** Of this site alone; `null`: of every site of the network. */;
  siteId: string | null;
  currency: string;
  perKWh: string;
  startFee: string;
  validFrom: string;
};

export type BillLine = { label: string; amount: string };
export type ExpectedBill = { lines: BillLine[]; total: string; currency: string };

/**
 * The tariff in force at a site on a day: the site's own, else the network's, and of these the one with the latest `validFrom`
 * (ISO date) not after it. One that was put away counts for its days like any other: a visit keeps the price of its day.
 * @param records every tariff kept, archived ones too @param day ISO date, local to the site
 */
export function tariffOn(
  records: readonly MileRecord<'tariff'>[],
  place: { siteId: string | null; networkId: string | null },
  day: string,
): SimpleTariff | undefined {
  return records
    .map((t): SimpleTariff => ({ id: t.id, ...t.fields }))
    .filter((t) => (t.siteId === null ? t.networkId === place.networkId : t.siteId === place.siteId) && t.validFrom <= day)
    .sort(
      (a, b) =>
        Number(b.siteId !== null) - Number(a.siteId !== null) || (a.validFrom < b.validFrom ? 1 : a.validFrom > b.validFrom ? -1 : a.id < b.id ? 1 : -1),
    )[0];
}

/**
 * What a visit should cost, line by line; each line rounded half up to the minor unit only in the total.
 * @param kWh delivered, decimal string
 * @param sessions number of attempts that got power: each pays the start fee
 */
export function expectedBill(tariff: SimpleTariff, kWh: string, sessions: number): ExpectedBill {
  const energy = new Big(kWh).times(tariff.perKWh);
  const start = new Big(tariff.startFee).times(sessions);
  const lines: BillLine[] = [{ label: `Energy ${printKWh(kWh)} × ${tariff.perKWh}`, amount: toMinor(energy, tariff.currency) }];
  if (!start.eq(0)) lines.push({ label: sessions === 1 ? 'Start fee' : `Start fee × ${sessions}`, amount: toMinor(start, tariff.currency) });
  return { lines, total: toMinor(energy.plus(start), tariff.currency), currency: tariff.currency };
}

/** Charged less expected, decimal string; unknown when the currencies differ. */
export function billDifference(expected: ExpectedBill, charged: { amount: string; currency: string }): Maybe<string> {
  if (expected.currency !== charged.currency) return unknown('the bill is in another currency than the tariff');
  return known(toMinor(new Big(charged.amount).minus(expected.total), expected.currency));
}
