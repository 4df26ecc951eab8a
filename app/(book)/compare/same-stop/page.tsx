import distance from '@turf/distance';
import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { sameStopSentence } from '@/core/tariff/same-stop';
import { sameStopCsv } from '@/core/tariff/same-stop-csv';
import { readStopAsk } from '@/core/tariff/stop-address';
import { printMoney } from '@/core/units/money';
import { printDistance } from '@/core/units/print';
import { sameStop } from '@/server/compare/same-stop';
import { whoAsks } from '@/server/http/session-cookie';
import { KeepFigure } from '@/ui/charts/keep-figure';
import { PriceLooks } from '@/ui/compare/compare-choices';
import { SameStopTable } from '@/ui/prices/same-stop-table';
import { StopChoice } from '@/ui/prices/stop-choice';
import { one, type Query } from '../../ledger/ledger-beside';

export const metadata: Metadata = { title: 'The same stop' };

/** One and the same stop, priced at every site by the prices on file. */
export default async function SameStopPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const query = await searchParams;
  const page = await sameStop(
    who,
    readStopAsk((name) => one(query, name)),
  );
  const { from } = page;
  const rows = page.rows.map((r) => ({
    ...r,
    away:
      from && r.latitude !== null && r.longitude !== null
        ? printDistance(distance([from.longitude, from.latitude], [r.longitude, r.latitude]), who.wishes.distance)
        : null,
  }));
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
      <StopChoice stop={page.stop} car={page.car?.id ?? null} cars={page.cars} />
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">
        {rows.length === 0
          ? 'No site yet: add one, and the price on its post.'
          : sameStopSentence(
              page.rows,
              (id) => names.get(id) ?? '',
              (amount) => printMoney(String(amount), who.currency),
            )}
      </p>
      <KeepFigure name="The same stop" csv={sameStopCsv(rows, who.currency)}>
        <SameStopTable rows={rows} currency={who.currency} />
      </KeepFigure>
      <p className="mt-3 max-w-[820px] text-[13px] text-ink-2">
        {page.proposed ? 'Proposed from the visits of the last year. ' : ''}
        Minutes by the site’s own past power once three sessions are known, else by the lesser of plate and car: slow posts by the minute do not look cheap.
        Prices are those on file today, tax in; what the post says goes before them. {from ? `Distances from ${from.name}, as the crow flies.` : ''}
      </p>
    </div>
  );
}
