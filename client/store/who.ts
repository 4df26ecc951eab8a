import type { MemberRole } from '@/core/records/roles';
import { NO_WISHES, type Wishes } from '@/core/records/wishes';
import { askServer } from '../server/ask-server';

/** Who uses this phone, as last told by the server: the Stall opens with it when there is no network. */
export type PhoneWho = {
  householdId: string;
  personId: string;
  role: MemberRole;
  name: string;
  householdName: string;
  currency: string;
  zone: string;
  wishes: Wishes;
  clockOffsetMs: number;
};
const KEY = 'mile.who';

export function readWho(): PhoneWho | null {
  try {
    const who = JSON.parse(localStorage.getItem(KEY) ?? 'null') as PhoneWho | null;
    if (!who || typeof who.householdId !== 'string' || typeof who.personId !== 'string') return null;
    // Kept before there were roles and wishes: everybody was the owner.
    return { ...who, role: who.role ?? 'owner', wishes: { ...NO_WISHES, ...who.wishes } };
  } catch {
    return null;
  }
}
export function writeWho(who: PhoneWho): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(who));
  } catch {
    // Not remembered: this page has it, the next one asks again.
  }
}
export const forgetWho = (): void => localStorage.removeItem(KEY);

/** Asks the server. @param waitMs milliseconds until it is given up @returns the person, `'signed_out'`, or `'unreachable'` */
export async function askWho(waitMs?: number): Promise<PhoneWho | 'signed_out' | 'unreachable'> {
  const said = await askServer('/api/v1/me', {}, waitMs);
  if (said?.status === 401) return 'signed_out';
  if (!said?.ok) return 'unreachable';
  const who = said.body as PhoneWho;
  writeWho(who);
  return who;
}
