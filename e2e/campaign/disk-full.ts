import { execFile } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { ownDatabase } from '../hands/own-database';
import { ownServer } from '../hands/own-server';
import { underLoad } from './under-load';
import { type Row, row } from './world';

const run = promisify(execFile);
/** Room for a new database and a little more, MB. */
const DISK_MB = 280;

/** Takes all the room there is. */
function fill(file: string): void {
  const fd = openSync(file, 'w');
  try {
    for (const size of [1_000_000, 4_096]) {
      const zeros = Buffer.alloc(size);
      try {
        for (;;) writeSync(fd, zeros);
      } catch {
        // Full, but for less than this.
      }
    }
  } finally {
    closeSync(fd);
  }
}

/** A database on a disk of its own that fills up while phones send, and has room again later. Needs root for the small disk; not run otherwise. */
export async function diskFull(times: number, seed: number): Promise<Row> {
  const what = 'disk full under load';
  if (times === 0 || process.getuid?.() !== 0) return { ...row(what), note: 'not run: needs root for a small disk' };
  const disk = mkdtempSync(path.join(tmpdir(), 'mile-full-'));
  await run('mount', ['-t', 'tmpfs', '-o', `size=${DISK_MB}m`, 'none', disk]);
  try {
    const database = await ownDatabase('full', { MILE_DATA: disk });
    const server = await ownServer({ DATABASE_URL: database.url });
    try {
      const harm = async () => {
        fill(path.join(disk, 'filler'));
        await new Promise((done) => setTimeout(done, 2500));
        rmSync(path.join(disk, 'filler'));
        // Where the full disk ended the database, it is started again; else this finds it running.
        await database.start();
      };
      return await underLoad(server.url, database.url, { what, times, harm }, seed);
    } finally {
      await server.kill();
      await database.end();
    }
  } finally {
    await run('umount', [disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}
