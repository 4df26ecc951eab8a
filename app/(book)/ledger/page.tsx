import type { Metadata } from 'next';
import { Suspense } from 'react';
import { signedInHere } from '@/server/http/signed-in-here';
import { visitPage } from '@/server/visits/visit-page';
import type { Query } from '../../query';
import { type Around, LedgerBeside } from './ledger-beside';
import { VisitBeside } from './visit-beside';

export const metadata: Metadata = { title: 'Ledger' };

export default async function LedgerPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const page = async (visitId: string, around: Around) => {
    const data = await visitPage(who, visitId);
    return data && <VisitBeside data={data} around={around} distance={who.wishes.distance} currency={who.currency} />;
  };
  return (
    <Suspense fallback={<ReadingTheLedger />}>
      <LedgerBeside who={who} query={await searchParams} selected={null} page={page} />
    </Suspense>
  );
}

/** Same frame as the list, so that nothing shifts when it comes. */
function ReadingTheLedger() {
  return (
    <div className="flex grow">
      <div className="grow bg-card lg:h-[calc(100dvh-52px)] lg:w-[392px] lg:grow-0 lg:border-r lg:border-rule" role="status">
        <p className="h-[98px] border-b-2 border-ink px-4 py-3 text-xl font-extrabold">Ledger</p>
        <p className="p-4 text-sm text-ink-2">Reading the ledger …</p>
      </div>
      <div className="hidden grow lg:block" />
    </div>
  );
}
