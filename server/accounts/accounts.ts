import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { SignInForm, SignUpForm } from '@/core/records/account-forms';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { isKnownDevice } from './known-devices';
import { addHousehold, addMember } from './members';
import { hashPassword, passwordFits } from './password';
import { logSecurity } from './security-log';
import { giveBack, type Key, knock } from './throttle';
import type { Who } from './who';

/** A door that did not open; `wait_s` above 0: too many tries. */
export type Shut = { ok: false; wait_s: number };

/** Writes a person's account in a transaction of the caller's. @throws ER_DUP_ENTRY when the address is taken */
export const addPerson = (c: PoolConnection, { name, email, passwordHash }: { name: string; email: string; passwordHash: string }, who: Who) =>
  c.execute('INSERT INTO person (id, household_id, email, name, password_hash, created_at) VALUES (?, ?, ?, ?, ?, ?)', [
    toBin(who.personId),
    toBin(who.householdId),
    email,
    name,
    passwordHash,
    new Date(now()),
  ]);

/** Makes a household with its first person. @returns null when the e-mail address is taken */
export async function signUp(form: SignUpForm, ids: Who = { householdId: v7(), personId: v7() }): Promise<Who | null> {
  const passwordHash = await hashPassword(form.password);
  try {
    await inTransaction(async (c) => {
      await addHousehold(c, form, ids.householdId);
      await addPerson(c, { ...form, passwordHash }, ids);
      await addMember(c, ids.householdId, ids.personId, 'owner');
    });
    await logSecurity({ kind: 'account_made', ...ids });
    return ids;
  } catch (error) {
    if ((error as { code?: string }).code === 'ER_DUP_ENTRY') return null;
    throw error;
  }
}

/** `householdId`: the one they were in last, where a sign-in leads. */
export type Account = Who & {
  email: string;
  name: string;
  householdName: string;
  passwordHash: string;
  recoveryHash: string | null;
  recoveryMadeAt: number | null;
};

async function accountWhere(condition: string, value: string | Buffer): Promise<Account | null> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT p.id, p.household_id, p.email, p.name, p.password_hash, p.recovery_hash, p.recovery_made_at, h.name AS household_name
       FROM person p JOIN household h ON h.id = p.household_id WHERE ${condition}`,
    [value],
  );
  const r = rows[0];
  if (!r) return null;
  return {
    householdId: fromBin(r.household_id),
    personId: fromBin(r.id),
    email: r.email,
    name: r.name,
    householdName: r.household_name,
    passwordHash: r.password_hash,
    recoveryHash: r.recovery_hash,
    recoveryMadeAt: r.recovery_made_at ? (r.recovery_made_at as Date).getTime() : null,
  };
}
const accountOf = (email: string): Promise<Account | null> => accountWhere('p.email = ?', email);
export const accountOfPerson = (personId: string): Promise<Account | null> => accountWhere('p.id = ?', toBin(personId));

/** The counts of a try at somebody's account: a device that knows the account has its own, all others share those of strangers. */
async function countsOf(account: Account | null, email: string, address: string, device: string | undefined): Promise<Key[]> {
  if (account && (await isKnownDevice(device, account.personId))) return [{ door: 'device', key: `${account.personId} ${device}` }];
  return [
    { door: 'pair', key: `${email} ${address}` },
    { door: 'address', key: address },
    { door: 'stranger', key: email },
  ];
}

/**
 * A try at somebody's account by what only its person has. Counted before it is checked, taken back when it was right, and
 * told in the log: of those refused for too many tries, the first. Unknown account and wrong secret get the same answer
 * after the same time.
 * @param device what this browser was given at an earlier sign-in
 * @param fits checks what was typed against the account, spending as much time on none
 */
export async function tryAccount(
  at: { email: string; address: string; device: string | undefined },
  fits: (account: Account | null) => Promise<boolean>,
): Promise<{ ok: true; account: Account } | Shut> {
  const account = await accountOf(at.email);
  const counts = await countsOf(account, at.email, at.address, at.device);
  const asked = { householdId: account?.householdId ?? null, personId: account?.personId ?? null };
  const { wait_s, first } = await knock(counts);
  if (wait_s > 0) {
    if (first) await logSecurity({ kind: 'refused', ...asked });
    return { ok: false, wait_s };
  }
  if (!(await fits(account)) || !account) {
    await logSecurity({ kind: 'sign_in_failed', ...asked });
    return { ok: false, wait_s: 0 };
  }
  await giveBack(counts);
  return { ok: true, account };
}

/** Checks a sign-in. */
export const signIn = (form: SignInForm, address: string, device?: string): Promise<{ ok: true; account: Account } | Shut> =>
  tryAccount({ email: form.email, address, device }, (account) => passwordFits(account?.passwordHash ?? null, form.password));

/** Asks a signed-in person's password once more. */
export async function askAgain(personId: string, password: string): Promise<{ ok: true; account: Account } | Shut> {
  const counts: Key[] = [{ door: 'again', key: personId }];
  const { wait_s } = await knock(counts);
  if (wait_s > 0) return { ok: false, wait_s };
  const account = await accountOfPerson(personId);
  if (!(await passwordFits(account?.passwordHash ?? null, password)) || !account) return { ok: false, wait_s: 0 };
  await giveBack(counts);
  return { ok: true, account };
}

/** The demo's person; only where the demo runs. */
export async function demoPerson(): Promise<Who | null> {
  if (process.env.MILE_DEMO !== '1') return null;
  return accountOf(DEMO_EMAIL);
}
export const DEMO_EMAIL = 'ines@demo.invalid';
