import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';

test('a batch with good and bad events: each bad one is described, the good ones are taken', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const events = visitEvents(who, place, Date.now() - 86_400_000);
  const [first] = events as [StoredEvent];
  const like = (more: Partial<StoredEvent>): StoredEvent => ({ ...first, id: v7(), seq: 90, ...more });
  const bad = [
    like({ kind: 'reading', payload: { screen: 'stall', kWh: '-4' } }),
    like({ kind: 'reading', payload: { screen: 'stall', socPct: 140 } }),
    like({ at: Date.now() + 72 * 3600_000 }),
    like({ zone: 'Nowhere/At_All' }),
    like({ kind: 'correction', payload: { target: events.at(-1)?.id, set: { amount: '-1' } } }),
  ];
  const answers = await send(page.request, base, [...asItems(bad), { type: 'event', event: 'rubbish' }, { type: 'poem' }, ...asItems(events)]);
  expect(answers.slice(0, bad.length + 2).map((a) => [a.status, a.path])).toEqual([
    ['refused', 'payload.kWh'],
    ['refused', 'payload.socPct'],
    ['refused', 'at'],
    ['refused', 'zone'],
    ['refused', 'payload.amount'],
    ['refused', 'event'],
    ['refused', 'items.6.type'],
  ]);
  expect(answers.slice(bad.length + 2).map((a) => a.status)).toEqual(events.map(() => 'taken'));

  // Once more: all there already. The same id with other content: a conflict, and nothing changes.
  expect((await send(page.request, base, asItems(events))).map((a) => a.status)).toEqual(events.map(() => 'already'));
  expect((await send(page.request, base, asItems([{ ...first, at: first.at + 1 }])))[0]).toMatchObject({ status: 'conflict', path: 'id' });
  await page.goto(`/ledger/${first.visitId}`);
  await expect(page.getByRole('region', { name: 'The record' }).getByRole('listitem')).toHaveCount(events.length);
});

test('an unknown kind with a good envelope is kept, and the page says so', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Otterbrook', site: 'Otterbrook Quay' });
  const events = visitEvents(who, place, Date.now() - 86_400_000);
  await send(
    page.request,
    base,
    asItems([...events, { ...(events[0] as StoredEvent), id: v7(), kind: 'hologram_shown', seq: 99, payload: { shade: 'blue' } }]),
  );
  await page.goto(`/ledger/${events[0]?.visitId}`);
  await expect(page.getByText('Part of this visit was recorded by a newer version.')).toBeVisible();
});

test('what is no batch is refused whole', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const post = (data: Buffer | object, headers: Record<string, string> = own(base)) => page.request.post('/api/v1/outbox', { headers, data });
  expect((await post(Buffer.from('this is {not JSON'))).status()).toBe(400);
  expect((await post(Buffer.from([0x7b, 0xff, 0xfe, 0x7d]))).status()).toBe(400);
  expect((await post({ items: Array.from({ length: 501 }, () => ({ type: 'event' })) })).status()).toBe(422);
  expect((await post({ items: 'none' })).status()).toBe(422);
  expect((await post({ items: [], padding: 'x'.repeat(1_000_001) })).status()).toBe(413);
  expect((await post({ items: [] }, { ...own(base), 'content-type': 'text/plain' })).status()).toBe(415);
  expect((await post({ items: [] }, { ...own(base), origin: 'https://elsewhere.invalid' })).status()).toBe(403);
  expect((await post({ items: [] }, { 'content-type': 'application/json' })).status()).toBe(403);
});

test('a record changed elsewhere since comes back as a difference', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const id = v7();
  const network = (name: string, baseRev: number) => [{ type: 'record', record: { type: 'network', id, baseRev, fields: { name } } }];
  const [made] = await send(page.request, base, network('Bluebarn', 0));
  expect(made).toMatchObject({ status: 'taken' });
  expect((await send(page.request, base, network('Blue barn', 0)))[0]).toMatchObject({ status: 'conflict', theirs: { fields: { name: 'Bluebarn' } } });
  expect((await send(page.request, base, network('Bluebarn', 0)))[0]).toMatchObject({ status: 'already' });
  expect((await send(page.request, base, network('Blue barn', (made as unknown as { rev: number }).rev)))[0]).toMatchObject({ status: 'taken' });
  const orphan = { type: 'record', record: { type: 'stall', id: v7(), baseRev: 0, fields: { siteId: v7(), name: '1', connector: 'CCS2', ratedKW: 50 } } };
  expect((await send(page.request, base, [orphan]))[0]).toMatchObject({ status: 'refused', reason: 'refers to something that is not known here' });
});
