import type { APIRequestContext, Page } from '@playwright/test';
import { v7 } from 'uuid';
import { from, type Member, own } from './household';

/** Invites somebody with the owner's page, and makes an account by the code in another browser's. */
export async function invitedMember(
  owner: Page,
  guest: APIRequestContext,
  baseURL: string,
  role: 'driver' | 'observer' | 'reader',
  name: string,
): Promise<Member> {
  const made = await owner.request.post('/api/v1/invitations', { headers: own(baseURL), data: { role } });
  if (made.status() !== 201) throw new Error(`no invitation: ${made.status()} ${await made.text()}`);
  const { code } = await made.json();
  const account = { name, email: `guest-${v7()}@example.invalid`, password: 'a long enough one' };
  const joined = await guest.post('/api/v1/members', { headers: from(baseURL), data: { code, ...account } });
  if (joined.status() !== 201) throw new Error(`not in: ${joined.status()} ${await joined.text()}`);
  const me = await (await guest.get('/api/v1/me')).json();
  return { householdId: me.householdId, personId: me.personId, ...account };
}
