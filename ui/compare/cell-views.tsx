import Link from 'next/link';
import type { ReactNode } from 'react';
import type { BaysCell, Cell, RateCell, RepairCell, ShareCell, TimesCell, Waiting } from '@/core/compare/cells';
import { MEASURES, type Measure } from '@/core/compare/measures';
import type { Side } from '@/core/faults/fault-list';
import type { Population } from '@/core/figures/populations';
import { printPerKWh } from '@/core/units/money';
import { printBetween, printCount, printDuration, printShare } from '@/core/units/print';

type Open = (counted: Population, without?: Side) => string;

/** Seconds at which the bars of a column end. */
export function scaleOf(cells: readonly Cell[]): number {
  const ends = cells.flatMap((c) =>
    c.is === 'wait' || c.is === 'times' ? [c.quarters?.[0] ?? 0, c.quarters?.[1] ?? 0, c.median.known ? c.median.value : 0] : [],
  );
  return Math.ceil(Math.max(60, ...ends) / 30) * 30;
}

/** One figure of one group: drawn where it has an interval, in words where it is not known. */
export function CellView({ cell, measure, scale, open }: { cell: Cell; measure: Measure; scale: number; open: Open }) {
  const [first, second, third]: readonly Population[] = MEASURES[measure].opens;
  switch (cell.is) {
    case 'share':
      return <ShareView cell={cell} open={open} yes={first as Population} no={second as Population} leftOut={third} />;
    case 'wait':
      return <WaitView wait={cell} scale={scale} open={open} />;
    case 'times':
      return <TimesView cell={cell} scale={scale} href={open(first as Population)} />;
    case 'mean':
      return <Plain>{cell.mean.known ? <Opens href={open(first as Population)}>{printDuration(cell.mean.value)}</Opens> : <Why>{cell.mean.why}</Why>}</Plain>;
    case 'price':
      return (
        <div>
          <Plain>
            {cell.perKWh.known ? <Opens href={open(first as Population)}>{printPerKWh(cell.perKWh.value, cell.currency)}</Opens> : <Why>{cell.perKWh.why}</Why>}
          </Plain>
          {cell.bills.checked > 0 ? (
            <span className="block text-[12px] text-ink-2">
              bills off: <Count href={open(second as Population)}>{cell.bills.off}</Count> of{' '}
              <Count href={open(third as Population)}>{cell.bills.checked} checked</Count>
            </span>
          ) : null}
        </div>
      );
    case 'rate':
      return <RateView cell={cell} href={open((second ?? first) as Population)} />;
    case 'bays':
      return <BaysView cell={cell} href={open(first as Population)} />;
    case 'repair':
      return <RepairView cell={cell} />;
  }
}

const Plain = ({ children }: { children: ReactNode }) => <span className="num text-[14.5px]">{children}</span>;
const Why = ({ children }: { children: ReactNode }) => <span className="font-sans text-[13px] text-ink-2">{children}</span>;
const Opens = ({ href, children }: { href: string; children: ReactNode }) => (
  <Link prefetch={false} href={href} className="inline-block py-1 underline decoration-rule underline-offset-4">
    {children}
  </Link>
);
const Count = ({ href, children }: { href: string; children: ReactNode }) => (
  <Link prefetch={false} href={href} className="inline-block py-1 underline">
    {children}
  </Link>
);

/** A share with its 95 % interval on a line from none to all. */
function Interval({ share, interval }: { share: number; interval: [number, number] }) {
  const x = (v: number) => 4 + v * 152;
  return (
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
  );
}

function ShareView({
  cell,
  open,
  yes: yesIs,
  no: noIs,
  leftOut: leftOutIs,
}: {
  cell: ShareCell;
  open: Open;
  yes: Population;
  no: Population;
  leftOut: Population | undefined;
}) {
  const { yes, no, leftOut, interval, without } = cell;
  if (!interval) return <Why>cannot tell yet{leftOut > 0 ? `; ${leftOut} left out` : ''}</Why>;
  const share = yes / (yes + no);
  return (
    <div className="flex items-center gap-2">
      <Interval share={share} interval={interval} />
      <span>
        <Link
          prefetch={false}
          href={open(yesIs)}
          className="num flex min-h-6 items-center text-[14.5px] font-semibold underline decoration-rule underline-offset-4"
        >
          {printShare(share)}
        </Link>
        <span className="block text-[12px] text-ink-2">
          <Count href={open(yesIs)}>
            {yes} of {yes + no}
          </Count>
          {no > 0 ? (
            <>
              , <Count href={open(noIs)}>{no} not</Count>
            </>
          ) : null}
          {leftOut > 0 && leftOutIs ? (
            <>
              , <Count href={open(leftOutIs)}>{leftOut} left out</Count>
            </>
          ) : null}
        </span>
        {without ? (
          <span className="block text-[12px] text-ink-2">
            {without.interval ? (
              <>
                without the {without.side}’s{without.taken === 0 ? ' (none)' : ''}: {printShare(without.yes / (without.yes + without.no))}, {without.yes} of{' '}
                <Count href={open(without.taken > 0 && without.yes !== yes ? yesIs : noIs, without.side)}>{without.yes + without.no}</Count>
              </>
            ) : (
              `without the ${without.side}’s: none left`
            )}
          </span>
        ) : null}
      </span>
    </div>
  );
}

/** Median and middle half on a line of seconds. */
function MiddleHalf({ label, median, quarters, scale }: { label: string; median: number | null; quarters: [number, number | null] | null; scale: number }) {
  const x = (s: number) => 4 + Math.min(1, s / scale) * 142;
  return (
    <svg width="150" height="26" className="shrink-0" role="img" aria-label={label}>
      <line x1="4" x2="146" y1="13" y2="13" stroke="var(--rule-2)" />
      {quarters ? (
        <rect x={x(quarters[0])} width={Math.max(3, (quarters[1] === null ? 146 : x(quarters[1])) - x(quarters[0]))} y="9" height="8" fill="var(--shake-on)" />
      ) : null}
      {quarters?.[1] === null ? <path d="M140 5l7 8-7 8" fill="none" stroke="var(--shake)" strokeWidth="2" /> : null}
      {median === null ? null : <rect x={x(median) - 2.5} width="5" y="4" height="18" fill="var(--shake)" />}
    </svg>
  );
}

function WaitView({ wait: w, scale, open }: { wait: Waiting; scale: number; open: Open }) {
  const said = w.median.known ? printDuration(w.median.value) : w.median.why;
  return (
    <div className="flex items-center gap-2">
      <MiddleHalf label={w.median.known ? `median ${said}` : said} median={w.median.known ? w.median.value : null} quarters={w.quarters} scale={scale} />
      <span>
        <Link
          prefetch={false}
          href={open('timed')}
          className={`flex min-h-6 items-center underline decoration-rule underline-offset-4 ${w.median.known ? 'num text-[14.5px] font-semibold' : 'text-[13px] text-ink-2'}`}
        >
          {said}
        </Link>
        <span className="block text-[12px] text-ink-2">
          <Count href={open('timed')}>{w.timed} timed</Count>
          {w.never > 0 ? (
            <>
              , <Count href={open('never')}>{w.never} never</Count>
            </>
          ) : null}
          {w.leftOut > 0 ? `, ${w.leftOut} left out` : ''}
        </span>
      </span>
    </div>
  );
}

function TimesView({ cell, scale, href }: { cell: TimesCell; scale: number; href: string }) {
  if (!cell.median.known) return <Why>{cell.median.why}</Why>;
  return (
    <div className="flex items-center gap-2">
      <MiddleHalf label={`median ${printDuration(cell.median.value)}`} median={cell.median.value} quarters={cell.quarters} scale={scale} />
      <span>
        <span className="num flex min-h-6 items-center text-[14.5px] font-semibold">{printDuration(cell.median.value)}</span>
        <span className="block text-[12px] text-ink-2">
          <Count href={href}>{printCount(cell.n, 'visit')}</Count>
        </span>
      </span>
    </div>
  );
}

/** Kinds shown of a rate; the rest is added up. */
const PARTS = 3;
function RateView({ cell, href }: { cell: RateCell; href: string }) {
  if (!cell.rate.known) return <Why>{cell.rate.why}</Why>;
  const shown = cell.parts.slice(0, PARTS);
  const rest = cell.parts.slice(PARTS).reduce((s, [, n]) => s + n, 0);
  const digits = cell.rate.value >= 100 ? 0 : 1;
  return (
    <div className="py-1">
      <span className="num block text-[14.5px] font-semibold">{cell.rate.value.toFixed(digits)}</span>
      <span className="block text-[12px] text-ink-2">
        <Count href={href}>
          {cell.count} in {cell.of === 'hours' ? `${cell.per.toFixed(cell.per < 10 ? 1 : 0)} h` : printCount(cell.per, 'visit')}
        </Count>
      </span>
      {cell.of === 'visits' && shown.length > 0 ? (
        <ul className="text-[12.5px]">
          {shown.map(([name, n]) => (
            <li key={name}>
              {name} <span className="num">{n}</span>
            </li>
          ))}
          {rest > 0 ? (
            <li>
              others <span className="num">{rest}</span>
            </li>
          ) : null}
        </ul>
      ) : null}
    </div>
  );
}

function BaysView({ cell, href }: { cell: BaysCell; href: string }) {
  if (!cell.interval) return <Why>no bays looked at</Why>;
  const share = cell.yes / (cell.yes + cell.no);
  return (
    <div className="flex items-center gap-2">
      <Interval share={share} interval={cell.interval} />
      <span>
        <span className="num flex min-h-6 items-center text-[14.5px] font-semibold">{printShare(share)}</span>
        <span className="block text-[12px] text-ink-2">
          {cell.yes} of {printCount(cell.yes + cell.no, 'bay')}, <Count href={href}>{printCount(cell.looks, 'look')}</Count>
        </span>
      </span>
    </div>
  );
}

function RepairView({ cell }: { cell: RepairCell }) {
  const open = cell.open > 0 ? `${cell.open} not seen working since` : '';
  if (!cell.least.known) return <Why>{open || cell.least.why}</Why>;
  return (
    <div className="py-1">
      <span className="num block text-[14.5px] font-semibold">{printBetween(cell.least.value, cell.most.known ? cell.most.value : null)}</span>
      <span className="block text-[12px] text-ink-2">
        {cell.n} seen repaired{open ? `, ${open}` : ''}
        {cell.most.known ? '' : `; ${cell.most.why}`}
      </span>
    </div>
  );
}
