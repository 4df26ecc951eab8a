import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { LedgerBeside, type Query } from './ledger-beside';

export const metadata: Metadata = { title: 'Ledger' };

export default async function LedgerPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  return (
    <LedgerBeside who={who} query={await searchParams} selected={null}>
      <div className="p-8 text-ink-2">
        <p className="max-w-md">Choose a visit to see its tape, its times and its bill. <span className="num">J</span> and <span className="num">K</span> move through the list.</p>
      </div>
    </LedgerBeside>
  );
}
