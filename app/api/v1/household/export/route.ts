import { logSecurity } from '@/server/accounts/security-log';
import { now } from '@/server/clock';
import { ledgerZip } from '@/server/formats/ledger-out';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';

export const dynamic = 'force-dynamic';

/** Everything recorded in the household with its photos as one zip, for its owner. */
export const GET = answering(async (): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  if (who.role !== 'owner') return Response.json({ error: 'Only the owner takes the whole household along.' }, { status: 403 });
  await logSecurity({ kind: 'exported', ...who });
  return new Response(ledgerZip(who, new Date(now())), {
    headers: { 'content-type': 'application/zip', 'content-disposition': 'attachment; filename="mile-ledger.zip"', 'cache-control': 'no-store' },
  });
});
