import { minorDigits } from '../units/money';
import { printDuration, printKWh } from '../units/print';
import { printTime } from '../units/zoned';
import type { Bill, Line } from './bill';
import { sumTaxed } from './bill';
import { decimal } from './exact';
import { roundedTotal } from './plan-cost';

/** A line as it is read: what for, how much of it at what price and when, and the amount, tax in. */
export type BillWords = { label: string; how: string; amount: string };

const LABELS: Readonly<Record<Line['of'], string>> = {
  FLAT: 'Start',
  ENERGY: 'Energy',
  TIME: 'Time charging',
  PARKING_TIME: 'Time parked',
  X_POWER_TIME: 'Minutes by power',
  X_IDLE: 'Idle',
  X_OVERSTAY: 'Overstay',
  min_price: 'Least price',
  max_price: 'Greatest price',
  x_minimum_charge: 'Minimum charge',
  x_tax: 'Tax on top',
};
const PER = { kWh: ' per kWh', h: ' an hour', min: ' a minute', x: '', '': '' } as const;

/** A price without zeros that say nothing. */
const short = (text: string): string => text.replace(/(\.\d\d\d*?)0+$/, '$1');

function howOf(l: Line, zone: string | null): string {
  if (l.price === null) return '';
  const price = short(decimal(l.price, 6));
  const much = l.unit === 'Wh' ? printKWh(decimal(l.quantity.div(1000), 3)) : l.unit === 's' ? printDuration(Number(decimal(l.quantity, 0))) : '';
  const stepped = l.added.equals(0) ? '' : ' up to its step';
  // Where it ran in pieces, or not all along, it says from when to when.
  const [first, last] = [l.where[0], l.where.at(-1)];
  const when = zone !== null && l.unit !== 'x' && first && last ? `${printTime(first[0], zone)} to ${printTime(last[1], zone)}` : '';
  const sum = l.unit === 'x' ? '' : `${much}${stepped} × ${price}${PER[l.per]}`;
  return [sum, when].filter(Boolean).join(', ');
}

/**
 * A bill in words. Lines that come to nothing are left out, unless all do.
 * @param zone of the place; `null`: when it was is not known
 */
export function billWords(bill: Bill, zone: string | null): { lines: BillWords[]; total: string; tax: string | null; currency: string } {
  const places = minorDigits(bill.currency);
  const told = bill.lines.filter((l) => !l.incl.equals(0) || (l.of === 'FLAT' && bill.lines.length === 1));
  const total = roundedTotal(bill.total, bill.currency);
  const tax = total.incl.sub(total.excl);
  return {
    lines: told.map((l) => ({ label: LABELS[l.of], how: howOf(l, zone), amount: decimal(l.incl, places) })),
    total: decimal(total.incl, places),
    tax: tax.equals(0) ? null : decimal(tax, places),
    currency: bill.currency,
  };
}

/**
 * What several sessions come to, tax in, to the minor unit. @param apart each was billed by itself, and rounded by itself
 */
export function sumOfBills(bills: readonly Bill[], apart: boolean): string {
  const [first] = bills;
  if (!first) return '0';
  const { currency } = first;
  const sum = sumTaxed(bills.map((b) => (apart ? roundedTotal(b.total, currency) : b.total)));
  return decimal(roundedTotal(sum, currency).incl, minorDigits(currency));
}
