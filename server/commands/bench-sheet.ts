// A spreadsheet of 100,000 rows taken in, against LOAD DATA of the event rows that it writes. Prints rates and ratios; asserts nothing. Run by bin/bench.
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { Readable } from 'node:stream';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { readWishes } from '@/core/records/wishes-form';
import { signUp } from '../accounts/accounts';
import type { SignedIn } from '../accounts/sessions';
import { toBin } from '../db/binary-id';
import { limits, pool } from '../db/pool';
import { rebuild } from '../figures/refresh';
import { importSheet } from '../formats/import-sheet';
import { takeBatch } from '../outbox/take-batch';

const ROWS = Number(process.env.BENCH_ROWS ?? 100_000);
const PORTION = 5_000;
limits.query_ms = 600_000;
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const rate = (n: number, ms: number) => Math.round(n / (ms / 1000));
const MB = 1024 * 1024;

const form = { name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'a long enough one', currency: 'EUR', zone: 'UTC' };
const made = (await signUp(form)) as { householdId: string; personId: string };
const who: SignedIn = {
  ...made,
  role: 'owner',
  sessionId: made.personId,
  name: 'bench',
  householdName: 'bench',
  currency: 'EUR',
  zone: 'UTC',
  wishes: readWishes(null),
};
const [networkId, siteId] = [v7(), v7()];
const records = [
  recordItem('network', networkId, { name: 'Bluebarn' }),
  recordItem('site', siteId, { networkId, name: 'Lipa Barn', zone: 'UTC' }),
  recordItem('stall', v7(), { siteId, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150 }] }),
];
await takeBatch(who, { items: records.map((record) => ({ type: 'record', record })) });

// Every two hours for twenty-two years, none of them twice.
const lines = Array.from({ length: ROWS }, (_, i) => {
  const at = new Date(Date.UTC(2000, 0, 1) + i * 2 * 3600_000).toISOString().slice(0, 16).replace('T', ' ');
  return `${at};Lipa Barn;1;${10 + (i % 60)},5;${5 + (i % 20)},20`;
});
const sheet = new TextEncoder().encode(`Start;Station;Stall;Energy (kWh);Cost (EUR)\n${lines.join('\n')}\n`);
lines.length = 0;
const before = process.memoryUsage().rss;
let peak = before;
const watch = setInterval(() => {
  peak = Math.max(peak, process.memoryUsage().rss);
}, 50);

// How long whoever else asks the server something waits at most for it to listen.
const delay = monitorEventLoopDelay({ resolution: 10 });
delay.enable();
const othersWaited = (): string => {
  const most = delay.max / 1e6;
  delay.reset();
  return `others waited ${most.toFixed(0)} ms at most`;
};
let started = performance.now();
const seen = await importSheet(who, sheet, { answers: [], sites: [] }, false);
if (!seen.ok) throw new Error(seen.refused.code);
say(
  `a sheet of ${ROWS} rows read and set against the ledger`,
  `${rate(ROWS, performance.now() - started)} rows a second, ${seen.preview.counts.new} new, ${othersWaited()}`,
);

started = performance.now();
let rows = 0;
for (let left = 1; left > 0; ) {
  const part = await importSheet(who, sheet, { answers: [], sites: [] }, true);
  if (!part.ok || part.taken === 0) throw new Error('it was not taken in');
  rows += part.taken ?? 0;
  left = part.left ?? 0;
}
const own_ms = performance.now() - started;
clearInterval(watch);
say('and taken in, part by part', othersWaited());

// Before anything asks for them, so that nothing of it goes on beside what is timed below.
started = performance.now();
const done = await rebuild(who.householdId).all;
say('its figures rebuilt after', `${rate(done, performance.now() - started)} visits a second`);

// The same sessions as another sheet tells them: two minutes later, so that each may be a visit that is here.
const NEAR = 2_000;
const later = Array.from({ length: NEAR }, (_, i) => {
  const at = new Date(Date.UTC(2000, 0, 1) + i * 2 * 3600_000 + 120_000).toISOString().slice(0, 16).replace('T', ' ');
  return `${at};Lipa Barn;1;${10 + (i % 60)},5;${5 + (i % 20)},20`;
});
started = performance.now();
const near = await importSheet(
  who,
  new TextEncoder().encode(`Start;Station;Stall;Energy (kWh);Cost (EUR)\n${later.join('\n')}\n`),
  { answers: [], sites: [] },
  false,
);
if (!near.ok) throw new Error(near.refused.code);
say(
  `${NEAR} rows, each near one of ${ROWS} visits`,
  `${rate(NEAR, performance.now() - started)} rows a second, ${near.preview.counts.near} near, ${othersWaited()}`,
);

// The same event rows once more, as text for LOAD DATA, in the order in which they were written.
const db = await mysql.createConnection({ uri: process.env.MIGRATE_URL as string, timezone: 'Z', dateStrings: true });
const [columns] = await db.query<RowDataPacket[]>(
  "SELECT column_name AS name, data_type AS type FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = 'event' ORDER BY ordinal_position",
);
const isBytes = (c: RowDataPacket) => c.type === 'binary';
const escaped = (text: string) => text.replaceAll('\\', '\\\\').replaceAll('\t', '\\t').replaceAll('\n', '\\n');
const told: { at: string; line: string }[] = [];
for (let after = Buffer.alloc(16); ; ) {
  const [some] = await db.query<RowDataPacket[]>(
    `SELECT id AS raw_id, ${columns.map((c) => (isBytes(c) ? `HEX(${c.name}) AS ${c.name}` : `CAST(${c.name} AS CHAR) AS ${c.name}`)).join(', ')} FROM event WHERE household_id = ? AND id > ? ORDER BY id LIMIT ${PORTION}`,
    [toBin(who.householdId), after],
  );
  for (const r of some)
    told.push({
      at: `${r.at} ${String(r.seq).padStart(3, '0')}`,
      line: columns.map((c) => (r[c.name] === null ? '\\N' : escaped(String(r[c.name])))).join('\t'),
    });
  if (some.length < PORTION) break;
  after = some.at(-1)?.raw_id as Buffer<ArrayBuffer>;
}
const text = told.sort((a, b) => (a.at < b.at ? -1 : 1)).map((r) => r.line);
const events = text.length;
const fields = columns.map((c) => (isBytes(c) ? `@${c.name}` : c.name)).join(', ');
const set = columns.filter(isBytes).map((c) => `${c.name} = UNHEX(@${c.name})`);
const file = Buffer.from(`${text.join('\n')}\n`);
const PIECE = 65_536;
/** How long LOAD DATA takes for them, ms. */
async function load(): Promise<number> {
  await db.query('DROP TABLE IF EXISTS bench_load');
  await db.query('CREATE TABLE bench_load LIKE event');
  const began = performance.now();
  await db.query({
    sql: `LOAD DATA LOCAL INFILE 'events' INTO TABLE bench_load CHARACTER SET utf8mb4 (${fields}) SET ${set.join(', ')}`,
    infileStreamFactory: () => Readable.from(Array.from({ length: Math.ceil(file.length / PIECE) }, (_, i) => file.subarray(i * PIECE, (i + 1) * PIECE))),
  } as mysql.QueryOptions);
  const took = performance.now() - began;
  const [[loaded]] = (await db.query('SELECT COUNT(*) AS n FROM bench_load')) as unknown as [RowDataPacket[]];
  if (Number(loaded?.n) !== events) throw new Error(`LOAD DATA loaded ${String(loaded?.n)} of ${events}`);
  await db.query('DROP TABLE bench_load');
  return took;
}
// What the database does in the background makes one of them half as long again as another: that in the middle of three.
const loads = [await load(), await load(), await load()].sort((x, y) => x - y);
await db.end();
say(
  'taken in, figures left to be derived, against LOAD DATA of its events',
  `${rate(rows, own_ms)} rows, ${rate(events, own_ms)} events a second; LOAD DATA ${loads.map((ms) => rate(events, ms)).join(', ')}: ${((loads[1] as number) / own_ms).toFixed(2)} of its speed (0.33 asked)`,
);
say('with so much more memory at most', `${Math.round((peak - before) / MB)} MB for a file of ${(sheet.length / MB).toFixed(1)} MB`);
await pool().end();
