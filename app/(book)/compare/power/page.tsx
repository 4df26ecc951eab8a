import type { Metadata } from 'next';
import Link from 'next/link';
import { filterWords, groupsNamed } from '@/core/compare/filter-words';
import { readLedgerFilter, writeLedgerFilter } from '@/core/compare/ledger-filter';
import { POWER_BY, type PowerBy, powerGroupsCsv, powerSentence } from '@/core/compare/power-groups';
import { GROUPINGS } from '@/core/figures/groupings';
import { printCount } from '@/core/units/print';
import { comparedPower } from '@/server/compare/power-page';
import { signedInHere } from '@/server/http/signed-in-here';
import { namesOfGroups } from '@/server/records/group-names';
import { KeepFigure } from '@/ui/charts/keep-figure';
import { PriceLooks } from '@/ui/compare/compare-choices';
import { nameOfFigure, OnlyVisits } from '@/ui/compare/only-visits';
import { PowerGroups } from '@/ui/power/power-groups';
import { one, type Query } from '../../../query';

export const metadata: Metadata = { title: 'Power' };

/** How stalls kept their word, by site, network, stall, model or car. */
export default async function ComparedPowerPage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await signedInHere();
  const query = await searchParams;
  const by: PowerBy = POWER_BY.find((b) => b === one(query, 'by')) ?? 'site';
  // Grouped anew, not narrowed: what a list shows by it has an address of its own.
  const { groups: _, ...filter } = readLedgerFilter((name) => (name === 'by' ? undefined : one(query, name)));
  const { rows, ungrouped, nameOf } = await comparedPower(who, by, filter);
  const chosen = filterWords(filter, await namesOfGroups(who.householdId, groupsNamed(filter)));
  const kept = writeLedgerFilter(filter);
  const hrefOf = (key: string) => (by === 'site' || by === 'network' || by === 'car' ? `/ledger${writeLedgerFilter({ ...filter, [by]: key })}` : null);
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-2.5 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">Power</h1>
        <Link href="/compare" className="plate">
          Compare visits
        </Link>
        <PriceLooks here="power" />
      </div>
      <nav aria-label="Compare by" className="mb-3 flex flex-wrap gap-2">
        {POWER_BY.map((b) => (
          <Link key={b} href={`/compare/power${kept ? `${kept}&by=${b}` : `?by=${b}`}`} aria-current={b === by ? 'page' : undefined} className="plate">
            <span className={b === by ? 'border-b-[3px] border-paint' : ''}>{GROUPINGS[b].many.replace(/^./, (c) => c.toUpperCase())}</span>
          </Link>
        ))}
      </nav>
      <OnlyVisits chosen={chosen} all={`/compare/power?by=${by}`} />
      <p className="mb-3 border-l-[6px] border-paint bg-card px-4 py-2 text-[16px] leading-snug">{powerSentence(rows, nameOf, GROUPINGS[by].one)}</p>
      {rows.length > 0 ? (
        <KeepFigure name={nameOfFigure(`Power by ${GROUPINGS[by].one}`, chosen)} csv={powerGroupsCsv(rows, nameOf, by, chosen)}>
          <PowerGroups rows={rows.map((r) => ({ ...r, name: nameOf(r.key), href: hrefOf(r.key) }))} one={GROUPINGS[by].one} />
        </KeepFigure>
      ) : null}
      <ul className="mt-3 max-w-[860px] text-[13px] text-ink-2">
        <li className="py-0.5">
          Keeps its word: the minutes that the car’s curve, the plate and its amps would have taken, over the minutes it took, all sessions together. A car that
          is full or cold by its own doing lowers it not; sharing and derating do, since the plate does not say them.
        </li>
        <li className="py-0.5">
          Each car is held to its own curve, learnt at other networks where there are enough sessions, else to the typed one. Visits left out of comparisons and
          trials are not counted.
        </li>
        {ungrouped > 0 ? (
          <li className="py-0.5">
            {printCount(ungrouped, 'session')} without a {GROUPINGS[by].one} on file {ungrouped === 1 ? 'is' : 'are'} not shown.
          </li>
        ) : null}
      </ul>
    </div>
  );
}
