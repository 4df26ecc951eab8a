import { byId } from '@/core/units/by-id';
import { grouped } from '@/core/units/grouped';
import { calling } from '@/server/api/caller';
import { PAGE_NAMES, pageAsk, pageOf, wrongInPage } from '@/server/api/pages';
import { tagged } from '@/server/api/tagged';
import { recordsOf } from '@/server/records/record-tables';

export const dynamic = 'force-dynamic';

/** Sites with their networks and stalls, in the order of their ids. */
export const GET = calling('read', wrongInPage(PAGE_NAMES), async (caller, request) => {
  const ask = pageAsk(request);
  return tagged(caller, request, async () => {
    const [sites, networks, stalls] = await Promise.all([
      recordsOf(caller.householdId, 'site'),
      recordsOf(caller.householdId, 'network'),
      recordsOf(caller.householdId, 'stall'),
    ]);
    const called = new Map(networks.map((n) => [n.id, n.fields.name]));
    const ofSite = grouped(stalls, (s) => s.fields.siteId);
    const { items, next } = pageOf(sites, ask);
    return {
      items: items.map(({ id, archived, fields }) => ({
        id,
        archived,
        network: called.get(fields.networkId) ?? null,
        ...fields,
        stalls: byId(ofSite.get(id) ?? []).map((s) => ({ id: s.id, archived: s.archived, ...s.fields })),
      })),
      next,
    };
  });
});
