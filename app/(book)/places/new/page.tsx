import type { Metadata } from 'next';
import Link from 'next/link';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesForForms } from '@/server/records/names-for-forms';
import { recordsOf } from '@/server/records/record-tables';
import { EditPage } from '../../edit-page';
import { PlacesBeside } from '../places-beside';
import { positionsOf } from '../positions';
import { NewSite } from './new-site';

export const metadata: Metadata = { title: 'A new site' };

export default async function NewSitePage() {
  const who = await signedInHere();
  const [names, sites] = await Promise.all([namesForForms(who.householdId), recordsOf(who.householdId, 'site')]);
  return (
    <PlacesBeside who={who} car={undefined} selected="">
      <EditPage
        title="A new site"
        back={{ href: '/places', text: 'All sites' }}
        lead={
          <>
            As the sign and the posts say. What differs between stalls is changed afterwards. Many at once come{' '}
            <Link href="/places/import" className="font-semibold text-shake underline">
              from a file
            </Link>
            .
          </>
        }
      >
        <NewSite names={names} zone={who.zone} others={positionsOf(sites)} />
      </EditPage>
    </PlacesBeside>
  );
}
