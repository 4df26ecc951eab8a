import { expect, test } from '@playwright/test';
import { addPlace, newHousehold } from '../hands/household';
import { ownServer } from '../hands/own-server';
import { allSent, keptEvents, openStall, reloadWhenKept, thumb } from '../hands/stall';

test('reloads and a killed server in mid-visit: nothing lost, nothing doubled', async ({ browser }, info) => {
  const server = await ownServer();
  const context = await browser.newContext({ ...info.project.use, baseURL: server.url });
  const page = await context.newPage();
  try {
    await newHousehold(page, server.url);
    await addPlace(page, server.url, { network: 'Bluebarn', site: 'Lipa Barn' });
    await openStall(page);
    await page.getByRole('button', { name: /Lipa Barn/ }).tap();
    await page.getByRole('radio', { name: /^Stall 1/ }).tap();
    await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
    const hand = thumb(page);
    await hand.pad(/^Plugged in/);
    await allSent(page, 3);

    await server.kill();
    await hand.pad(/^Card shown/);
    await expect(page.getByText(/Kept on\s*phone 1/)).toBeVisible();
    // The shell comes from the service worker, the visit from the phone.
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Lipa Barn' })).toBeVisible();
    await hand.pad(/^I see power/);
    await reloadWhenKept(page, 5);
    await hand.reading(['44', '98', '3.1']);
    await expect(page.getByText(/Kept on\s*phone 3/)).toBeVisible();
    const before = (await keptEvents(page)).map((k) => k.event);

    await server.start();
    await page.reload();
    await allSent(page, 6);
    await hand.pad(/^I pressed stop/);
    await hand.pad(/^Unplugged/);
    await hand.pad(/^Pulled out/);
    await allSent(page, 9);

    const after = await keptEvents(page);
    expect(after.map((k) => k.state)).toEqual(after.map(() => 'sent'));
    expect(after.map((k) => k.event).slice(0, before.length)).toEqual(before);
    expect(after.map((k) => k.event.seq)).toEqual(after.map((_, i) => i + 1));
    // Sent again, every event is there already: once in effect.
    const again = await page.request.post('/api/v1/outbox', {
      headers: { origin: server.url },
      data: { items: after.map((k) => ({ type: 'event', event: k.event })) },
    });
    expect((await again.json()).results.map((r: { status: string }) => r.status)).toEqual(after.map(() => 'already'));

    await page.getByRole('link', { name: 'Open its page' }).tap();
    const recorded = page.getByRole('region', { name: 'The record' }).getByRole('listitem');
    await expect(recorded).toHaveCount(after.length);
    await expect(recorded).toHaveText([
      /Pulled in/,
      /Stall 1 chosen/,
      /Plugged in/,
      /Card shown/,
      /Power seen/,
      /Reading/,
      /Pressed stop/,
      /Unplugged/,
      /Pulled out/,
    ]);
  } finally {
    await server.kill();
    await context.close();
  }
});

test('with no network at all the Stall opens, records, and adds a site', async ({ page, context, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await openStall(page);
  await expect(page.getByRole('heading', { name: 'No sites yet' })).toBeVisible();
  await context.setOffline(true);
  await page.goto('/stall');
  await page.getByRole('button', { name: 'Add a site' }).tap();
  const form = page.getByRole('dialog');
  await form.getByLabel('Site').fill('Mill of Zdravec');
  await form.getByLabel('Network').fill('Bluebarn');
  await form.getByLabel('Stall number or name').fill('1');
  await form.getByLabel('Rated kW on the plate').fill('50');
  await form.getByRole('button', { name: 'Add and choose' }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await thumb(page).pad(/^Plugged in/);
  await expect(page.getByText(/Kept on\s*phone 6/)).toBeVisible();
  await page.goto('/ledger');
  await expect(page.getByRole('heading', { name: 'No network' })).toBeVisible();
  await context.setOffline(false);
  await page.goto('/stall');
  await allSent(page, 3);
  await page.goto('/ledger');
  await expect(page.locator('[data-ledger-row]')).toContainText('Mill of Zdravec');
});

test('an event that the server refuses stays on the phone, is flagged, and can be taken back', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  await page.getByRole('button', { name: /Lipa Barn/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await allSent(page);
  // A phone whose clock runs four days ahead.
  await page.evaluate(() => {
    const who = JSON.parse(localStorage.getItem('mile.who') as string);
    localStorage.setItem('mile.who', JSON.stringify({ ...who, clockOffsetMs: 4 * 86_400_000 }));
  });
  const hand = thumb(page);
  await hand.pad(/^More/);
  await hand.sheet('Queue joined');
  await expect(page.getByText('1 refused')).toBeVisible();
  await page.getByRole('button', { name: /^Queue joined, .*Correct$/ }).tap();
  await expect(page.getByRole('dialog')).toContainText('is more than 48 hours in the future');
  await page.keyboard.press('Escape');
  // Every refused one is listed, of whichever visit, and can be sent again.
  await page.getByRole('button', { name: '1 refused' }).tap();
  const sheet = page.getByRole('dialog', { name: 'Refused by the server' });
  await expect(sheet).toContainText('Queue joined');
  await expect(sheet).toContainText('at: is more than 48 hours in the future');
  await sheet.getByRole('button', { name: 'Send them again' }).tap();
  await expect(sheet).toHaveCount(0);
  await expect(page.getByRole('button', { name: '1 refused' })).toBeVisible();
  // Mended by hand: the right day, and it arrives under its own id.
  await page.getByRole('button', { name: '1 refused' }).tap();
  await sheet.getByRole('button', { name: 'Mend Queue joined' }).tap();
  const mend = page.getByRole('dialog', { name: 'Mend: Queue joined' });
  await expect(mend).toContainText('at: is more than 48 hours in the future');
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  await mend.getByLabel(/^Or type it/).fill(`${yesterday}T12:00:00`);
  await mend.getByRole('button', { name: 'Send it mended' }).tap();
  await allSent(page, 2);
  const joined = (await keptEvents(page)).find((k) => k.event.kind === 'queue_joined');
  expect([joined?.state, joined?.event.origin, joined?.event.precision]).toEqual(['sent', 'typed', 's']);
});
