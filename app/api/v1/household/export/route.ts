import { logSecurity } from '@/server/accounts/security-log';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { wholeHousehold } from '@/server/records/whole-household';

export const dynamic = 'force-dynamic';

/** Everything recorded in the household as one JSON file, for its owner. */
export const GET = answering(async (): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  if (who.role !== 'owner') return Response.json({ error: 'Only the owner takes the whole household along.' }, { status: 403 });
  await logSecurity({ kind: 'exported', ...who });
  const parts = wholeHousehold(who);
  const utf8 = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { done, value } = await parts.next();
      if (done) controller.close();
      else controller.enqueue(utf8.encode(value));
    },
    async cancel() {
      await parts.return(undefined);
    },
  });
  return new Response(body, {
    headers: { 'content-type': 'application/json', 'content-disposition': 'attachment; filename="mile-ledger.json"', 'cache-control': 'no-store' },
  });
});
