import type { Metadata } from 'next';
import Link from 'next/link';
import { membersOf } from '@/server/accounts/members';
import { signedInHere } from '@/server/http/signed-in-here';
import { one, type Query } from '../../../query';
import { EditPage } from '../../edit-page';
import { LedgerBeside } from '../ledger-beside';
import { TypeVisit } from './type-visit';

export const metadata: Metadata = { title: 'Type in a visit' };

export default async function TypeVisitPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const query = await searchParams;
  const others = (await membersOf(who.householdId))
    .filter((p) => p.leftAt === null && p.personId !== who.personId)
    .map((p) => ({ id: p.personId, name: p.name }));
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
          <p className="mb-3 text-sm">
            Many of them?{' '}
            <Link href="/ledger/import/sheet" className="inline-block min-h-6 font-semibold text-shake underline">
              Bring in a spreadsheet
            </Link>
          </p>
          <TypeVisit whose={`${who.householdId} ${who.personId}`} currency={who.currency} site={one(query, 'site') ?? ''} people={others} />
        </EditPage>
      )}
    />
  );
}
