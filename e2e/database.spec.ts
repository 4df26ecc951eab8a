import { execFile, spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { migrate } from '@/server/db/migrations';
import { addPlace, asItems, newHousehold, send, visitEvents } from './hands/household';
import { ownDatabase } from './hands/own-database';

const run = promisify(execFile);
test('migrations run once; one that was edited afterwards or is missing is refused by name', async () => {
  const uri = process.env.E2E_SCRATCH_URL as string;
  const dir = mkdtempSync(path.join(tmpdir(), 'mile-migrations-'));
  cpSync('db', dir, { recursive: true });
  const files = readdirSync('db');
  expect(files.length).toBeGreaterThan(4);
  expect(await migrate(uri, dir)).toEqual(files);
  expect(await migrate(uri, dir)).toEqual([]);
  writeFileSync(path.join(dir, '0002_records.sql'), '-- quite another thing');
  await expect(migrate(uri, dir)).rejects.toThrow('0002_records.sql was changed after it was applied');
  rmSync(path.join(dir, '0002_records.sql'));
  await expect(migrate(uri, dir)).rejects.toThrow('0002_records.sql was applied to this database but is not here');
});

test('the record is append-only for the application itself', async () => {
  const db = await mysql.createConnection(process.env.DATABASE_URL as string);
  for (const sql of [
    "UPDATE event SET kind = 'note'",
    'DELETE FROM event',
    'DROP TABLE visit',
    'CREATE TABLE x (a INT)',
    "UPDATE schema_migration SET sha256 = ''",
  ])
    await expect(db.query(sql)).rejects.toThrow(/denied/);
  await db.end();
});

test('figures rebuilt from the events are the figures that were there', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await send(
    page.request,
    baseURL as string,
    asItems([visitEvents(who, place, Date.UTC(2025, 5, 1)), visitEvents(who, place, Date.UTC(2025, 5, 3), true)].flat()),
  );
  const db = await mysql.createConnection(process.env.DATABASE_URL as string);
  const figures = async () => {
    const id = who.householdId.replaceAll('-', '');
    const [visits] = await db.query<RowDataPacket[]>('SELECT * FROM visit_figures WHERE household_id = UNHEX(?) ORDER BY visit_id', [id]);
    const [attempts] = await db.query<RowDataPacket[]>('SELECT * FROM attempt_figures WHERE household_id = UNHEX(?) ORDER BY visit_id, n', [id]);
    return [...visits, ...attempts].map((r) => ({ ...r }));
  };
  const before = await figures();
  expect(before).toHaveLength(2 + 3);
  const hh = who.householdId.replaceAll('-', '');
  await db.query('DELETE FROM attempt_figures WHERE household_id = UNHEX(?)', [hh]);
  await db.query('DELETE FROM visit_figures WHERE household_id = UNHEX(?)', [hh]);
  await run(process.execPath, ['--import', 'tsx', 'server/commands/rebuild.ts']);
  expect(await figures()).toEqual(before);
  await db.end();
});

test('a database killed at once after acknowledging has every acknowledged event', async () => {
  const database = await ownDatabase('crash');
  try {
    const writer = spawn(process.execPath, ['--import', 'tsx', 'e2e/hands/write-until-killed.ts'], { env: { ...process.env, DATABASE_URL: database.url } });
    let said = '';
    await new Promise<void>((done) => {
      writer.stdout.on('data', (part) => {
        said += part;
        if (said.split('\n').length > 120) done();
      });
    });
    database.signal('SIGKILL');
    await new Promise((done) => writer.once('exit', done));
    const acknowledged = said.split('\n').slice(0, -1);
    await database.start();
    const db = await mysql.createConnection(database.url);
    const [rows] = await db.query<RowDataPacket[]>('SELECT LOWER(HEX(id)) AS id FROM event');
    await db.end();
    const there = new Set(rows.map((r) => r.id));
    expect(acknowledged.length).toBeGreaterThanOrEqual(120);
    expect(acknowledged.filter((id) => !there.has(id.replaceAll('-', '')))).toEqual([]);
  } finally {
    await database.end();
  }
});
