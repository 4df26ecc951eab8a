import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { visitPage } from '@/server/visits/visit-page';
import { LedgerBeside, one, type Query } from '../ledger-beside';
import { VisitBeside } from '../visit-beside';

export const metadata: Metadata = { title: 'Visit' };

export default async function VisitPage({ params, searchParams }: { params: Promise<{ visitId: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { visitId } = await params;
  const data = await visitPage(who, visitId);
  if (!data) notFound();
  const query = await searchParams;
  const whole = one(query, 'events') === 'all';
  return (
    <LedgerBeside
      who={who}
      query={query}
      selected={visitId}
      page={async (_, around) => <VisitBeside data={data} around={around} distance={who.wishes.distance} currency={who.currency} whole={whole} />}
    />
  );
}
