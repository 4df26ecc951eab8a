import { v7 } from 'uuid';
import { type RecordItem, recordItem } from '@/core/records/record-schema';
import type { Member, Place } from '../hands/household';

/** One line of the campaign's table: counts that should all be zero but the first. */
export type Row = { what: string; runs: number; lost: number; twice: number; changed: number; failures: number; leaks: number; note: string };
export const row = (what: string): Row => ({ what, runs: 0, lost: 0, twice: 0, changed: 0, failures: 0, leaks: 0, note: '' });

/** Somebody signed in, without a browser. */
export type Driver = Member & { base: string; headers: Record<string, string> };

/** What the front hands on from a phone at an address of its own. */
export const frontHeaders = (base: string, address: string = v7()): Record<string, string> => ({
  origin: base,
  'content-type': 'application/json',
  'x-mile-front': process.env.MILE_FRONT_SECRET as string,
  'x-forwarded-for': address,
  'x-forwarded-proto': 'http',
});

/** Makes a household with one person who is signed in. */
export async function newDriver(base: string): Promise<Driver> {
  const email = `driver-${v7()}@example.invalid`;
  const password = 'a long enough one';
  const made = await fetch(`${base}/api/v1/household`, {
    method: 'POST',
    headers: frontHeaders(base),
    body: JSON.stringify({ name: 'Tone Zupan', householdName: 'Campaign', email, password, currency: 'EUR', zone: 'Europe/Ljubljana' }),
  });
  if (made.status !== 201) throw new Error(`no household: ${made.status}`);
  const cookie = made.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
  const headers = { origin: base, 'content-type': 'application/json', cookie };
  const me = (await (await fetch(`${base}/api/v1/me`, { headers })).json()) as { householdId: string; personId: string };
  return { householdId: me.householdId, personId: me.personId, email, password, base, headers };
}

/** Posts items to the outbox; `null` when nobody answered. */
export async function post(
  d: Driver,
  items: object[],
  base = d.base,
  sentAt: number | null = Date.now(),
): Promise<{ status: number; results: { id: string; status: string }[] } | null> {
  try {
    const response = await fetch(`${base}/api/v1/outbox`, {
      method: 'POST',
      headers: { ...d.headers, origin: base },
      body: JSON.stringify({ ...(sentAt === null ? {} : { sentAt }), items }),
    });
    const body = (await response.json().catch(() => ({}))) as { results?: { id: string; status: string }[] };
    return { status: response.status, results: body.results ?? [] };
  } catch {
    return null;
  }
}

export async function getJson<T>(d: Driver, path: string): Promise<T> {
  const response = await fetch(`${d.base}${path}`, { headers: d.headers });
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  return (await response.json()) as T;
}

/** A network, a site of two stalls, a price and a car. */
export async function newPlace(d: Driver, name = 'Lipa Barn'): Promise<Place> {
  const place: Place = { networkId: v7(), siteId: v7(), stalls: [v7(), v7()], carId: v7() };
  const records: RecordItem[] = [
    recordItem('network', place.networkId, { name: 'Bluebarn' }),
    recordItem('site', place.siteId, { networkId: place.networkId, name, zone: 'Europe/Ljubljana' }),
    ...place.stalls.map((id, i) => recordItem('stall', id, { siteId: place.siteId, name: String(i + 1), outlets: [{ connector: 'CCS2', ratedKW: 150 }] })),
    recordItem('car', place.carId, { name: 'Heron 62', usableKWh: 62, connectors: ['CCS2'] }),
  ];
  const answer = await post(
    d,
    records.map((record) => ({ type: 'record', record })),
  );
  if (answer?.results.some((r) => r.status !== 'taken')) throw new Error('the places were not taken');
  return place;
}

/** Numbers in [0, 1) from a seed (mulberry32). */
export function seeded(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Runs `work` over a list, so many at a time. */
export async function inParallel<T>(list: readonly T[], atOnce: number, work: (item: T, i: number) => Promise<void>): Promise<void> {
  let next = 0;
  await Promise.all(
    Array.from({ length: Math.min(atOnce, list.length) }, async () => {
      for (let i = next++; i < list.length; i = next++) await work(list[i] as T, i);
    }),
  );
}
