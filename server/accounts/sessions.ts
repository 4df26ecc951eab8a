import { createHash, randomBytes } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { Wishes } from '@/core/records/wishes';
import { readWishes } from '@/core/records/wishes-form';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';
import type { Member } from './who';

export const SESSION_COOKIE = 'mile_session';
const DAY = 86_400_000;
/** A phone may be off the network for weeks: a session that nobody uses ends after so many days, */
export const IDLE_DAYS = 60;
/** and any session after so many, used or not. */
export const SESSION_DAYS = 180;
/** How often a session's last use is written down. */
const SEEN_EVERY_MS = 10 * 60_000;

/** Who is signed in, and in which household everything they ask for lies. */
export type SignedIn = Member & { sessionId: string; name: string; householdName: string; currency: string; zone: string; wishes: Wishes };
/** One signed-in device, as its person sees it. */
export type SessionRow = { id: string; device: string; startedAt: number; lastSeenAt: number };

const hashOf = (token: string) => createHash('sha256').update(token).digest();
const idleSince = () => new Date(now() - IDLE_DAYS * DAY);

/** Starts a signed-in session. @returns the random id for the cookie: 256 bits, kept here only as its hash */
export async function startSession(householdId: string, personId: string, device = ''): Promise<{ token: string; sessionId: string }> {
  const token = randomBytes(32).toString('base64url');
  const sessionId = v7();
  const at = new Date(now());
  await pool().execute(
    'INSERT INTO signed_in_session (id_hash, id, household_id, person_id, created_at, last_seen_at, expires_at, device) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [hashOf(token), toBin(sessionId), toBin(householdId), toBin(personId), at, at, new Date(now() + SESSION_DAYS * DAY), device.slice(0, 80)],
  );
  return { token, sessionId };
}

/** The person of a cookie, or null when it is unknown, ended, unused for too long or run out. */
export async function sessionOf(token: string | undefined): Promise<SignedIn | null> {
  if (!token || token.length > 100) return null;
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT s.id, s.household_id, s.person_id, s.last_seen_at, p.name, p.wishes, m.role, h.name AS household_name, h.currency, h.zone
       FROM signed_in_session s JOIN person p ON p.id = s.person_id JOIN household h ON h.id = s.household_id
       JOIN member m ON m.household_id = s.household_id AND m.person_id = s.person_id AND m.left_at IS NULL
      WHERE s.id_hash = ? AND s.ended_at IS NULL AND s.expires_at > ? AND s.last_seen_at > ?`,
    [hashOf(token), new Date(now()), idleSince()],
  );
  const r = rows[0];
  if (!r) return null;
  if (now() - (r.last_seen_at as Date).getTime() > SEEN_EVERY_MS)
    await pool().execute('UPDATE signed_in_session SET last_seen_at = ? WHERE id_hash = ?', [new Date(now()), hashOf(token)]);
  return {
    sessionId: fromBin(r.id),
    householdId: fromBin(r.household_id),
    personId: fromBin(r.person_id),
    role: r.role,
    name: r.name,
    wishes: readWishes(r.wishes),
    householdName: r.household_name,
    currency: r.currency,
    zone: r.zone,
  };
}

/** Where a person is signed in, the last used first. */
export async function sessionsOf(personId: string): Promise<SessionRow[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    'SELECT id, device, created_at, last_seen_at FROM signed_in_session WHERE person_id = ? AND ended_at IS NULL AND expires_at > ? AND last_seen_at > ? ORDER BY last_seen_at DESC, id',
    [toBin(personId), new Date(now()), idleSince()],
  );
  return rows.map((r) => ({
    id: fromBin(r.id),
    device: r.device,
    startedAt: (r.created_at as Date).getTime(),
    lastSeenAt: (r.last_seen_at as Date).getTime(),
  }));
}

/** Ends one session of a person, by its id. @returns whether there was one to end */
export async function endSession(personId: string, sessionId: string): Promise<boolean> {
  const [done] = await pool().execute('UPDATE signed_in_session SET ended_at = ? WHERE person_id = ? AND id = ? AND ended_at IS NULL', [
    new Date(now()),
    toBin(personId),
    toBin(sessionId),
  ]);
  return (done as { affectedRows: number }).affectedRows > 0;
}

/** Ends every session of a person but one; every one without. @returns how many */
export async function endOtherSessions(personId: string, but: string | null): Promise<number> {
  const [done] = await pool().execute(
    `UPDATE signed_in_session SET ended_at = ? WHERE person_id = ? AND ended_at IS NULL${but ? ' AND id <> ?' : ''}`,
    but ? [new Date(now()), toBin(personId), toBin(but)] : [new Date(now()), toBin(personId)],
  );
  return (done as { affectedRows: number }).affectedRows;
}
