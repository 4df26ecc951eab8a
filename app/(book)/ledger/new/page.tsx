import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { EditPage } from '../../edit-page';
import { LedgerBeside, one, type Query } from '../ledger-beside';
import { TypeVisit } from './type-visit';

export const metadata: Metadata = { title: 'Type in a visit' };

export default async function TypeVisitPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const query = await searchParams;
  return (
    <LedgerBeside
      who={who}
      query={query}
      selected="new"
      page={async () => (
        <EditPage
          title="Type in a visit"
          back={{ href: '/ledger', text: 'Back to the ledger' }}
          lead="From memory, a receipt or a stopwatch: only what is known. What stays empty is not read, and never zero."
        >
          <TypeVisit currency={who.currency} site={one(query, 'site') ?? ''} />
        </EditPage>
      )}
    />
  );
}
