import { createHash, randomBytes } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

export const SESSION_COOKIE = 'mile_session';
/** Weeks, since a phone may be off the network for long. */
export const SESSION_DAYS = 60;

/** Who is signed in, and in which household everything they ask for lies. */
export type SignedIn = { householdId: string; personId: string; name: string; householdName: string; currency: string; zone: string };

const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** Starts a signed-in session. @returns the random id for the cookie: 256 bits, kept here only as its hash */
export async function startSession(householdId: string, personId: string): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  const at = new Date(now());
  await pool().execute('INSERT INTO signed_in_session (id_hash, household_id, person_id, created_at, expires_at) VALUES (?, ?, ?, ?, ?)', [
    hashOf(token),
    toBin(householdId),
    toBin(personId),
    at,
    new Date(now() + SESSION_DAYS * 86_400_000),
  ]);
  return token;
}

/** The person of a cookie, or null when it is unknown, ended or run out. */
export async function sessionOf(token: string | undefined): Promise<SignedIn | null> {
  if (!token || token.length > 100) return null;
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT s.household_id, s.person_id, p.name, h.name AS household_name, h.currency, h.zone
       FROM signed_in_session s JOIN person p ON p.id = s.person_id AND p.household_id = s.household_id JOIN household h ON h.id = s.household_id
      WHERE s.id_hash = ? AND s.ended_at IS NULL AND s.expires_at > ?`,
    [hashOf(token), new Date(now())],
  );
  const r = rows[0];
  if (!r) return null;
  return {
    householdId: fromBin(r.household_id),
    personId: fromBin(r.person_id),
    name: r.name,
    householdName: r.household_name,
    currency: r.currency,
    zone: r.zone,
  };
}

export async function endSession(token: string): Promise<void> {
  await pool().execute('UPDATE signed_in_session SET ended_at = ? WHERE id_hash = ? AND ended_at IS NULL', [new Date(now()), hashOf(token)]);
}
