import { calling } from '@/server/api/caller';
import { PAGE_NAMES, pageAsk, pageOf, wrongInPage } from '@/server/api/pages';
import { tagged } from '@/server/api/tagged';
import { recordsOf } from '@/server/records/record-tables';

export const dynamic = 'force-dynamic';

/** Prices on file, each with its OCPI object where it has one. */
export const GET = calling('read', wrongInPage(PAGE_NAMES), async (caller, request) => {
  const ask = pageAsk(request);
  return tagged(caller, request, async () => {
    const { items, next } = pageOf(await recordsOf(caller.householdId, 'tariff'), ask);
    return { items: items.map(({ id, archived, fields }) => ({ id, archived, ...fields })), next };
  });
});
