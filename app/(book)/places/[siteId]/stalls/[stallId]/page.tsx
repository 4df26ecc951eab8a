import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { byPost } from '@/core/records/stall-plate';
import { isId } from '@/core/units/id';
import { localDay } from '@/core/units/zoned';
import { now } from '@/server/clock';
import { whoAsks } from '@/server/http/session-cookie';
import { readRecord, stallsOfSite } from '@/server/records/record-tables';
import { timesUsed } from '@/server/records/times-used';
import { EditPage } from '../../../../edit-page';
import { RecordEditor } from '../../../../record-editor';
import { PlacesBeside } from '../../../places-beside';

export const metadata: Metadata = { title: 'Stall' };

/** A stall of a site; `new` for another one, which starts from the last of the site. */
export default async function StallPage({ params }: { params: Promise<{ siteId: string; stallId: string }> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { siteId, stallId } = await params;
  const site = isId(siteId) ? await readRecord(who.householdId, 'site', siteId) : null;
  if (!site) notFound();
  const stalls = (await stallsOfSite(who.householdId, siteId)).sort(byPost);
  const stall = stalls.find((s) => s.id === stallId) ?? null;
  if (!stall && stallId !== 'new') notFound();
  const used = stall ? ((await timesUsed(who.householdId, 'stall')).get(stall.id) ?? 0) : 0;
  const last = stalls.filter((s) => !s.archived).at(-1)?.fields;
  const start = { siteId, outlets: last?.outlets ?? [{ connector: 'CCS2' }], model: last?.model ?? null };
  return (
    <PlacesBeside who={who} car={undefined} selected={siteId}>
      <EditPage
        title={stall ? `${site.fields.name}, stall ${stall.fields.name}` : `Another stall at ${site.fields.name}`}
        back={{ href: `/places/${siteId}`, text: 'Back to the site' }}
      >
        <RecordEditor
          type="stall"
          record={stall}
          {...(stall ? {} : { start })}
          names={{}}
          today={localDay(now(), site.fields.zone)}
          person={who.name}
          used={used}
          then={`/places/${siteId}`}
        />
      </EditPage>
    </PlacesBeside>
  );
}
