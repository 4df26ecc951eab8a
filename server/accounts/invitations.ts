import { createHash, randomBytes } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { InvitedForm } from '@/core/records/account-forms';
import { INVITATION_DAYS, invitationCode } from '@/core/records/invitation';
import { readRecoveryCode } from '@/core/records/recovery-code';
import type { MemberRole } from '@/core/records/roles';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { addPerson } from './accounts';
import { addMember, roleForUpdate } from './members';
import { hashPassword } from './password';
import { logSecurity } from './security-log';
import type { Who } from './who';

const DAY = 86_400_000;
/** Open at once in one household: more are a mistake, or mischief. */
const MOST_OPEN = 20;
const hashOf = (typed: string) => createHash('sha256').update(readRecoveryCode(typed)).digest();
const OPEN = 'used_at IS NULL AND ended_at IS NULL AND expires_at > ?';

export type InvitationRow = { id: string; role: MemberRole; by: string; madeAt: number; expiresAt: number };

/** Makes an invitation. @returns its code, shown once and kept as a hash only, or why not */
export async function invite(who: Who, role: MemberRole): Promise<{ ok: true; id: string; code: string; expiresAt: number } | { ok: false; reason: string }> {
  let code: string | null = null;
  while (!code) code = invitationCode(randomBytes(24));
  const [id, at] = [v7(), now()];
  const expiresAt = at + INVITATION_DAYS * DAY;
  const made = await inTransaction(async (c) => {
    if ((await roleForUpdate(c, who.householdId, who.personId)) !== 'owner') return 'Only the owner invites.';
    const [open] = await c.execute<RowDataPacket[]>(`SELECT COUNT(*) AS n FROM invitation WHERE household_id = ? AND ${OPEN}`, [
      toBin(who.householdId),
      new Date(at),
    ]);
    if (Number(open[0]?.n) >= MOST_OPEN) return `There are ${MOST_OPEN} open invitations already: end one first.`;
    await c.execute('INSERT INTO invitation (id, household_id, role, code_hash, made_by, made_at, expires_at) VALUES (?, ?, ?, ?, ?, ?, ?)', [
      toBin(id),
      toBin(who.householdId),
      role,
      hashOf(code),
      toBin(who.personId),
      new Date(at),
      new Date(expiresAt),
    ]);
    return null;
  });
  if (made) return { ok: false, reason: made };
  await logSecurity({ kind: 'invited', ...who });
  return { ok: true, id, code, expiresAt };
}

/** The invitations of a household that still open something. */
export async function invitationsOf(householdId: string): Promise<InvitationRow[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT i.id, i.role, i.made_at, i.expires_at, p.name FROM invitation i JOIN person p ON p.id = i.made_by WHERE i.household_id = ? AND ${OPEN} ORDER BY i.made_at`,
    [toBin(householdId), new Date(now())],
  );
  return rows.map((r) => ({
    id: fromBin(r.id),
    role: r.role,
    by: r.name,
    madeAt: (r.made_at as Date).getTime(),
    expiresAt: (r.expires_at as Date).getTime(),
  }));
}

/** Ends an invitation that was not used. @returns whether there was one */
export async function endInvitation(householdId: string, id: string): Promise<boolean> {
  const [done] = await pool().execute('UPDATE invitation SET ended_at = ? WHERE household_id = ? AND id = ? AND used_at IS NULL AND ended_at IS NULL', [
    new Date(now()),
    toBin(householdId),
    toBin(id),
  ]);
  return (done as { affectedRows: number }).affectedRows > 0;
}

/** What an invitation leads to, for whoever holds its code; null for one that is unknown, used, ended or too old. */
export async function invitationAt(code: string): Promise<{ householdId: string; householdName: string; role: MemberRole; by: string } | null> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT i.household_id, i.role, h.name AS household, p.name FROM invitation i JOIN household h ON h.id = i.household_id JOIN person p ON p.id = i.made_by
      WHERE i.code_hash = ? AND ${OPEN}`,
    [hashOf(code), new Date(now())],
  );
  const r = rows[0];
  return r ? { householdId: fromBin(r.household_id), householdName: r.household, role: r.role, by: r.name } : null;
}

export type Joined = { ok: true; who: Who } | { ok: false; reason: 'no_invitation' | 'email_taken' };

/**
 * Uses an invitation up: who came by it belongs to the household from now on. Somebody who belongs to it already stays what
 * they are, and the invitation is not used.
 * @param person who is signed in, or the form of an account to be made
 */
export async function comeIn(code: string, person: { personId: string } | InvitedForm): Promise<Joined> {
  const account = 'personId' in person ? null : { ...person, passwordHash: await hashPassword(person.password) };
  const personId = 'personId' in person ? person.personId : v7();
  try {
    const joined = await inTransaction(async (c): Promise<Joined> => {
      // Of two that use one code at once, one does.
      const [rows] = await c.execute<RowDataPacket[]>(`SELECT id, household_id, role FROM invitation WHERE code_hash = ? AND ${OPEN} FOR UPDATE`, [
        hashOf(code),
        new Date(now()),
      ]);
      const r = rows[0];
      if (!r) return { ok: false, reason: 'no_invitation' };
      const who = { householdId: fromBin(r.household_id), personId };
      if (account) await addPerson(c, account, who);
      else if (await roleForUpdate(c, who.householdId, personId)) return { ok: true, who };
      await addMember(c, who.householdId, personId, r.role);
      await c.execute('UPDATE person SET household_id = ? WHERE id = ?', [toBin(who.householdId), toBin(personId)]);
      await c.execute('UPDATE invitation SET used_at = ?, used_by = ? WHERE id = ?', [new Date(now()), toBin(personId), r.id]);
      return { ok: true, who };
    });
    if (joined.ok) await logSecurity({ kind: 'joined', ...joined.who });
    return joined;
  } catch (error) {
    if ((error as { code?: string }).code === 'ER_DUP_ENTRY') return { ok: false, reason: 'email_taken' };
    throw error;
  }
}
