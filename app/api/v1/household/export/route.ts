import { logSecurity } from '@/server/accounts/security-log';
import { callerOf } from '@/server/api/caller';
import { now } from '@/server/clock';
import { ledgerZip } from '@/server/formats/ledger-out';
import { answering } from '@/server/http/answer';

export const dynamic = 'force-dynamic';

/** Everything recorded in the household with its photos as one zip, for its owner. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const who = await callerOf(request, 'read');
  if (who instanceof Response) return who;
  if (who.role !== 'owner') return Response.json({ error: 'Only the owner takes the whole household along.' }, { status: 403 });
  await logSecurity({ kind: 'exported', householdId: who.householdId, personId: who.personId });
  return new Response(ledgerZip(who, new Date(now())), {
    headers: { 'content-type': 'application/zip', 'content-disposition': 'attachment; filename="mile-ledger.zip"', 'cache-control': 'no-store' },
  });
});
