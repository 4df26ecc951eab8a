import Link from 'next/link';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { LedgerMonth, LedgerRow, LedgerSum } from '@/core/compare/ledger-row';
import { faultLabel } from '@/core/faults/fault-list';
import { printMoney } from '@/core/units/money';
import { NOT_READ, printCount, printKWh } from '@/core/units/print';
import { printDay, printMonth } from '@/core/units/zoned';
import { describeEnd, describeStart } from '@/core/visit/describe-visit';
import { energyText } from '@/core/visit/energy-text';
import { ForDrivers } from '../road/role';
import { ThinTape } from '../tape/thin-tape';
import { FiguresWaiting } from './figures-waiting';
import { KeepScroll } from './keep-scroll';
import { LedgerFilters } from './ledger-filters';
import { MoreFilters } from './more-filters';
import { SelectBar, SelectRow, SelectToggle, SelectVisits } from './select-visits';

export type LedgerListProps = {
  rows: LedgerRow[];
  months: LedgerMonth[];
  next: string | null;
  total: LedgerSum;
  filter: LedgerFilter;
  networks: { id: string; name: string }[];
  sites: { id: string; name: string }[];
  cars: { id: string; name: string }[];
  /** Which visits they are, in words; `''`: all. */
  chosen: string;
  selected: string | null;
  first: boolean;
  /** Visits whose figures are still being brought up to date. */
  waiting: number;
  /** Who reads it may mark visits too. */
  may: boolean;
  people: readonly { id: string; name: string }[];
};

/** The ledger by month, newest first. */
export function LedgerList({ rows, months, next, total, filter, networks, sites, cars, chosen, selected, first, waiting, may, people }: LedgerListProps) {
  const query = writeLedgerFilter(filter);
  const filtered = query !== '';
  return (
    <SelectVisits ids={may ? rows.filter((r) => !r.isPrivate).map((r) => r.id) : NOBODYS}>
      <section
        aria-labelledby="ledger-head"
        className="flex min-h-0 min-w-0 grow flex-col bg-card lg:h-[calc(100dvh-52px)] lg:w-[392px] lg:shrink-0 lg:grow-0 lg:border-r lg:border-rule"
      >
        <div className="flex min-h-[98px] shrink-0 flex-wrap items-center gap-2 border-b-2 border-ink px-4 py-3">
          <h1 id="ledger-head" className="text-xl">
            Ledger
          </h1>
          <span className="grow" />
          <SelectToggle />
          <ForDrivers>
            <Link href="/ledger/new" className="no-print inline-flex min-h-6 items-center text-sm font-semibold text-shake underline">
              Type in a visit
            </Link>
          </ForDrivers>
          <span className="w-full" />
          <LedgerFilters filter={filter} networks={networks} />
          <MoreFilters key={query} filter={filter} sites={sites} cars={cars} people={people} />
          <SelectBar />
          {filtered && rows.length > 0 ? (
            <p className="w-full text-sm text-ink-2">
              {sumParts(total).join(', ')}
              {chosen ? `: ${chosen}` : ''}.{' '}
              <Link className="font-semibold text-shake underline" href="/ledger">
                Show all
              </Link>
            </p>
          ) : null}
        </div>
        <FiguresWaiting visits={waiting} />
        {rows.length === 0 ? (
          <div className="p-6">
            {filtered ? (
              <>
                <h2 className="text-lg">No visit fits</h2>
                <p className="mt-2 text-sm text-ink-2">Nothing in the ledger passes these filters{chosen ? `: ${chosen}` : ''}.</p>
                <Link href="/ledger" className="plate mt-4">
                  Show all
                </Link>
              </>
            ) : (
              <>
                <h2 className="text-lg">The ledger is empty</h2>
                <p className="mt-2 text-sm text-ink-2">
                  A visit begins when you pull in. Record the first one at a stall: each becomes a page here, with its times, its energy and its bill.
                </p>
                <a href="/stall" className="plate plate-next mt-4">
                  Pull in
                </a>
              </>
            )}
          </div>
        ) : (
          <KeepScroll selected={selected}>
            {months.map((m) => (
              <section key={m.month} aria-label={printMonth(m.month)}>
                <div className="sticky top-0 z-10 flex justify-between gap-2 border-b border-rule bg-band px-4 pb-1 pt-2 text-[12.5px] font-bold">
                  <h2 className="!text-[12.5px] !tracking-normal">{printMonth(m.month)}</h2>
                  <span className="num font-medium text-ink-2">{sumParts(m).join(' · ')}</span>
                </div>
                <ul>
                  {rows
                    .filter((r) => r.month === m.month)
                    .map((r) => (
                      <Row key={r.id} row={r} query={query} selected={r.id === selected} />
                    ))}
                </ul>
              </section>
            ))}
            <nav aria-label="Pages of the ledger" className="flex gap-3 p-4 pb-8">
              {first ? null : (
                <Link className="plate" prefetch={false} href={`/ledger${query}`}>
                  Newest
                </Link>
              )}
              {next ? (
                <Link className="plate" prefetch={false} href={`/ledger${query}${query ? '&' : '?'}from=${next}`}>
                  Older visits
                </Link>
              ) : null}
            </nav>
          </KeepScroll>
        )}
      </section>
    </SelectVisits>
  );
}

const NOBODYS: readonly string[] = [];
const sumParts = (sum: LedgerSum): string[] => [
  printCount(sum.visits, 'visit'),
  energyText({ value: sum.kWh, ...(sum.kWhAtLeast ? { atLeast: true as const } : {}) }),
  ...sum.paid.map((p) => printMoney(p.amount, p.currency)),
];

const called = (r: LedgerRow): string => (r.isPrivate ? 'Private' : (r.siteName ?? (r.siteId === null ? 'Somewhere new' : 'Unknown site')));

function Row({ row: r, query, selected }: { row: LedgerRow; query: string; selected: boolean }) {
  const end = describeEnd(r);
  const amount = r.paid !== null && r.currency ? printMoney(r.paid, r.currency) : end !== '' ? end : 'no bill';
  return (
    <SelectRow id={r.id} what={`${called(r)}, ${printDay(r.at, r.zone)}`}>
      <Link
        href={`/ledger/${r.id}${query}`}
        data-ledger-row=""
        prefetch={false}
        aria-current={selected ? 'true' : undefined}
        scroll={false}
        className={`relative grid min-w-0 grow grid-cols-[1fr_auto] gap-x-2.5 border-b border-rule-2 px-4 py-2 ${selected ? 'lg:bg-picked' : 'hover:bg-band'}`}
      >
        {selected ? <span className="absolute inset-y-0 left-0 hidden w-[5px] bg-paint lg:block" aria-hidden="true" /> : null}
        <span className="min-w-0 wrap-anywhere">
          <b>{called(r)}</b> <span className="text-[12.5px] text-ink-2">{r.networkName ?? ''}</span>
        </span>
        <span className="num text-right">{r.kWh === null ? NOT_READ : `${r.kWhAtLeast ? '≥ ' : ''}${printKWh(r.kWh)}`}</span>
        <span className="min-w-0 text-[12.5px] text-ink-2 wrap-anywhere">
          {printDay(r.at, r.zone)}, {r.isPrivate ? `charged by ${r.driver ?? 'somebody else'}` : describeStart(r)}
          {r.newer ? ', recorded by a newer version' : ''}
        </span>
        <span className={`text-right text-[12.5px] text-ink-2 ${r.paid === null ? '' : 'num'}`}>{amount}</span>
        <span className="col-span-2">
          <ThinTape tape={r.tape} />
        </span>
        {r.faultCodes.length > 0 ? <span className="sr-only">Faults: {r.faultCodes.map(faultLabel).join(', ')}</span> : null}
      </Link>
    </SelectRow>
  );
}
