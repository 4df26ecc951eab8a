import { notFound } from 'next/navigation';
import { titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { visitPage } from '@/server/visits/visit-page';
import { visitTitle } from '@/server/visits/visit-title';
import { one, type Query } from '../../../query';
import { LedgerBeside } from '../ledger-beside';
import { VisitBeside } from '../visit-beside';

export const generateMetadata = async ({ params }: { params: Promise<{ visitId: string }> }) => {
  const { visitId } = await params;
  return titled('Visit', (who) => visitTitle(who, visitId));
};

export default async function VisitPage({ params, searchParams }: { params: Promise<{ visitId: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
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
