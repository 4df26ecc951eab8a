import { cookies } from 'next/headers';
import { fieldMessages, signInForm } from '@/core/records/account-forms';
import { demoPerson, signIn } from '@/server/accounts/accounts';
import { endSession, SESSION_COOKIE } from '@/server/accounts/sessions';
import { answering } from '@/server/http/answer';
import { setSessionCookie } from '@/server/http/session-cookie';
import { addressOf, guardWrite } from '@/server/http/write-guard';

/** Signs in with e-mail and password, or in the demo with `{demo: true}`. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  if ((body.json as { demo?: unknown } | null)?.demo === true) {
    const who = await demoPerson();
    if (!who) return Response.json({ error: 'There is no demo here.' }, { status: 404 });
    await setSessionCookie(who);
    return Response.json({ ok: true });
  }
  const form = signInForm.safeParse(body.json);
  if (!form.success) return Response.json({ fields: fieldMessages(form.error) }, { status: 422 });
  const result = await signIn(form.data, addressOf(request));
  if (!result.ok && result.wait_s > 0) {
    return Response.json(
      { error: `Too many tries. Wait ${Math.ceil(result.wait_s / 60)} min and try again.` },
      { status: 429, headers: { 'retry-after': String(result.wait_s) } },
    );
  }
  if (!result.ok) return Response.json({ error: 'E-mail address and password do not fit.' }, { status: 401 });
  await setSessionCookie(result.who);
  return Response.json({ ok: true });
});

/** Signs out here. */
export const DELETE = answering(async (request: Request): Promise<Response> => {
  const body = await guardWrite(request);
  if (!body.ok) return body.response;
  const jar = await cookies();
  const token = jar.get(SESSION_COOKIE)?.value;
  if (token) await endSession(token);
  jar.delete(SESSION_COOKIE);
  return Response.json({ ok: true });
});
