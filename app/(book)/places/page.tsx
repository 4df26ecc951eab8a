import type { Metadata } from 'next';
import { signedInHere } from '@/server/http/signed-in-here';
import { lastSite } from '@/server/places/site-list';
import { sitePage } from '@/server/places/site-page';
import { one, type Query } from '../../query';
import { PlacesBeside } from './places-beside';
import { SiteBeside } from './site-beside';

export const metadata: Metadata = { title: 'Places' };

/** The list; beside it, where there is room, the site of the last visit. */
export default async function PlacesPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const query = await searchParams;
  const open = await lastSite(who);
  const page = open ? await sitePage(who, open, one(query, 'for') ?? one(query, 'car'), who.currency) : null;
  return (
    <PlacesBeside who={who} car={one(query, 'car')} selected={null} open={page ? open : null}>
      {page ? <SiteBeside page={page} /> : <div className="p-6 text-sm text-ink-2">Choose a site from the list or from the sketch.</div>}
    </PlacesBeside>
  );
}
