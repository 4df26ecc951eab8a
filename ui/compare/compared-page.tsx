import Link from 'next/link';
import { type CompareAsk, writeCompareAsk } from '@/core/compare/compare-address';
import { comparedCsv } from '@/core/compare/compared-csv';
import { frontierSentence } from '@/core/compare/frontier';
import { LOOKS, MEASURES, type Measure } from '@/core/compare/measures';
import type { SavedView } from '@/core/compare/saved-view';
import type { CompareSentence } from '@/core/compare/sentence';
import type { WaitingCurves } from '@/core/compare/waiting-curve';
import { GROUPINGS } from '@/core/figures/groupings';
import type { Asked } from '@/core/figures/populations';
import { printPerKWh } from '@/core/units/money';
import { printCount, printKWh, printShare } from '@/core/units/print';
import { KeepFigure } from '../charts/keep-figure';
import { FiguresWaiting } from '../ledger/figures-waiting';
import { MoreFilters } from '../ledger/more-filters';
import { ForDrivers } from '../road/role';
import { GroupedBy, LookedAt } from './compare-choices';
import { ComparedTable, type NamedRow } from './compared-table';
import { OnWatch, type WatchRow } from './on-watch';
import { nameOfFigure, OnlyVisits } from './only-visits';
import { SavedViews } from './saved-views';
import { Sentences } from './sentences';
import { SortedBy } from './sorted-by';
import { StillWaiting } from './still-waiting';

type Named = { id: string; name: string }[];

/** Everything that a comparison shows: what it is of, sentences first, the groups side by side, how the starts went on waiting. */
export function ComparedPage(page: {
  ask: CompareAsk;
  asked: Asked;
  /** Which visits are compared, in words; `''`: all. */
  chosen: string;
  rows: NamedRow[];
  /** Groups with fewer visits than asked for; visits in no group. */
  hidden: number;
  /** Groups beyond those that are shown. */
  beyond: number;
  ungrouped: number;
  sentences: CompareSentence[];
  watches: WatchRow[];
  /** Whether the page shows what is on watch: under a filter it does not. */
  watching: boolean;
  views: SavedView[];
  /** Those under way first. */
  trials: { id: string; name: string; over: boolean }[];
  curves: WaitingCurves | null;
  curveNames: Readonly<Record<string, string>>;
  timeWords: string;
  /** Visits paid in another currency. */
  elsewhere: number;
  currency: string;
  waiting: number;
  sites: Named;
  cars: Named;
  people: Named;
}) {
  const { ask, asked, rows, curves } = page;
  const { time, mark, without } = ask.filter;
  /** All visits, counted as they are now. */
  const all = writeCompareAsk({ ...ask, filter: { time, mark, ...(without ? { without } : {}) } });
  const by = GROUPINGS[ask.by[0] ?? 'network'];
  const measures: readonly Measure[] = LOOKS[ask.look].measures;
  const heads = [...ask.by.map((g) => GROUPINGS[g].one), ...(ask.change ? ['when'] : [])];
  const groups = Object.entries(page.curveNames).map(([id, name]) => ({ id, name }));
  const frontier =
    ask.look === 'starts' && !ask.change
      ? frontierSentence(
          rows.map((r) => r.row),
          (row) => rows.find((r) => r.row === row)?.names.join(', ') ?? '',
          { share: printShare, perKWh: (n) => printPerKWh(String(n), page.currency), kWh: (n) => printKWh(String(n)) },
        )
      : null;
  const nothing = rows.length === 0 && page.hidden === 0 && page.ungrouped === 0 && writeCompareAsk(ask) === '';
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <div className="mb-2.5 flex flex-wrap items-center gap-2">
        <h1 className="mr-1 text-[22px]">Compare {by.many}</h1>
        {nothing ? null : (
          <div className="no-print contents">
            <GroupedBy ask={ask} />
          </div>
        )}
        <span className="grow" />
        <Trials trials={page.trials} />
      </div>
      <FiguresWaiting visits={page.waiting} />
      {nothing ? (
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
          <div className="no-print mb-2.5 flex flex-wrap items-center gap-2">
            <LookedAt ask={ask} />
            <MoreFilters
              key={writeCompareAsk(ask)}
              filter={ask.filter}
              sites={page.sites}
              cars={page.cars}
              people={page.people}
              beside={writeCompareAsk({ ...ask, filter: { time: 'handshake', mark: 'kW' } }).slice(1)}
            />
            <SavedViews views={page.views} address={writeCompareAsk(ask)} />
          </div>
          <OnlyVisits chosen={page.chosen} all={`/compare${all}`} />
          {page.sentences.length > 0 ? <Sentences sentences={page.sentences} /> : null}
          {frontier ? <p className="mb-3 max-w-[1000px] px-1 text-[14px] leading-snug">{frontier}</p> : null}
          {ask.look === 'starts' && ask.by[0] !== 'month' && page.watching ? (
            <OnWatch rows={page.watches} by={ask.by[0] ?? 'network'} one={by.one} groups={groups} />
          ) : null}
          {rows.length > 1 ? <SortedBy ask={ask} asked={asked} /> : null}
          {rows.length === 0 ? (
            <p className="bg-card p-4 text-[15px]">No visit fits: nothing to compare by {by.one} under these filters.</p>
          ) : (
            <KeepFigure
              name={nameOfFigure(`Compared by ${heads.join(' and ')}`, page.chosen)}
              csv={comparedCsv(
                rows.map(({ row, names, part }) => ({
                  row,
                  names: [...names, ...(part ? [part === 'before' ? `before ${ask.change}` : `from ${ask.change}`] : [])],
                })),
                heads,
                measures,
                asked,
                page.chosen,
              )}
            >
              <ComparedTable rows={rows} ask={ask} asked={asked} />
            </KeepFigure>
          )}
          {curves ? <StillWaiting chosen={page.chosen} of={curves} names={page.curveNames} one={by.one} time={page.timeWords} /> : null}
          <Below {...page} />
        </>
      )}
    </div>
  );
}

/** The way to the trials, and to a new one. */
function Trials({ trials }: { trials: { id: string; name: string; over: boolean }[] }) {
  return (
    <div className="no-print flex flex-wrap items-center gap-2">
      {trials.slice(0, 3).map((t) => (
        <Link
          key={t.id}
          prefetch={false}
          href={`/compare/trials/${t.id}`}
          className="inline-flex min-h-[36px] max-w-[260px] items-center text-[13px] font-semibold text-shake underline"
        >
          <span className="truncate">
            {t.over ? '' : 'Trial: '}
            {t.name}
          </span>
        </Link>
      ))}
      <ForDrivers>
        <Link href="/compare/trials/new" className="plate">
          Run a trial
        </Link>
      </ForDrivers>
    </div>
  );
}

/** What the table leaves out, and how its figures are counted. */
function Below({
  ask,
  asked,
  hidden,
  beyond,
  ungrouped,
  elsewhere,
  currency,
}: Pick<Parameters<typeof ComparedPage>[0], 'ask' | 'asked' | 'hidden' | 'beyond' | 'ungrouped' | 'elsewhere' | 'currency'>) {
  const by = GROUPINGS[ask.by[0] ?? 'network'];
  const measures: readonly Measure[] = LOOKS[ask.look].measures;
  return (
    <div className="mt-3 max-w-[860px] text-[13px] text-ink-2">
      <p>
        Visits to one site are not independent, so each share says from how many sites it comes.{' '}
        {asked.without ? `Beside each share stands the one without what failed on the ${asked.without}’s side. ` : 'Faults of every side are in. '}
        Bad stops are recorded more often than good ones: of the charges that were billed, each line says how many were recorded at the stall.
        {'attempt' in by ? ` What is counted by visit counts where the first attempt was.` : ''}
        {hidden > 0 ? ` ${printCount(hidden, by.one, by.many)} with fewer than ${ask.least} visits not shown.` : ''}
        {beyond > 0 ? ` ${printCount(beyond, by.one, by.many)} more not shown: ask for a least count, or filter.` : ''}
        {ungrouped > 0 ? ` ${printCount(ungrouped, 'visit')} left out: no ${ask.by.map((g) => GROUPINGS[g].one).join(' or ')} was noted.` : ''}
        {ask.change ? ' Before and after differ in season and in whatever else changed: no degree is given.' : ''}
        {elsewhere > 0 ? ` ${printCount(elsewhere, 'visit')} in another currency than ${currency} left out of the prices.` : ''}
      </p>
      <details className="no-print mt-1">
        <summary className="min-h-[28px] cursor-pointer font-semibold text-shake">How these are counted</summary>
        <dl className="mt-1">
          {measures.map((m) => (
            <div key={m} className="py-0.5">
              <dt className="inline font-semibold text-ink">{MEASURES[m].label(asked)}: </dt>
              <dd className="inline">{MEASURES[m].rule}.</dd>
            </div>
          ))}
        </dl>
      </details>
    </div>
  );
}
