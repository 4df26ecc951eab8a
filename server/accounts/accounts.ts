import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { SignInForm, SignUpForm } from '@/core/records/account-forms';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { hashPassword, passwordFits } from './password';
import { noteFailure, secondsToWait } from './slow-down';

export type Who = { householdId: string; personId: string };

/** Makes a household with its first person. @returns null when the e-mail address is taken */
export async function signUp(form: SignUpForm, ids: Who = { householdId: v7(), personId: v7() }): Promise<Who | null> {
  const passwordHash = await hashPassword(form.password);
  try {
    await inTransaction(async (c) => {
      const at = new Date(now());
      await c.execute('INSERT INTO household (id, name, currency, zone, rev, created_at) VALUES (?, ?, ?, ?, 0, ?)', [
        toBin(ids.householdId),
        form.householdName,
        form.currency,
        form.zone,
        at,
      ]);
      await c.execute('INSERT INTO person (id, household_id, email, name, password_hash, created_at) VALUES (?, ?, ?, ?, ?, ?)', [
        toBin(ids.personId),
        toBin(ids.householdId),
        form.email,
        form.name,
        passwordHash,
        at,
      ]);
    });
    return ids;
  } catch (error) {
    if ((error as { code?: string }).code === 'ER_DUP_ENTRY') return null;
    throw error;
  }
}

export type SignInResult = { ok: true; who: Who } | { ok: false; wait_s: number };

/** Checks a sign-in. Unknown account and wrong password get the same answer after the same time. */
export async function signIn(form: SignInForm, address: string): Promise<SignInResult> {
  const wait = await secondsToWait(address, form.email);
  if (wait > 0) return { ok: false, wait_s: wait };
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT id, household_id, password_hash FROM person WHERE email = ?', [form.email]);
  const person = rows[0];
  if (!(await passwordFits(person?.password_hash ?? null, form.password)) || !person) {
    await noteFailure(address, form.email);
    return { ok: false, wait_s: 0 };
  }
  return { ok: true, who: { householdId: fromBin(person.household_id), personId: fromBin(person.id) } };
}

/** The demo's person; only where the demo runs. */
export async function demoPerson(): Promise<Who | null> {
  if (process.env.MILE_DEMO !== '1') return null;
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT id, household_id FROM person WHERE email = ?', [DEMO_EMAIL]);
  return rows[0] ? { householdId: fromBin(rows[0].household_id), personId: fromBin(rows[0].id) } : null;
}
export const DEMO_EMAIL = 'ines@demo.invalid';
