import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { visitPage } from '@/server/visits/visit-page';
import { VisitSheet } from '@/ui/ledger/visit-sheet';
import { LedgerBeside, type Query } from '../ledger-beside';
import { CorrectEvent } from './correct-event';
import { WithdrawVisit } from './withdraw-visit';

export const metadata: Metadata = { title: 'Visit' };

export default async function VisitPage({ params, searchParams }: { params: Promise<{ visitId: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { visitId } = await params;
  const page = await visitPage(who.householdId, visitId);
  if (!page) notFound();
  const context = { visitId, zone: page.visit.zone, knownSeq: page.maxSeq };
  return (
    <LedgerBeside who={who} query={await searchParams} selected={visitId}>
      <VisitSheet
        page={{ ...page, people: Object.fromEntries(page.people) }}
        withdraw={<WithdrawVisit context={context} withdrawals={page.visit.visitWithdrawals} />}
        correct={(event) => <CorrectEvent key={event.id} context={context} event={event} />}
      />
    </LedgerBeside>
  );
}
