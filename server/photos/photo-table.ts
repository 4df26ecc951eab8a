import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';
import { bareJpegSize } from './bare-jpeg';
import { type Picture, shrink } from './shrink';
import { sweepPhotos } from './unreferenced';

/** The largest photo taken, bytes. Phones scale theirs down well below this. */
export const MAX_PHOTO_BYTES = 3_000_000;
/** What a household may keep: twenty a visit over a hundred visits, and the bytes of as many at a quarter megabyte. */
export const MOST_PHOTOS = 2_000;
export const MOST_BYTES = 500_000_000;
const CHUNK = 512 * 1024;

export type PhotoTaken = { ok: true; already: boolean } | { ok: false; reason: string };

/** Keeps a photo under the SHA-256 of the bytes that were sent. The picture is written anew before it is kept. */
export async function keepPhoto(who: Who, sha256: string, sent: Buffer): Promise<PhotoTaken> {
  if (createHash('sha256').update(sent).digest('hex') !== sha256)
    return { ok: false, reason: 'The bytes are not those of the name: the photo was damaged on the way.' };
  if (await photoSize(who.householdId, sha256)) return { ok: true, already: true };
  const shrunk = await shrink(sent);
  return shrunk.ok ? insertPhoto(who, sha256, shrunk.picture) : shrunk;
}

/**
 * Keeps a photo that comes back with its ledger, under the name by which that speaks of it. It was written anew when it was first kept: where it still is as
 * that leaves a picture it stays byte for byte, else it is written anew again.
 */
export async function restorePhoto(who: Who, sha256: string, sent: Buffer): Promise<PhotoTaken> {
  if (await photoSize(who.householdId, sha256)) return { ok: true, already: true };
  const shrunk = await shrink(sent);
  if (!shrunk.ok) return shrunk;
  const { width, height } = shrunk.picture;
  const bare = bareJpegSize(sent);
  return insertPhoto(who, sha256, bare?.width === width && bare.height === height ? { data: sent, width, height } : shrunk.picture);
}

async function insertPhoto(who: Who, sha256: string, { data, width, height }: Picture): Promise<PhotoTaken> {
  const id = Buffer.from(sha256, 'hex');
  const hh = toBin(who.householdId);
  const full = await inTransaction(async (c) => {
    // Under the household's lock, so that many at once are counted too.
    await c.execute('SELECT rev FROM household WHERE id = ? FOR UPDATE', [hh]);
    const [rows] = await c.execute<RowDataPacket[]>('SELECT COUNT(*) AS n, COALESCE(SUM(bytes), 0) AS bytes FROM photo WHERE household_id = ?', [hh]);
    if (Number(rows[0]?.n) >= MOST_PHOTOS || Number(rows[0]?.bytes) + data.length > MOST_BYTES) return true;
    await c.execute(
      'INSERT IGNORE INTO photo (household_id, sha256, person_id, width, height, bytes, kept_at, stored_sha256) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [hh, id, toBin(who.personId), width, height, data.length, new Date(now()), createHash('sha256').update(data).digest()],
    );
    for (let n = 0; n * CHUNK < data.length; n++)
      await c.execute('INSERT IGNORE INTO photo_chunk (household_id, sha256, n, bytes) VALUES (?, ?, ?, ?)', [
        hh,
        id,
        n,
        data.subarray(n * CHUNK, (n + 1) * CHUNK),
      ]);
    return false;
  });
  if (full) return { ok: false, reason: 'This household keeps as many photos as it can: 2,000, or 500 MB.' };
  await sweepPhotos(who.householdId).catch((error) => console.error('unreferenced photos stay', error));
  return { ok: true, already: false };
}

async function photoSize(householdId: string, sha256: string): Promise<number | null> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT bytes FROM photo WHERE household_id = ? AND sha256 = ?', [
    toBin(householdId),
    Buffer.from(sha256, 'hex'),
  ]);
  return rows[0] ? Number(rows[0].bytes) : null;
}

/** Of these photos, by their names, those that a household has not. */
export async function photosLacking(householdId: string, names: readonly string[]): Promise<string[]> {
  if (names.length === 0) return [];
  const [rows] = await pool().execute<RowDataPacket[]>(`SELECT sha256 FROM photo WHERE household_id = ? AND sha256 IN (${names.map(() => '?').join(', ')})`, [
    toBin(householdId),
    ...names.map((name) => Buffer.from(name, 'hex')),
  ]);
  const here = new Set(rows.map((r) => (r.sha256 as Buffer).toString('hex')));
  return names.filter((name) => !here.has(name));
}

/** The bytes of a household's photo, JPEG; `null` when it has none of that name. */
export async function readPhoto(householdId: string, sha256: string): Promise<Buffer | null> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT bytes FROM photo_chunk WHERE household_id = ? AND sha256 = ? ORDER BY n', [
    toBin(householdId),
    Buffer.from(sha256, 'hex'),
  ]);
  return rows.length > 0 ? Buffer.concat(rows.map((r) => r.bytes as Buffer)) : null;
}
