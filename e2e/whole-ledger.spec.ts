import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { unzipSync } from 'fflate';
import { v7 } from 'uuid';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';

const SHEETS = ['visits', 'attempts', 'events', 'readings', 'bills', 'sites', 'tariffs'];
/** Everything the ledger says of itself, sheet by sheet. */
const sheets = async (page: Page) =>
  Object.fromEntries(await Promise.all(SHEETS.map(async (s) => [s, await (await page.request.get(`/api/v1/export/${s}.csv`)).text()])));
const status = (page: Page) => page.getByRole('main').getByRole('status').or(page.getByRole('status')).first();
const choose = async (page: Page, file: { name: string; mimeType: string; buffer: Buffer }) => {
  await page.goto('/settings/restore');
  await page.getByLabel('The file, ZIP or JSON').setInputFiles(file);
};

test('a whole ledger goes out, into another household’s empty ledger, and says the same there figure by figure', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  for (let i = 0; i < 6; i++)
    await send(
      page.request,
      base,
      visitEvents(who, place, Date.UTC(2026, 5, 1 + i, 9), i % 2 === 0).map((event) => ({ type: 'event', event })),
    );
  await page.goto('/settings');
  await page.getByRole('link', { name: 'Take it along' }).click();
  // What a standard cannot say is said as it goes out.
  const [cdrs] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'JSON of Charges as OCPI CDRs' }).click()]);
  expect(cdrs.suggestedFilename()).toBe('mile-ledger-ocpi-cdrs.json');
  await expect(
    page.getByText(
      '0 CDRs saved. Not in it, as the standard cannot say it: 3 without power, 6 at sites of which the position is not known. The file names each.',
    ),
  ).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'The whole ledger, ZIP' }).click()]);
  expect(download.suggestedFilename()).toBe('mile-ledger.zip');
  const zip = { name: 'mile-ledger.zip', mimeType: 'application/zip', buffer: await readFile(await download.path()) };

  const elsewhere = await browser.newContext({ baseURL: base });
  const other = await elsewhere.newPage();
  await newHousehold(other, base);
  await choose(other, zip);
  await expect(status(other)).toContainText('6 records, ');
  // Both are alone: who that is is plain, and nothing is written yet.
  await expect(other.getByLabel('Tone Zupan')).toHaveValue(/./);
  expect((await (await other.request.get('/api/v1/export/sites.csv')).text()).trim().split('\r\n')).toHaveLength(1);
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(other)).toContainText('Brought in: 6 records, ');
  expect(await sheets(other)).toEqual(await sheets(page));
  await other.goto('/ledger');
  await expect(other.getByRole('link', { name: /Vrba Crossing/ })).toHaveCount(6);

  // The same file again adds nothing; what was changed here since is told, and stays unless it is ticked.
  const site = {
    type: 'site',
    id: place.siteId,
    baseRev: 1,
    archived: false,
    fields: { networkId: place.networkId, name: 'Vrba Crossing West', zone: 'Europe/Ljubljana', entrance: 'By the silo' },
  };
  await send(other.request, base, [{ type: 'record', record: site }]);
  await choose(other, zip);
  await expect(status(other)).toContainText('Nothing new;');
  const differing = other.getByRole('region', { name: 'Records that differ' });
  await expect(differing).toContainText('Name: here Vrba Crossing West; in the file Vrba Crossing');
  await expect(other.getByRole('button', { name: 'Bring it in' })).toBeDisabled();
  // One thing of it, and then the other: that which was not ticked stays.
  await differing.getByRole('checkbox', { name: /^Name:/ }).check();
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(other)).toContainText('Brought in: 1 record;');
  await choose(other, zip);
  await expect(status(other)).toContainText('Nothing new;');
  await expect(differing).not.toContainText('Name:');
  await expect(differing).toContainText('here By the silo; in the file');
  await differing.getByRole('checkbox').check();
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(other)).toContainText('Brought in: 1 record;');
  expect(await sheets(other)).toEqual(await sheets(page));
  await elsewhere.close();
});

test('photos that stayed behind come with the file that has them, and are not sent again', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const picture = await readFile('e2e/hands/ticket.jpg');
  const sha256 = createHash('sha256').update(picture).digest('hex');
  const sent = await page.request.put(`/api/v1/photos/${sha256}`, { headers: { origin: base, 'content-type': 'image/jpeg' }, data: picture });
  expect(sent.status()).toBe(201);
  const events = visitEvents(who, place, Date.UTC(2026, 5, 1, 9));
  const last = events.at(-1) as (typeof events)[number];
  const receipt = { ...last, id: v7(), kind: 'receipt', payload: { sha256 }, seq: last.seq + 1 };
  for (const a of await send(page.request, base, asItems([...events, receipt]))) expect(a).toMatchObject({ status: 'taken' });
  const zip = await (await page.request.get('/api/v1/household/export')).body();
  const alone = Buffer.from(unzipSync(new Uint8Array(zip))['ledger.json'] as Uint8Array);

  const elsewhere = await browser.newContext({ baseURL: base });
  const other = await elsewhere.newPage();
  await newHousehold(other, base);
  const photo = async () => (await other.request.get(`/api/v1/photos/${sha256}`)).status();
  await choose(other, { name: 'ledger.json', mimeType: 'application/json', buffer: alone });
  await expect(status(other)).toContainText('1 photo.');
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(other)).toContainText('1 photo could not be kept, or is not in the file.');
  expect(await photo()).toBe(404);
  const whole = { name: 'mile-ledger.zip', mimeType: 'application/zip', buffer: zip };
  await choose(other, whole);
  await expect(status(other)).toContainText('1 photo;');
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(other)).toContainText('Brought in: 1 photo;');
  expect(await photo()).toBe(200);
  await choose(other, whole);
  await expect(status(other)).toContainText('Nothing new;');
  await expect(other.getByRole('button', { name: 'Bring it in' })).toBeDisabled();
  // Whose they are nobody else learns by asking.
  await elsewhere.close();
  const third = await browser.newContext({ baseURL: base });
  const stranger = await third.newPage();
  await newHousehold(stranger, base);
  const ask = async (names: unknown) => {
    const answer = await stranger.request.post('/api/v1/import/ledger/photos', { headers: own(base), data: { names } });
    return [answer.status(), await answer.json()];
  };
  expect(await ask([sha256])).toEqual([200, { lacking: [sha256] }]);
  expect((await ask(['../x']))[0]).toBe(422);
  expect((await ask('x'))[0]).toBe(422);
  await third.close();
});

test('a ledger comes in without a network half-way, as JSON of an earlier version, and not for everybody', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = { networkId: '01900000-0000-7000-8000-0000000000a1', siteId: '01900000-0000-7000-8000-0000000000a2' };
  const records = [
    { type: 'network', id: place.networkId, rev: 1, archived: false, fields: { name: 'Bluebarn' } },
    { type: 'site', id: place.siteId, rev: 1, archived: false, fields: { networkId: place.networkId, name: 'Lipa Barn', zone: 'Europe/Ljubljana' } },
  ];
  const people = [
    { personId: '01900000-0000-7000-8000-0000000000b1', name: 'Mojca', role: 'owner' },
    { personId: '01900000-0000-7000-8000-0000000000b2', name: 'Vid', role: 'driver' },
  ];
  const head = {
    format: 'mile-ledger-household',
    version: 1,
    household: { id: '01900000-0000-7000-8000-0000000000c1', name: 'Mojca and Vid', currency: 'GBP', zone: 'Europe/London' },
    people,
  };
  const file = { name: 'old.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify({ ...head, records, events: [] })) };
  await choose(page, file);
  await expect(page.getByText('Its currency is GBP, here it is EUR: that stays.', { exact: false })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Bring it in' })).toBeDisabled();
  await page.getByLabel('Mojca').selectOption({ label: 'Tone Zupan' });
  await expect(page.getByRole('button', { name: 'Bring it in' })).toBeDisabled();
  await page.getByLabel('Vid').selectOption({ label: 'Tone Zupan' });
  await expect(status(page)).toContainText('2 records.');
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(page)).toContainText('The server could not be reached.');
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(page)).toContainText('Brought in: 2 records.');

  for (const [content, said] of [
    ['PK\u0003\u0004', 'The zip is cut short or damaged.'],
    ['{"format":"other"}', 'This is no ledger of Mile Ledger.'],
    ['{"format":"mile-ledger","version":9}', 'newer version'],
    ['{"format":', 'byte 10'],
  ]) {
    await page.getByLabel('The file, ZIP or JSON').setInputFiles({ ...file, buffer: Buffer.from(content as string) });
    await expect(status(page)).toContainText(said as string);
  }
  // From elsewhere, too much at once, or what is no piece.
  const piece = { people: {}, records: [], events: [], watches: [], views: [] };
  expect(
    (
      await page.request.post('/api/v1/import/ledger', { headers: { 'content-type': 'application/json', origin: 'https://elsewhere.example' }, data: piece })
    ).status(),
  ).toBe(403);
  const many = await page.request.post('/api/v1/import/ledger', { headers: own(base), data: { ...piece, events: Array(501).fill(0) } });
  expect([many.status(), (await many.json()).error]).toEqual([422, 'events: at most 500 in one piece']);
  const nobody = await browser.newContext({ baseURL: base });
  expect((await nobody.request.post('/api/v1/import/ledger', { headers: own(base), data: piece })).status()).toBe(401);
  expect((await nobody.request.get('/api/v1/schema/ledger.json')).status()).toBe(200);
  await nobody.close();
  expect(who.householdId).toBeTruthy();
});

test('one thing that is too large for a request is refused by itself, and the rest comes in', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const id = (n: number) => `01900000-0000-7000-8000-0000000000${n}`;
  const event = (n: number, payload: object) => ({
    ...{ id: id(n), householdId: id(11), personId: who.personId, visitId: id(12), kind: 'note', v: 1, at: Date.UTC(2026, 5, 1), precision: 'ms', zone: 'UTC' },
    ...{ deviceId: id(13), life: id(13), mono: 0, awake: true, seq: n, origin: 'typed', role: 'recorder', payload },
  });
  const events = [event(21, { text: 'before' }), event(22, { text: 'x'.repeat(1_200_000) }), event(23, { text: 'after' })];
  const people = [{ personId: who.personId, name: 'Tone Zupan', role: 'owner' }];
  const ledger = { format: 'mile-ledger', version: 1, household: { id: id(11), name: 'A', currency: 'EUR', zone: 'UTC' }, people, records: [], events };
  await choose(page, { name: 'a.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(ledger)) });
  await expect(status(page)).toContainText('2 events; 1 refused.');
  await expect(page.getByRole('region', { name: 'What is refused' })).toContainText('event is too large');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(status(page)).toContainText('Brought in: 2 events; 1 refused.');
});
