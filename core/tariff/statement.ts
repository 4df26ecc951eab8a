import Big from 'big.js';
import { csvFormatRows } from 'd3-dsv';
import { csvText } from '../units/csv-text';
import { localDay } from '../units/zoned';
import { wholeEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';

/** A bill as it stands in a statement: what was paid, less than nothing for a refund; tax where the bill says it. Decimal strings. */
export type StatementBill = {
  amount: string;
  currency: string;
  tax: string | null;
  payee: string | null;
  ref: string | null;
  state: string;
  kind: 'charging' | 'parking';
  /** What it came to on the account in the household's own currency, less than nothing for a refund. */
  came: string | null;
};
/** A visit in it. `kWh`: where all of it is known. `hidden`: private to somebody else, of whom only car, kWh and money are told. */
export type StatementRow = {
  visitId: string;
  day: string;
  place: string;
  car: string;
  driver: string;
  as: 'business' | 'private' | null;
  kWh: string | null;
  bills: StatementBill[];
  receipts: number;
  charged: boolean;
  hidden: boolean;
};
/** What was paid in one currency: never added to another. `tax`: of the bills that say it, so many of all. */
export type StatementSum = { of: string; currency: string; bills: number; paid: string; tax: string; taxed: number };
export type Statement = {
  rows: StatementRow[];
  sums: StatementSum[];
  byCar: StatementSum[];
  byDriver: StatementSum[];
  byUse: StatementSum[];
  /** By the rate of tax that the bills say. */
  byTax: StatementSum[];
  /** What was paid for standing, where any of it was. */
  byKind: StatementSum[];
  /** Charges without a bill, and bills without a receipt. */
  noBill: StatementRow[];
  noReceipt: StatementRow[];
  /** Bills that wait for an answer: pending, or queried. */
  open: StatementRow[];
};
const OPEN = new Set(['pending', 'queried']);

/** A calendar month, `2025-10`, or a year, `2025`; `null` for what is neither. */
export const periodOf = (text: string | null | undefined): string | null => (text && /^20\d\d(-(0[1-9]|1[0-2]))?$/.test(text) ? text : null);

/** The month or year before another (`-1`), or after it; `null`: none of those that a statement is of. */
export function periodBeside(period: string, by: -1 | 1): string | null {
  const [year = 0, month] = period.split('-').map(Number);
  if (month === undefined) return periodOf(String(year + by));
  const months = year * 12 + month - 1 + by;
  return periodOf(`${Math.floor(months / 12)}-${String((months % 12) + 1).padStart(2, '0')}`);
}

/** A row of which car, kWh and money alone are told. */
export const unnamed = (r: StatementRow): StatementRow => ({
  ...r,
  place: 'private',
  hidden: true,
  bills: r.bills.map((b) => ({ ...b, payee: null, ref: null })),
});

/** A visit as a row. @param names what its place, car and driver are called @param seen whether the reader may see all of it */
export function statementRow(v: Visit, names: { place: string; car: string; driver: string }, seen: boolean): StatementRow {
  const energy = wholeEnergy(v.delivered);
  return {
    visitId: v.id,
    day: localDay(v.pulledInAt ?? v.lastEventAt, v.zone),
    place: seen ? names.place : 'private',
    car: names.car,
    driver: names.driver,
    as: v.marks.as,
    kWh: energy.known ? energy.value : null,
    bills: v.bills.map(({ payload: b }) => ({
      amount: b.state === 'refunded' ? new Big(b.amount).times(-1).toString() : b.amount,
      currency: b.currency,
      tax: b.tax ?? null,
      payee: seen ? (b.payee ?? null) : null,
      ref: seen ? (b.ref ?? null) : null,
      state: b.state,
      kind: b.what ?? 'charging',
      came: b.fx === undefined ? null : b.state === 'refunded' ? new Big(b.fx).times(-1).toString() : b.fx,
    })),
    receipts: v.line.filter((e) => e.kind === 'receipt').length,
    charged: v.ended === 'charge',
    hidden: !seen,
  };
}

function sumsBy(rows: readonly StatementRow[], of: (r: StatementRow, b: StatementBill) => string): StatementSum[] {
  const sums = new Map<string, { of: string; currency: string; bills: number; paid: Big; tax: Big; taxed: number }>();
  for (const r of rows)
    for (const b of r.bills) {
      const name = of(r, b);
      const key = `${name}\u0000${b.currency}`;
      const sum = sums.get(key) ?? { of: name, currency: b.currency, bills: 0, paid: new Big(0), tax: new Big(0), taxed: 0 };
      sum.bills += 1;
      sum.paid = sum.paid.plus(b.amount);
      if (b.tax !== null) {
        sum.tax = sum.tax.plus(new Big(b.amount).lt(0) ? new Big(b.tax).times(-1) : b.tax);
        sum.taxed += 1;
      }
      sums.set(key, sum);
    }
  return [...sums.values()]
    .sort((a, b) => (a.of < b.of ? -1 : a.of > b.of ? 1 : a.currency < b.currency ? -1 : 1))
    .map((s) => ({ ...s, paid: s.paid.toString(), tax: s.tax.toString() }));
}

const USES = { business: 'Business', private: 'Private' } as const;
export const wordsOfUse = (as: StatementRow['as']): string => (as === null ? 'Not said' : USES[as]);

/**
 * The rate that a bill's tax makes of what it is on, to half a per cent: bills are rounded to the cent, rates are round.
 * @returns `22 %`, or that the bill does not say
 */
export function taxRate(b: Pick<StatementBill, 'amount' | 'tax'>): string {
  const paid = new Big(b.amount).abs();
  const without = b.tax === null ? null : paid.minus(b.tax);
  if (b.tax === null || without === null || without.lte(0)) return 'Tax not said';
  const half = new Big(b.tax).div(without).times(200).round(0, Big.roundHalfUp).div(2);
  return `${half.toString()} % tax`;
}

/** What was paid in some visits, by currency, by car, by driver and by use, with what is missing. Sums only within a currency. */
export function statement(rows: readonly StatementRow[]): Statement {
  const inTime = [...rows].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.visitId < b.visitId ? -1 : 1));
  return {
    rows: inTime,
    sums: sumsBy(inTime, () => ''),
    byCar: sumsBy(inTime, (r) => r.car),
    byDriver: sumsBy(inTime, (r) => r.driver),
    byUse: sumsBy(inTime, (r) => wordsOfUse(r.as)),
    byTax: sumsBy(inTime, (_, b) => taxRate(b)),
    byKind: inTime.some((r) => r.bills.some((b) => b.kind === 'parking')) ? sumsBy(inTime, (_, b) => (b.kind === 'parking' ? 'Parking' : 'Charging')) : [],
    noBill: inTime.filter((r) => r.charged && r.bills.length === 0),
    noReceipt: inTime.filter((r) => r.bills.length > 0 && r.receipts === 0),
    open: inTime.filter((r) => r.bills.some((b) => OPEN.has(b.state))),
  };
}

/** The same for a spreadsheet: a line a bill, and one for each visit without. */
export function statementCsv(s: Statement): string {
  const head = ['day', 'place', 'car', 'driver', 'use', 'kWh', 'amount', 'currency', 'tax', 'paid to', 'number', 'state', 'for', 'came to', 'receipts'];
  const lines = s.rows.flatMap((r) => {
    const visit = [r.day, r.place, r.car, r.driver, r.as, r.kWh];
    const bills: (string | null)[][] = r.bills.map((b) => [b.amount, b.currency, b.tax, b.payee, b.ref, b.state, b.kind, b.came]);
    return (bills.length > 0 ? bills : [[null, null, null, null, null, r.charged ? 'no bill' : 'no charge', null, null]]).map((b) => [
      ...visit,
      ...b,
      String(r.receipts),
    ]);
  });
  // An amount may be less than nothing: it is a number, and no formula.
  const cell = (value: string | null, i: number) => (i === 6 || i === 8 || i === 5 || i === 13 ? (value ?? '') : csvText(value));
  return `${csvFormatRows([head, ...lines.map((l) => l.map(cell))])}\n`;
}
