import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { only, tariffOf } from '@/core/tariff/fixtures/sessions';
import { addPlace, asItems, newHousehold, own, type Place, send, visitEvents } from './hands/household';

let place: Place;
test.beforeEach(async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const events = visitEvents(who, place, Date.now() - 2 * 86_400_000);
  // A start fee more than there is: somebody paid it twice.
  const billed = events.map((e) => (e.kind === 'bill' ? { ...e, payload: { ...e.payload, amount: (Number(e.payload.amount) + 1.2).toFixed(2) } } : e));
  await send(page.request, base, asItems(billed));
});

test('a price by plain choices, by keyboard; a bill that is too high, its likely cause, a query', async ({ page }) => {
  await page.goto(`/places/${place.siteId}/prices`);
  await expect(page.getByRole('link', { name: /^€0.500 per kWh/ })).toBeVisible();
  await page.getByRole('link', { name: 'Add a price' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add the price' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('What does it cost? Free of charge is 0')).toBeVisible();
  await expect(page.getByLabel('Per kWh, EUR')).toBeFocused();
  await page.keyboard.type('0,50');
  await page.keyboard.press('Tab');
  await page.keyboard.type('0.60');
  await expect(page.getByText('40 kWh in 30 min on Tuesday at 17:00 costs €20.60.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a time' }).press('Enter');
  await page.getByLabel('Per kWh', { exact: true }).fill('0.30');
  await page.getByRole('img', { name: /^Price per kWh in EUR through the week\. Mon: 0:00 to 6:00 0\.30, 6:00 to 22:00 0\.50/ }).waitFor();
  await page.getByRole('button', { name: 'Remove time 1' }).press('Enter');
  await page.getByRole('button', { name: 'Minutes, idle, overstay, tax on top' }).press('Enter');
  await page.getByLabel('Overstay fee').fill('5');
  await page.getByRole('button', { name: 'Add the price' }).press('Enter');
  await expect(page.getByText('Both, or neither')).toBeVisible();
  await page.getByLabel('Overstay after, min').fill('120');
  await page.getByLabel('From', { exact: true }).fill('2020-02-01');
  await page.getByRole('button', { name: 'Add the price' }).press('Enter');
  await expect(page).toHaveURL(/\/prices$/);
  await expect(page.getByRole('listitem').filter({ hasText: 'in force' })).toContainText('€0.500 per kWh, €0.60 per start, overstay €5.00 after 120 min');

  // Opened again, it is the plain choices that were typed.
  await page.getByRole('link', { name: /^€0.500 per kWh, €0.60 per start/ }).click();
  await expect(page.getByLabel('Overstay after, min')).toHaveValue('120');

  await page.goto('/ledger');
  await page.locator('[data-ledger-row]').first().click();
  const bill = page.locator('section[aria-labelledby="bill-head"]');
  await expect(bill).toContainText('€0.60 over.');
  await expect(bill.getByRole('listitem')).toContainText(/^The start fee was taken once more: €[\d.]+ \+ €0\.60 = €[\d.]+\. Fits to the cent\.$/);
  await bill.getByText('Draft a query').click();
  await expect(bill.locator('pre')).toContainText(/^To Saltmarsh Rapid\n\nI charged at Vrba Crossing, stall 2 on/);
});

test('a price dated later changes no old visit; mended, put away, pasted in and refused', async ({ page }) => {
  const total = async () => {
    await page.goto('/ledger');
    await page.locator('[data-ledger-row]').first().click();
    return page.locator('section[aria-labelledby="bill-head"] tr').filter({ hasText: 'Should be, tax in' }).textContent();
  };
  const before = await total();
  await page.goto(`/places/${place.siteId}/prices/new`);
  await page.getByLabel('Per kWh, EUR').fill('0.90');
  await page.getByRole('button', { name: 'Add the price' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'in force' })).toContainText('€0.900 per kWh');
  expect(await total()).toBe(before);
  // The price of that very day, mended.
  await page.goto(`/places/${place.siteId}/prices`);
  await page.getByRole('link', { name: /^€0.500 per kWh/ }).click();
  await page.getByText('The object behind it, or paste one in').click();
  const object = page.getByLabel('Tariff by OCPI 2.2.1, with x_pricing beside it');
  await object.fill('{');
  await page.getByRole('button', { name: 'Use this object' }).click();
  await expect(page.getByText('This is not JSON.')).toBeVisible();
  await object.fill(JSON.stringify({ ...tariffOf([only('ENERGY', 0.4, 1, 25)]), currency: 1 }));
  await page.getByRole('button', { name: 'Use this object' }).click();
  await expect(page.getByText('currency: must be text')).toBeVisible();
  await object.fill(JSON.stringify(tariffOf([only('ENERGY', 0.4, 1, 25)])));
  await page.getByRole('button', { name: 'Use this object' }).click();
  await expect(page.getByText('This tariff says more than the plain choices can.')).toBeVisible();
  await page.getByRole('radio', { name: 'Only Vrba Crossing' }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page).toHaveURL(/\/prices$/);
  const after = await total();
  // 0.40 and a quarter of tax are 0.50: what changed is that tax is told.
  expect(after).toBe(before);
  await expect(page.locator('section[aria-labelledby="bill-head"]')).toContainText('of that tax');
  await page.goto(`/places/${place.siteId}/prices`);
  await page.getByRole('link', { name: /^€0.900 per kWh/ }).click();
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'put away' })).toContainText('€0.900 per kWh');
});

test('prices by the interface for programs: signed in, refused by path, limited', async ({ page, baseURL, browser }) => {
  const session = { time_zone: 'Europe/Ljubljana', periods: [{ start: '2025-10-14T15:00:00Z', end: '2025-10-14T15:30:00Z', kwh: 40, state: 'CHARGING' }] };
  const asked = { tariff: tariffOf([only('ENERGY', 0.5, 1, 20)]), session };
  const priced = await page.request.post('/api/v1/price', { data: asked });
  expect([priced.status(), (await priced.json()).total]).toEqual([200, { excl_vat: '20.00', incl_vat: '24.00', exact: ['20', '24'] }]);
  expect((await (await page.request.post('/api/v1/price?lines=yes', { data: asked })).json()).lines).toHaveLength(1);
  const wrong = await page.request.post('/api/v1/price', { data: { ...asked, tariff: { ...asked.tariff, currency: undefined } } });
  expect([wrong.status(), await wrong.json()]).toEqual([422, [{ path: 'tariff.currency', reason: 'is missing' }]]);
  expect((await page.request.post('/api/v1/price', { headers: own(baseURL as string), data: Buffer.from('{') })).status()).toBe(400);
  const large = await page.request.post('/api/v1/price', { data: { ...asked, tariff: { ...asked.tariff, note: 'x'.repeat(1_000_001) } } });
  expect(large.status()).toBe(413);
  const stranger = await browser.newContext({ baseURL: baseURL as string });
  expect((await stranger.request.post('/api/v1/price', { data: asked })).status()).toBe(401);
  await stranger.close();
});

test('the same stop at every site, and a plan month by month', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const far = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const plan = v7();
  const today = new Date();
  const records = [
    recordItem('tariff', v7(), { networkId: far.networkId, siteId: far.siteId, currency: 'EUR', perKWh: '0.30', startFee: '4', validFrom: '2020-02-01' }),
    recordItem('plan', plan, { name: 'Saltmarsh plan', networkId: place.networkId, monthlyFee: '1', currency: 'EUR', from: '2020-01-01' }),
    recordItem('tariff', v7(), { networkId: place.networkId, planId: plan, currency: 'EUR', perKWh: '0.20', validFrom: '2020-02-01' }),
  ];
  await send(
    page.request,
    base,
    records.map((record) => ({ type: 'record', record })),
  );
  await page.goto('/compare');
  await page.getByRole('link', { name: 'The same stop' }).click();
  await page.getByLabel('kWh').fill('20');
  await page.getByLabel('then parked, min').fill('5');
  await page.getByLabel('then parked, min').press('Enter');
  await expect(page).toHaveURL(/kwh=20&.*parked=5/);
  await expect(page.getByText('This stop costs least at Vrba Crossing, €4.00, and €6.00 more at Brod Landing.')).toBeVisible();
  const rows = page.getByRole('region', { name: 'One stop at every site' }).getByRole('row');
  await expect(rows.nth(1)).toContainText(/Vrba Crossing.*€10\.00€4\.00Saltmarsh plan/);
  await expect(rows.nth(2)).toContainText(/Brod Landing.*€10\.00€10\.00/);
  await expect(rows.nth(2).getByRole('img')).toHaveAccessibleName('Brod Landing: energy €6.00, start €4.00');
  // From a level to another, at least so long, kept as the usual one: the page begins with it, until the ledger is to propose again.
  await page.getByLabel('or from %').fill('80');
  await page.getByLabel('to %', { exact: true }).fill('20');
  await page.getByRole('button', { name: 'Price it' }).click();
  await expect(rows.nth(1)).toContainText('20.0 kWh in');
  await page.getByLabel('or from %').fill('20');
  await page.getByLabel('to %', { exact: true }).fill('70');
  await page.getByLabel('at least, min').fill('90');
  await page.getByRole('button', { name: 'Price it' }).click();
  await expect(rows.nth(1)).toContainText(/kWh in 90 min/);
  await page.getByRole('button', { name: 'Keep as my usual stop' }).click();
  await expect(page.getByText('This is your usual stop.')).toBeVisible();
  await page.goto('/compare/same-stop');
  await expect(page.getByLabel('or from %')).toHaveValue('20');
  await expect(page.getByText('This is your usual stop.')).toBeVisible();
  await page.getByRole('button', { name: 'Propose one from the ledger again' }).click();
  await expect(page.getByLabel('or from %')).toHaveValue('');
  await page.getByRole('link', { name: 'Plans' }).click();
  await expect(page.getByText('Pays from 3 kWh a month.')).toBeVisible();
  const month = page
    .getByRole('row')
    .filter({ hasText: today.toLocaleDateString('en-GB', { month: 'short', year: 'numeric', timeZone: 'Europe/Ljubljana' }).replace('Sept', 'Sep') });
  await expect(month).toContainText('held');
  await page.goto('/compare');
  await page.getByRole('link', { name: 'Statement' }).click();
  await expect(page.getByRole('heading', { name: /^Statement, / })).toBeVisible();
  // Two days ago may have been last month.
  await page.getByRole('link', { name: /^All of/ }).click();
  const charged = new Date(Date.now() - 2 * 86_400_000).getFullYear() === today.getFullYear();
  if (charged) await expect(page.getByText(/in 1 bill, from 1 visit\./)).toBeVisible();
  if (charged) await expect(page.getByText('1 visit billed, and no receipt:')).toBeVisible();
});
