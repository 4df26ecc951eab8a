import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { isId } from '@/core/units/id';
import { whoAsks } from '@/server/http/session-cookie';
import { networkPage } from '@/server/places/network-page';
import { NetworkSheet } from '@/ui/places/network-sheet';
import { one, type Query } from '../../../ledger/ledger-beside';
import { PlacesBeside } from '../../places-beside';

export const metadata: Metadata = { title: 'Network' };

export default async function NetworkPage({ params, searchParams }: { params: Promise<{ networkId: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { networkId } = await params;
  const page = isId(networkId) ? await networkPage(who, networkId, who.currency) : null;
  if (!page) notFound();
  return (
    <PlacesBeside who={who} car={one(await searchParams, 'car')} selected={networkId} open={null}>
      <NetworkSheet page={page} zone={who.zone} />
    </PlacesBeside>
  );
}
