import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { now } from '../clock';
import { pool } from '../db/pool';

/** What is counted apart. `pair`: an account from an address; `stranger`: an account from devices it does not know; `device`: from one that it does. */
export type Door = 'address' | 'pair' | 'stranger' | 'device' | 'sign_up' | 'again' | 'invitation';
export type Key = { door: Door; key: string };

const MINUTE = 60_000;
/** How many tries in how long. */
export const ALLOWED: Record<Door, { most: number; window_ms: number }> = {
  address: { most: 20, window_ms: 15 * MINUTE },
  pair: { most: 5, window_ms: 15 * MINUTE },
  stranger: { most: 30, window_ms: 15 * MINUTE },
  device: { most: 10, window_ms: 15 * MINUTE },
  sign_up: { most: 20, window_ms: 60 * MINUTE },
  invitation: { most: 20, window_ms: 15 * MINUTE },
  again: { most: 10, window_ms: 15 * MINUTE },
};
const hashOf = (key: string) => createHash('sha256').update(key).digest();

/** What a door says to a try: seconds to wait, 0 when it may go on. `first`: the first that is refused since the count began. */
export type Knock = { wait_s: number; first: boolean };

async function knockAt({ door, key }: Key): Promise<Knock> {
  const { most, window_ms } = ALLOWED[door];
  const at = now();
  const begun = new Date(at - window_ms);
  const [rows] = await pool().query<RowDataPacket[]>(
    `INSERT INTO door_try (door, key_hash, since, tries) VALUES (?, ?, ?, 1)
       ON DUPLICATE KEY UPDATE tries = IF(since <= ?, 1, LEAST(tries + 1, 1000000)), since = IF(since <= ?, VALUES(since), since) RETURNING since, tries`,
    [door, hashOf(key), new Date(at), begun, begun],
  );
  const counted = rows[0];
  if (!counted) return { wait_s: 0, first: false };
  const tries = Number(counted.tries);
  if (tries === 1) await forgetOld(at);
  if (tries <= most) return { wait_s: 0, first: false };
  return { wait_s: Math.max(1, Math.ceil(((counted.since as Date).getTime() + window_ms - at) / 1000)), first: tries === most + 1 };
}

/** Old counts leave a few at a time, whenever a new one begins; a failure here is no reason to refuse anybody. */
const forgetOld = (at: number) =>
  pool()
    .execute('DELETE FROM door_try WHERE since < ? LIMIT 100', [new Date(at - 24 * 60 * MINUTE)])
    .catch(() => {});

/**
 * Counts a try at one door after the other, and only then says whether it may go on: of any number at once no more than each
 * door allows get through. A door that refuses is the last that is knocked at, so that one who is refused slows nobody else.
 */
export async function knock(keys: readonly Key[]): Promise<Knock> {
  for (const key of keys) {
    const answer = await knockAt(key);
    if (answer.wait_s > 0) return answer;
  }
  return { wait_s: 0, first: false };
}

/** Takes a try back that turned out right. */
export async function giveBack(keys: readonly Key[]): Promise<void> {
  for (const { door, key } of keys)
    await pool().execute('UPDATE door_try SET tries = tries - 1 WHERE door = ? AND key_hash = ? AND tries > 0', [door, hashOf(key)]);
}
