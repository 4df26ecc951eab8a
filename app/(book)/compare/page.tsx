import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { league, startsOf } from '@/core/compare/league';
import { readLedgerFilter } from '@/core/compare/ledger-filter';
import { compareSentences } from '@/core/compare/sentence';
import { waitingCurves } from '@/core/compare/waiting-curve';
import { TIME_RULES } from '@/core/visit/attempt-times';
import { figuresWaiting } from '@/server/figures/refresh';
import { whoAsks } from '@/server/http/session-cookie';
import { allNames } from '@/server/records/names-for-forms';
import { compareRows } from '@/server/visits/compare-query';
import { LeagueTable } from '@/ui/compare/league-table';
import { Sentences } from '@/ui/compare/sentences';
import { StillWaiting } from '@/ui/compare/still-waiting';
import { TimeChoice } from '@/ui/compare/time-choice';
import { FiguresWaiting } from '@/ui/ledger/figures-waiting';
import { one, type Query } from '../ledger/ledger-beside';

export const metadata: Metadata = { title: 'Compare' };

export default async function ComparePage({ searchParams }: { searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const query = await searchParams;
  const { time, mark, without } = readLedgerFilter((name) => one(query, name));
  const visits = await compareRows(who, who.currency);
  const [networks, sites, waiting] = await Promise.all([
    allNames(who.householdId, 'network', { archived: true }),
    allNames(who.householdId, 'site', { archived: true }),
    figuresWaiting(who.householdId),
  ]);
  const names = new Map(networks.map((n) => [n.id, n.name]));
  const nameOf = (id: string) => names.get(id) ?? 'Unknown network';
  const rows = league(visits, { time, mark, currency: who.currency, ...(without ? { without } : {}) });
  const siteNames = new Map(sites.map((s) => [s.id, s.name]));
  const sentences = compareSentences(startsOf(visits), { network: nameOf, site: (id) => siteNames.get(id) ?? 'a site not known here' });
  const elsewhere = visits.filter((v) => v.currency !== null && v.currency !== who.currency).length;
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-2.5 flex flex-wrap items-center gap-3">
        <h1 className="text-[22px]">Compare networks</h1>
        <span className="grow" />
        {rows.length > 0 ? <TimeChoice time={time} mark={mark} without={without ?? null} /> : null}
      </div>
      <FiguresWaiting visits={waiting} />
      {rows.length === 0 ? (
        <div className="max-w-md bg-card p-6">
          <h2 className="text-lg">Nothing to compare yet</h2>
          <p className="mt-2 text-sm text-ink-2">
            Visits become a comparison by themselves. Each share will say from how many visits and sites it comes, and how sure one can be.
          </p>
          <a href="/stall" className="plate plate-next mt-4">
            Pull in
          </a>
        </div>
      ) : (
        <>
          <Sentences sentences={sentences} />
          <LeagueTable rows={rows.map((r) => ({ ...r, name: nameOf(r.networkId) }))} time={time} mark={mark} />
          <StillWaiting of={waitingCurves(visits, { time, mark })} nameOf={nameOf} time={`${TIME_RULES[time].label} to first ${mark}`} />
          <p className="mt-3 max-w-[860px] text-[13px] text-ink-2">
            Visits to one site are not independent, so each share says from how many sites it comes.{' '}
            {without ? `Beside each share stands the one without what failed on the ${without}’s side. ` : 'Faults of every side are in. '}Attempts that never
            got power count as never in the handshake; starts seen late and starts with another end mark are left out of it.
            {elsewhere > 0 ? ` ${elsewhere} visits in another currency than ${who.currency} are left out of the prices.` : ''}
          </p>
        </>
      )}
    </div>
  );
}
