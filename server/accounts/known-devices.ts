import { createHash, randomBytes } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';

// After "Slow Down Online Guessing Attacks with Device Cookies" (OWASP, from memory): a device that an account was opened on
// before has a count of its own, so that strangers who guess at the account slow each other and never its owner.

export const DEVICE_COOKIE = 'mile_device';
const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** True when this person signed in on this device before. */
export async function isKnownDevice(token: string | undefined, personId: string): Promise<boolean> {
  if (!token || token.length > 100) return false;
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT 1 FROM known_device WHERE id_hash = ? AND person_id = ?', [hashOf(token), toBin(personId)]);
  return rows.length > 0;
}

/** Remembers that a person signed in on a device. @returns the cookie's value: the one it has, or a new one of 256 bits */
export async function rememberDevice(token: string | undefined, personId: string): Promise<string> {
  const kept = token && token.length <= 100 ? token : randomBytes(32).toString('base64url');
  await pool().execute('INSERT INTO known_device (id_hash, person_id, last_at) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE last_at = VALUES(last_at)', [
    hashOf(kept),
    toBin(personId),
    new Date(now()),
  ]);
  return kept;
}

/** Forgets every device of a person: after a recovery none is trusted. */
export const forgetDevices = (personId: string) => pool().execute('DELETE FROM known_device WHERE person_id = ?', [toBin(personId)]);
