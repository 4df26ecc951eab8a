import { checkForm, signInForm } from '@/core/records/account-forms';
import { demoPerson, signIn } from '@/server/accounts/accounts';
import { answering } from '@/server/http/answer';
import { addressOf } from '@/server/http/front';
import { deviceToken, letIn, letOut } from '@/server/http/session-cookie';
import { shutDoor } from '@/server/http/shut-door';
import { guardWrite } from '@/server/http/write-guard';

/** Signs in with e-mail and password, or in the demo with `{demo: true}`. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  if ((body.json as { demo?: unknown } | null)?.demo === true) {
    const who = await demoPerson();
    if (!who) return Response.json({ error: 'There is no demo here.' }, { status: 404 });
    await letIn(who);
    return Response.json({ ok: true });
  }
  const form = checkForm(signInForm, body.json);
  if (!form.ok) return Response.json({ fields: form.fields }, { status: 422 });
  const result = await signIn(form.data, addressOf(request.headers), await deviceToken());
  if (!result.ok) return shutDoor(result, 'E-mail address and password do not fit.');
  await letIn(result.account);
  return Response.json({ ok: true });
});

/** Signs out here. What the browser cached goes; what this device has not sent yet stays, and is its person's alone. */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  await letOut();
  return Response.json({ ok: true }, { headers: { 'clear-site-data': '"cache"', 'cache-control': 'no-store' } });
});
