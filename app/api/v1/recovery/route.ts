import { checkForm, recoveryForm } from '@/core/records/account-forms';
import { passwordProblem } from '@/server/accounts/common-passwords';
import { recover } from '@/server/accounts/recovery';
import { answering } from '@/server/http/answer';
import { addressOf } from '@/server/http/front';
import { deviceToken, letIn } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { guardWrite } from '@/server/http/write-guard';

/** Opens an account by its recovery code and sets a new password. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = checkForm(recoveryForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422 });
  // By the address alone: whether there is such an account is not told before the code is right.
  const problem = passwordProblem(form.data.password, [form.data.email]);
  if (problem) return Response.json({ fields: { password: problem } }, { status: 422 });
  const result = await recover(form.data, addressOf(request.headers), await deviceToken());
  if (!result.ok) return shutDoor(result, 'E-mail address and recovery code do not fit.');
  await letIn(result.account);
  return Response.json({ ok: true });
});
