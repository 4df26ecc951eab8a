import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import { now } from '@/server/clock';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesForForms } from '@/server/records/names-for-forms';
import { readRecord, recordsOf } from '@/server/records/record-tables';
import { timesUsed } from '@/server/records/times-used';
import { EditPage } from '../../../edit-page';
import { RecordEditor } from '../../../record-editor';
import { PlacesBeside } from '../../places-beside';
import { positionsOf } from '../../positions';

export const generateMetadata = titledByRecord('site', 'siteId', 'Change a site', (name) => `Change, ${name}`);

export default async function ChangeSitePage({ params }: { params: Promise<{ siteId: string }> }) {
  const who = await signedInHere();
  const { siteId } = await params;
  const site = isId(siteId) ? await readRecord(who.householdId, 'site', siteId) : null;
  if (!site) notFound();
  const [names, sites, used] = await Promise.all([namesForForms(who.householdId), recordsOf(who.householdId, 'site'), timesUsed(who.householdId, 'site')]);
  return (
    <PlacesBeside who={who} car={undefined} selected={siteId}>
      <EditPage title={site.fields.name} back={{ href: `/places/${siteId}`, text: 'Back to the site' }}>
        <RecordEditor
          type="site"
          record={site}
          names={names}
          today={localDay(now(), site.fields.zone)}
          person={who.name}
          used={used.get(siteId) ?? 0}
          then="/places/:id"
          homeZone={who.zone}
          others={positionsOf(sites, siteId)}
        />
      </EditPage>
    </PlacesBeside>
  );
}
