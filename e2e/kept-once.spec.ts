import { expect, test } from '@playwright/test';
import type { StoredEvent } from '@/core/visit/event';
import { addPlace, asItems, newHousehold, send, visitEvents } from './hands/household';

const DAY = 86_400_000;

test('what is half typed is there again; a visit and a bill kept without a network are kept once, however often they are pressed', async ({
  page,
  baseURL,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const events = visitEvents(who, place, Date.now() - 2 * DAY).filter((e) => e.kind !== 'bill');
  await send(page.request, base, asItems(events));
  await page.goto('/ledger/new');
  await page.getByLabel('Site', { exact: true }).selectOption({ label: 'Hollin Bridge' });
  await page.getByLabel('Car', { exact: true }).selectOption({ index: 1 });
  const car = await page.getByLabel('Car', { exact: true }).inputValue();
  await page.getByLabel('Delivered, kWh').fill('31,4');
  await page.reload();
  await expect(page.getByText('Taken up where you left off.')).toBeVisible();
  await expect(page.getByLabel('Site', { exact: true })).toHaveValue(place.siteId);
  await expect(page.getByLabel('Delivered, kWh')).toHaveValue('31,4');
  await expect(page.getByLabel('Car', { exact: true })).toHaveValue(car);
  await page.getByRole('button', { name: 'Start afresh' }).click();
  await expect(page.getByLabel('Delivered, kWh')).toHaveValue('');
  await page.reload();
  await expect(page.getByText('Taken up where you left off.')).toBeHidden();

  const visits = async () => ((await (await page.request.get('/api/v1/visits')).json()) as { items: unknown[] }).items.length;
  await page.route('**/api/v1/outbox', (route) => route.abort());
  await page.getByLabel('Site', { exact: true }).selectOption({ label: 'Hollin Bridge' });
  await page.getByLabel('Day', { exact: true }).fill(new Date(Date.now() - 5 * DAY).toISOString().slice(0, 10));
  await page.getByLabel('Delivered, kWh').fill('31,4');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByText(/^The visit is kept on this device\./)).toBeVisible();
  await expect(page.getByLabel('Delivered, kWh')).toBeDisabled();
  await page.getByRole('button', { name: 'Send it' }).click();
  await expect(page.getByText(/^The visit is kept on this device\./)).toBeVisible();
  await page.unroute('**/api/v1/outbox');
  await page.getByRole('button', { name: 'Send it' }).click();
  await expect(page.getByRole('heading', { name: 'Hollin Bridge', level: 1 })).toBeVisible();
  expect(await visits()).toBe(2);

  await page.goto(`/ledger/${events[0]?.visitId}`);
  await page.route('**/api/v1/outbox', (route) => route.abort());
  await page.getByRole('button', { name: 'Add a bill or receipt' }).click();
  const sheet = page.getByRole('dialog', { name: 'Add a bill or receipt' });
  await sheet.getByLabel('Amount paid').fill('12.50');
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByText('Kept on this device: it is sent when the server can be reached.')).toBeVisible();
  await page.unroute('**/api/v1/outbox');
  await page.reload();
  const bills = async () =>
    ((await (await page.request.get(`/api/v1/visits/${events[0]?.visitId}/events`)).json()).events as StoredEvent[]).filter((e) => e.kind === 'bill').length;
  await expect.poll(bills).toBe(1);
});

test('without the server a site and a car are made once, however often they are pressed; what is typed in between is a change', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await page.goto('/places/new');
  await page.route('**/api/v1/outbox', (route) => route.abort());
  const said = page.getByText(/^Kept on this device: it is sent when the server can be reached\./);
  await page.getByLabel('Site', { exact: true }).fill('Kamen Tol');
  await page.getByLabel('Network', { exact: true }).fill('Copperbeech');
  await page.getByRole('button', { name: /^Add the site/ }).click();
  await expect(said).toBeVisible();
  await page.getByLabel('Site', { exact: true }).fill('Kamen Toll');
  await page.getByRole('button', { name: /^Add the site/ }).click();
  await expect(said).toBeVisible();
  await page.goto('/garage/car/new');
  await page.getByLabel('Name', { exact: true }).fill('Heron 62');
  await page.getByLabel('Usable battery, kWh').fill('62');
  await page.getByLabel('CCS2', { exact: true }).check();
  await page.getByRole('button', { name: 'Add the car' }).click();
  await expect(said).toBeVisible();
  await page.getByRole('button', { name: 'Add the car' }).click();
  await expect(said).toBeVisible();
  await page.unroute('**/api/v1/outbox');
  await page.goto('/places');
  const records = async () => {
    const all = ((await (await page.request.get('/api/v1/changes?since=0')).json()) as { records: { type: string; fields: { name?: string } }[] }).records;
    return all.filter((r) => ['site', 'network', 'car'].includes(r.type)).map((r) => `${r.type} ${r.fields.name}`);
  };
  await expect.poll(async () => (await records()).sort()).toEqual(['car Heron 62', 'network Copperbeech', 'site Kamen Toll']);
});

test('a visit that the server does not take says why, and can be put right', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  await page.goto('/ledger/new');
  await page.getByLabel('Site', { exact: true }).selectOption({ label: 'Hollin Bridge' });
  await page.getByLabel('Day', { exact: true }).fill('2026-03-04');
  await page.route('**/api/v1/outbox', (route) => {
    const { items } = route.request().postDataJSON() as { items: { event: { id: string } }[] };
    const results = items.map(({ event }) => ({ id: event.id, status: 'refused', path: 'payload.siteId', reason: 'is not here' }));
    return route.fulfill({ json: { rev: 1, results } });
  });
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByText('The server did not take it: payload.siteId is not here')).toBeVisible();
  await page.unroute('**/api/v1/outbox');
  await page.getByLabel('Delivered, kWh').fill('12,5');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByRole('heading', { name: 'Hollin Bridge', level: 1 })).toBeVisible();
  expect(((await (await page.request.get('/api/v1/visits')).json()) as { items: unknown[] }).items).toHaveLength(1);
});
