import { againForm, checkForm } from '@/core/records/account-forms';
import { printRecoveryCode } from '@/core/records/recovery-code';
import { askAgain } from '@/server/accounts/accounts';
import { makeRecoveryCode } from '@/server/accounts/recovery';
import { answering } from '@/server/http/answer';
import { notSignedIn, whoAsks } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { guardWrite } from '@/server/http/write-guard';

/** Makes the recovery code of who is signed in, with the password once more. It is answered once and never again. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const who = await whoAsks();
  if (!who) return notSignedIn();
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = checkForm(againForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422 });
  const asked = await askAgain(who.personId, form.data.password);
  if (!asked.ok) return asked.wait_s > 0 ? shutDoor(asked, '') : Response.json({ fields: { password: 'This is not your password' } }, { status: 422 });
  return Response.json({ code: printRecoveryCode(await makeRecoveryCode(who)) }, { status: 201, headers: { 'cache-control': 'no-store' } });
});
