// A whole ledger of 10,000 visits out into a zip and into another household. Prints rates; asserts nothing. Run by bin/bench.
import { openAsBlob } from 'node:fs';
import { mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { v7 } from 'uuid';
import { openLedger } from '@/core/formats/ledger-file';
import { recordItem } from '@/core/records/record-schema';
import { signUp } from '../accounts/accounts';
import type { Member } from '../accounts/who';
import { limits, pool } from '../db/pool';
import { bringIn } from '../formats/bring-in';
import { ledgerZip } from '../formats/ledger-out';
import { takeBatch } from '../outbox/take-batch';

const VISITS = 10_000;
const PORTION = 50;
limits.query_ms = 600_000;
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const rate = (n: number, ms: number) => Math.round(n / (ms / 1000));
const MB = 1024 * 1024;

const CHARGED = [
  [10, 'plugged'],
  [20, 'means_shown', { meansKind: 'contactless' }],
  [50, 'power_seen', { screen: 'stall', mark: 'kW' }],
  [900, 'reading', { screen: 'stall', kWh: '12.5', kW: 50 }],
  [902, 'stop_asked', { by: 'button' }],
  [950, 'unplugged'],
  [990, 'pulled_out', { reason: 'enough' }],
] as const;
async function newHousehold(): Promise<Member> {
  const form = { name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'a long enough one', currency: 'EUR', zone: 'UTC' };
  return { ...((await signUp(form)) as { householdId: string; personId: string }), role: 'owner' };
}

/** Events of a plain visit, as many a batch as it takes. */
function visitEvents(who: Member, siteId: string, stallId: string, at: number): object[] {
  const visitId = v7({ msecs: at });
  const deviceId = v7();
  const steps = [[0, 'pulled_in', { siteId }], [5, 'stall_chosen', { stallId }], ...CHARGED] as const;
  return steps.map(([s, kind, payload = {}], i) => ({
    type: 'event',
    event: {
      id: v7({ msecs: at + i }),
      householdId: who.householdId,
      personId: who.personId,
      visitId,
      kind,
      v: 1,
      at: at + s * 1000,
      precision: 'ms',
      zone: 'UTC',
      deviceId,
      life: deviceId,
      mono: 1000 + s * 1000,
      awake: true,
      seq: i + 1,
      origin: 'simulated',
      role: 'recorder',
      payload,
    },
  }));
}

const from = await newHousehold();
const place = { networkId: v7(), siteId: v7(), stallId: v7() };
const records = [
  recordItem('network', place.networkId, { name: 'Bluebarn' }),
  recordItem('site', place.siteId, { networkId: place.networkId, name: 'Lipa Barn', zone: 'UTC' }),
  recordItem('stall', place.stallId, { siteId: place.siteId, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150 }] }),
];
await takeBatch(from, { items: records.map((record) => ({ type: 'record', record })) });
for (let i = 0; i < VISITS; i += PORTION) {
  const items = Array.from({ length: PORTION }, (_, k) => visitEvents(from, place.siteId, place.stallId, Date.UTC(2015, 0, 1) + (i + k) * 9 * 3600_000)).flat();
  const answer = await takeBatch(from, { items });
  if (!answer.ok) throw new Error(answer.reason);
}

const folder = await mkdtemp(path.join(tmpdir(), 'mile-bench-'));
const file = path.join(folder, 'ledger.zip');
const before = process.memoryUsage().rss;
let peak = before;
const watch = setInterval(() => {
  peak = Math.max(peak, process.memoryUsage().rss);
}, 50);
let started = performance.now();
const out = await open(file, 'w');
let bytes = 0;
const zip = ledgerZip({ ...from, householdName: 'bench', currency: 'EUR', zone: 'UTC' }, new Date(0)).getReader();
for (let part = await zip.read(); !part.done; part = await zip.read()) {
  bytes += part.value.length;
  await out.write(part.value);
}
await out.close();
say(
  `a ledger of ${VISITS} visits out into a zip`,
  `${rate(VISITS, performance.now() - started)} visits a second, ${(bytes / MB).toFixed(1)} MB, ${Math.round((peak - before) / MB)} MB more memory at most`,
);

const to = await newHousehold();
started = performance.now();
const read = await openLedger(await openAsBlob(file));
if (!read.ok) throw new Error(JSON.stringify(read.refused));
const all = await bringIn(to, read.value, { people: { [from.personId]: to.personId }, theirs: {} }, true);
say(
  'and into another household, figures left to be derived',
  `${rate(VISITS, performance.now() - started)} visits a second, ${all.taken.event} events, ${all.refused.length} refused`,
);
started = performance.now();
const again = await bringIn(to, read.value, { people: { [from.personId]: to.personId }, theirs: {} }, false);
say('looked at again: all of it is there', `${rate(VISITS, performance.now() - started)} visits a second, ${again.already} there`);
await rm(folder, { recursive: true });

clearInterval(watch);
await pool().end();
