import { periodOf } from '@/core/tariff/statement';
import { now } from '@/server/clock';
import { statementPage } from '@/server/compare/statement-page';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { receiptsOf } from '@/server/pdf/receipts';
import { statementPdf } from '@/server/pdf/statement-pdf';

export const dynamic = 'force-dynamic';
const limit = perMinute(20);

/** The statement of a month, `?of=2025-10`, or a year, as PDF with its receipts. */
export const GET = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const late = limit(who.personId);
  if (late) return late;
  const period = periodOf(new URL(request.url).searchParams.get('of'));
  if (!period) return Response.json({ error: 'of: must be a month, 2025-10, or a year' }, { status: 422, headers: noStore });
  const page = await statementPage(who, period);
  const { receipts, more } = await receiptsOf(who.householdId, page.statement.rows);
  const bytes = await statementPdf({ household: who.householdName, zone: who.zone, period, ...page, more }, receipts, new Date(now()));
  return new Response(new Uint8Array(bytes), {
    headers: { ...noStore, 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="statement-${period}.pdf"` },
  });
});
