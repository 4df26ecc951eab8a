import { logSecurity } from '@/server/accounts/security-log';
import { calling } from '@/server/api/caller';
import { problem } from '@/server/api/problem';
import { now } from '@/server/clock';
import { ledgerZip } from '@/server/formats/ledger-out';

export const dynamic = 'force-dynamic';

/** Everything recorded in the household with its photos as one zip, for its owner. */
export const GET = calling('read', [], async (who) => {
  if (who.role !== 'owner') return problem(403, 'Only the owner takes the whole household along.');
  await logSecurity({ kind: 'exported', householdId: who.householdId, personId: who.personId });
  return new Response(ledgerZip(who, new Date(now())), {
    headers: { 'content-type': 'application/zip', 'content-disposition': 'attachment; filename="mile-ledger.zip"', 'cache-control': 'no-store' },
  });
});
