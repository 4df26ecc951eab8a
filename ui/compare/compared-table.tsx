'use client';
import Link from 'next/link';
import type { Cell } from '@/core/compare/cells';
import { type CompareAsk, writeCompareAsk } from '@/core/compare/compare-address';
import type { ComparedGroup } from '@/core/compare/compared-groups';
import { type LedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { LOOKS, MEASURES, type Measure, type MeasureFile } from '@/core/compare/measures';
import type { Side } from '@/core/faults/fault-list';
import { GROUPINGS } from '@/core/figures/groupings';
import type { Asked, Population } from '@/core/figures/populations';
import { printCount, printShare } from '@/core/units/print';
import { dayBefore } from '@/core/units/zoned';
import { PhoneHead } from '../charts/phone-head';
import { CellView, scaleOf } from './cell-views';

/** `names`: of its groups, in their order. `part`: before or after the day on which something changed. */
export type NamedRow = { row: ComparedGroup; names: string[]; part: 'before' | 'after' | null };

/** The list of the visits of one number of one row. */
function listOf(ask: CompareAsk, { row, part }: NamedRow, counted: Population, without?: Side): string {
  const filter: LedgerFilter = { ...ask.filter, counted, groups: row.groups };
  delete filter.without;
  if (without) filter.without = without;
  // Where a plain filter says the same, it does.
  const [only, second] = row.groups;
  if (only && !second && (only.by === 'network' || only.by === 'site' || only.by === 'car' || only.by === 'driver')) {
    delete filter.groups;
    filter[only.by] = only.key;
  }
  if (part === 'before' && ask.change) filter.until = dayBefore(ask.change);
  if (part === 'after' && ask.change && !(filter.since && filter.since > ask.change)) filter.since = ask.change;
  return `/ledger${writeLedgerFilter(filter)}`;
}

/** Groups side by side, intervals drawn. Every number opens the visits it was counted from; every head sorts. */
export function ComparedTable({ rows, ask, asked }: { rows: NamedRow[]; ask: CompareAsk; asked: Asked }) {
  const measures: readonly Measure[] = LOOKS[ask.look].measures;
  const scales = new Map(measures.map((m) => [m, scaleOf(rows.flatMap(({ row }) => row.cells[m] ?? []))]));
  const first = ask.by.map((by) => GROUPINGS[by].one).join(', ');
  return (
    <div className="overflow-x-auto" role="region" aria-label={`${GROUPINGS[ask.by[0] ?? 'network'].many} compared`} tabIndex={0}>
      <table className="w-full border-t-2 border-ink bg-card max-sm:block sm:min-w-[860px]">
        <thead className="max-sm:sr-only">
          <tr className="border-b border-ink text-left align-bottom text-[12px] font-semibold text-ink-2">
            <th scope="col" className="px-2.5 py-1.5 font-semibold first-letter:uppercase">
              {first}
            </th>
            {measures.map((m) => {
              const file: MeasureFile = MEASURES[m];
              const here = ask.sort === m;
              return (
                <th key={m} scope="col" className="px-2.5 py-1.5 font-semibold" aria-sort={here ? 'descending' : 'none'} title={file.rule}>
                  <span className="sm:hidden">{file.label(asked)}</span>
                  <Link
                    prefetch={false}
                    href={`/compare${writeCompareAsk({ ...ask, sort: m })}`}
                    scroll={false}
                    className="inline-block py-1 hover:underline max-sm:hidden"
                  >
                    {file.label(asked)}
                    {here ? <span aria-hidden="true"> ▾</span> : null}
                  </Link>
                  <br />
                  {file.under}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody className="max-sm:block">
          {rows.map((r) => (
            <tr key={`${r.row.groups.map((g) => g.key).join(' ')} ${r.part}`} className="border-b border-rule-2 max-sm:block max-sm:py-2">
              <th scope="row" className="min-w-[150px] px-2.5 py-2 text-left wrap-anywhere max-sm:block">
                <RowName row={r} />
                {r.part ? <span className="block text-[12.5px] font-semibold">{r.part === 'before' ? 'before' : 'from then on'}</span> : null}
                <Link prefetch={false} href={listOf(ask, r, 'attempted')} className="inline-block py-1 text-[12px] font-medium text-ink-2 underline">
                  {printCount(r.row.visits, 'visit')}, {printCount(r.row.sites, 'site')}
                </Link>
                {r.row.sites > 1 ? <span className="text-[12px] font-medium text-ink-2">, {printShare(r.row.commonestSite)} at one</span> : null}
                <Coverage row={r.row} open={(c) => listOf(ask, r, c)} />
              </th>
              {measures.map((m) => {
                const cell: Cell | undefined = r.row.cells[m];
                return (
                  <td key={m} className="px-2.5 max-sm:block max-sm:py-1">
                    <PhoneHead>{MEASURES[m].label(asked)}</PhoneHead>
                    {cell ? (
                      <CellView cell={cell} measure={m} scale={scales.get(m) ?? 60} open={(counted, without) => listOf(ask, r, counted, without)} />
                    ) : null}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The name of a row; of a network or a site it opens its page. */
function RowName({ row: { row, names } }: { row: NamedRow }) {
  const [only, second] = row.groups;
  const href = second ? null : only?.by === 'network' ? `/places/networks/${only.key}` : only?.by === 'site' ? `/places/${only.key}` : null;
  const text = names.join(', ');
  return href ? (
    <Link prefetch={false} href={href} className="block text-[15px] font-bold hover:underline">
      {text}
    </Link>
  ) : (
    <span className="block text-[15px] font-bold">{text}</span>
  );
}

/** Bad stops are recorded more often than good ones: how many of the billed charges the counts rest on. */
function Coverage({ row: { coverage }, open }: { row: ComparedGroup; open: (c: Population) => string }) {
  if (coverage.billed === 0) return null;
  return (
    <Link prefetch={false} href={open('billed')} className="block py-0.5 text-[12px] font-medium text-ink-2 underline">
      {coverage.noted} of {printCount(coverage.billed, 'billed charge')} recorded
    </Link>
  );
}
