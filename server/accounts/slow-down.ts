import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';

const WINDOW_MS = 15 * 60_000;
const PER_ACCOUNT = 5;
const PER_ADDRESS = 20;
const accountHash = (email: string) => createHash('sha256').update(email).digest();

/**
 * Seconds until another sign-in may be tried from this address for this account; 0 when now.
 * Counted over a quarter of an hour, per account and per address, whether or not the account exists.
 */
export async function secondsToWait(address: string, email: string): Promise<number> {
  const since = new Date(now() - WINDOW_MS);
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT (SELECT COUNT(*) FROM sign_in_failure WHERE account_hash = ? AND at > ?) AS for_account, (SELECT COUNT(*) FROM sign_in_failure WHERE address = ? AND at > ?) AS from_address,
            (SELECT MIN(at) FROM sign_in_failure WHERE (account_hash = ? OR address = ?) AND at > ?) AS oldest`,
    [accountHash(email), since, address, since, accountHash(email), address, since],
  );
  const r = rows[0];
  if (!r || (Number(r.for_account) < PER_ACCOUNT && Number(r.from_address) < PER_ADDRESS)) return 0;
  return Math.max(1, Math.ceil(((r.oldest as Date).getTime() + WINDOW_MS - now()) / 1000));
}

export async function noteFailure(address: string, email: string): Promise<void> {
  await pool().execute('INSERT INTO sign_in_failure (id, address, account_hash, at) VALUES (?, ?, ?, ?)', [
    toBin(v7()),
    address,
    accountHash(email),
    new Date(now()),
  ]);
  await pool().execute('DELETE FROM sign_in_failure WHERE at < ? LIMIT 1000', [new Date(now() - 86_400_000)]);
}
