import { isId } from '@/core/units/id';
import { now } from '@/server/clock';
import { answersPdf } from '@/server/pdf/pdf-answer';
import { sitePdf } from '@/server/pdf/place-pdf';
import { sitePage } from '@/server/places/site-page';

export const dynamic = 'force-dynamic';

/** A site's record as PDF. */
export const GET = answersPdf('siteId', 'site', async (who, id) => {
  const page = isId(id) ? await sitePage(who, id, undefined, who.currency) : null;
  return page && sitePdf(page, new Date(now()));
});
