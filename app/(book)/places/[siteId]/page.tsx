import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { sitePage } from '@/server/places/site-page';
import { one, type Query } from '../../../query';
import { PlacesBeside } from '../places-beside';
import { SiteBeside } from '../site-beside';

export const generateMetadata = titledByRecord('site', 'siteId', 'Places');

export default async function SitePage({ params, searchParams }: { params: Promise<{ siteId: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
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
