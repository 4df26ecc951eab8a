// Ten thousand visits whose figures are derived anew from their events. Run by bin/bench.
import { v4, v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import type { Kind } from '@/core/visit/payloads';
import { signUp } from '../accounts/accounts';
import { toBin } from '../db/binary-id';
import { limits, pool } from '../db/pool';
import { rebuild } from '../figures/refresh';
import { contentHash, EVENT_COLUMNS, eventRow } from '../visits/event-rows';

const VISITS = 10_000;
const PORTION = 500;
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
limits.query_ms = 600_000;

const who = { householdId: v7(), personId: v7() };
const [siteId, stallId] = [v7(), v7()];

/** A visit of eighteen events: a session of ten readings. */
function visitOfEighteen(at: number): StoredEvent[] {
  const [visitId, deviceId] = [v7(), v4()];
  const steps: [Kind, Record<string, unknown>][] = [
    ['pulled_in', { siteId }],
    ['stall_chosen', { stallId }],
    ['plugged', {}],
    ['means_shown', { meansKind: 'contactless' }],
    ['power_seen', { screen: 'stall', mark: 'kW' }],
    ...Array.from({ length: 9 }, (_, i): [Kind, Record<string, unknown>] => [
      'reading',
      { screen: 'stall', socPct: 20 + i * 5, kW: 120 - i * 4, kWh: (i * 3.1).toFixed(1) },
    ]),
    ['stop_asked', { by: 'button' }],
    ['unplugged', {}],
    ['pulled_out', { reason: 'enough' }],
    ['bill', { sessions: [], amount: '12.40', currency: 'EUR', kWh: '24.8', state: 'charged' }],
  ];
  return steps.map(([kind, payload], i) => ({
    id: v7(),
    ...who,
    visitId,
    kind,
    v: 1,
    at: at + i * 60_000,
    precision: 'ms',
    zone: 'Europe/Ljubljana',
    deviceId,
    life: deviceId,
    mono: 1000 + i * 60_000,
    awake: true,
    seq: i + 1,
    origin: 'simulated',
    role: 'recorder',
    payload,
  }));
}

await signUp({ name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'not needed here', currency: 'EUR', zone: 'UTC' }, who);
for (let i = 0; i < VISITS; i += PORTION) {
  const visits = Array.from({ length: PORTION }, (_, k) => visitOfEighteen(Date.UTC(2015, 0, 1) + (i + k) * 32_400_000));
  const rows = visits.flat().map((e) => eventRow(e, contentHash(e), new Date(), null));
  await pool().query(`INSERT INTO event (${EVENT_COLUMNS}) VALUES (${rows.join('),(')})`);
  await pool().query('INSERT INTO visit (household_id, id, rev, stale, person_id, zone, sort_at) VALUES ?', [
    visits.map((v) => {
      const first = v[0] as StoredEvent;
      return [toBin(who.householdId), toBin(first.visitId), 1, true, toBin(who.personId), first.zone, new Date(first.at)];
    }),
  ]);
}
const started = performance.now();
const { first, all } = rebuild(who.householdId);
await first;
const toFirst = performance.now() - started;
const done = await all;
const seconds = (performance.now() - started) / 1000;
say(`${done} visits of 18 events derived anew and written: s (budget 20)`, seconds.toFixed(1));
say('visits rebuilt a second', String(Math.round(done / seconds)));
say('until a reader’s newest 200 are done: ms', toFirst.toFixed(0));
await pool().end();
