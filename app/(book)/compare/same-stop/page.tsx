import type { Metadata } from 'next';
import { kmBetween } from '@/core/records/place-questions';
import { USUAL_YIELD } from '@/core/tariff/all-in';
import { nearSentence, sameStopSentence } from '@/core/tariff/same-stop';
import { sameStopCsv } from '@/core/tariff/same-stop-csv';
import { readStopAsk, stopOfAddress, writeStopAsk } from '@/core/tariff/stop-address';
import { toKm } from '@/core/units/distance';
import { printMoney } from '@/core/units/money';
import { printDistance } from '@/core/units/print';
import { sameStop } from '@/server/compare/same-stop';
import { signedInHere } from '@/server/http/signed-in-here';
import { KeepFigure } from '@/ui/charts/keep-figure';
import { PriceLooks } from '@/ui/compare/compare-choices';
import { KeepStop } from '@/ui/prices/keep-stop';
import { SameStopTable } from '@/ui/prices/same-stop-table';
import { StopChoice } from '@/ui/prices/stop-choice';
import { one, type Query } from '../../../query';

export const metadata: Metadata = { title: 'The same stop' };

/** One and the same stop, priced at every site by the prices on file. */
export default async function SameStopPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const query = await searchParams;
  const asked = readStopAsk((name) => one(query, name));
  const kept = who.wishes.usualStop;
  const usual = kept !== null && Object.keys(asked).length === 0;
  const ask = usual ? stopOfAddress(kept) : asked;
  const page = await sameStop(who, ask);
  const { from } = page;
  const unit = who.wishes.distance;
  const placed = page.rows.map((r) => ({
    ...r,
    km: from && r.latitude !== null && r.longitude !== null ? kmBetween(from, { latitude: r.latitude, longitude: r.longitude }) : null,
  }));
  const rows = placed.map((r) => ({ ...r, away: r.km === null ? null : printDistance(r.km, unit) }));
  const within = ask.within ?? null;
  const near = within === null ? null : placed.filter((r) => r.km !== null && r.km <= toKm(within, unit));
  const money = (amount: number) => printMoney(String(amount), who.currency);
  const names = new Map(rows.map((r) => [r.siteId, r.name]));
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-2.5 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">The same stop</h1>
        <a href="/compare" className="plate">
          Compare visits
        </a>
        <PriceLooks here="same-stop" />
      </div>
      <StopChoice
        stop={page.stop}
        car={page.car?.id ?? null}
        cars={page.cars}
        sites={page.rows
          .filter((r) => r.latitude !== null && r.longitude !== null)
          .map((r) => ({ id: r.siteId, name: r.name }))
          .sort((a, b) => a.name.localeCompare(b.name))}
        from={from?.id ?? null}
        within={within}
        distance={unit}
      >
        <KeepStop
          address={writeStopAsk({ ...page.stop, ...(page.car ? { car: page.car.id } : {}), ...(within === null ? {} : { within, from: from?.id }) })}
          kept={kept}
        />
      </StopChoice>
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">
        {rows.length === 0 ? 'No site yet: add one, and the price on its post.' : sameStopSentence(page.rows, (id) => names.get(id) ?? '', money)}
        {near && from ? ` ${nearSentence(page.rows, near, `${within} ${unit} of ${from.name}`, (id) => names.get(id) ?? '', money)}` : ''}
      </p>
      <KeepFigure name="The same stop" csv={sameStopCsv(rows, who.currency)}>
        <SameStopTable rows={rows} currency={who.currency} />
      </KeepFigure>
      <p className="mt-3 max-w-[820px] text-[13px] text-ink-2">
        {page.proposed ? 'Proposed from the visits of the last year. ' : ''}
        {page.levelsUnknown ? `How much of the battery of ${page.car?.name ?? 'the car'} can be used is not noted: the kWh are priced, not the levels. ` : ''}
        {page.stop.levels && !page.levelsUnknown
          ? 'From a level to another, the meter counts what is lost on the way too, more before the car’s own charger. '
          : ''}
        Minutes by the site’s own past power once three sessions are known, else by the lesser of plate and car: slow posts by the minute do not look cheap.
        Prices are those on file today, tax in; what the post says goes before them. In the battery: of a kWh by an AC meter {Math.round(USUAL_YIELD.ac * 100)}{' '}
        %, by a DC meter {Math.round(USUAL_YIELD.dc * 100)} %, as is usual. {from ? `Distances from ${from.name}, as the crow flies.` : ''}
      </p>
    </div>
  );
}
