import type { ReactNode } from 'react';
import type { CheckedRecord } from '@/core/formats/network-record';
import { billState } from '@/core/tariff/bill-state';
import type { CheckedBill } from '@/core/tariff/checked-bill';
import { printMoney } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { printCalendarDate, printSeen, printTime } from '@/core/units/zoned';
import { attemptsText } from '@/core/visit/attempt-text';
import { attemptsBy } from '@/core/visit/billed';
import type { Visit } from '@/core/visit/derive';
import { type Hold, holdsOf } from '@/core/visit/holds';
import { AGAIN } from '@/core/visit/told-bills';
import { CopyText } from './copy-text';
import { NetworkRecordTable } from './network-record';

export type BillTableProps = {
  visit: Visit;
  /** By the price on file for that day; `null` when none is. */
  checked: CheckedBill | null;
  /** What networks recorded of its charges, as it came with their bills. */
  networkRecords?: readonly CheckedRecord[];
  /** Local day, `2025-10-14`. */
  today: string;
};

/** What was charged, set against what the price on file says. */
export function BillTable({
  visit: v,
  checked,
  networkRecords = [],
  today,
  add = null,
  release,
}: BillTableProps & {
  /** The way to a further bill. */ add?: ReactNode;
  /** The way to say that a hold was released. */ release?: (hold: Hold) => ReactNode;
}) {
  const priced = checked && !('unpriced' in checked) ? checked : null;
  const line = (label: React.ReactNode, amount: string, key: string, bold = false) => (
    <tr key={key} className={`border-b border-rule-2 ${bold ? 'font-bold' : ''}`}>
      <th scope="row" className={`py-1 pr-3 text-left ${bold ? 'font-bold' : 'font-normal'}`}>
        {label}
      </th>
      <td className="num text-right align-top">{amount}</td>
    </tr>
  );
  const holds = holdsOf(v, today);
  const named = attemptsBy(v.attempts, v.line);
  const { difference = null } = priced ?? {};
  const off = priced && difference?.known && Number(difference.value) !== 0 ? difference.value : null;
  return (
    <section aria-labelledby="bill-head" className="min-w-0">
      <h2 id="bill-head" className="mb-1.5 text-[15px]">
        The bill
      </h2>
      {!priced && v.bills.length === 0 && holds.length === 0 ? (
        <p className="text-sm text-ink-2">
          {checked && 'unpriced' in checked
            ? `No bill recorded, and what it should be is not known: ${checked.unpriced}.`
            : 'No bill recorded, and no price known for that day.'}
        </p>
      ) : (
        <table className="w-full text-[13px]">
          <tbody>
            {priced?.lines.map((l) =>
              line(
                <>
                  {l.label}
                  {l.how ? <span className="block text-[12px] text-ink-2">{l.how}</span> : null}
                </>,
                printMoney(l.amount, priced.currency),
                `${l.label} ${l.how}`,
              ),
            )}
            {priced ? line('Should be, tax in', printMoney(priced.total, priced.currency), 'should', true) : null}
            {priced?.tax ? line('of that tax', printMoney(priced.tax, priced.currency), 'tax') : null}
            {priced?.guest ? line('As a guest it would be', printMoney(priced.guest, priced.currency), 'guest') : null}
            {v.bills.map((b) =>
              line(
                <>
                  {[
                    `${billState(b.payload.state)}${b.payload.what === 'parking' ? ' for parking' : ''}${b.payload.kWh && b.payload.state !== 'refunded' ? ` for ${printKWh(b.payload.kWh)}` : ''}`,
                    attemptsText(named(b.payload.sessions)),
                  ]
                    .filter(Boolean)
                    .join(', ')}
                  {b.payload.fx !== undefined ? (
                    <span className="block text-[12px] font-normal text-ink-2">came to {b.payload.fx} on the account, in your own currency</span>
                  ) : null}
                  {b.payload.payee || b.payload.ref ? (
                    <span className="block text-[12px] font-normal text-ink-2">
                      {[b.payload.payee ? `paid to ${b.payload.payee}` : null, b.payload.ref].filter(Boolean).join(', ')}
                    </span>
                  ) : null}
                </>,
                printMoney(b.payload.amount, b.payload.currency),
                b.id,
                true,
              ),
            )}
            {v.billsAgain.map(({ bill: b, how }) =>
              line(
                <>
                  {`Told again${b.payload.kWh ? `, ${printKWh(b.payload.kWh)}` : ''}`}
                  <span className="block text-[12px] text-ink-2">{[b.payload.ref, AGAIN[how]].filter(Boolean).join(', ')}</span>
                </>,
                printMoney(b.payload.amount, b.payload.currency),
                b.id,
              ),
            )}
            {v.bills.length === 0 ? line('Was charged', 'no bill yet', 'none', true) : null}
            {holds.map((h) =>
              line(
                <>
                  Held back at {printTime(h.t, v.zone)}
                  <span className="block text-[12px] text-ink-2">
                    {h.released === null
                      ? `not noted as released, ${printCount(h.days, 'day')} on`
                      : `released on ${printSeen(h.released)} ${h.released.slice(0, 4)}, after ${printCount(h.days, 'day')}`}
                  </span>
                  {h.released === null ? release?.(h) : null}
                </>,
                h.currency ? printMoney(h.amount, h.currency) : h.amount,
                h.id,
              ),
            )}
          </tbody>
        </table>
      )}
      {off && priced ? (
        <div className="mt-2.5 border-l-4 border-fault bg-fault-card px-3 py-2 text-[13px]">
          <p>
            <b>
              {printMoney(off.replace('-', ''), priced.currency)} {off.startsWith('-') ? 'under' : 'over'}.
            </b>{' '}
            Set against the price on file for that day, {priced.by}, since {printCalendarDate(priced.since)}.
          </p>
          {priced.explanations.length > 0 ? (
            <ul className="mt-1.5 list-disc pl-5">
              {priced.explanations.map((e) => (
                <li key={e.cause} className="mb-1">
                  {e.text} <span className="text-ink-2">{e.fit === 'exact' ? 'Fits to the cent.' : 'About fits.'}</span>
                </li>
              ))}
            </ul>
          ) : (
            <p className="mt-1">No known cause gives this amount.</p>
          )}
        </div>
      ) : null}
      {priced?.query ? (
        <details className="mt-2 text-[13px]">
          <summary className="inline-block min-h-6 cursor-pointer py-1 font-semibold text-shake">Draft a query</summary>
          <p className="mt-1 text-ink-2">Read it, change it, send it yourself. Then correct the bill’s state to “Queried”.</p>
          <pre className="mt-1.5 max-w-full overflow-x-auto whitespace-pre-wrap border border-rule bg-card p-3 font-sans text-[13px]">{priced.query}</pre>
          <CopyText text={priced.query} label="Copy the query" />
        </details>
      ) : null}
      {priced?.question ? <p className="mt-2 text-[13px] text-ink-2">{priced.question}</p> : null}
      {difference && !difference.known ? <p className="mt-2 text-[13px] text-ink-2">{difference.why}.</p> : null}
      {v.bills.length > 0 && !priced ? (
        <p className="mt-2 text-[13px] text-ink-2">
          {checked && 'unpriced' in checked
            ? `The bill is not checked: ${checked.unpriced}.`
            : 'No price is kept for this place on that day, so the bill is not checked.'}
        </p>
      ) : null}
      {networkRecords.map((r) => (
        <NetworkRecordTable key={r.billId} record={r} visitId={v.id} zone={v.zone} />
      ))}
      {add ? <div className="no-print mt-3">{add}</div> : null}
    </section>
  );
}
