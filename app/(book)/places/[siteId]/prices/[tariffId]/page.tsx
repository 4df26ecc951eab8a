import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { DECIMAL } from '@/core/units/money';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { pricesPage } from '@/server/places/prices-page';
import { one, type Query } from '../../../../../query';
import { EditPage } from '../../../../edit-page';
import { PlacesBeside } from '../../../places-beside';
import { PriceEditor } from './price-editor';

export const generateMetadata = titledByRecord('site', 'siteId', 'A price', (name) => `A price, ${name}`);

/** One price of a site, or a new one. */
export default async function PricePage({ params, searchParams }: { params: Promise<{ siteId: string; tariffId: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const { siteId, tariffId } = await params;
  const page = isId(siteId) ? await pricesPage(who, siteId) : null;
  const record = page?.records.find((r) => r.id === tariffId) ?? null;
  if (!page || (!record && tariffId !== 'new')) notFound();
  const query = await searchParams;
  const [perKWh, from] = [one(query, 'perKWh') ?? '', one(query, 'from') ?? ''];
  return (
    <PlacesBeside who={who} car={undefined} selected={siteId}>
      <EditPage
        title={record ? `A price at ${page.site.fields.name}` : `Add a price at ${page.site.fields.name}`}
        back={{ href: `/places/${siteId}/prices`, text: 'Back to the prices' }}
      >
        <PriceEditor
          record={record}
          start={DECIMAL.test(perKWh) ? { perKWh } : {}}
          site={{ id: siteId, name: page.site.fields.name, networkId: page.site.fields.networkId, zone: page.site.fields.zone }}
          network={page.network?.fields.name ?? 'the network'}
          sites={page.sites}
          plans={page.plans}
          providers={page.providers}
          others={page.others}
          currency={page.guest?.currency ?? who.currency}
          today={/^\d{4}-\d{2}-\d{2}$/.test(from) ? from : page.today}
          then={`/places/${siteId}/prices`}
        />
      </EditPage>
    </PlacesBeside>
  );
}
