import { randomBytes } from 'node:crypto';
import type { RecoveryForm } from '@/core/records/account-forms';
import { readRecoveryCode, recoveryCode } from '@/core/records/recovery-code';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import { type Account, type Shut, tryAccount } from './accounts';
import { forgetDevices } from './known-devices';
import { hashPassword, passwordFits } from './password';
import { logSecurity } from './security-log';
import { endOtherSessions } from './sessions';
import { endTokens } from './tokens';
import type { Who } from './who';

/** Makes a person's recovery code; one made before no longer opens anything. @returns the code, shown once and kept as a hash only */
export async function makeRecoveryCode(who: Who): Promise<string> {
  let code: string | null = null;
  while (!code) code = recoveryCode(randomBytes(24));
  await pool().execute('UPDATE person SET recovery_hash = ?, recovery_made_at = ? WHERE id = ?', [
    await hashPassword(code),
    new Date(now()),
    toBin(who.personId),
  ]);
  await logSecurity({ kind: 'recovery_made', ...who });
  return code;
}

/** Sets a new password and ends every session but one, and every token. @param keep the session in which it was changed */
export async function setPassword(who: Who, password: string, keep: string | null): Promise<void> {
  await pool().execute('UPDATE person SET password_hash = ?, password_changed_at = ? WHERE id = ?', [
    await hashPassword(password),
    new Date(now()),
    toBin(who.personId),
  ]);
  await endOtherSessions(who.personId, keep);
  // Whoever was in may have made a way of their own.
  await endTokens(who.personId);
}

/**
 * Opens an account by its recovery code and sets a new password: the code is used up, every session ends, no device is
 * trusted any more. Slowed as a sign-in is. Unknown account, no code and wrong code get the same answer.
 */
export async function recover(form: RecoveryForm, address: string, device?: string): Promise<{ ok: true; account: Account } | Shut> {
  const tried = await tryAccount({ email: form.email, address, device }, async (account) => {
    const fits = await passwordFits(account?.recoveryHash ?? null, readRecoveryCode(form.code));
    return fits && account?.recoveryHash !== null;
  });
  if (!tried.ok) return tried;
  const { personId, householdId, recoveryHash } = tried.account;
  // Of two that use the code at once, one does.
  const [used] = await pool().execute('UPDATE person SET recovery_hash = NULL, recovery_made_at = NULL WHERE id = ? AND recovery_hash = ?', [
    toBin(personId),
    recoveryHash,
  ]);
  if ((used as { affectedRows: number }).affectedRows === 0) return { ok: false, wait_s: 0 };
  await setPassword(tried.account, form.password, null);
  await forgetDevices(personId);
  await logSecurity({ kind: 'recovery_used', householdId, personId });
  return tried;
}
