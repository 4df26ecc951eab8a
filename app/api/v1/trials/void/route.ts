import { voidForm } from '@/core/trials/void-form';
import { notForRole } from '@/server/http/not-for-role';
import { takesForm } from '@/server/http/signed-in-write';
import { voidRound } from '@/server/trials/void-round';

/** Voids the round of a trial that a visit holds, `{visitId, trialId, round, side, reason}`. Repeating it changes nothing. */
export const POST = takesForm(voidForm, async (who, form) => notForRole(who.role) ?? voidRound(who, form));
