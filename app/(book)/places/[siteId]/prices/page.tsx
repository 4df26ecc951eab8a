import Link from 'next/link';
import { notFound } from 'next/navigation';
import { priceQuestions } from '@/core/tariff/price-questions';
import { priceWeek } from '@/core/tariff/price-week';
import { compiledOf } from '@/core/tariff/tariff-object';
import { isId } from '@/core/units/id';
import { printPerKWh } from '@/core/units/money';
import { printSeen } from '@/core/units/zoned';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { pricesPage } from '@/server/places/prices-page';
import { Section } from '@/ui/places/section';
import { PriceList } from '@/ui/prices/price-list';
import { WeekClock } from '@/ui/prices/week-clock';
import { ForDrivers } from '@/ui/road/role';
import { PlacesBeside } from '../../places-beside';

export const generateMetadata = titledByRecord('site', 'siteId', 'Prices', (name) => `Prices, ${name}`);

/** The prices of a site: those in force, those that were, and the week of the guest’s. */
export default async function SitePricesPage({ params }: { params: Promise<{ siteId: string }> }) {
  const who = await signedInHere();
  const { siteId } = await params;
  const page = isId(siteId) ? await pricesPage(who, siteId) : null;
  if (!page) notFound();
  const { noted, guest } = page;
  return (
    <PlacesBeside who={who} car={undefined} selected={siteId}>
      <div className="max-w-[980px] px-4 py-4 sm:px-6">
        <Link href={`/places/${siteId}`} className="inline-block min-h-6 text-[13px] font-semibold text-shake underline">
          Back to {page.site.fields.name}
        </Link>
        <div className="mb-4 mt-1 flex flex-wrap items-center gap-3">
          <h1 className="text-[24px]">Prices</h1>
          <span className="grow" />
          <ForDrivers>
            <Link href={`/places/networks/${page.site.fields.networkId}/prices`} className="plate">
              From a file
            </Link>
            <Link href={`/places/${siteId}/prices/new`} className="plate plate-next">
              Add a price
            </Link>
          </ForDrivers>
        </div>
        {noted ? (
          <p className="mb-4 border-l-4 border-paint bg-card px-3 py-2 text-[14.5px]">
            On {printSeen(noted.day)} {noted.day.slice(0, 4)} the {noted.where} said {noted.currency ? printPerKWh(noted.perKWh, noted.currency) : noted.perKWh}{' '}
            per kWh. That is on file as no price.{' '}
            <ForDrivers>
              <Link href={`/places/${siteId}/prices/new?perKWh=${noted.perKWh}&from=${noted.day}`} className="font-semibold text-shake underline">
                Keep it as a price
              </Link>
            </ForDrivers>
          </p>
        ) : null}
        <div className="grid gap-x-8 gap-y-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,400px)]">
          <Section head="On file">
            <PriceList prices={page.prices} href={(id) => `/places/${siteId}/prices/${id}`} />
          </Section>
          {guest ? (
            <Section head="Through the week" beside={`${guest.currency} per kWh, guest`}>
              <WeekClock week={priceWeek(compiledOf(guest), page.today)} currency={guest.currency} />
              {priceQuestions(compiledOf(guest), page.today).map((q) => (
                <p key={q.text} className="mt-2 text-[13.5px] text-ink-2">
                  {q.text}
                </p>
              ))}
            </Section>
          ) : null}
        </div>
      </div>
    </PlacesBeside>
  );
}
