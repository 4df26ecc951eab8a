import { isId, NOT_AN_ID } from '@/core/units/id';
import * as z from '@/core/units/schema';
import { goTo } from '@/server/accounts/members';
import { takesForm } from '@/server/http/signed-in-write';

/** From now on this browser is in another household of the person's, `{householdId}`. */
export const PUT = takesForm(z.object({ householdId: z.string().check(z.refine(isId, NOT_AN_ID)) }), async (who, { householdId }) =>
  (await goTo(who, householdId)) ? null : 'There is no such household of yours.',
);
