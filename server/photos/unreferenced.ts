import type { RowDataPacket } from 'mysql2/promise';
import { RECORD_TYPES } from '@/core/records/types/registry';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction } from '../db/pool';

/** A photo that nothing names goes after so long: what names it is sent before it, or a moment later. */
const WAIT_MS = 24 * 3600_000;
const EVERY_MS = 3600_000;
const swept = new Map<string, number>();

/** Removes a household's photos that no event and no record names, a day after they came. At most once an hour unless asked for. @returns how many */
export async function sweepPhotos(householdId: string, always = false): Promise<number> {
  if (!always && now() - (swept.get(householdId) ?? Number.NEGATIVE_INFINITY) < EVERY_MS) return 0;
  swept.set(householdId, now());
  const hh = toBin(householdId);
  return inTransaction(async (c) => {
    // Nothing is written in the household meanwhile, so nothing can begin to name what is about to go.
    await c.execute('SELECT rev FROM household WHERE id = ? FOR UPDATE', [hh]);
    const [old] = await c.execute<RowDataPacket[]>('SELECT sha256 FROM photo WHERE household_id = ? AND kept_at < ?', [hh, new Date(now() - WAIT_MS)]);
    if (old.length === 0) return 0;
    const named = new Set<string>();
    const read = async (sql: string) => {
      const [rows] = await c.execute<RowDataPacket[]>({ sql, rowsAsArray: true } as never, [hh]);
      for (const [text] of rows as unknown as [unknown][])
        for (const m of (typeof text === 'string' ? text : JSON.stringify(text)).matchAll(/[0-9a-f]{64}/g)) named.add(m[0]);
    };
    // Taken back or of a newer version: it is kept, and so is its picture.
    await read(`SELECT CAST(payload AS CHAR) FROM event WHERE household_id = ? AND payload REGEXP '[0-9a-f]{64}'`);
    for (const type of RECORD_TYPES) await read(`SELECT CAST(fields AS CHAR) FROM ${type} WHERE household_id = ? AND fields REGEXP '[0-9a-f]{64}'`);
    let gone = 0;
    for (const { sha256 } of old as { sha256: Buffer }[]) {
      if (named.has(sha256.toString('hex'))) continue;
      await c.execute('DELETE FROM photo_chunk WHERE household_id = ? AND sha256 = ?', [hh, sha256]);
      await c.execute('DELETE FROM photo WHERE household_id = ? AND sha256 = ?', [hh, sha256]);
      gone += 1;
    }
    return gone;
  });
}
