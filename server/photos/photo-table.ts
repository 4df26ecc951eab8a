import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import sharp from 'sharp';
import type { Who } from '../accounts/accounts';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';

/** The largest photo taken, bytes. Phones scale theirs down well below this. */
export const MAX_PHOTO_BYTES = 3_000_000;
const CHUNK = 512 * 1024;
const MOST_PIXELS = 1600;

export type PhotoTaken = { ok: true; already: boolean } | { ok: false; reason: string };

/**
 * Keeps a photo under the SHA-256 of the bytes that were sent. The picture is decoded and written anew, so that
 * whatever came beside it (position, camera, a program in disguise) is gone.
 */
export async function keepPhoto(who: Who, sha256: string, sent: Buffer): Promise<PhotoTaken> {
  if (createHash('sha256').update(sent).digest('hex') !== sha256)
    return { ok: false, reason: 'The bytes are not those of the name: the photo was damaged on the way.' };
  const id = Buffer.from(sha256, 'hex');
  if (await photoSize(who.householdId, sha256)) return { ok: true, already: true };
  let picture: { data: Buffer; info: { width: number; height: number } };
  try {
    picture = await sharp(sent, { limitInputPixels: 50_000_000, failOn: 'error' })
      .rotate()
      .resize({ width: MOST_PIXELS, height: MOST_PIXELS, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
  } catch {
    return { ok: false, reason: 'This is not a picture that can be read.' };
  }
  await inTransaction(async (c) => {
    await c.execute('INSERT IGNORE INTO photo (household_id, sha256, person_id, width, height, bytes, kept_at) VALUES (?, ?, ?, ?, ?, ?, ?)', [
      toBin(who.householdId),
      id,
      toBin(who.personId),
      picture.info.width,
      picture.info.height,
      picture.data.length,
      new Date(now()),
    ]);
    for (let n = 0; n * CHUNK < picture.data.length; n++)
      await c.execute('INSERT IGNORE INTO photo_chunk (household_id, sha256, n, bytes) VALUES (?, ?, ?, ?)', [
        toBin(who.householdId),
        id,
        n,
        picture.data.subarray(n * CHUNK, (n + 1) * CHUNK),
      ]);
  });
  return { ok: true, already: false };
}

async function photoSize(householdId: string, sha256: string): Promise<number | null> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT bytes FROM photo WHERE household_id = ? AND sha256 = ?', [
    toBin(householdId),
    Buffer.from(sha256, 'hex'),
  ]);
  return rows[0] ? Number(rows[0].bytes) : null;
}

/** The bytes of a household's photo, JPEG; `null` when it has none of that name. */
export async function readPhoto(householdId: string, sha256: string): Promise<Buffer | null> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT bytes FROM photo_chunk WHERE household_id = ? AND sha256 = ? ORDER BY n', [
    toBin(householdId),
    Buffer.from(sha256, 'hex'),
  ]);
  return rows.length > 0 ? Buffer.concat(rows.map((r) => r.bytes as Buffer)) : null;
}
