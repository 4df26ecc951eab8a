import type { ReactNode } from 'react';
import { printMoney } from '@/core/units/money';
import { NOT_READ } from '@/core/units/print';
import { printLongDate } from '@/core/units/zoned';
import { energyText } from '@/core/visit/energy-text';
import type { PrivateVisit } from '@/core/visit/private';

/** A visit that is private to its driver, as the others of the household see it. */
export function PrivateVisitSheet({ visit: v, around }: { visit: PrivateVisit; around: ReactNode }) {
  const facts: [string, string][] = [
    ['Day', printLongDate(v.at, v.zone)],
    ['Car', v.car],
    ['Delivered', v.delivered.known ? energyText(v.delivered) : NOT_READ],
    ['Paid', v.paid.known ? printMoney(v.paid.value.amount, v.paid.value.currency) : NOT_READ],
  ];
  return (
    <article className="px-4 py-4 sm:px-6" aria-labelledby="visit-head">
      <p className="mb-3 lg:hidden">
        <a href="/ledger" className="text-sm font-semibold text-shake underline">
          Back to the ledger
        </a>
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <h1 id="visit-head" className="grow text-[26px]">
          Private
        </h1>
        {around}
      </div>
      <p className="mt-1 text-sm text-ink-2">A visit of {v.driver}, marked private: where, when and how it went is theirs.</p>
      <dl className="mt-3 grid max-w-md grid-cols-[120px_1fr] border-t-2 border-ink">
        {facts.map(([label, value]) => (
          <div key={label} className="col-span-2 grid grid-cols-subgrid border-b border-rule-2 py-1.5">
            <dt className="text-[13px] text-ink-2">{label}</dt>
            <dd className="font-semibold">{value}</dd>
          </div>
        ))}
      </dl>
    </article>
  );
}
