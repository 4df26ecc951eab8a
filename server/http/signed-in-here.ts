import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { insidePath } from '@/core/units/inside-path';
import type { SignedIn } from '../accounts/sessions';
import { ASKED_PAGE } from './asked-page';
import { whoAsks } from './session-cookie';

/** Where the application opens by itself: nothing to remember. */
const OPENS_HERE = '/ledger';

/** Who asks for a page. Who is not signed in is led to the door, and from there on to what was asked. */
export async function signedInHere(): Promise<SignedIn> {
  const who = await whoAsks();
  if (who) return who;
  const asked = insidePath((await headers()).get(ASKED_PAGE));
  redirect(asked === null || asked === OPENS_HERE ? '/sign-in' : `/sign-in?${new URLSearchParams({ to: asked })}`);
}
