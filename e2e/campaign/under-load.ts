import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { canonicalJson } from '@/core/records/canonical-json';
import type { StoredEvent } from '@/core/visit/event';
import { asItems, type Place, visitEvents } from '../hands/household';
import { type Driver, getJson, newDriver, newPlace, post, type Row, row, seeded } from './world';

const run = promisify(execFile);
/** What is done to the machine while phones send. `harm` does it once and waits until it is over. */
export type Harm = { what: string; times: number; harm: (nth: number) => Promise<void> };
type Sent = { event: StoredEvent; acknowledged: boolean };

/** A phone that records visit after visit and sends each until it is answered for, as the outbox does. */
async function phone(
  d: Driver,
  place: Place,
  sent: Map<string, Sent>,
  statuses: Map<number, number>,
  random: () => number,
  goesOn: () => boolean,
): Promise<void> {
  for (let n = 0; goesOn() || n === 0; n++) {
    const events = visitEvents(d, place, Date.UTC(2024, 0, 1) + Math.floor(random() * 600) * 86_400_000 + n * 1000, random() < 0.3);
    for (const event of events) sent.set(event.id, { event, acknowledged: false });
    let rest = events;
    while (rest.length > 0) {
      const part = rest.slice(0, 1 + Math.floor(random() * rest.length));
      const answer = await post(d, asItems(part));
      if (answer) statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
      if (answer?.status !== 200) {
        await new Promise((done) => setTimeout(done, 20));
        continue;
      }
      for (const r of answer.results) {
        const s = sent.get(r.id);
        if (s && (r.status === 'taken' || r.status === 'already')) s.acknowledged = true;
      }
      // Now and then a delivery is made twice, as when an answer was lost on the way.
      if (random() < 0.2) await post(d, asItems(part));
      rest = rest.slice(part.length);
    }
  }
}

/** Sends from several phones while harm is done, then holds what stands against what was acknowledged. */
export async function underLoad(base: string, databaseUrl: string, h: Harm, seed: number): Promise<Row> {
  const out = row(h.what);
  const random = seeded(seed);
  const drivers: Driver[] = [];
  const places: Place[] = [];
  for (let i = 0; i < 3; i++) {
    const d = await newDriver(base);
    drivers.push(d);
    places.push(await newPlace(d));
  }
  const sent = drivers.map(() => new Map<string, Sent>());
  const statuses = new Map<number, number>();
  let on = true;
  const phones = drivers.map((d, i) => phone(d, places[i] as Place, sent[i] as Map<string, Sent>, statuses, random, () => on));
  for (let n = 0; n < h.times; n++) {
    await new Promise((done) => setTimeout(done, 50 + random() * 250));
    await h.harm(n);
    out.runs += 1;
  }
  on = false;
  await Promise.all(phones);
  let acknowledged = 0;
  for (const [i, d] of drivers.entries()) {
    const byVisit = new Map<string, Sent[]>();
    for (const s of sent[i]?.values() ?? []) byVisit.set(s.event.visitId, [...(byVisit.get(s.event.visitId) ?? []), s]);
    for (const [visitId, list] of byVisit) {
      const { events } = await getJson<{ events: StoredEvent[] }>(d, `/api/v1/visits/${visitId}/events`);
      const there = new Map(events.map((e) => [e.id, e]));
      if (events.length !== there.size) out.twice += events.length - there.size;
      for (const s of list) {
        if (s.acknowledged) acknowledged += 1;
        const e = there.get(s.event.id);
        if (!e && s.acknowledged) out.lost += 1;
        else if (e && canonicalJson(e) !== canonicalJson(s.event)) out.changed += 1;
      }
    }
  }
  // The chain of batches, hashes, figures derived anew, references: as bin/check does it.
  await run(process.execPath, ['--import', 'tsx', 'server/commands/check.ts'], {
    env: { ...process.env, DATABASE_URL: databaseUrl },
    maxBuffer: 64_000_000,
  }).catch((e: { stdout: string; stderr: string }) => {
    out.changed += Number(/(\d+) differences/.exec(e.stdout)?.[1] ?? 1);
    out.note = `${e.stdout.split('\n').find((l) => l.startsWith('DIFFERS')) ?? e.stderr.slice(-200)}; `;
  });
  out.failures = [...statuses].reduce((n, [status, count]) => n + (status >= 500 && status !== 503 ? count : 0), 0);
  out.note += `${acknowledged} events acknowledged, ${statuses.get(503) ?? 0} times told to come later`;
  return out;
}
