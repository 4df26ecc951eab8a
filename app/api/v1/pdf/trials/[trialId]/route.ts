import { isId } from '@/core/units/id';
import { now } from '@/server/clock';
import { answersPdf } from '@/server/pdf/pdf-answer';
import { trialPdf } from '@/server/pdf/trial-pdf';
import { trialFound } from '@/server/trials/trial-visits';

export const dynamic = 'force-dynamic';

/** A trial as PDF. */
export const GET = answersPdf('trialId', 'trial', async (who, id) => {
  const found = isId(id) ? await trialFound(who, id) : null;
  return found && trialPdf(found, new Date(now()));
});
