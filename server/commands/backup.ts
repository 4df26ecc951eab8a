// Writes a backup of the database of MIGRATE_URL into the file that is named. Run by bin/backup.
import { stat } from 'node:fs/promises';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { openPlain } from '../backup/connection';
import { writeBackup } from '../backup/write-backup';
import { now } from '../clock';
import { toBin } from '../db/binary-id';

const uri = process.env.MIGRATE_URL;
const [file] = process.argv.slice(2);
if (!uri || !file) throw new Error('MIGRATE_URL and a file are needed');
try {
  const tables = await writeBackup(uri, file, now());
  const db = await openPlain(uri);
  const [households] = await db.query<RowDataPacket[]>('SELECT LOWER(HEX(id)) AS id FROM household');
  // A backup taken just before an upgrade may be of a ledger without a log.
  const [log] = await db.query<RowDataPacket[]>("SELECT 1 FROM information_schema.tables WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'security_log'");
  for (const { id } of log.length > 0 ? households : [])
    await db.query('INSERT INTO security_log (id, household_id, at, kind) VALUES (?, ?, ?, ?)', [
      toBin(v7()),
      Buffer.from(id, 'hex'),
      new Date(now()),
      'exported',
    ]);
  await db.end();
  const rows = (name: string) => tables[name]?.rows ?? 0;
  const { size } = await stat(file);
  console.log(
    `${file}: ${rows('household')} households, ${rows('visit')} visits, ${rows('event')} events, ${rows('photo')} photos, ${(size / 1e6).toFixed(1)} MB; read again and found right`,
  );
} catch (error) {
  console.error(`No backup was written: ${(error as Error).message}`);
  process.exit(1);
}
