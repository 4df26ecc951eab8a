// Measures what is promised as ratios and counts; asserts nothing. Run by bin/bench.
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import mysql from 'mysql2/promise';
import { v4, v7 } from 'uuid';
import { deriveVisit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import type { Kind } from '@/core/visit/payloads';
import { payloadProblem } from '@/core/visit/payloads';
import { signUp } from '../accounts/accounts';
import { pool } from '../db/pool';
import { takeBatch } from '../outbox/take-batch';
import { contentHash, EVENT_COLUMNS, eventRow } from '../visits/event-rows';

const ids = { householdId: v7(), personId: v7() };
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const rate = (n: number, ms: number) => Math.round(n / (ms / 1000));

/** A visit of sixty events: one failed attempt, one session of fifty readings. */
function visitOfSixty(at: number): StoredEvent[] {
  const visitId = v7();
  const deviceId = v4();
  const steps: [Kind, Record<string, unknown>][] = [
    ['pulled_in', { siteId: v7() }],
    ['stall_chosen', { stallId: v7() }],
    ['plugged', {}],
    ['means_shown', { meansKind: 'contactless' }],
    ['fault', { code: 'start_error', side: 'network' }],
    ['plugged', {}],
    ['means_shown', { meansKind: 'contactless' }],
    ['power_seen', { screen: 'stall', mark: 'kW' }],
    ...Array.from({ length: 49 }, (_, i): [Kind, Record<string, unknown>] => [
      'reading',
      { screen: 'stall', socPct: 20 + i, kW: 120 - i, kWh: (i * 0.7).toFixed(1) },
    ]),
    ['stop_asked', { by: 'button' }],
    ['unplugged', {}],
    ['pulled_out', { reason: 'enough' }],
  ];
  return steps.map(([kind, payload], i) => ({
    id: v7(),
    ...ids,
    visitId,
    kind,
    v: 1,
    at: at + i * 20_000,
    precision: 'ms',
    zone: 'Europe/Ljubljana',
    deviceId,
    life: deviceId,
    mono: 1000 + i * 20_000,
    awake: true,
    seq: i + 1,
    origin: 'simulated',
    role: 'recorder',
    payload,
  }));
}

async function derived(): Promise<void> {
  const visits = Array.from({ length: 400 }, (_, i) => visitOfSixty(Date.UTC(2025, 0, 1) + i * 3_600_000));
  for (const v of visits.slice(0, 100)) deriveVisit(v[0]?.visitId as string, v, payloadProblem);
  const started = performance.now();
  for (const v of visits) deriveVisit(v[0]?.visitId as string, v, payloadProblem);
  say('visits of 60 events derived per second', String(rate(visits.length, performance.now() - started)));
}

async function taken(): Promise<void> {
  await signUp({ name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'not needed here', currency: 'EUR', zone: 'UTC' }, ids);
  const batches = Array.from({ length: 60 }, (_, i) => visitOfSixty(Date.UTC(2025, 0, 1) + i * 7_200_000));
  const events = batches.reduce((n, b) => n + b.length, 0);
  const take = async (b: StoredEvent[]) => {
    const r = await takeBatch({ ...ids, role: 'owner' }, { items: b.map((event) => ({ type: 'event', event })) });
    if (!r.ok || r.results.some((x) => x.status !== 'taken')) throw new Error('the bench’s own events were refused');
  };
  await take(visitOfSixty(Date.UTC(2024, 0, 1)));
  let started = performance.now();
  for (const b of batches) await take(b);
  const byServer = rate(events, performance.now() - started);

  // The same rows, one INSERT each, committed batch by batch: the least that keeping them could cost.
  const db = await mysql.createConnection({ uri: process.env.MIGRATE_URL as string, timezone: 'Z' });
  await db.query('DROP TABLE IF EXISTS bare_event');
  await db.query('CREATE TABLE bare_event LIKE event');
  started = performance.now();
  for (const b of batches) {
    await db.beginTransaction();
    for (const e of b) await db.query(`INSERT INTO bare_event (${EVENT_COLUMNS}) VALUES (${eventRow(e, contentHash(e), new Date(), null)})`);
    await db.commit();
  }
  const bare = rate(events, performance.now() - started);
  await db.query('DROP TABLE bare_event');
  await db.end();
  say('events per second: taken, checked, derived, in batches of 60', String(byServer));
  say('events per second: bare INSERTs of the same rows', String(bare));
  say('taken against bare INSERTs', `${(byServer / bare).toFixed(2)} ×`);
}

function stall(): void {
  const { script, withIt }: { script: string; withIt: string[] } = JSON.parse(readFileSync('.next/stall-bundle.json', 'utf8'));
  const first = new Set([script, ...withIt].map((address) => path.basename(address)));
  const all = readdirSync('.next/static/stall');
  const kB = (files: string[]) =>
    `${(files.reduce((sum, f) => sum + gzipSync(readFileSync(`.next/static/stall/${f}`), { level: 9 }).length, 0) / 1000).toFixed(1)} kB`;
  say('first-load JavaScript of the Stall, gzipped (budget 180 kB)', kB(all.filter((f) => first.has(f))));
  say('the whole Stall with the parts fetched later (budget 320 kB)', kB(all));
}

await derived();
await taken();
stall();
await pool().end();
