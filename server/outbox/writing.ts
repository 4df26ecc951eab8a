import { createHash } from 'node:crypto';
import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { canonicalJson } from '@/core/records/canonical-json';
import type { RecordType } from '@/core/records/record-types';
import type { Who } from '../accounts/who';
import { toBin } from '../db/binary-id';
import { inTransaction } from '../db/pool';

/** One item that a writing transaction wrote, by the hash of its content, in hex. */
export type Written = { type: 'event' | RecordType; id: string; hash: string };
/** A writing transaction of a household, under its lock. `rev` is the one it writes; what it wrote is noted in `written`, and in `begun` the visits of which nothing was here before its last events. */
export type Writing = { c: PoolConnection; who: Who; rev: number; at: Date; written: Written[]; begun: Set<string> };

/** What a batch's row says it wrote, as text. */
export const itemsText = (written: readonly Written[]): string => JSON.stringify(written.map((w) => [w.type, w.id, w.hash]));

/**
 * The hash of a batch, chained to the one before: nothing written earlier can be changed, left out or put in between
 * without every later hash being another. SHA-256 (FIPS 180-4).
 * @param before of the household's batch before, empty for the first
 */
export const chainedHash = (before: Buffer, batch: { rev: number; personId: string; at: number; items: string }): Buffer =>
  createHash('sha256').update(before).update(canonicalJson(batch)).digest();

/**
 * Runs `work` as one writing transaction of a household: alone under the household's lock, all of it or nothing. Where it wrote
 * something the household's rev grows by one and the batch is chained to the one before.
 * @returns the household's rev afterwards, and what `work` returned
 */
export async function writing<T>(who: Who, at: Date, work: (w: Writing) => Promise<T>): Promise<{ rev: number; result: T }> {
  return inTransaction(async (c) => {
    const hh = toBin(who.householdId);
    const [rows] = await c.execute<RowDataPacket[]>('SELECT rev FROM household WHERE id = ? FOR UPDATE', [hh]);
    const before = Number(rows[0]?.rev ?? 0);
    const w: Writing = { c, who, rev: before + 1, at, written: [], begun: new Set() };
    const result = await work(w);
    if (w.written.length === 0) return { rev: before, result };
    await c.execute('UPDATE household SET rev = ? WHERE id = ?', [w.rev, hh]);
    const [last] = await c.execute<RowDataPacket[]>('SELECT hash FROM household_batch WHERE household_id = ? ORDER BY rev DESC LIMIT 1', [hh]);
    const items = itemsText(w.written);
    const hash = chainedHash((last[0]?.hash as Buffer | undefined) ?? Buffer.alloc(0), { rev: w.rev, personId: who.personId, at: at.getTime(), items });
    await c.execute('INSERT INTO household_batch (household_id, rev, person_id, at, items, hash) VALUES (?, ?, ?, ?, ?, ?)', [
      hh,
      w.rev,
      toBin(who.personId),
      at,
      items,
      hash,
    ]);
    return { rev: w.rev, result };
  });
}
