import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { networkPage } from '@/server/places/network-page';
import { NetworkSheet } from '@/ui/places/network-sheet';
import { one, type Query } from '../../../../query';
import { PlacesBeside } from '../../places-beside';

export const generateMetadata = titledByRecord('network', 'networkId', 'Network');

export default async function NetworkPage({ params, searchParams }: { params: Promise<{ networkId: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const { networkId } = await params;
  const page = isId(networkId) ? await networkPage(who, networkId, who.currency) : null;
  if (!page) notFound();
  return (
    <PlacesBeside who={who} car={one(await searchParams, 'car')} selected={networkId} open={null}>
      <NetworkSheet page={page} zone={who.zone} />
    </PlacesBeside>
  );
}
