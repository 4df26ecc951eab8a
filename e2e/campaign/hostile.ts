import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { v7 } from 'uuid';
import { visitEvents } from '../hands/household';
import { apiRoutes, pagePaths } from './routes';
import { frontHeaders, inParallel, newDriver, newPlace, type Row, row } from './world';

const deep = (n: number): unknown => (n === 0 ? 0 : [deep(n - 1)]);
/** Values that broke something somewhere once. */
const NASTY: readonly unknown[] = [
  ...[null, true, -1, 0, 1.5, 2 ** 31, 2 ** 53, -(2 ** 53), 1e308, 253_402_300_800_000, 8.64e15 + 1],
  ...[
    '',
    ' ',
    'x',
    '\u0000',
    '\ud83d',
    '😀'.repeat(50),
    '‮',
    'a'.repeat(70_000),
    '%ff',
    '../../etc/passwd',
    "' OR 1=1 --",
    // biome-ignore lint/suspicious/noTemplateCurlyInString: a template of others, sent as it stands
    '${7*7}',
    '<script>window.__hit=1</script>',
  ],
  ...['2025-02-30', '1e999', 'NaN', '-0', '0'.repeat(400), '9'.repeat(400), v7(), '00000000-0000-0000-0000-000000000000', randomUUID().toUpperCase()],
  ...[[], {}, [[]], deep(40), Array.from({ length: 2000 }, () => 0), { toString: 1 }, { length: -1 }, JSON.parse('{"__proto__":{"admin":true}}')],
];

const DOORS = new Set(['/api/v1/session', '/api/v1/household', '/api/v1/recovery']);

/** One leaf or branch of a value put in place of, taken out or repeated. */
function spoiled(value: unknown, at: number, nasty: unknown): unknown {
  let n = 0;
  const walk = (v: unknown): unknown => {
    if (n++ === at) return nasty;
    if (Array.isArray(v)) return v.map(walk);
    if (v !== null && typeof v === 'object') return Object.fromEntries(Object.entries(v).map(([k, inner]) => [k, walk(inner)]));
    return v;
  };
  return walk(value);
}

/**
 * So many hostile inputs over every page and every route of the API, from a seed: good bodies with one place spoiled, any JSON,
 * bytes that are none, odd addresses. Nothing may answer with a failure of the server.
 */
export async function hostile(base: string, count: number, seed: number): Promise<Row> {
  const out = row('hostile inputs over every route');
  const d = await newDriver(base);
  const place = await newPlace(d);
  const [event] = visitEvents(d, place, Date.now() - 86_400_000);
  const good: Record<string, unknown> = {
    '/api/v1/outbox': {
      sentAt: Date.now(),
      items: [
        { type: 'event', event },
        {
          type: 'record',
          record: {
            type: 'site',
            id: v7(),
            baseRev: 0,
            fields: { networkId: place.networkId, name: 'A', zone: 'UTC', notes: 'b', latitude: 46.1, longitude: 14.5 },
          },
        },
      ],
    },
    '/api/v1/visits/join': { into: event?.visitId, from: v7() },
    '/api/v1/session': { email: 'a@example.invalid', password: 'x' },
    '/api/v1/household': { name: 'A', householdName: 'B', email: 'a@example.invalid', password: 'short', currency: 'EUR', zone: 'UTC' },
    '/api/v1/password': { old: 'x', password: 'y' },
    '/api/v1/recovery': { email: 'a@example.invalid', code: 'x', password: 'a long enough one' },
    '/api/v1/recovery/code': { password: 'x' },
    '/api/v1/sessions': { id: v7() },
    '/api/v1/watches': { id: v7(), by: 'network', a: v7(), b: v7(), figure: 'waiting' },
    '/api/v1/views': { id: v7(), name: 'Rain', address: '?by=weather' },
    '/api/v1/tokens': { name: 'van', write: false, households: [v7()] },
    '/api/v1/events': { source: 'van', events: [{ id: v7(), visitId: event?.visitId, kind: 'note', at: '2026-06-10T13:52+02:00', payload: { text: 'a' } }] },
    '/api/v1/import/ledger': {
      people: {},
      theirs: [],
      records: [{ type: 'network', id: v7(), archived: false, fields: { name: 'A' } }],
      events: [event],
      watches: [],
      views: [],
      take: true,
    },
    '/api/v1/import/places': { type: 'Feature', geometry: { type: 'Point', coordinates: [14.5, 46] }, properties: { name: 'A' } },
    '/api/v1/import/tariffs': {
      country_code: 'SI',
      party_id: 'SMR',
      id: 'T',
      currency: 'EUR',
      elements: [{ price_components: [{ type: 'ENERGY', price: 0.5, step_size: 1 }] }],
      last_updated: '2026-01-01T00:00:00Z',
    },
    '/api/v1/trials/void': { visitId: event?.visitId, trialId: v7(), run: v7(), reason: 'queue' },
  };
  const parts = [event?.visitId as string, place.siteId, place.stalls[0] as string, 'car', 'new', v7()];
  const writes = apiRoutes().flatMap((r) => r.methods.filter((m) => m !== 'GET').map((method) => ({ method, path: r.path })));
  const reads = [...pagePaths(), ...apiRoutes().flatMap((r) => (r.methods.includes('GET') ? [r.path] : []))];
  const odd = fc.oneof(
    fc.constantFrom(...NASTY.filter((v) => typeof v !== 'object').map(String)),
    fc.string({ unit: 'binary', maxLength: 40 }),
    fc.constantFrom(...parts),
  );
  const oddPart = odd.map((s) => encodeURIComponent(s.replace(/\p{Surrogate}/gu, '�')).slice(0, 600));
  const filled = (path: string) => fc.array(oddPart, { minLength: 4, maxLength: 4 }).map((some) => path.replace(/\[\w+\]/g, () => some.shift() ?? 'x'));
  const query = fc.array(
    fc.tuple(
      fc.constantFrom(
        'near',
        'since',
        'have',
        'q',
        'network',
        'site',
        'car',
        'from',
        'faults',
        'counted',
        'time',
        'mark',
        'kind',
        'visit',
        'by',
        'and',
        'look',
        'sort',
        'least',
        'change',
        'group',
        'places',
        'limit',
        'cursor',
        'household',
        'to',
        'choices',
        'take',
        'asked',
      ),
      oddPart,
    ),
    { maxLength: 3 },
  );
  type Asked = { method: string; path: string; body?: string | Uint8Array; type: string };
  const read: fc.Arbitrary<Asked> = fc
    .constantFrom(...reads)
    .chain((path) => fc.tuple(filled(path), query))
    .map(([path, q]) => ({ method: 'GET', path: q.length > 0 ? `${path}?${q.map(([k, v]) => `${k}=${v}`).join('&')}` : path, type: 'application/json' }));
  const body = (path: string): fc.Arbitrary<string | Uint8Array> =>
    fc.oneof(
      {
        weight: 6,
        arbitrary: fc.tuple(fc.nat(45), fc.constantFrom(...NASTY)).map(([at, nasty]) => JSON.stringify(spoiled(good[path] ?? {}, at, nasty)) ?? ''),
      },
      { weight: 2, arbitrary: fc.jsonValue().map((v) => JSON.stringify(v)) },
      { weight: 1, arbitrary: fc.uint8Array({ maxLength: 200 }) },
    );
  const write: fc.Arbitrary<Asked> = fc
    .constantFrom(...writes)
    .chain(({ method, path }) =>
      fc.tuple(
        fc.constant(method),
        filled(path),
        body(path),
        fc.constantFrom('application/json', 'application/json', 'application/json', 'image/jpeg', 'text/html'),
      ),
    )
    .map(([method, path, b, type]) => ({ method, path, body: b, type }));
  const asked = fc.sample(fc.oneof({ weight: 3, arbitrary: write }, { weight: 2, arbitrary: read }), { seed, numRuns: count });
  const statuses = new Map<number, number>();
  await inParallel(asked, 8, async (a) => {
    const response = await fetch(`${base}${a.path}`, {
      method: a.method,
      redirect: 'manual',
      // Whoever signs in or out is somebody else, so that the others stay signed in.
      headers: {
        ...frontHeaders(base),
        'content-type': a.type,
        ...(DOORS.has(a.path) ? {} : { cookie: d.headers.cookie as string }),
      },
      ...(a.body === undefined ? {} : { body: a.body as BodyInit }),
    }).catch(() => null);
    const status = response?.status ?? 0;
    const text = (await response?.text().catch(() => '')) ?? '';
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    // A page that failed while it was being sent says so in its markup.
    if (status === 0 || status >= 500 || text.includes('This page could not be made')) {
      out.failures += 1;
      if (out.note.length < 300) out.note += `${a.method} ${a.path.slice(0, 80)}: ${status} ${text.slice(0, 60)}; `;
    }
    out.runs += 1;
  });
  out.note += [...statuses]
    .sort(([a], [b]) => a - b)
    .map(([s, n]) => `${n}×${s}`)
    .join(' ');
  return out;
}
