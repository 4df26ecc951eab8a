import { checkForm, codeForm } from '@/core/records/account-forms';
import { invitationAt } from '@/server/accounts/invitations';
import { giveBack, knock } from '@/server/accounts/throttle';
import { answering, noStore } from '@/server/http/answer';
import { addressOf } from '@/server/http/front';
import { shutDoor } from '@/server/http/shut-door';
import { guardWrite } from '@/server/http/write-guard';

/** What an invitation leads to, for whoever holds its code: household, role and who invites. Counted like a sign-in. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = checkForm(codeForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422, headers: noStore });
  const count = [{ door: 'invitation' as const, key: addressOf(request.headers) }];
  const { wait_s } = await knock(count);
  if (wait_s > 0) return shutDoor({ ok: false, wait_s }, '');
  const found = await invitationAt(form.data.code);
  if (!found) return Response.json({ fields: { code: NO_INVITATION } }, { status: 422, headers: noStore });
  await giveBack(count);
  return Response.json({ householdName: found.householdName, role: found.role, by: found.by }, { headers: noStore });
});

const NO_INVITATION = 'This code opens nothing: it was used, ended, is older than seven days, or was mistyped';
