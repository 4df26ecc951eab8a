import type { ExpectedBill } from '@/core/tariff/simple-tariff';
import type { Maybe } from '@/core/units/known';
import { printMoney } from '@/core/units/money';
import { printKWh } from '@/core/units/print';
import { attemptsText } from '@/core/visit/attempt-text';
import { attemptsNamed } from '@/core/visit/billed';
import type { Visit } from '@/core/visit/derive';

export type BillTableProps = {
  visit: Visit;
  /** By the tariff kept for that day; `null` when none is. */
  expected: ExpectedBill | null;
  difference: Maybe<string> | null;
};

/** What was charged, set against what the tariff says. */
export function BillTable({ visit: v, expected, difference }: BillTableProps) {
  const line = (label: string, amount: string, bold = false, key = label) => (
    <tr key={key} className={`border-b border-rule-2 ${bold ? 'font-bold' : ''}`}>
      <th scope="row" className={`py-1 text-left ${bold ? 'font-bold' : 'font-normal'}`}>
        {label}
      </th>
      <td className="num text-right">{amount}</td>
    </tr>
  );
  return (
    <section aria-labelledby="bill-head">
      <h2 id="bill-head" className="mb-1.5 text-[15px]">
        The bill
      </h2>
      {!expected && v.bills.length === 0 ? (
        <p className="text-sm text-ink-2">No bill recorded, and no price known for that day.</p>
      ) : (
        <table className="w-full text-[13px]">
          <tbody>
            {expected?.lines.map((l) => line(l.label, printMoney(l.amount, expected.currency)))}
            {expected ? line('Should be, tax in', printMoney(expected.total, expected.currency), true) : null}
            {v.bills.map((b) =>
              line(
                [
                  b.payload.state === 'refunded' ? 'Refunded' : `Was charged${b.payload.kWh ? ` for ${printKWh(b.payload.kWh)}` : ''}`,
                  attemptsText(attemptsNamed(b.payload.sessions, v.attempts, v.line)),
                ]
                  .filter(Boolean)
                  .join(', '),
                printMoney(b.payload.amount, b.payload.currency),
                true,
                b.id,
              ),
            )}
            {v.bills.length === 0 ? line('Was charged', 'no bill yet', true) : null}
          </tbody>
        </table>
      )}
      {difference?.known && expected && difference.value !== '0.00' && Number(difference.value) !== 0 ? (
        <p className="mt-2.5 border-l-4 border-fault bg-fault-card px-3 py-2 text-[13px]">
          <b>
            {printMoney(difference.value.replace('-', ''), expected.currency)} {difference.value.startsWith('-') ? 'under' : 'over'}.
          </b>{' '}
          Set against the price kept for this network on that day.
        </p>
      ) : null}
      {difference && !difference.known ? <p className="mt-2 text-[13px] text-ink-2">{difference.why}.</p> : null}
      {!expected && v.bills.length > 0 ? (
        <p className="mt-2 text-[13px] text-ink-2">No price is kept for this network on that day, so the bill is not checked.</p>
      ) : null}
    </section>
  );
}
