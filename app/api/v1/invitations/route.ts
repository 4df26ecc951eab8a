import { printInvitationCode } from '@/core/records/invitation';
import { GIVEN_ROLES } from '@/core/records/roles';
import { isId, NOT_AN_ID } from '@/core/units/id';
import * as z from '@/core/units/schema';
import { endInvitation, invite } from '@/server/accounts/invitations';
import { noStore } from '@/server/http/answer';
import { takesForm } from '@/server/http/signed-in-write';

/** Makes an invitation, `{role}`. Its code is in this answer and nowhere else. */
export const POST = takesForm(z.object({ role: z.enum(GIVEN_ROLES, 'Choose what they may do') }), async (who, { role }) => {
  const made = await invite(who, role);
  return made.ok
    ? Response.json({ id: made.id, code: printInvitationCode(made.code), expiresAt: made.expiresAt }, { status: 201, headers: noStore })
    : made.reason;
});

/** Ends an invitation of the household, `{id}`. */
export const DELETE = takesForm(z.object({ id: z.string().check(z.refine(isId, NOT_AN_ID)) }), async (who, { id }) => {
  if (who.role !== 'owner') return 'Only the owner ends an invitation.';
  return (await endInvitation(who.householdId, id)) ? null : 'There is no such invitation.';
});
