import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { Connection, RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { toBin } from '../db/binary-id';
import { migrate } from '../db/migrations';
import { EPOCH_STEP } from '../outbox/household-rev';
import { openPlain } from './connection';
import { type Head, lineSum, readBackup, type Sums } from './format';
import { type Row, rowsOf, type Table, tablesOf, valuesOf } from './tables';

/** What stands in the way of a restore, in a sentence. */
export class CannotRestore extends Error {}

/** Rows and bytes of one transaction. */
const MOST_ROWS = 500;
const MOST_BYTES = 4_000_000;

/** A database to restore into: an account that may create tables, the folder of migrations, the application's account. */
export type Target = { uri: string; migrations: string; appUser: string | undefined };

const shaOf = async (file: string): Promise<string> => {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
};

async function tableThere(db: Connection, name: string): Promise<boolean> {
  const [rows] = await db.query<RowDataPacket[]>('SELECT 1 FROM information_schema.tables WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = ?', [name]);
  return rows.length > 0;
}

/** Where a restore of this file stands: lines loaded so far. Begins one in an empty database. @throws CannotRestore where something else is in it */
async function progressOf(db: Connection, sha: string): Promise<number> {
  if (await tableThere(db, 'restore_progress')) {
    const [rows] = await db.query<RowDataPacket[]>('SELECT file_sha256, lines_done FROM restore_progress');
    if (rows[0] && rows[0].file_sha256 !== sha)
      throw new CannotRestore('A restore of another file was begun here. Go on with that one, or start over with an empty ledger.');
    if (rows[0]) return Number(rows[0].lines_done);
    // One that was finished, but for this.
    await db.query('DROP TABLE restore_progress');
  }
  const [there] = await db.query<RowDataPacket[]>('SELECT COUNT(*) AS n FROM household');
  if (Number(there[0]?.n) > 0) throw new CannotRestore('This ledger is not empty. A restore never writes over what is there.');
  await db.query('CREATE TABLE IF NOT EXISTS restore_progress (file_sha256 CHAR(64) NOT NULL PRIMARY KEY, lines_done BIGINT UNSIGNED NOT NULL) ENGINE=InnoDB');
  await db.query('INSERT INTO restore_progress VALUES (?, 0)', [sha]);
  return 0;
}

async function insertRows(db: Connection, table: Table, rows: readonly Row[], linesDone: number): Promise<void> {
  await db.beginTransaction();
  try {
    await db.query(`INSERT INTO \`${table.name}\` (${table.columns.map((c) => `\`${c}\``).join(', ')}) VALUES ?`, [rows.map((r) => valuesOf(table, r))]);
    await db.query('UPDATE restore_progress SET lines_done = ?', [linesDone]);
    await db.commit();
  } catch (error) {
    await db.rollback();
    throw error;
  }
}

/** Sums of tables as they stand, to be held against those of a backup. @param tables with the columns that count; all of them without */
export async function sumsOf(uri: string, tables?: readonly Table[]): Promise<Sums> {
  const db = await openPlain(uri);
  try {
    const sums: Sums = {};
    for (const table of tables ?? (await tablesOf(db))) {
      const sum = lineSum();
      for await (const row of rowsOf(db, table)) sum.add(JSON.stringify(row));
      sums[table.name] = sum.sum();
    }
    return sums;
  } finally {
    await db.end();
  }
}

/**
 * Loads a backup into an empty database, in transactions that each note how far it came: begun again after a crash, it goes on
 * from there. The file is read to its end before anything is written. The database is first brought to the very migrations
 * that the backup was made with.
 * @returns the backup's head @throws DamagedBackup, CannotRestore
 */
export async function loadBackup(target: Target, file: string): Promise<Head> {
  let head: Head | null = null;
  let sums: Sums = {};
  const tables: Table[] = [];
  for await (const line of readBackup(file)) {
    if (line.is === 'head') head = line.head;
    if (line.is === 'table') tables.push(line.table);
    if (line.is === 'end') sums = line.end.tables;
  }
  if (!head) throw new CannotRestore('This backup is empty.');
  const sha = await shaOf(file);
  await migrate(target.uri, target.migrations, target.appUser, head.migrations);
  const db = await openPlain(target.uri);
  try {
    const done = await progressOf(db, sha);
    await db.query('SET SESSION foreign_key_checks = 0, unique_checks = 0');
    let table: Table | null = null;
    let rows: Row[] = [];
    let bytes = 0;
    let last = 0;
    const flush = async () => {
      if (table && rows.length > 0) await insertRows(db, table, rows, last);
      rows = [];
      bytes = 0;
    };
    for await (const line of readBackup(file)) {
      if (line.is === 'table' || line.is === 'end') await flush();
      if (line.is === 'table') table = line.table;
      if (line.is !== 'row' || line.n <= done) continue;
      rows.push(line.row);
      bytes += line.row.reduce((n, v) => n + (v?.length ?? 0), 0);
      last = line.n;
      if (rows.length >= MOST_ROWS || bytes >= MOST_BYTES) await flush();
    }
  } finally {
    await db.end();
  }
  const there = await sumsOf(target.uri, tables);
  for (const [name, s] of Object.entries(sums))
    if (there[name]?.rows !== s.rows || there[name]?.sha256 !== s.sha256)
      throw new CannotRestore(`Table ${name} does not say what the backup says: ${there[name]?.rows ?? 0} rows of ${s.rows}.`);
  return head;
}

/**
 * Opens a restored ledger: brings it to today's migrations, ends every session that was signed in, and begins a new epoch in
 * every household, so that phones offer again what came after the backup. Begun again after a crash, it does so once.
 * @returns how many households
 */
export async function openRestored(target: Target, at: Date): Promise<number> {
  await migrate(target.uri, target.migrations, target.appUser);
  const db = await openPlain(target.uri);
  try {
    if (!(await tableThere(db, 'restore_progress'))) throw new CannotRestore('There is no restore to finish here.');
    await db.beginTransaction();
    const [households] = await db.query<RowDataPacket[]>('SELECT LOWER(HEX(id)) AS id FROM household');
    await db.query('DELETE FROM signed_in_session');
    // Nor tokens that were ended since.
    await db.query('DELETE FROM api_token');
    for (const { id } of households) {
      const hh = Buffer.from(id, 'hex');
      await db.query('UPDATE household SET epoch = ?, epoch_rev = rev, rev = rev + ? WHERE id = ?', [toBin(v7()), EPOCH_STEP, hh]);
      await db.query('INSERT INTO security_log (id, household_id, at, kind) VALUES (?, ?, ?, ?)', [toBin(v7()), hh, at, 'restored']);
    }
    await db.query('DELETE FROM restore_progress');
    await db.commit();
    await db.query('DROP TABLE restore_progress');
    return households.length;
  } finally {
    await db.end();
  }
}

/** The folder of migrations of this checkout. */
export const MIGRATIONS = path.join(process.cwd(), 'db');
