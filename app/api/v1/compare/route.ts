import { readCompareAsk } from '@/core/compare/compare-address';
import { comparedGroups, inOrder, withLeast } from '@/core/compare/compared-groups';
import { figuresRead, LOOKS } from '@/core/compare/measures';
import type { Asked } from '@/core/figures/populations';
import { calling } from '@/server/api/caller';
import { tagged } from '@/server/api/tagged';
import { groupNames } from '@/server/records/group-names';
import { compareRows } from '@/server/visits/compare-query';

export const dynamic = 'force-dynamic';

/** A comparison as Compare shows it, by the parameters of its address; every figure with what it was counted of. */
export const GET = calling('read', async (caller, request) =>
  tagged(caller, request, async () => {
    const { searchParams } = new URL(request.url);
    const ask = readCompareAsk((name) => searchParams.get(name));
    const { time, mark, without, ...others } = ask.filter;
    const asked: Asked = { time, mark, currency: caller.currency, ...(without ? { without } : {}) };
    const { measures } = LOOKS[ask.look];
    const visits = await compareRows(caller, caller.currency, { ...others, time, mark }, figuresRead(measures, asked, ask.by));
    const { rows, ungrouped } = comparedGroups(visits, asked, ask.by, measures);
    const found = withLeast(rows, ask.least).sort(inOrder(ask.sort));
    const nameOf = await groupNames(caller.householdId, new Map(ask.by.map((g, i) => [g, [...new Set(found.map((r) => r.groups[i]?.key ?? ''))]])));
    return {
      by: ask.by,
      look: ask.look,
      currency: caller.currency,
      ungrouped,
      items: found.map(({ groups, ...row }) => ({ groups: groups.map((g) => ({ ...g, name: nameOf(g) })), ...row })),
    };
  }),
);
