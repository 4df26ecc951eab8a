// Derives every visit's figures anew from its events. With --stale only those that are out of date.
import type { RowDataPacket } from 'mysql2/promise';
import { fromBin } from '../db/binary-id';
import { limits, pool } from '../db/pool';
import { rebuild } from '../figures/refresh';
import { sweepPhotos } from '../photos/unreferenced';
import { fillFindWords } from '../records/record-tables';

// A whole database may take longer than a page may.
limits.query_ms = 600_000;
await fillFindWords();
const started = Date.now();
if (!process.argv.includes('--stale')) await pool().query('UPDATE visit SET stale = TRUE');
const [households] = await pool().query<RowDataPacket[]>('SELECT id FROM household');
let visits = 0;
for (const h of households) {
  const before = visits;
  visits += await rebuild(fromBin(h.id), (done) => {
    if (process.stdout.isTTY) process.stdout.write(`\r${before + done} visits`);
  }).all;
  await sweepPhotos(fromBin(h.id), true);
}
const seconds = Math.max(0.001, (Date.now() - started) / 1000);
if (visits > 0 || !process.argv.includes('--stale'))
  console.log(`${process.stdout.isTTY ? '\r' : ''}figures of ${visits} visits derived in ${seconds.toFixed(1)} s, ${Math.round(visits / seconds)} a second`);
await pool().end();
