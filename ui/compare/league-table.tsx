'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import type { LeagueRow } from '@/core/compare/league';
import { writeLedgerFilter } from '@/core/compare/ledger-filter';
import type { Side } from '@/core/faults/fault-list';
import type { Population, PowerTime } from '@/core/figures/populations';
import { printPerKWh } from '@/core/units/money';
import { printCount, printDuration, printShare } from '@/core/units/print';
import { TIME_RULES } from '@/core/visit/attempt-times';
import type { EndMark } from '@/core/visit/attempts/attempt';

type Row = LeagueRow & { name: string };

/** The networks side by side, intervals drawn. Every number opens the visits it was counted from. */
export function LeagueTable({ rows, time, mark }: { rows: Row[]; time: PowerTime; mark: EndMark }) {
  const slowest = Math.max(
    60,
    ...rows.flatMap((r) => [r.waiting.quarters?.[0] ?? 0, r.waiting.quarters?.[1] ?? 0, r.waiting.median.known ? r.waiting.median.value : 0]),
  );
  const scale = Math.ceil(slowest / 30) * 30;
  const open = (r: Row, counted: Population, without?: Side) =>
    `/ledger${writeLedgerFilter({ network: r.networkId, counted, time, mark, ...(without ? { without } : {}) })}`;
  return (
    <div className="overflow-x-auto" role="region" aria-label="Networks compared" tabIndex={0}>
      <table className="w-full border-t-2 border-ink bg-card max-sm:block sm:min-w-[860px]">
        <thead className="max-sm:sr-only">
          <tr className="border-b border-ink text-left align-bottom text-[12px] font-semibold text-ink-2">
            <th scope="col" className="px-2.5 py-1.5 font-semibold">
              Network
            </th>
            <th scope="col" className="px-2.5 py-1.5 font-semibold">
              Starts at the first try
              <br />
              share, 95 % interval
            </th>
            <th scope="col" className="px-2.5 py-1.5 font-semibold">
              {TIME_RULES[time].label}
              <br />
              to first {mark}; median and middle half of all
            </th>
            <th scope="col" className="px-2.5 py-1.5 font-semibold">
              Lost per visit
              <br />
              to faults
            </th>
            <th scope="col" className="px-2.5 py-1.5 font-semibold">
              Paid
              <br />
              price per kWh with fees
            </th>
          </tr>
        </thead>
        <tbody className="max-sm:block">
          {rows.map((r) => (
            <tr key={r.networkId} className="border-b border-rule-2 max-sm:block max-sm:py-2">
              <th scope="row" className="px-2.5 py-2 text-left max-sm:block">
                <span className="block text-[15px] font-bold">{r.name}</span>
                <Link prefetch={false} href={open(r, 'attempted')} className="inline-block py-1 text-[12px] font-medium text-ink-2 underline">
                  {printCount(r.visits, 'visit')}, {printCount(r.sites, 'site')}
                </Link>
                {r.sites > 1 ? <span className="text-[12px] font-medium text-ink-2">, {printShare(r.commonestSite)} at one</span> : null}
              </th>
              <td className="px-2.5 max-sm:block max-sm:py-1">
                <Small>Starts at the first try</Small>
                <FirstTry row={r} open={(c, without) => open(r, c, without)} />
              </td>
              <td className="px-2.5 max-sm:block max-sm:py-1">
                <Small>
                  {TIME_RULES[time].label} to first {mark}
                </Small>
                <Wait row={r} scale={scale} open={(c) => open(r, c)} />
              </td>
              <td className="num px-2.5 text-[14.5px] max-sm:inline-block max-sm:w-1/2">
                <Small>Lost per visit</Small>
                {r.lost.known ? (
                  <Link prefetch={false} href={open(r, 'lost')} className="inline-block py-1 underline decoration-rule underline-offset-4">
                    {printDuration(r.lost.value.perVisit_s)}
                  </Link>
                ) : (
                  <span className="font-sans text-[13px] text-ink-2">{r.lost.why}</span>
                )}
              </td>
              <td className="num px-2.5 text-[14.5px] max-sm:inline-block max-sm:w-1/2">
                <Small>Price per kWh with fees</Small>
                {r.allIn.known ? (
                  <Link prefetch={false} href={open(r, 'priced')} className="inline-block py-1 underline decoration-rule underline-offset-4">
                    {printPerKWh(r.allIn.value.perKWh, r.allIn.value.currency)}
                  </Link>
                ) : (
                  <span className="font-sans text-[13px] text-ink-2">{r.allIn.why}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** On a phone each figure bears its own head. */
const Small = ({ children }: { children: ReactNode }) => <span className="block font-sans text-[12px] text-ink-2 sm:hidden">{children}</span>;

function FirstTry({ row, open }: { row: Row; open: (c: Population, without?: Side) => string }) {
  const { yes, no, leftOut, interval, without } = row.firstTry;
  if (!interval) return <span className="text-[13px] text-ink-2">cannot tell yet{leftOut > 0 ? `; ${leftOut} left out` : ''}</span>;
  const share = yes / (yes + no);
  const x = (v: number) => 4 + v * 152;
  return (
    <div className="flex items-center gap-2">
      <svg
        width="160"
        height="26"
        className="shrink-0"
        role="img"
        aria-label={`${printShare(share)}, between ${printShare(interval[0])} and ${printShare(interval[1])}`}
      >
        <line x1="4" x2="156" y1="13" y2="13" stroke="var(--rule-2)" />
        {[0, 0.5, 1].map((v) => (
          <line key={v} x1={x(v)} x2={x(v)} y1="5" y2="21" stroke="var(--rule)" />
        ))}
        <rect x={x(interval[0])} width={Math.max(2, x(interval[1]) - x(interval[0]))} y="9" height="8" fill="var(--ink)" />
        <rect x={x(share) - 4} width="8" y="4" height="18" fill="var(--paint)" stroke="var(--on-paint)" strokeWidth="1.5" />
      </svg>
      <span>
        <Link
          prefetch={false}
          href={open('first_yes')}
          className="num flex min-h-6 items-center text-[14.5px] font-semibold underline decoration-rule underline-offset-4"
        >
          {printShare(share)}
        </Link>
        <span className="block text-[12px] text-ink-2">
          <Link prefetch={false} href={open('first_yes')} className="inline-block py-1 underline">
            {yes} of {yes + no}
          </Link>
          {no > 0 ? (
            <>
              ,{' '}
              <Link prefetch={false} href={open('first_no')} className="inline-block py-1 underline">
                {no} not
              </Link>
            </>
          ) : null}
          {leftOut > 0 ? (
            <>
              ,{' '}
              <Link prefetch={false} href={open('first_left_out')} className="inline-block py-1 underline">
                {leftOut} left out
              </Link>
            </>
          ) : null}
        </span>
        {without ? <Without share={without} open={(c) => open(c, without.side)} /> : null}
      </span>
    </div>
  );
}

/** The share once more, without what failed on one side. */
function Without({ share: w, open }: { share: NonNullable<Row['firstTry']['without']>; open: (c: Population) => string }) {
  if (!w.interval) return <span className="block text-[12px] text-ink-2">without the {w.side}’s: none left</span>;
  return (
    <span className="block text-[12px] text-ink-2">
      without the {w.side}’s{w.taken === 0 ? ' (none)' : ''}: {printShare(w.yes / (w.yes + w.no))}, {w.yes} of{' '}
      <Link prefetch={false} href={open('first_no')} className="inline-block py-1 underline">
        {w.yes + w.no}
      </Link>
    </span>
  );
}

function Wait({ row, scale, open }: { row: Row; scale: number; open: (c: Population) => string }) {
  const w = row.waiting;
  const x = (s: number) => 4 + Math.min(1, s / scale) * 142;
  return (
    <div className="flex items-center gap-2">
      <svg width="150" height="26" className="shrink-0" role="img" aria-label={w.median.known ? `median ${printDuration(w.median.value)}` : w.median.why}>
        <line x1="4" x2="146" y1="13" y2="13" stroke="var(--rule-2)" />
        {w.quarters ? (
          <rect
            x={x(w.quarters[0])}
            width={Math.max(3, (w.quarters[1] === null ? 146 : x(w.quarters[1])) - x(w.quarters[0]))}
            y="9"
            height="8"
            fill="var(--shake-on)"
          />
        ) : null}
        {w.quarters?.[1] === null ? <path d="M140 5l7 8-7 8" fill="none" stroke="var(--shake)" strokeWidth="2" /> : null}
        {w.median.known ? <rect x={x(w.median.value) - 2.5} width="5" y="4" height="18" fill="var(--shake)" /> : null}
      </svg>
      <span>
        <Link
          href={open('timed')}
          className={`flex min-h-6 items-center underline decoration-rule underline-offset-4 ${w.median.known ? 'num text-[14.5px] font-semibold' : 'text-[13px] text-ink-2'}`}
        >
          {w.median.known ? printDuration(w.median.value) : w.median.why}
        </Link>
        <span className="block text-[12px] text-ink-2">
          <Link prefetch={false} href={open('timed')} className="inline-block py-1 underline">
            {w.timed} timed
          </Link>
          {w.never > 0 ? (
            <>
              ,{' '}
              <Link prefetch={false} href={open('never')} className="inline-block py-1 underline">
                {w.never} never
              </Link>
            </>
          ) : null}
          {w.leftOut > 0 ? `, ${w.leftOut} left out` : ''}
        </span>
      </span>
    </div>
  );
}
