import { isId } from '@/core/units/id';
import { now } from '@/server/clock';
import { answersPdf } from '@/server/pdf/pdf-answer';
import { networkPdf } from '@/server/pdf/place-pdf';
import { networkPage } from '@/server/places/network-page';

export const dynamic = 'force-dynamic';

/** A network's record as PDF. */
export const GET = answersPdf('networkId', 'network', async (who, id) => {
  const page = isId(id) ? await networkPage(who, id, who.currency) : null;
  return page && networkPdf(page, who.zone, new Date(now()));
});
