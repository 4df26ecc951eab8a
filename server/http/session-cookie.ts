import { cookies, headers } from 'next/headers';
import { SESSION_COOKIE, SESSION_DAYS, type SignedIn, sessionOf, startSession } from '../accounts/sessions';

/** Who asks, or null. */
export async function whoAsks(): Promise<SignedIn | null> {
  return sessionOf((await cookies()).get(SESSION_COOKIE)?.value);
}

export async function setSessionCookie(who: { householdId: string; personId: string }): Promise<void> {
  const secure = (await headers()).get('x-forwarded-proto') === 'https';
  (await cookies()).set(SESSION_COOKIE, await startSession(who.householdId, who.personId), {
    httpOnly: true,
    sameSite: 'lax',
    secure,
    path: '/',
    maxAge: SESSION_DAYS * 86_400,
  });
}

export const notSignedIn = () => Response.json({ error: 'Not signed in.' }, { status: 401 });
