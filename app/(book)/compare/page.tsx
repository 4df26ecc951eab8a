import type { Metadata } from 'next';
import { readCompareAsk } from '@/core/compare/compare-address';
import { comparedGroups, inOrder, withLeast } from '@/core/compare/compared-groups';
import { filterWords, groupsNamed } from '@/core/compare/filter-words';
import { writeLedgerFilter } from '@/core/compare/ledger-filter';
import { figuresRead, LOOKS } from '@/core/compare/measures';
import { calledBy, saidOf } from '@/core/compare/said';
import { waitingCurves } from '@/core/compare/waiting-curve';
import { GROUPINGS, type Grouping } from '@/core/figures/groupings';
import type { Asked } from '@/core/figures/populations';
import { printDate } from '@/core/units/zoned';
import { TIME_RULES } from '@/core/visit/attempt-times';
import { membersOf } from '@/server/accounts/members';
import { savedViews } from '@/server/compare/saved-views';
import { watchesOf } from '@/server/compare/watches';
import { figuresWaiting } from '@/server/figures/refresh';
import { signedInHere } from '@/server/http/signed-in-here';
import { groupNames, namesOfGroups } from '@/server/records/group-names';
import { namesOf } from '@/server/records/names-for-forms';
import { recordsOf } from '@/server/records/record-tables';
import { compareRows } from '@/server/visits/compare-query';
import { ComparedPage } from '@/ui/compare/compared-page';
import { one, type Query } from '../../query';

/** More groups than these nobody reads: a least count or a filter leaves fewer. */
const MOST_ROWS = 300;

type Props = { searchParams: Promise<Query> };
const askIn = async (searchParams: Promise<Query>) => {
  const query = await searchParams;
  return readCompareAsk((name) => one(query, name));
};

export const generateMetadata = async ({ searchParams }: Props): Promise<Metadata> => ({
  title: `Compare ${GROUPINGS[(await askIn(searchParams)).by[0] ?? 'network'].many}`,
});

export default async function ComparePage({ searchParams }: Props) {
  const who = await signedInHere();
  const ask = await askIn(searchParams);
  const { time, mark, without } = ask.filter;
  const asked: Asked = { time, mark, currency: who.currency, ...(without ? { without } : {}) };
  const { measures } = LOOKS[ask.look];
  // The side that is left out changes what is counted, not which visits.
  const { without: _, ...filter } = ask.filter;
  const fetched = figuresRead(measures, asked, ask.by);
  const visits = await compareRows(
    who,
    who.currency,
    filter,
    ask.change ? { ...fetched, visit: [...new Set([...fetched.visit, 'arrivalDay' as const])] } : fetched,
  );
  const parts = ask.change
    ? (['before', 'after'] as const).map((part) => ({
        part,
        // By the day at the place, as the list behind a number is.
        of: visits.filter(({ arrivalDay }) => typeof arrivalDay === 'string' && arrivalDay < (ask.change as string) === (part === 'before')),
      }))
    : [{ part: null, of: visits }];
  const compared = parts.map(({ part, of }) => ({ part, ...comparedGroups(of, asked, ask.by, measures) }));
  const rows = compared
    .flatMap(({ part, rows: found }) => withLeast(found, ask.least).map((row) => ({ part, row })))
    .sort((a, b) => inOrder(ask.sort)(a.row, b.row));
  const by: Grouping = ask.by[0] ?? 'network';
  const [watches, views, trials] = await Promise.all([watchesOf(who.householdId, by), savedViews(who.householdId), recordsOf(who.householdId, 'trial')]);
  const watched = watches.flatMap((w) => [w.a, w.b]);
  const keys = new Map(ask.by.map((g, i) => [g, [...new Set([...rows.map((r) => r.row.groups[i]?.key ?? ''), ...(i === 0 ? watched : [])])]] as const));
  const [nameOf, siteName, chosenName, sites, cars, people, waiting] = await Promise.all([
    groupNames(who.householdId, keys),
    groupNames(who.householdId, new Map([['site' as const, [...new Set(visits.map((v) => v.siteId))]]])),
    namesOfGroups(who.householdId, groupsNamed(filter)),
    namesOf(who.householdId, 'site'),
    namesOf(who.householdId, 'car'),
    membersOf(who.householdId),
    figuresWaiting(who.householdId),
  ]);
  const called = calledBy(by, (g) => (g.by === 'site' ? siteName(g) : nameOf(g)));
  // What was put on watch beforehand is told from all visits, by the usual time: a filter chosen now would choose the answer.
  const unfiltered = writeLedgerFilter({ ...ask.filter, without: undefined }) === '';
  const said = ask.look === 'starts' ? saidOf(visits, by, { time, mark }, called, unfiltered ? watches : []) : { sentences: [], watched: [] };
  return (
    <ComparedPage
      ask={ask}
      asked={asked}
      chosen={filterWords(filter, chosenName)}
      rows={rows.slice(0, MOST_ROWS).map(({ part, row }) => ({ part, row, names: row.groups.map(nameOf) }))}
      beyond={Math.max(0, rows.length - MOST_ROWS)}
      hidden={compared.reduce((n, c) => n + c.rows.length, 0) - rows.length}
      ungrouped={compared.reduce((n, c) => n + c.ungrouped, 0)}
      sentences={said.sentences}
      watches={said.watched.map(({ watch, said: sentence }) => ({
        watch,
        said: sentence,
        names: [called.group(watch.a), called.group(watch.b)],
        sinceWords: printDate(watch.since, who.zone),
      }))}
      watching={unfiltered}
      views={views}
      trials={trials
        .filter((t) => !t.archived)
        .map((t) => ({ id: t.id, name: t.fields.name, over: t.fields.endedOn !== null }))
        .sort((a, b) => Number(a.over) - Number(b.over) || (a.id < b.id ? 1 : -1))}
      curves={ask.look === 'starts' ? waitingCurves(visits, { time, mark }, by) : null}
      curveNames={Object.fromEntries((keys.get(by) ?? []).map((key) => [key, nameOf({ by, key })]))}
      timeWords={`${TIME_RULES[time].label} to first ${mark}`}
      elsewhere={visits.filter((v) => (v.currency ?? null) !== null && v.currency !== who.currency).length}
      currency={who.currency}
      waiting={waiting}
      sites={sites}
      cars={cars}
      people={people.map((p) => ({ id: p.personId, name: p.name }))}
    />
  );
}
