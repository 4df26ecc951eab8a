import { cookies, headers } from 'next/headers';
import { cache } from 'react';
import { deviceWords } from '@/core/records/device-words';
import { DEVICE_COOKIE, rememberDevice } from '../accounts/known-devices';
import { logSecurity } from '../accounts/security-log';
import { endSession, SESSION_COOKIE, SESSION_DAYS, type SignedIn, sessionOf, startSession } from '../accounts/sessions';
import { isHttps } from './front';

/** A cookie's name where the connection is https: browsers then take it from this host alone, for every path, never over http. */
const named = async (name: string) => (isHttps(await headers()) ? `__Host-${name}` : name);
const LAX = { httpOnly: true, sameSite: 'lax', path: '/' } as const;
const YEAR_S = 365 * 86_400;

const readCookie = async (name: string): Promise<string | undefined> => (await cookies()).get(await named(name))?.value;
async function writeCookie(name: string, value: string, maxAge: number): Promise<void> {
  (await cookies()).set(await named(name), value, { ...LAX, secure: isHttps(await headers()), maxAge });
}

/** Who asks, or null. Looked up once for a page, however many of its parts ask. */
export const whoAsks = cache(async (): Promise<SignedIn | null> => sessionOf(await readCookie(SESSION_COOKIE)));

/** What this browser was given at an earlier sign-in, whoever's it was. */
export const deviceToken = (): Promise<string | undefined> => readCookie(DEVICE_COOKIE);

/** Lets a person in here: a new session in place of the one this browser had, and the device is known from now on. */
export async function letIn({ householdId, personId }: { householdId: string; personId: string }): Promise<void> {
  const before = await whoAsks();
  if (before) await endSession(before.personId, before.sessionId);
  const { token, sessionId } = await startSession(householdId, personId, deviceWords((await headers()).get('user-agent')));
  await writeCookie(SESSION_COOKIE, token, SESSION_DAYS * 86_400);
  await writeCookie(DEVICE_COOKIE, await rememberDevice(await deviceToken(), personId), YEAR_S);
  await logSecurity({ kind: 'signed_in', householdId, personId, sessionId });
}

/** Signs out here: ends the session of this browser's cookie, and takes the cookie away. The device stays known. */
export async function letOut(): Promise<void> {
  const who = await whoAsks();
  if (who) {
    await endSession(who.personId, who.sessionId);
    await logSecurity({ kind: 'signed_out', ...who });
  }
  (await cookies()).delete({ name: await named(SESSION_COOKIE), path: '/', secure: isHttps(await headers()) });
}

export const notSignedIn = () => Response.json({ error: 'Not signed in.' }, { status: 401, headers: { 'cache-control': 'no-store' } });
