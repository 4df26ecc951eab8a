import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { asItems, visitEvents } from '../hands/household';
import { apiRoutes, pagePaths } from './routes';
import { type Driver, frontHeaders, inParallel, newDriver, newPlace, post, type Row, row } from './world';

const MARK = 'Hollin-Bridge-nobody-else-may-see';

/** Every page and route asked with the ids of another household, and everything of theirs written to: nothing may come back, nothing may change. */
export async function foreignIds(base: string): Promise<Row> {
  const out = row('ids of another household on every route');
  const [owner, stranger] = [await newDriver(base), await newDriver(base)];
  const place = await newPlace(owner, MARK);
  const events = visitEvents(owner, place, Date.now() - 86_400_000);
  await post(owner, asItems(events));
  const visitId = events[0]?.visitId as string;
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#abc' } })
    .jpeg()
    .toBuffer();
  const sha256 = createHash('sha256').update(picture).digest('hex');
  await fetch(`${base}/api/v1/photos/${sha256}`, { method: 'PUT', headers: { ...owner.headers, 'content-type': 'image/jpeg' }, body: new Uint8Array(picture) });
  const { sessionId } = (await (await fetch(`${base}/api/v1/me`, { headers: owner.headers })).json()) as { sessionId: string };
  const before = await everythingOf(owner, visitId);
  // An id that is never asked for.
  const secret = events[4]?.id as string;

  const ids = [visitId, place.siteId, place.networkId, place.stalls[0] as string, place.carId, sha256, events[3]?.id as string];
  const paths = [...pagePaths(), ...apiRoutes().flatMap((r) => (r.methods.includes('GET') ? [r.path] : []))];
  const asked = paths.flatMap((p) =>
    ids.flatMap((id) => [
      p.replace('[type]', 'car').replaceAll(/\[\w+\]/g, id),
      `${p.replace('[type]', 'car').replaceAll(/\[\w+\]/g, id)}?network=${place.networkId}&site=${place.siteId}&car=${place.carId}&visit=${visitId}&q=nobody%20else`,
    ]),
  );
  await inParallel([...new Set(asked)], 6, async (p) => {
    const response = await fetch(`${base}${p}`, { headers: stranger.headers, redirect: 'manual' });
    const body = await response.text();
    out.runs += 1;
    if (response.status >= 500) out.failures += 1;
    // What was asked for may stand in the answer; what is theirs may not.
    if (body.includes(MARK) || body.includes(secret)) {
      out.leaks += 1;
      out.note += `${p.slice(0, 60)}; `;
    }
  });
  const writes: [string, string, object][] = [
    ['POST', '/api/v1/outbox', { items: asItems(events.map((e) => ({ ...e, id: v7() }))) }],
    ['POST', '/api/v1/outbox', { items: asItems(events.map((e) => ({ ...e, id: v7(), personId: stranger.personId }))) }],
    [
      'POST',
      '/api/v1/outbox',
      {
        items: [
          {
            type: 'record',
            record: { type: 'stall', id: place.stalls[0], baseRev: 99, fields: { siteId: place.siteId, name: 'taken', outlets: [{ connector: 'CCS2' }] } },
          },
        ],
      },
    ],
    ['POST', '/api/v1/visits/join', { into: visitId, from: v7() }],
    ['DELETE', '/api/v1/sessions', { id: sessionId }],
    ['DELETE', '/api/v1/sessions', { others: true }],
  ];
  for (const [method, p, body] of writes) {
    const response = await fetch(`${base}${p}`, { method, headers: stranger.headers, body: JSON.stringify(body) });
    out.runs += 1;
    if (response.status >= 500) out.failures += 1;
  }
  if ((await everythingOf(owner, visitId)) !== before) out.changed += 1;
  return out;
}

async function everythingOf(d: Driver, visitId: string): Promise<string> {
  const read = async (p: string) => (await fetch(`${d.base}${p}`, { headers: d.headers })).text();
  return JSON.stringify([await read('/api/v1/changes?since=0'), await read('/api/v1/visits/lately'), await read(`/api/v1/visits/${visitId}/events`)]);
}

/** Every writing route, posted to as another site's page could: nothing may be let in. */
export async function crossOrigin(base: string): Promise<Row> {
  const out = row('posts from another origin');
  const d = await newDriver(base);
  const ways: Record<string, string>[] = [
    { origin: 'https://elsewhere.invalid', 'content-type': 'application/json' },
    { origin: 'null', 'content-type': 'text/plain' },
    { 'content-type': 'application/x-www-form-urlencoded' },
    { origin: base.replace(/\d+$/, '1'), 'content-type': 'application/json' },
    { origin: 'https://elsewhere.invalid', 'x-forwarded-host': 'elsewhere.invalid', 'content-type': 'application/json' },
  ];
  for (const { path, methods } of apiRoutes())
    for (const method of methods.filter((m) => m !== 'GET'))
      for (const way of ways) {
        const response = await fetch(`${base}${path.replaceAll(/\[\w+\]/g, 'a'.repeat(64))}`, {
          method,
          headers: { ...way, cookie: d.headers.cookie as string },
          body: JSON.stringify({ items: [], others: true }),
        });
        out.runs += 1;
        if (response.status !== 403) out.leaks += 1;
      }
  return out;
}

/** Two hundred at once at each door: how many more were checked than the door allows. */
export async function throttles(base: string): Promise<Row> {
  const out = row('throttles under 200 at once');
  const d = await newDriver(base);
  const at = async (allowed: number, ask: (headers: Record<string, string>, i: number) => Promise<Response>) => {
    const headers = frontHeaders(base);
    const statuses = await Promise.all(Array.from({ length: 200 }, (_, i) => ask(headers, i).then((r) => r.status)));
    out.runs += statuses.length;
    // Told to come later, nothing was checked.
    out.leaks += Math.max(0, statuses.filter((s) => s !== 429 && s !== 503).length - allowed);
    out.failures += statuses.filter((s) => s >= 500 && s !== 503).length;
  };
  const send = (p: string, headers: Record<string, string>, body: object) => fetch(`${base}${p}`, { method: 'POST', headers, body: JSON.stringify(body) });
  await at(5, (headers) => send('/api/v1/session', headers, { email: d.email, password: 'x' }));
  await at(20, (headers, i) => send('/api/v1/session', headers, { email: `n${i}@example.invalid`, password: 'x' }));
  await at(5, (headers) => send('/api/v1/recovery', headers, { email: d.email, code: '2222-2222-2222', password: 'a long enough one' }));
  await at(20, (headers) =>
    send('/api/v1/household', headers, {
      name: 'A',
      householdName: 'B',
      email: `${v7()}@example.invalid`,
      password: 'a long enough one',
      currency: 'EUR',
      zone: 'UTC',
    }),
  );
  await at(10, (headers) => send('/api/v1/recovery/code', { ...headers, cookie: d.headers.cookie as string }, { password: 'x' }));
  // The owner's own device is not slowed by any of it.
  const own = await send('/api/v1/session', { ...frontHeaders(base), cookie: d.headers.cookie as string }, { email: d.email, password: d.password });
  if (own.status !== 200) out.lost += 1;
  return out;
}
