import { checkForm, deleteForm, householdForm, signUpForm } from '@/core/records/account-forms';
import { askAgain, signUp } from '@/server/accounts/accounts';
import { passwordProblem } from '@/server/accounts/common-passwords';
import { deleteHousehold } from '@/server/accounts/forget';
import { changeHousehold } from '@/server/accounts/members';
import { knock } from '@/server/accounts/throttle';
import { answering } from '@/server/http/answer';
import { addressOf } from '@/server/http/front';
import { letIn } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { takesForm } from '@/server/http/signed-in-write';
import { guardWrite } from '@/server/http/write-guard';

/** Makes a household with its first person and signs them in. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = checkForm(signUpForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422 });
  const { email, name, householdName, password } = form.data;
  const problem = passwordProblem(password, [email, name, householdName]);
  if (problem) return Response.json({ fields: { password: problem } }, { status: 422 });
  const { wait_s } = await knock([{ door: 'sign_up', key: addressOf(request.headers) }]);
  if (wait_s > 0) return shutDoor({ ok: false, wait_s }, '');
  const who = await signUp(form.data);
  if (!who) return Response.json({ fields: { email: 'There is an account with this address already' } }, { status: 422 });
  await letIn(who);
  return Response.json({ ok: true }, { status: 201 });
});

/** The household's name, currency and zone. */
export const PUT = takesForm(householdForm, (who, form) => changeHousehold(who, form));

/** Deletes the household with all that was recorded in it: its name typed, and the password. */
export const DELETE = takesForm(deleteForm, async (who, { word, password }) => {
  if (word.trim() !== who.householdName) return Response.json({ fields: { word: `Type ${who.householdName}` } }, { status: 422 });
  const asked = await askAgain(who.personId, password);
  if (!asked.ok) return asked.wait_s > 0 ? shutDoor(asked, '') : Response.json({ fields: { password: 'This is not your password' } }, { status: 422 });
  return deleteHousehold(who);
});
