import { now } from '@/server/clock';
import { answering, noStore } from '@/server/http/answer';
import { perMinute } from '@/server/http/rate';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { visitPdf } from '@/server/pdf/visit-pdf';
import { visitPage } from '@/server/visits/visit-page';

export const dynamic = 'force-dynamic';
const limit = perMinute(60);

/** A visit's page as PDF. What is private to somebody else is no page. */
export const GET = answering(async (_request: Request, { params }: { params: Promise<{ visitId: string }> }): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const late = limit(who.personId);
  if (late) return late;
  const { visitId } = await params;
  const page = await visitPage(who, visitId);
  if (!page || 'privateVisit' in page) return Response.json({ error: 'There is no such visit.' }, { status: 404, headers: noStore });
  const bytes = await visitPdf(page, new Date(now()), who.wishes.distance);
  return new Response(new Uint8Array(bytes), {
    headers: { ...noStore, 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="visit-${visitId}.pdf"` },
  });
});
