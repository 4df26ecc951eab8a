import { expect, test } from '@playwright/test';
import { pullIn } from '../hands/at-the-site';
import { addPlace, asItems, newHousehold, send, visitEvents } from '../hands/household';
import { allSent, keptEvents, openStall, reloadWhenKept, thumb } from '../hands/stall';

test('offline from pulling in to pulling out, with two reloads: every event arrives once, in order, its times unchanged', async ({
  page,
  context,
  baseURL,
}) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  await expect(page.getByRole('button', { name: /^Lipa Barn/ })).toBeVisible();
  await context.setOffline(true);
  await pullIn(page);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await reloadWhenKept(page, 3);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await reloadWhenKept(page, 5);
  await hand.reading(['31', '88', '1.2']);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await expect(page.getByText(/Kept on\s*phone 9/)).toBeVisible();
  const offline = (await keptEvents(page)).map((k) => k.event);
  expect(new Set(offline.map((e) => e.life)).size).toBe(3);
  expect(offline.map((e) => e.at)).toEqual([...offline.map((e) => e.at)].sort((a, b) => a - b));

  await context.setOffline(false);
  await allSent(page, 9);
  const visitId = offline[0]?.visitId as string;
  const there = (await (await page.request.get(`/api/v1/visits/${visitId}/events`)).json()).events as typeof offline;
  const inOrder = there.sort((a, b) => a.seq - b.seq);
  expect(inOrder).toEqual(offline);

  // The own last visits are at hand without a network too.
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  await expect(page.getByRole('region', { name: 'Last visits' })).toContainText('Lipa Barn');
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('button', { name: /^Open: Lipa Barn/ }).tap();
  await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
});

test('the newest visits of the household open without a network, on whichever device they were recorded', async ({ page, context, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  const events = visitEvents(who, place, Date.UTC(2026, 0, 12, 9));
  await send(page.request, baseURL as string, asItems(events));
  await openStall(page);
  await expect.poll(async () => (await keptEvents(page)).length).toBe(events.length);
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('button', { name: /^Open: Lipa Barn/ }).tap();
  await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'The visit', exact: true })).toContainText(/Handshake\s*24\.\d s/);
});

test('a newer version that takes over waits for a sheet to be shut and for a visit to be left', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  // A page that a worker held from its beginning takes notice of another one.
  await page.reload();
  const hand = thumb(page);
  const mark = () => page.evaluate(() => Object.assign(window, { asItWas: true }));
  const asItWas = () => page.evaluate(() => 'asItWas' in window).catch(() => null);
  const takesOver = () => page.evaluate(() => void navigator.serviceWorker.dispatchEvent(new Event('controllerchange')));

  await page.getByRole('button', { name: 'Add a site' }).tap();
  await mark();
  await page.getByRole('dialog').getByLabel('Site', { exact: true }).fill('Brod Landing');
  await takesOver();
  await expect(page.getByRole('dialog').getByLabel('Site', { exact: true })).toHaveValue('Brod Landing');
  expect(await asItWas()).toBe(true);
  await page.keyboard.press('Escape');
  await expect.poll(asItWas).toBe(false);

  await pullIn(page);
  await mark();
  await takesOver();
  await hand.pad(/^More/);
  await expect(page.getByRole('dialog', { name: 'More' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await allSent(page, 2);
  expect(await asItWas()).toBe(true);
  await hand.pad(/^Undo\s*stall/);
  await hand.pad(/^Undo\s*pulled in/);
  await expect.poll(asItWas).toBe(false);
  await expect(page.getByRole('heading', { name: 'Where are you?' })).toBeVisible();
});
