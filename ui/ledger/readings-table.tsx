import { Fragment } from 'react';
import { endsOf } from '@/core/units/ends-of';
import { printMoney } from '@/core/units/money';
import { printCount, printKW } from '@/core/units/print';
import { printClock } from '@/core/units/zoned';
import type { Visit } from '@/core/visit/derive';
import { type HeldBack, heldBack } from '@/core/visit/held-back';
import { span } from '@/core/visit/timing';
import { timingText } from '@/core/visit/timing-text';

/** What a page can hold, and an eye. */
const MOST = 120;
/**
 * Every reading of the visit, with its time after power, and what sharing and climate cost in kW.
 * @param whole whether all of very many are shown
 */
export function ReadingsTable({ visit: v, whole }: { visit: Visit; whole: boolean }) {
  const rows = v.attempts.flatMap((a) => a.readings.map((r) => ({ ...r, n: a.n, after: a.proof ? span(a.proof, r.mark) : null })));
  const { first, between, last } = endsOf(rows, whole ? Number.POSITIVE_INFINITY : MOST);
  // A column that says nothing, or the same in every row, is room that a phone has not.
  const costs = rows.some((r) => r.cost !== undefined);
  const screens = [...new Set(rows.map((r) => r.screen))];
  return (
    <section aria-labelledby="readings-head" className="min-w-0">
      <h2 id="readings-head" className="mb-1.5 flex flex-wrap items-baseline gap-x-3 text-[15px]">
        Readings
        {v.attempts.some((a) => a.proof && a.readings.length > 0) ? (
          <a href={`/ledger/${v.id}/power`} className="no-print inline-block min-h-6 text-[13px] font-semibold text-shake underline">
            Power along the battery
          </a>
        ) : null}
      </h2>
      {rows.length === 0 ? (
        <p className="text-sm text-ink-2">None was taken.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full text-[13px]">
            <thead>
              <tr className="border-b border-ink text-right text-[12px] text-ink-2">
                <th scope="col" className="py-1 pr-2 text-left font-semibold">
                  Time
                </th>
                <th scope="col" className="px-2 font-semibold">
                  After power
                </th>
                <th scope="col" className="px-2 font-semibold">
                  Battery
                </th>
                <th scope="col" className="px-2 font-semibold">
                  kW
                </th>
                <th scope="col" className="px-2 font-semibold">
                  kWh
                </th>
                {costs ? (
                  <th scope="col" className="px-2 font-semibold">
                    Cost
                  </th>
                ) : null}
                {screens.length > 1 ? (
                  <th scope="col" className="pl-2 font-semibold">
                    Screen
                  </th>
                ) : null}
              </tr>
            </thead>
            <tbody>
              {[...first, ...last].map((r, i) => (
                <Fragment key={r.mark.id}>
                  {between > 0 && i === first.length ? (
                    <tr className="border-b border-rule-2">
                      <td colSpan={7} className="py-1.5">
                        {printCount(between, 'more reading')} between.{' '}
                        <a href={`/ledger/${v.id}?events=all#readings-head`} className="inline-block min-h-6 font-semibold text-shake underline">
                          Show all {rows.length}
                        </a>
                      </td>
                    </tr>
                  ) : null}
                  <tr className="num whitespace-nowrap border-b border-rule-2 text-right">
                    <td className="py-1 pr-2 text-left">{printClock(r.mark.t, v.zone)}</td>
                    <td className="px-2">{r.after?.known ? timingText(r.after) : '\u2003'}</td>
                    <td className="px-2">{r.socPct === undefined ? '\u2003' : `${r.socPct} %`}</td>
                    <td className="px-2">{r.kW === undefined ? '\u2003' : Math.round(r.kW)}</td>
                    <td className="px-2">{r.kWh ?? '\u2003'}</td>
                    {costs ? <td className="px-2">{r.cost === undefined ? '\u2003' : r.currency ? printMoney(r.cost, r.currency) : r.cost}</td> : null}
                    {screens.length > 1 ? <td className="pl-2 font-sans">{r.screen}</td> : null}
                  </tr>
                </Fragment>
              ))}
            </tbody>
          </table>
          {screens.length === 1 ? <p className="mt-1 text-[12.5px] text-ink-2">All read on the {screens[0]}’s screen.</p> : null}
        </div>
      )}
      <HeldBackList visit={v} />
    </section>
  );
}

const WHAT = { neighbour: 'A neighbour charged', climate: 'Climate was on' } as const;
const costText = ({ before_kW: before, during_kW: during }: HeldBack): string => {
  if (before === null || during === null) return 'the power was not read before and meanwhile';
  const less = Math.round(before) - Math.round(during);
  return `${printKW(before)} before, ${printKW(during)} meanwhile: ${less > 0 ? `${less} kW less` : 'no less'}`;
};

function HeldBackList({ visit: v }: { visit: Visit }) {
  const found = heldBack(v.line, v.attempts);
  if (found.length === 0) return null;
  return (
    <>
      <ul aria-label="What held the power back" className="mt-2 text-[13px]">
        {found.map((h) => (
          <li key={h.from.id} className="border-b border-rule-2 py-1">
            <b>{WHAT[h.what]}</b>{' '}
            <span className="num">
              {printClock(h.from.t, v.zone)}
              {h.to ? ` to ${printClock(h.to.t, v.zone)}` : ' on'}
            </span>
            {h.lasted?.known ? `, for ${timingText(h.lasted)}` : ''}; {costText(h)}.
          </li>
        ))}
      </ul>
      {found.some((h) => h.before_kW !== null && h.during_kW !== null) ? (
        <p className="mt-1 text-[12.5px] text-ink-2">A car takes less by itself as it fills: that is in the difference.</p>
      ) : null}
    </>
  );
}
