import { inOneWords } from '@/core/tariff/exchange';
import type { StatementRow, StatementSum } from '@/core/tariff/statement';
import {
  beyondWords,
  billWords,
  changeWords,
  closedWords,
  dayAndPlace,
  NOTHING_OPEN,
  OF_STATEMENTS,
  OPEN_KINDS,
  periodWords,
  statementWords,
} from '@/core/tariff/statement-words';
import { printMoney } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';
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
  const title = `Statement, ${periodWords(period)}`;
  const sheet = new PdfSheet(`${title}, ${household}`, at);
  sheet.small(household);
  sheet.text(title, { face: 'bold', size: 20 });
  sheet.text(statementWords(s));
  if (beyond > 0) sheet.small(beyondWords(beyond));
  if (inOne) sheet.small(inOneWords(inOne));
  if (closed.length > 0) sheet.small(`${closedWords(period, closed, zone)}, and told as it was then. ${changes.length === 0 ? 'Nothing changed since.' : ''}`);
  for (const c of changes) sheet.small(`Changed since: ${dayAndPlace(c)}: ${changeWords(c)}`);
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
        printSeen(r.day),
        r.as ? `${r.place}, ${r.as}` : r.place,
        r.bills.map((b) => printMoney(b.amount, b.currency)).join('\n'),
        r.kWh === null ? '' : printKWh(r.kWh),
        r.bills.map((b) => (b.tax === null ? '' : printMoney(b.tax, b.currency))).join('\n'),
        billWords(r),
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
    for (const [of, what] of OPEN_KINDS) missing(sheet, s[of], what);
    if (OPEN_KINDS.every(([of]) => s[of].length === 0)) sheet.small(NOTHING_OPEN);
    sheet.gap(6);
    sheet.small(OF_STATEMENTS);
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
  sheet.text(`${printCount(rows.length, 'visit')} ${what}: ${rows.map(dayAndPlace).join('; ')}.`, { size: 9 });
}
