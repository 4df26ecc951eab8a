import { fieldMessages, signUpForm } from '@/core/records/account-forms';
import { signUp } from '@/server/accounts/accounts';
import { answering } from '@/server/http/answer';
import { setSessionCookie } from '@/server/http/session-cookie';
import { guardWrite } from '@/server/http/write-guard';

/** Makes a household with its first person and signs them in. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const form = signUpForm.safeParse(body.json);
  if (!form.success) return Response.json({ fields: fieldMessages(form.error) }, { status: 422 });
  const who = await signUp(form.data);
  if (!who) return Response.json({ fields: { email: 'There is an account with this address already' } }, { status: 422 });
  await setSessionCookie(who);
  return Response.json({ ok: true }, { status: 201 });
});
