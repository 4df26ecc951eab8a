import type { Metadata } from 'next';
import Link from 'next/link';
import { olderWords } from '@/core/compare/older-visits';
import { FUEL_UNITS, OTHER_PRICES } from '@/core/records/types/otherprice';
import { allInCsv, allInSentence, per100, yieldWords } from '@/core/tariff/all-in-words';
import { needWords } from '@/core/tariff/fuel';
import { printMoney, printPerKWh } from '@/core/units/money';
import { printCount, printKWh } from '@/core/units/print';
import { printSeen } from '@/core/units/zoned';
import { allInPage } from '@/server/compare/all-in-page';
import { signedInHere } from '@/server/http/signed-in-here';
import { KeepFigure } from '@/ui/charts/keep-figure';
import { CARDS, PhoneHead } from '@/ui/charts/phone-head';
import { PriceLooks } from '@/ui/compare/compare-choices';
import { Section } from '@/ui/places/section';
import { one, type Query } from '../../../query';

export const metadata: Metadata = { title: 'All in' };

/** What a year's charging came to: by the kWh, in the battery, by the distance; beside charging at home, fuel and the time it took. */
export default async function AllInPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const page = await allInPage(who, one(await searchParams, 'car') ?? null);
  const { all, networks, home, hour, fuels, yields } = page;
  const { currency } = who;
  const { distance } = who.wishes;
  const money = (n: number) => printMoney(String(n), currency);
  const perDistance = (n: number | null) => (n === null ? '–' : money(per100(n, distance)));
  const rows = all && networks.length > 1 ? [...networks, { ...all, id: '', name: 'All of it' }] : networks;
  const heads = [
    'Paid',
    'per kWh',
    'per kWh in the battery',
    `per 100 ${distance}`,
    ...(hour ? [`with ${money(Number(hour.price))} an hour`] : []),
    'a stop in the middle',
  ];
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-2.5 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">All in</h1>
        <a href="/compare" className="plate">
          Compare visits
        </a>
        <PriceLooks here="all-in" />
      </div>
      {page.cars.length > 1 ? (
        <form action="/compare/all-in" className="mb-3 flex flex-wrap items-end gap-2">
          <label className="flex flex-col text-[13px] font-semibold">
            Car
            <select name="car" defaultValue={page.car?.id ?? ''} className="field mt-0.5 !w-[180px]">
              {page.cars.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.name}
                </option>
              ))}
            </select>
          </label>
          <button type="submit" className="plate !min-h-[44px]">
            Show it
          </button>
        </form>
      ) : null}
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">{allInSentence(all, page.use, { currency, distance })}</p>
      {rows.length > 0 ? (
        <KeepFigure name="All in" csv={allInCsv(rows, { currency, distance })}>
          <div className="overflow-x-auto" role="region" aria-label="What charging came to, by network" tabIndex={0}>
            <table className={`border-t-2 border-ink bg-card text-[14px] sm:min-w-[760px] ${CARDS.table}`}>
              <thead className={CARDS.head}>
                <tr className="border-b border-ink text-[12px] font-semibold text-ink-2">
                  {['Network', ...heads].map((h, i) => (
                    <th key={h} scope="col" className={`px-2.5 py-1.5 font-semibold ${i === 0 ? 'text-left' : 'text-right'}`}>
                      {h}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className={CARDS.body}>
                {rows.map((r) => (
                  <tr key={r.id} className={`border-b border-rule-2 max-sm:grid-cols-3 ${CARDS.row} ${r.id === '' ? 'border-t-2 border-t-ink font-bold' : ''}`}>
                    <th scope="row" className={`px-2.5 py-1.5 text-left font-bold ${CARDS.whole}`}>
                      {r.name}
                      <span className="block text-[12.5px] font-normal text-ink-2">
                        {printCount(r.visits, 'charge')}, {printKWh(String(r.kWh))}
                      </span>
                    </th>
                    {[
                      money(r.paid),
                      printPerKWh(String(r.perKWh), currency),
                      printPerKWh(String(r.perBatteryKWh), currency),
                      perDistance(r.per100km),
                      ...(hour ? [perDistance(r.time.per100km)] : []),
                      `${printKWh(String(r.stop.kWh))}${r.stop.hour === null ? '' : `, ${String(r.stop.hour).padStart(2, '0')}:00`}`,
                    ].map((figure, i, all) => (
                      <td key={heads[i]} className={`num px-2.5 py-1.5 text-right ${i === all.length - 1 ? 'text-[13px] text-ink-2' : ''} ${CARDS.cell}`}>
                        <PhoneHead>{heads[i]}</PhoneHead>
                        {figure}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </KeepFigure>
      ) : null}
      <Section
        head="Held against"
        beside={
          <Link href="/garage/otherprice" className="font-semibold text-shake underline">
            Other prices, in the garage
          </Link>
        }
        className="mt-6 max-w-[820px]"
      >
        {home || fuels.length > 0 ? (
          <dl className="text-[14px]">
            {home ? (
              <Line
                name={OTHER_PRICES.home.label}
                beside={`${printPerKWh(home.price, home.currency)} a kWh, since ${printSeen(home.from)} ${home.from.slice(0, 4)}`}
              >
                {home.per100km === null ? '–' : `${perDistance(home.per100km)} for 100 ${distance}`}
                {all ? (
                  <span className="block font-sans text-[12.5px] text-ink-2">
                    {printPerKWh(String(Number(home.price) / yields.ac.of), currency)} in the battery; away from home it is{' '}
                    {printPerKWh(String(all.perBatteryKWh), currency)}
                  </span>
                ) : null}
              </Line>
            ) : null}
            {fuels.map((f) => (
              <Line
                key={f.what}
                name={OTHER_PRICES[f.what].label}
                beside={`${printMoney(f.price, f.currency)} ${FUEL_UNITS[f.unit]}, a car of ${needWords(f.needs ?? 0, f.unit)}`}
              >
                {perDistance(f.per100km)} for 100 {distance}
                {f.breakEven !== null ? (
                  <span className="block font-sans text-[12.5px] text-ink-2">
                    the same as charging at {money(f.breakEven)} {FUEL_UNITS[f.unit]}
                    {f.equivalent === null ? '' : `; charging costs what a car of ${needWords(f.equivalent, f.unit)} would need`}
                  </span>
                ) : null}
              </Line>
            ))}
          </dl>
        ) : (
          <p className="text-sm text-ink-2">
            What charging costs at home, what fuel costs and what an hour is worth can be noted in the garage. Then they stand here.
          </p>
        )}
      </Section>
      <p className="mt-4 max-w-[820px] text-[13px] text-ink-2">
        Total over total of the last twelve months; bills in another currency
        {page.elsewhere > 0 ? ` (${page.elsewhere})` : ''} and charges without a bill{page.unbilled > 0 ? ` (${page.unbilled})` : ''} are not in it. Of the
        metered energy comes into the battery: {yieldWords(yields)}. A DC meter leaves out the rectifier, an AC meter sits before the onboard charger. Prices of
        two networks are of the same only beside the same stops: size and hour stand in the last column.
        {hour ? ' The hours are those at the site, of visits whose length is known.' : ''}
        {page.beyond > 0 ? ` ${olderWords(page.beyond)}` : ''}
      </p>
    </div>
  );
}

function Line({ name, beside, children }: { name: string; beside: string; children: React.ReactNode }) {
  return (
    <div className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule-2 py-[6px]">
      <dt className="min-w-0">
        {name} <span className="text-[12.5px] text-ink-2">{beside}</span>
      </dt>
      <dd className="num sm:text-right">{children}</dd>
    </div>
  );
}
