import { COMPARE_NAMES, mistypedCompare, readCompareAsk } from '@/core/compare/compare-address';
import { comparedGroups, inOrder, withLeast } from '@/core/compare/compared-groups';
import { writeLedgerFilter } from '@/core/compare/ledger-filter';
import { figuresRead, LOOKS } from '@/core/compare/measures';
import { calledBy, saidOf } from '@/core/compare/said';
import type { CompareSentence } from '@/core/compare/sentence';
import type { Asked } from '@/core/figures/populations';
import { calling, notUnderstood } from '@/server/api/caller';
import type { Wrong } from '@/server/api/problem';
import { tagged } from '@/server/api/tagged';
import { watchesOf } from '@/server/compare/watches';
import { groupNames } from '@/server/records/group-names';
import { compareRows } from '@/server/visits/compare-query';

export const dynamic = 'force-dynamic';

const asksOf = (request: Request) => {
  const { searchParams } = new URL(request.url);
  return (name: string) => searchParams.get(name);
};
const wrongIn = (request: Request): Wrong[] => [
  ...notUnderstood(request, COMPARE_NAMES),
  ...mistypedCompare(asksOf(request)).map((name) => ({ pointer: `?${name}`, detail: 'is not understood' })),
];

/** A comparison as Compare shows it, by the parameters of its address: the sentences, no surer than they are, and every figure with what it was counted of. */
export const GET = calling('read', wrongIn, async (caller, request) => {
  const asks = asksOf(request);
  return tagged(caller, request, async () => {
    const ask = readCompareAsk(asks);
    const { time, mark, without, ...others } = ask.filter;
    const asked: Asked = { time, mark, currency: caller.currency, ...(without ? { without } : {}) };
    const { measures } = LOOKS[ask.look];
    const visits = await compareRows(caller, caller.currency, { ...others, time, mark }, figuresRead(measures, asked, ask.by));
    const { rows, ungrouped } = comparedGroups(visits, asked, ask.by, measures);
    const found = withLeast(rows, ask.least).sort(inOrder(ask.sort));
    const by = ask.by[0] ?? 'network';
    const watches = await watchesOf(caller.householdId, by);
    const keys = new Map(
      ask.by.map((g, i) => [g, [...new Set([...found.map((r) => r.groups[i]?.key ?? ''), ...(i === 0 ? watches.flatMap((w) => [w.a, w.b]) : [])])]] as const),
    );
    const nameOf = await groupNames(caller.householdId, keys);
    const siteName = await groupNames(caller.householdId, new Map([['site' as const, [...new Set(visits.map((v) => v.siteId))]]]));
    // Under a filter chosen now what is on watch would be answered by the choice.
    const unfiltered = writeLedgerFilter({ ...ask.filter, without: undefined }) === '';
    const names = calledBy(by, (g) => (g.by === 'site' ? siteName(g) : nameOf(g)));
    const said = ask.look === 'starts' ? saidOf(visits, by, { time, mark }, names, unfiltered ? watches : []) : { sentences: [], watched: [] };
    const sentence = ({ kind, text, working }: CompareSentence) => ({ degree: kind, text, working });
    return {
      by: ask.by,
      look: ask.look,
      currency: caller.currency,
      ungrouped,
      sentences: said.sentences.map(sentence),
      on_watch: said.watched.map(({ watch, said: s }) => ({
        a: watch.a,
        b: watch.b,
        figure: watch.figure,
        since: new Date(watch.since).toISOString(),
        ...sentence(s),
      })),
      items: found.map(({ groups, ...row }) => ({ groups: groups.map((g) => ({ ...g, name: nameOf(g) })), ...row })),
    };
  });
});
