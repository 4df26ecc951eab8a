import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { visitPage } from '@/server/visits/visit-page';
import { LedgerBeside, type Query } from './ledger-beside';
import { VisitBeside } from './visit-beside';

export const metadata: Metadata = { title: 'Ledger' };

export default async function LedgerPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const page = async (visitId: string) => {
    const data = await visitPage(who.householdId, visitId);
    return data && <VisitBeside data={data} />;
  };
  return <LedgerBeside who={who} query={await searchParams} selected={null} page={page} />;
}
