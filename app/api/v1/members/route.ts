import { checkForm, codeForm, invitedForm } from '@/core/records/account-forms';
import { ROLES } from '@/core/records/roles';
import { isId, NOT_AN_ID } from '@/core/units/id';
import * as z from '@/core/units/schema';
import { passwordProblem } from '@/server/accounts/common-passwords';
import { comeIn } from '@/server/accounts/invitations';
import { changeRole, endMembership, goTo } from '@/server/accounts/members';
import { knock } from '@/server/accounts/throttle';
import { answering, noStore } from '@/server/http/answer';
import { addressOf } from '@/server/http/front';
import { letIn, whoAsks } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { takesForm } from '@/server/http/signed-in-write';
import { guardWrite } from '@/server/http/write-guard';

const personId = z.string().check(z.refine(isId, NOT_AN_ID));
const said = (fields: Record<string, string>) => Response.json({ fields }, { status: 422, headers: noStore });

/** Comes into a household by an invitation, `{code}`: with the account one is signed in with, else with one that is made, `{code, name, email, password}`. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const code = checkForm(codeForm, body.json);
  if (!code.ok) return said(code.fields);
  const { wait_s } = await knock([{ door: 'sign_up', key: addressOf(request.headers) }]);
  if (wait_s > 0) return shutDoor({ ok: false, wait_s }, '');
  const who = await whoAsks();
  const form = who ? null : checkForm(invitedForm, body.json);
  if (form && !form.ok) return said(form.fields);
  const problem = form && passwordProblem(form.data.password, [form.data.email, form.data.name]);
  if (problem) return said({ password: problem });
  const joined = await comeIn(code.data.code, form ? form.data : { personId: (who as { personId: string }).personId });
  if (!joined.ok)
    return said(
      joined.reason === 'email_taken'
        ? { email: 'There is an account with this address already: sign in with it' }
        : { code: 'This code opens nothing any more' },
    );
  if (who) await goTo(who, joined.who.householdId);
  else await letIn(joined.who);
  return Response.json({ ok: true }, { status: 201, headers: noStore });
});

/** Gives one of the household another role, `{personId, role}`; `owner` hands over. */
export const PUT = takesForm(z.object({ personId, role: z.enum(Object.keys(ROLES) as [keyof typeof ROLES]) }), (who, form) =>
  changeRole(who, form.personId, form.role),
);

/** Removes one of the household, `{personId}`; oneself: leaves. */
export const DELETE = takesForm(z.object({ personId }), (who, form) => endMembership(who, form.personId));
