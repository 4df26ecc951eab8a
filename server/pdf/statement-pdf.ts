import { inOneWords } from '@/core/tariff/exchange';
import type { StatementRow, StatementSum } from '@/core/tariff/statement';
import { printMoney } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { printDate } from '@/core/units/zoned';
import type { StatementPage } from '../compare/statement-page';
import { unhurried } from '../unhurried';
import { PdfSheet } from './pdf-sheet';

/** A receipt that is attached: of which visit it is. */
export type AttachedReceipt = { bytes: Buffer; words: string };

/** What was paid in a month or a year on paper: every bill, the sums, what is missing, and the receipts one a page. @param at when it is made */
export async function statementPdf(
  of: Pick<StatementPage, 'statement' | 'beyond' | 'inOne' | 'closed' | 'changes'> & { household: string; period: string; zone: string; more: number },
  receipts: readonly AttachedReceipt[],
  at: Date,
): Promise<Buffer> {
  const { household, period, zone, statement: s, beyond, more, inOne, closed, changes } = of;
  const sheet = new PdfSheet(`Statement ${period}, ${household}`, at);
  sheet.small(household);
  sheet.text(`Statement, ${period}`, { face: 'bold', size: 20 });
  sheet.text(
    s.rows.length === 0
      ? 'Nothing was charged or paid then.'
      : s.sums.length === 0
        ? `${printCount(s.rows.length, 'visit')}, and no bill yet.`
        : `${s.sums.map((x) => `${printMoney(x.paid, x.currency)} in ${printCount(x.bills, 'bill')}`).join('; ')}, from ${printCount(s.rows.length, 'visit')}.`,
  );
  if (beyond > 0) sheet.small(`${beyond} more visits are in no statement of so many: ask for a month.`);
  if (inOne) sheet.small(inOneWords(inOne));
  for (const m of closed) sheet.small(`${m.month} was closed on ${printDate(m.at, zone)} by ${m.by}, and is told as it was then.`);
  for (const c of changes)
    sheet.small(
      `Changed since: ${c.day} ${c.place}: ${c.what.join('; ')}${c.by.length > 0 ? ` (${c.by.map((x) => printMoney(x.amount, x.currency)).join(', ')})` : ''}`,
    );
  if (s.rows.length > 0) {
    sheet.gap(8);
    const table = sheet.longTable(
      [
        { head: 'Day', of: 0.12 },
        { head: 'Place', of: 0.22 },
        { head: 'Paid', of: 0.12, right: true },
        { head: 'kWh', of: 0.1, right: true },
        { head: 'Tax', of: 0.11, right: true },
        { head: 'Bill', of: 0.15 },
        { head: 'Car and driver', of: 0.18 },
      ],
      s.rows.map((r) => [
        r.day,
        r.as ? `${r.place}, ${r.as}` : r.place,
        r.bills.map((b) => printMoney(b.amount, b.currency)).join('\n'),
        r.kWh === null ? '' : printKWh(r.kWh),
        r.bills.map((b) => (b.tax === null ? '' : printMoney(b.tax, b.currency))).join('\n'),
        r.bills.length === 0
          ? 'no bill'
          : r.bills.map((b) => [b.payee, b.ref, b.state === 'charged' ? null : b.state].filter(Boolean).join(', ')).join('; ') ||
            (r.receipts === 0 ? 'no receipt' : printCount(r.receipts, 'receipt')),
        `${r.car}, ${r.driver}`,
      ]),
    );
    await unhurried(table);
    sums(sheet, 'By car', s.byCar);
    sums(sheet, 'By driver', s.byDriver);
    sums(sheet, 'Business or private', s.byUse);
    sums(sheet, 'By tax rate', s.byTax);
    sums(sheet, 'Charging and parking', s.byKind);
    sheet.head('Open and missing');
    missing(sheet, s.open, 'with a bill that is pending or queried');
    missing(sheet, s.noBill, 'charged, and no bill');
    missing(sheet, s.noReceipt, 'billed, and no receipt');
    if (s.open.length + s.noBill.length + s.noReceipt.length === 0)
      sheet.small('Nothing: every charge has its bill, every bill its receipt, and none waits for an answer.');
    sheet.gap(6);
    sheet.small(
      'Sums are of one currency each. Tax is that of the bills that say it. What is private to somebody else is told by its car, kWh and money alone.',
    );
  }
  if (receipts.length > 0) sheet.small(`${printCount(receipts.length, 'receipt')} attached${more > 0 ? `; ${more} more are not: ask for a month` : ''}.`);
  for (const r of receipts) sheet.picture(r.bytes, r.words);
  return sheet.bytes();
}

function sums(sheet: PdfSheet, head: string, all: readonly StatementSum[]): void {
  if (all.length === 0) return;
  sheet.head(head);
  sheet.table(
    [
      { head: '', of: 0.5 },
      { head: 'Paid', of: 0.25, right: true },
      { head: 'of that tax', of: 0.25, right: true },
    ],
    all.map((x) => [x.of, printMoney(x.paid, x.currency), x.taxed > 0 ? printMoney(x.tax, x.currency) : '']),
  );
}

function missing(sheet: PdfSheet, rows: readonly StatementRow[], what: string): void {
  if (rows.length === 0) return;
  sheet.text(`${printCount(rows.length, 'visit')} ${what}: ${rows.map((r) => `${r.day} ${r.place}`).join('; ')}.`, { size: 9 });
}
