import { expect, test } from '@playwright/test';
import mysql, { type RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { anyVisits } from './hands/any-visits';
import { addPlace, asItems, type ItemAnswer, newHousehold, own, type Place, send, visitEvents } from './hands/household';

test('any set of accepted events shows: every page that lists or shows them answers', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const [first] = visitEvents(who, place, Date.UTC(2025, 9, 14)) as [StoredEvent];
  const lone = (kind: string, payload: object, more: Partial<StoredEvent> = {}): StoredEvent[] => [
    { ...first, id: v7(), visitId: v7(), kind, payload: payload as Record<string, unknown>, ...more },
  ];
  const [only] = lone('pulled_in', { siteId: place.siteId }) as [StoredEvent];
  const sets = [
    [only, { ...only, id: v7(), kind: 'withdrawal', seq: 2, payload: { target: only.id } }],
    lone('hologram_shown', { shade: 'blue' }),
    lone('pulled_in', {}, { v: 2 }),
    lone('correction', { target: v7(), at: first.at }),
    lone('withdrawal', { target: v7() }),
    lone('withdrawal', { target: first.visitId, joinedInto: 'nowhere at all' }),
    ...anyVisits(who, place.siteId, 20261126, 40),
  ].filter((events) => events.length > 0);
  for (const answer of await send(page.request, base, asItems(sets.flat()))) expect(answer).toMatchObject({ status: 'taken' });

  const listed = (await (await page.request.get('/api/v1/visits/lately')).json()).rows;
  expect(listed).toHaveLength(20);
  const paths = [
    '/ledger',
    `/ledger?network=${place.networkId}`,
    '/compare',
    '/places',
    `/places/${place.siteId}`,
    '/garage/car',
    '/api/v1/changes?since=0',
    '/api/v1/find?q=otter',
    ...sets.flatMap(([e]) => [`/ledger/${e?.visitId}`, `/api/v1/visits/${e?.visitId}/events`]),
  ];
  for (const path of paths) {
    const response = await page.request.get(path);
    expect([path, response.status()]).toEqual([path, 200]);
    expect(await response.text()).not.toContain('This page could not be made');
  }
  // One that nothing is left of can be opened, and taken back.
  await page.goto(`/ledger/${only.visitId}`);
  await expect(page.getByText('Nothing stands on the line of this visit.')).toBeVisible();
  await page.getByRole('button', { name: 'Withdraw the visit' }).click();
  await expect(page.getByText('This visit is withdrawn.')).toBeVisible();
});

/** One bad item among fourteen good ones: what became of each. */
async function amongGood(page: import('@playwright/test').Page, base: string, bad: (first: StoredEvent, place: Place) => object, sentAt?: unknown) {
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const events = visitEvents(who, place, Date.now() - 86_400_000).slice(0, 14);
  const [first] = events as [StoredEvent];
  const items = [...asItems(events.slice(0, 7)), bad(first, place), ...asItems(events.slice(7))];
  // As text: an odd name or half a character must arrive as it is written here.
  const response = await page.request.post('/api/v1/outbox', { headers: own(base), data: Buffer.from(JSON.stringify({ items, sentAt })) });
  expect(response.status()).toBe(200);
  const results = (await response.json()).results as ItemAnswer[];
  expect(results.filter((_, i) => i !== 7).map((r) => r.status)).toEqual(events.map(() => 'taken'));
  return results[7];
}
const nested = (depth: number): unknown => (depth === 0 ? [] : [nested(depth - 1)]);

test('one bad item never spoils its neighbours', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const like = (more: object) => (first: StoredEvent) => ({ type: 'event', event: { ...first, id: v7(), seq: 90, ...more } });
  const note = (text: string) => (_: StoredEvent, place: Place) => ({
    type: 'record',
    record: { type: 'site', id: v7(), baseRev: 0, fields: { networkId: place.networkId, name: 'Kamen Toll', zone: 'UTC', notes: text } },
  });
  expect(await amongGood(page, base, like({ kind: 'hologram', payload: { deep: nested(31) } }))).toMatchObject({
    status: 'refused',
    path: 'payload.deep',
    reason: 'is nested too deeply',
  });
  expect(await amongGood(page, base, like({ kind: 'note', payload: { text: 'rain \ud83d' } }))).toMatchObject({ status: 'refused', path: 'payload.text' });
  expect(await amongGood(page, base, note('rain \ud83d'))).toMatchObject({ status: 'refused', path: 'fields.notes', reason: 'holds half a character' });
  expect(await amongGood(page, base, () => 7 as unknown as object)).toMatchObject({ status: 'refused', path: 'items.7.type' });
  expect(await amongGood(page, base, like({ kind: 'fault', payload: { code: 'störung', side: 'network' } }))).toMatchObject({ path: 'payload.code' });
  for (const sentAt of [253_402_300_799_999 + 1, 8.64e15 + 1, -1, 'yesterday', 1.5])
    expect(await amongGood(page, base, like({ kind: 'plugged', payload: {} }), sentAt)).toMatchObject({ status: 'taken' });
});

test('bills beyond every column are shown', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const events = visitEvents(who, place, Date.now() - 86_400_000);
  const bill = events.at(-1) as StoredEvent;
  const many = Array.from({ length: 1200 }, (_, i) => ({ ...bill, id: v7(), seq: 100 + i, payload: { ...bill.payload, amount: '100000', kWh: '2000' } }));
  for (let i = 0; i < many.length; i += 400) await send(page.request, base, asItems([...events, ...many.slice(i, i + 400)]));
  const [row] = (await (await page.request.get('/api/v1/visits/lately')).json()).rows;
  expect(row).toMatchObject({ id: bill.visitId, currency: 'EUR' });
  expect(Number(row.paid)).toBeGreaterThan(120_000_000);
});

test('addresses with odd ids and times are not here or not understood, never a failure', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const odd = [
    '00000000-0000-0000-0000-000000000000',
    '01900000-0000-9000-8000-000000000001',
    '01900000-0000-7000-0000-000000000001',
    'FFFFFFFF-FFFF-4FFF-8FFF-FFFFFFFFFFFF',
    '%ff',
    '%00',
    '..%2f',
    'a'.repeat(5000),
  ];
  for (const id of odd)
    for (const path of [
      `/ledger/${id}`,
      `/places/${id}`,
      `/garage/car/${id}`,
      `/places/${id}/stalls/new`,
      `/api/v1/visits/${id}/events`,
      `/api/v1/photos/${id}`,
    ]) {
      const status = (await page.request.get(path)).status();
      expect([path.slice(0, 60), [400, 404, 414, 422].includes(status)]).toEqual([path.slice(0, 60), true]);
    }
  for (const near of ['8640000000000001', '-1', '9007199254740991', '1e300', 'x', ''])
    expect([near, (await page.request.get(`/api/v1/visits/lately?near=${near}`)).status()]).toEqual([near, 422]);
  for (const id of odd.slice(0, 4))
    for (const path of [`/ledger?network=${id}&site=${id}&car=${id}`, `/ledger?from=99999999999999~${id}`, `/places?car=${id}`, `/compare?network=${id}`])
      expect([path, (await page.request.get(path)).status()]).toEqual([path, 200]);
  for (const since of ['-1', 'x', '1e99', '9007199254740992']) expect((await page.request.get(`/api/v1/changes?since=${since}`)).status()).toBe(422);
  expect((await page.request.get('/api/v1/changes?since=9007199254740991')).status()).toBe(200);
});

test('a site that comes after its visits gives them their network', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const siteId = v7();
  const events = visitEvents(who, { ...place, siteId }, Date.now() - 86_400_000);
  await send(page.request, base, asItems(events));
  const row = async () => (await (await page.request.get('/api/v1/visits/lately')).json()).rows[0];
  expect(await row()).toMatchObject({ siteName: null, networkName: null });
  await send(page.request, base, [
    { type: 'record', record: { type: 'site', id: siteId, baseRev: 0, fields: { networkId: place.networkId, name: 'Kamen Toll', zone: 'UTC' } } },
  ]);
  expect(await row()).toMatchObject({ siteName: 'Kamen Toll', networkName: 'Otterbrook' });
  // Read first where the phone reads: nothing stale is told there either.
  expect(Object.keys((await (await page.request.get('/api/v1/changes?since=0')).json()).usual)).not.toHaveLength(0);
});

test('a stall moved to another site gives its attempts another network; a note on a site stales nothing', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const other = await addPlace(page, base, { network: 'Copperbeech', site: 'Kamen Toll' });
  await send(page.request, base, asItems(visitEvents(who, place, Date.now() - 86_400_000)));
  const db = await mysql.createConnection(process.env.DATABASE_URL as string);
  const figures = async () => {
    await page.request.get('/api/v1/visits/lately');
    const [rows] = await db.query<RowDataPacket[]>(
      'SELECT v.rev, LOWER(HEX(a.network_id)) AS network FROM visit v JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id WHERE v.household_id = UNHEX(?)',
      [who.householdId.replaceAll('-', '')],
    );
    return rows.map((r) => ({ rev: Number(r.rev), network: r.network }));
  };
  const change = (type: string, id: string, fields: object) => send(page.request, base, [{ type: 'record', record: { type, id, baseRev: 999, fields } }]);
  const before = await figures();
  expect(before).toEqual([{ rev: expect.any(Number), network: place.networkId.replaceAll('-', '') }]);
  await change('site', place.siteId, { networkId: place.networkId, name: 'Otterbrook Quay', zone: 'Europe/Ljubljana', notes: 'a note' });
  expect(await figures()).toEqual(before);
  await change('stall', place.stalls[1] as string, { siteId: other.siteId, name: '9', outlets: [{ connector: 'CCS2', ratedKW: 150 }] });
  expect((await figures()).map((f) => f.network)).toEqual([other.networkId.replaceAll('-', '')]);
  await db.end();
});

test('eight that join the same two recordings at once write one withdrawal', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const [one, other] = [visitEvents(who, place, Date.now() - 86_400_000), visitEvents(who, place, Date.now() - 86_390_000)];
  await send(page.request, base, asItems([...one, ...other]));
  const data = { into: one[0]?.visitId, from: other[0]?.visitId };
  const answers = await Promise.all(Array.from({ length: 8 }, () => page.request.post('/api/v1/visits/join', { headers: own(base), data })));
  expect(answers.map((a) => a.status())).toEqual(answers.map(() => 200));
  const { events } = await (await page.request.get(`/api/v1/visits/${data.from}/events`)).json();
  expect(events.filter((e: StoredEvent) => e.kind === 'withdrawal')).toHaveLength(1);
  expect((await (await page.request.get(`/api/v1/visits/${data.into}/events`)).json()).events).toHaveLength(one.length + other.length);
});
