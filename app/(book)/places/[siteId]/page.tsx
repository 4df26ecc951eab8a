import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { isId } from '@/core/units/id';
import { whoAsks } from '@/server/http/session-cookie';
import { sitePage } from '@/server/places/site-page';
import { one, type Query } from '../../ledger/ledger-beside';
import { PlacesBeside } from '../places-beside';
import { SiteBeside } from '../site-beside';

export const metadata: Metadata = { title: 'Places' };

export default async function SitePage({ params, searchParams }: { params: Promise<{ siteId: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { siteId } = await params;
  const query = await searchParams;
  const page = isId(siteId) ? await sitePage(who, siteId, one(query, 'for') ?? one(query, 'car'), who.currency) : null;
  if (!page) notFound();
  return (
    <PlacesBeside who={who} car={one(query, 'car')} selected={siteId}>
      <SiteBeside page={page} />
    </PlacesBeside>
  );
}
