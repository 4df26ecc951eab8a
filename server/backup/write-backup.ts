import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { createGzip } from 'node:zlib';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { openPlain } from './connection';
import { type End, FORMAT, FORMAT_VERSION, type Head, lineSum, readBackup, type Sums } from './format';
import { rowsOf, tablesOf } from './tables';

/** Where the binary log stood when the snapshot was taken; `null` where none is kept. */
async function binlogAt(db: Connection): Promise<Head['binlog']> {
  const [rows] = await db.query<RowDataPacket[]>("SHOW STATUS WHERE Variable_name IN ('Binlog_snapshot_file', 'Binlog_snapshot_position')");
  const said = new Map(rows.map((r) => [String(r.Variable_name).toLowerCase(), String(r.Value)]));
  const file = said.get('binlog_snapshot_file');
  return file ? { file, position: Number(said.get('binlog_snapshot_position')) } : null;
}

/**
 * Writes everything the database holds into a file: one consistent state, whatever is written meanwhile. The file appears
 * under its name only once it is whole, on the disk, and read again and found right.
 * @param uri of the database @param madeAt UTC ms @throws DamagedBackup when what was written cannot be read back
 */
export async function writeBackup(uri: string, file: string, madeAt: number): Promise<Sums> {
  const db = await openPlain(uri);
  const part = `${file}.part`;
  try {
    await db.query('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    await db.query('START TRANSACTION WITH CONSISTENT SNAPSHOT');
    const [migrations] = await db.query<RowDataPacket[]>('SELECT name FROM schema_migration ORDER BY name');
    const head: Head = {
      format: FORMAT,
      version: FORMAT_VERSION,
      madeAt: new Date(madeAt).toISOString(),
      migrations: migrations.map((m) => m.name),
      binlog: await binlogAt(db),
    };
    // Everything about everybody: for the eyes of its owner alone.
    const out = createWriteStream(part, { mode: 0o600 });
    const gzip = createGzip({ level: 6 });
    gzip.pipe(out);
    const done = new Promise<void>((ok, fail) => {
      out.once('finish', ok);
      out.once('error', fail);
      gzip.once('error', fail);
    });
    done.catch(() => {});
    const whole = createHash('sha256');
    const write = async (line: string) => {
      whole.update(line).update('\n');
      if (!gzip.write(`${line}\n`)) await Promise.race([once(gzip, 'drain'), done]);
    };
    await write(JSON.stringify(head));
    const tables: Sums = {};
    for (const table of await tablesOf(db)) {
      await write(JSON.stringify(table));
      const sum = lineSum();
      for await (const row of rowsOf(db, table)) {
        const line = JSON.stringify(row);
        sum.add(line);
        await write(line);
      }
      tables[table.name] = sum.sum();
    }
    const end: End = { end: true, tables, sha256: whole.digest('hex') };
    gzip.end(`${JSON.stringify(end)}\n`);
    await done;
    await onDisk(part);
    // What cannot be read is no backup: it is read to its end before it gets its name.
    for await (const _ of readBackup(part));
    await rename(part, file);
    await onDisk(path.dirname(path.resolve(file)));
    return tables;
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  } finally {
    await db.end().catch(() => {});
  }
}

async function onDisk(file: string): Promise<void> {
  const handle = await open(file, 'r');
  await handle.sync();
  await handle.close();
}
