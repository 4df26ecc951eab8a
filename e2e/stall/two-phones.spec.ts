import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { pulledIn, pullIn } from '../hands/at-the-site';
import { addPlace, asItems, newHousehold, own, send } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

test('two pages on one visit share its events and never a place in the order', async ({ page, context, baseURL }) => {
  await pulledIn(page, baseURL as string);
  const other = await context.newPage();
  await other.goto('/stall');
  await expect(other.getByRole('button', { name: /^Stall 1 chosen/ })).toBeVisible();
  await Promise.all([thumb(page).pad(/^Plugged in/), thumb(other).pad(/^Says charging/)]);
  await expect(page.getByRole('button', { name: /^Plugged in, .*Correct$/ })).toBeVisible();
  await expect(other.getByRole('button', { name: /^Says charging, .*Correct$/ })).toBeVisible();
  await expect.poll(async () => (await keptEvents(page)).map((k) => k.event.seq)).toEqual([1, 2, 3, 4]);
  // The first page looks again by itself.
  await expect(page.getByRole('button', { name: /^Says charging, .*Correct$/ })).toBeVisible();
  await allSent(page, 4);
});

test('a second phone joins the open visit: what it sees stands beside the recorder’s, and says whose it is', async ({ page, browser, baseURL }, info) => {
  const { who } = await pulledIn(page, baseURL as string);
  await allSent(page, 2);
  const context = await browser.newContext({ ...info.project.use, baseURL: baseURL as string });
  const second = await context.newPage();
  await second.request.post('/api/v1/session', { headers: own(baseURL as string), data: { email: who.email, password: who.password } });
  await openStall(second);
  await second.getByRole('button', { name: /^Join: Lipa Barn/ }).tap();
  await expect(second.getByText(/^observing, Bluebarn/)).toBeVisible();
  await expect(second.getByText('nothing', { exact: true })).toBeVisible(); // what the other phone recorded is not this one's to undo
  await thumb(page).pad(/^Plugged in/);
  await thumb(second).pad(/^Plugged in/);
  await allSent(page, 3);
  const mine = (await keptEvents(second)).find((k) => k.event.kind === 'plugged' && k.event.role === 'observer');
  expect(mine).toBeDefined();
  await expect.poll(async () => (await keptEvents(second)).filter((k) => k.state !== 'sent').length).toBe(0);
  const visitId = mine?.event.visitId as string;
  await page.goto(`/ledger/${visitId}`);
  const record = page.getByRole('region', { name: 'The record' });
  await expect(record.getByRole('listitem')).toHaveText([/Pulled in/, /Stall 1 chosen/, /Plugged in.*also seen by Tone Zupan, \d+\.\d s apart/]);
  await context.close();
});

/** Waits until the phone’s event of this kind is sent. */
const sent = (page: Page, kind: string) =>
  expect.poll(async () => (await keptEvents(page)).some((k) => k.event.kind === kind && k.state === 'sent')).toBe(true);

test('two phones that recorded one visit apart are joined later, once and for all', async ({ page, browser, baseURL }, info) => {
  const who = await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  const context = await browser.newContext({ ...info.project.use, baseURL: baseURL as string });
  const second = await context.newPage();
  await second.request.post('/api/v1/session', { headers: own(baseURL as string), data: { email: who.email, password: who.password } });
  await openStall(second);
  // Arrivals that lie further apart than a late look speak of clocks that differ.
  await Promise.all([pullIn(page), pullIn(second)]);
  await thumb(page).pad(/^Plugged in/);
  await thumb(second).pad(/^Plugged in/);
  await thumb(second).pad(/^Card shown/);
  await allSent(page, 3);
  await sent(second, 'means_shown');
  const one = (await keptEvents(page))[0]?.event.visitId as string;
  const two = (await keptEvents(second)).find((k) => k.event.visitId !== one)?.event.visitId as string;
  expect(two).toBeDefined();
  await page.goto(`/ledger/${one}`);
  const other = page.getByRole('dialog').getByRole('button', { name: /Lipa Barn/ });
  // A touch before the page's program runs opens nothing; on a slow machine it is touched again.
  await expect(async () => {
    await page.getByRole('button', { name: 'Join a recording' }).tap({ timeout: 2000 });
    await expect(other).toBeVisible({ timeout: 3000 });
  }).toPass();
  await other.tap();
  await expect(page.getByText('Part of this visit was recorded apart and joined later')).toBeVisible();
  const record = page.getByRole('region', { name: 'The record' });
  await expect(record.getByRole('listitem')).toHaveText([/Pulled in.*also seen by/, /Stall 1 chosen.*also seen by/, /Plugged in.*also seen by/, /Card shown/]);
  const again = await page.request.post('/api/v1/visits/join', { headers: own(baseURL as string), data: { into: one, from: two } });
  expect(await again.json()).toEqual({ copied: 0 });
  await page.goto('/ledger');
  await expect(page.locator('[data-ledger-row]')).toHaveCount(1);
  // The second phone is told, and what it still records follows into the one visit.
  const joined = second.getByRole('alert', { name: 'This visit is withdrawn' });
  await expect(joined).toContainText('joined into another', { timeout: 30_000 });
  await thumb(second).pad(/^I see power/);
  await sent(second, 'power_seen');
  await page.goto(`/ledger/${one}`);
  await expect(record.getByRole('listitem')).toHaveText([/Pulled in/, /Stall 1 chosen/, /Plugged in/, /Card shown/, /Power seen/]);
  await joined.getByRole('button', { name: 'Go on there' }).tap();
  await expect(joined).toHaveCount(0);
  await expect(second.getByRole('button', { name: /^Power seen/ })).toBeVisible();
  await expect.poll(async () => second.evaluate(() => document.body.textContent)).toContain('observing');
  // Restored, the other recording is parted from this one; joined again, it is whole again.
  await page.goto(`/ledger/${two}`);
  await expect(page.getByRole('link', { name: 'another recording of the same visit' })).toBeVisible();
  await page.getByRole('button', { name: 'Restore the visit' }).tap();
  await expect(page.getByText('This visit is withdrawn')).toHaveCount(0);
  await page.goto(`/ledger/${one}`);
  await expect(record.getByRole('listitem')).toHaveText([/Pulled in/, /Stall 1 chosen/, /Plugged in/]);
  await expect(page.getByText('recorded apart and joined later')).toHaveCount(0);
  const anew = await page.request.post('/api/v1/visits/join', { headers: own(baseURL as string), data: { into: one, from: two } });
  expect(await anew.json()).toEqual({ copied: 0 });
  await page.reload();
  await expect(record.getByRole('listitem')).toHaveCount(5);
  // Nobody joins what is not his, nor a visit with itself.
  for (const from of [one, '018e983e-3f00-7000-8000-000000000000']) {
    const answer = await page.request.post('/api/v1/visits/join', { headers: own(baseURL as string), data: { into: one, from } });
    expect(answer.status()).toBe(422);
  }
  await context.close();
});

test('a phone that looks on takes over from one that fell silent, and ends the visit', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  // Another phone pulled in, plugged in and died, twelve minutes ago.
  const [visitId, deviceId, life] = [v7(), v7(), v7()];
  const begun = Date.now() - 12 * 60_000;
  const acts = [
    ['pulled_in', { siteId: place.siteId, carId: place.carId }],
    ['stall_chosen', { stallId: place.stalls[0] }],
    ['plugged', {}],
  ] as const;
  const events = acts.map(([kind, payload], i) => ({
    ...{ id: v7(), householdId: who.householdId, personId: who.personId, visitId, kind, v: 1, at: begun + i * 5000, precision: 'ms' },
    ...{ zone: 'Europe/Ljubljana', deviceId, life, mono: 1000 + i * 5000, awake: true, seq: i + 1, origin: 'tap', role: 'recorder', payload },
  }));
  await send(page.request, baseURL as string, asItems(events as StoredEvent[]));
  await openStall(page);
  await page.getByRole('button', { name: /^Join: Lipa Barn/ }).tap();
  await expect(page.getByText(/^observing, Bluebarn/)).toBeVisible();
  await page.getByRole('button', { name: 'This phone records now' }).tap();
  await expect(page.getByText(/^observing/)).toHaveCount(0);
  const hand = thumb(page);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
  await expect.poll(async () => (await keptEvents(page)).filter((k) => k.state !== 'sent').length).toBe(0);
  await page.goto(`/ledger/${visitId}`);
  const record = page.getByRole('region', { name: 'The record' });
  await expect(record.getByRole('listitem')).toHaveText([
    /Pulled in/,
    /Stall 1 chosen/,
    /Plugged in/,
    /Card shown/,
    /Power seen/,
    /Pressed stop/,
    /Unplugged/,
    /Pulled out/,
  ]);
  await expect(page.getByText('1. Stall 1: power')).toBeVisible();
});
