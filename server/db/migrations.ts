import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import mysql, { type RowDataPacket } from 'mysql2/promise';

/** Tables the application may only add to. */
const APPEND_ONLY = new Set(['event', 'household_batch', 'security_log']);

/**
 * Applies the numbered files of `dir` that are not applied yet, one after the other under a lock.
 * A file is recorded only after all of it ran; every file can be run again after a crash half-way.
 * @param uri of an account that may create tables
 * @param appUser account `'user'@'127.0.0.1'` of the application: granted what each table needs and no more
 * @param only names of those to apply, for a database that is to stand where another stood; all of them without
 * @throws when a file that was applied has been edited or is gone, naming it, or one that is asked for is not here
 * @returns names of the files applied now
 */
export async function migrate(uri: string, dir: string, appUser?: string, only?: readonly string[]): Promise<string[]> {
  const db = await mysql.createConnection({ uri, multipleStatements: true, timezone: 'Z' });
  try {
    const [[lock]] = (await db.query("SELECT GET_LOCK('mile_migrate', 30) AS got")) as unknown as [[{ got: number }]];
    if (Number(lock.got) !== 1) throw new Error('another migration is running');
    await db.query(
      'CREATE TABLE IF NOT EXISTS schema_migration (name VARCHAR(190) PRIMARY KEY, sha256 CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL) ENGINE=InnoDB',
    );
    const [done] = await db.query<(RowDataPacket & { name: string; sha256: string })[]>('SELECT name, sha256 FROM schema_migration');
    const applied = new Map(done.map((r) => [r.name, r.sha256]));
    const files = (await readdir(dir)).filter((f) => f.endsWith('.sql')).sort();
    for (const name of applied.keys())
      if (!files.includes(name)) throw new Error(`${name} was applied to this database but is not here: is this an older version?`);
    for (const name of only ?? [])
      if (!files.includes(name)) throw new Error(`${name} is not here: is this an older version than the one that wrote the backup?`);
    const fresh: string[] = [];
    for (const file of files) {
      if (only && !only.includes(file)) continue;
      const sql = await readFile(path.join(dir, file), 'utf8');
      const sha256 = createHash('sha256').update(sql).digest('hex');
      const before = applied.get(file);
      if (before === sha256) continue;
      if (before !== undefined) throw new Error(`${file} was changed after it was applied: write a new file instead`);
      await db.query(sql);
      await db.execute('INSERT INTO schema_migration (name, sha256, applied_at) VALUES (?, ?, UTC_TIMESTAMP(3))', [file, sha256]);
      fresh.push(file);
    }
    if (appUser) {
      const [tables] = await db.query<(RowDataPacket & { name: string })[]>(
        'SELECT TABLE_NAME AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
      );
      for (const { name } of tables) {
        const may = name === 'schema_migration' ? 'SELECT' : APPEND_ONLY.has(name) ? 'SELECT, INSERT' : 'SELECT, INSERT, UPDATE, DELETE';
        await db.query(`GRANT ${may} ON \`${name}\` TO ${appUser}`);
      }
      // What it may not do itself, it may ask for as a whole: a procedure runs with the rights of the one who made it.
      const [routines] = await db.query<(RowDataPacket & { name: string })[]>(
        "SELECT ROUTINE_NAME AS name FROM information_schema.routines WHERE ROUTINE_SCHEMA = DATABASE() AND ROUTINE_TYPE = 'PROCEDURE'",
      );
      for (const { name } of routines) await db.query(`GRANT EXECUTE ON PROCEDURE \`${name}\` TO ${appUser}`);
    }
    return fresh;
  } finally {
    await db.end();
  }
}
