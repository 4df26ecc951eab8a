// Derives every visit's figures anew from its events. With --stale only those that are out of date.
import type { RowDataPacket } from 'mysql2/promise';
import { fromBin } from '../db/binary-id';
import { limits, pool } from '../db/pool';
import { sweepPhotos } from '../photos/unreferenced';
import { refreshStale } from '../visits/figures';

// A whole database may take longer than a page may.
limits.query_ms = 600_000;
const started = Date.now();
if (!process.argv.includes('--stale')) await pool().query('UPDATE visit SET stale = TRUE');
const [households] = await pool().query<RowDataPacket[]>('SELECT id FROM household');
let visits = 0;
for (const h of households) {
  visits += await refreshStale(fromBin(h.id));
  await sweepPhotos(fromBin(h.id), true);
}
if (visits > 0 || !process.argv.includes('--stale')) console.log(`figures of ${visits} visits derived in ${((Date.now() - started) / 1000).toFixed(1)} s`);
await pool().end();
