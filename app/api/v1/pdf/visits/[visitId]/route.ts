import { now } from '@/server/clock';
import { answersPdf } from '@/server/pdf/pdf-answer';
import { visitPdf } from '@/server/pdf/visit-pdf';
import { visitPage } from '@/server/visits/visit-page';

export const dynamic = 'force-dynamic';

/** A visit's page as PDF. What is private to somebody else is no page. */
export const GET = answersPdf('visitId', 'visit', async (who, id) => {
  const page = await visitPage(who, id);
  return page && !('privateVisit' in page) ? visitPdf(page, new Date(now()), who.wishes.distance) : null;
});
