import { checkForm, passwordForm } from '@/core/records/account-forms';
import { askAgain } from '@/server/accounts/accounts';
import { passwordProblem } from '@/server/accounts/common-passwords';
import { setPassword } from '@/server/accounts/recovery';
import { logSecurity } from '@/server/accounts/security-log';
import { answering } from '@/server/http/answer';
import { letIn, notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { guardWrite } from '@/server/http/write-guard';

/** Changes the password with the old one: every other session ends, this one is made anew. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = checkForm(passwordForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422 });
  const asked = await askAgain(who.personId, form.data.old);
  if (!asked.ok) return asked.wait_s > 0 ? shutDoor(asked, '') : Response.json({ fields: { old: 'This is not your password' } }, { status: 422 });
  const { email, name, householdName } = asked.account;
  const problem = form.data.password === form.data.old ? 'This is the password you have' : passwordProblem(form.data.password, [email, name, householdName]);
  if (problem) return Response.json({ fields: { password: problem } }, { status: 422 });
  await setPassword(who, form.data.password, who.sessionId);
  await logSecurity({ kind: 'password_changed', ...who });
  await letIn(who);
  return Response.json({ ok: true });
});
