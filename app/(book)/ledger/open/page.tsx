import type { Metadata } from 'next';
import Link from 'next/link';
import { olderWords } from '@/core/compare/older-visits';
import { openFor } from '@/core/tariff/open-items';
import { printCount } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';
import { openList } from '@/server/compare/open-list';
import { signedInHere } from '@/server/http/signed-in-here';

export const metadata: Metadata = { title: 'What is open' };

const KINDS = {
  no_bill: 'Charged, no bill',
  pending: 'Pending',
  queried: 'Queried',
  differs: 'Told otherwise',
  off: 'Not the price on file',
  hold: 'Hold',
} as const;

/** Everything about money that waits for an answer, of all time, the longest open first. */
export default async function OpenPage() {
  const who = await signedInHere();
  const { items, beyond } = await openList(who);
  const counts = (Object.keys(KINDS) as (keyof typeof KINDS)[]).flatMap((kind) => {
    const n = items.filter((i) => i.kind === kind).length;
    return n > 0 ? [`${KINDS[kind].toLowerCase()} ${n}`] : [];
  });
  return (
    <div className="mx-auto w-full max-w-[860px] px-4 py-4 sm:px-6">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">What is open</h1>
        <span className="grow" />
        <Link prefetch={false} href="/ledger/statement" className="plate">
          Statement
        </Link>
      </div>
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px]">
        {items.length === 0
          ? 'Nothing: every charge has its bill, every bill is that of the price on file or was looked into, and no hold stands.'
          : `${printCount(items.length, 'thing')} about money ${items.length === 1 ? 'waits' : 'wait'}: ${counts.join(', ')}.`}
        {beyond > 0 ? ` ${olderWords(beyond)}` : ''}
      </p>
      {items.length > 0 ? (
        <ul className="border-t-2 border-ink bg-card">
          {items.map((i) => (
            <li key={`${i.visitId} ${i.kind} ${i.since} ${i.what}`} className="border-b border-rule-2">
              <Link
                prefetch={false}
                href={`/ledger/${i.visitId}`}
                className="flex min-h-[48px] flex-wrap content-center items-baseline gap-x-4 gap-y-0.5 px-3 py-2 hover:bg-sheet"
              >
                <b className="min-w-0">{i.place}</b>
                <span className="min-w-0 grow text-[14px]">{i.what}</span>
                <span className="num text-[13px] text-ink-2">
                  since {printSeen(i.since)} {i.since.slice(0, 4)}, {openFor(i)}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="mt-3 text-[13px] text-ink-2">
        A bill’s state and a hold’s release are noted on the page of the visit. What is private to somebody else is not in this list.
      </p>
    </div>
  );
}
