import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { pulledIn } from '../hands/at-the-site';

import { addPlace, newHousehold, send } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

const line = async (page: Parameters<typeof keptEvents>[0]) => (await keptEvents(page)).map((k) => k.event);

test('the pads follow what happened: card first, card again, the same stall again, a stop whose how nobody noted', async ({ page, baseURL }) => {
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await hand.pad(/^Card shown/); // beside the yellow one, before the plug
  await hand.pad(/^Refused|^Plugged in/);
  await hand.pad(/^Fault/);
  await hand.sheet('Start error');
  await page.keyboard.press('Escape');
  await hand.pad(/^Card again/); // one touch
  await hand.pad(/^Fault/);
  await hand.sheet('Start error');
  await hand.sheet('Same stall again');
  await hand.pad(/^Card shown/); // it waits for plug or card
  await hand.pad(/^I see power/);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Fault/);
  // What can go wrong now is the stopping.
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Does not stop' })).toBeVisible();
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Start error' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await hand.pad(/^Unplugged/);
  await hand.pad(/^More/);
  await hand.sheet('Another stall …');
  await hand.sheet(/^Stall 2/);
  await expect(page.locator('[data-resting="false"]').getByRole('button').first()).toContainText('Plugged in');
  await hand.pad(/^More/);
  await hand.sheet('Pulled out …');
  // On to the next site is off until chosen.
  await expect(page.getByRole('dialog').getByRole('button', { name: 'On to the next site' })).toHaveAttribute('aria-pressed', 'false');
  await hand.sheet('The queue');
  await allSent(page, 12);
  const events = await line(page);
  expect(events.map((e) => e.kind)).toEqual([
    'pulled_in',
    'stall_chosen',
    'means_shown',
    'plugged',
    'fault',
    'means_shown',
    'fault',
    'first_act',
    'means_shown',
    'power_seen',
    'stop_asked',
    'unplugged',
    'stall_chosen',
    'pulled_out',
  ]);
  expect(events.find((e) => e.kind === 'first_act')?.payload).toEqual({ what: 'again' });
  expect(events.find((e) => e.kind === 'stop_asked')?.payload).toEqual({});
  expect(events.at(-1)?.payload).toEqual({ reason: 'queue' });
});

test('another connector of the stall is one touch, and power gone is timed at its first touch', async ({ page, baseURL }) => {
  const { place } = await pulledIn(page, baseURL as string);
  const outlets = (['CCS2', 'CHAdeMO'] as const).map((connector) => ({ connector, ratedKW: 50 }));
  const stall = { siteId: place.siteId, name: '1', outlets };
  await send(page.request, baseURL as string, [{ type: 'record', record: recordItem('stall', place.stalls[0] as string, stall, 1) }]);
  await openStall(page);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Fault/);
  await hand.sheet('Start error');
  await hand.sheet('CHAdeMO here');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.pad(/^More/);
  await hand.sheet('Power gone …');
  await expect(page.getByRole('dialog', { name: 'Power gone' })).toBeVisible();
  const opened = await page.evaluate(() => Date.now());
  await hand.sheet('A fault');
  const events = await line(page);
  expect(events.find((e) => e.kind === 'stall_chosen' && e.payload.connectorId)?.payload).toEqual({ stallId: place.stalls[0], connectorId: 'CHAdeMO' });
  const gone = events.find((e) => e.kind === 'power_gone');
  expect(gone?.payload).toEqual({ why: 'fault' });
  expect(gone?.at).toBeLessThanOrEqual(opened);
});

test('figures go where they were meant: no digit swallowed, no field skipped, a bill asked about', async ({ page, baseURL }) => {
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.pad(/^Add a reading/);
  const sheet = page.getByRole('dialog');
  for (const digit of ['8', '2']) await hand.sheet(digit);
  await hand.sheet('5');
  await expect(sheet.getByRole('alert')).toContainText('Battery is at most 100 %');
  await hand.sheet('Next'); // after a full field, the one after it
  await expect(sheet.getByRole('button', { name: /^Power/ })).toHaveAttribute('aria-pressed', 'true');
  for (const digit of ['6', '0']) await hand.sheet(digit);
  await hand.sheet('Save the reading');
  await hand.reading([null, null, '20']);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await hand.pad(/^Bill/);
  await hand.figures(['9', '2']);
  await hand.sheet('Save the bill');
  await expect(sheet.getByRole('alert')).toContainText('The stall showed 20 kWh. Does the bill say 2? Save again if so.');
  // The Back of the phone closes the sheet; nothing was recorded of it.
  await page.goBack();
  await expect(sheet).toHaveCount(0);
  await expect(page).toHaveURL(/\/stall/);
  await hand.pad(/^Bill/);
  await hand.figures(['9', '20']);
  await hand.sheet('Save the bill');
  await expect(sheet).toHaveCount(0);
  await allSent(page, 10);
  const events = await line(page);
  expect(events.filter((e) => e.kind === 'reading').map((e) => e.payload)).toEqual([
    { screen: 'stall', socPct: 82, kW: 60 },
    { screen: 'stall', kWh: '20' },
  ]);
  expect(events.filter((e) => e.kind === 'bill').map((e) => e.payload.kWh)).toEqual(['20']);
});

test('a running visit is where the application opens, and offers itself on the second phone; enrolments are ticked at the stall', async ({
  page,
  browser,
  baseURL,
}) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const steps = ['Switch it on in the app', 'Plug in and show nothing'].map((act) => ({ where: 'stall' as const, act, shows: 'Power flows', doneOn: null }));
  const enrolment = { kind: 'autocharge' as const, carId: place.carId, networkId: place.networkId, steps };
  await send(page.request, base, [{ type: 'record', record: recordItem('enrolment', v7(), enrolment) }]);
  await page.goto('/');
  await expect(page).toHaveURL(/\/ledger/); // nothing runs yet
  // The second phone stands before the choice of the site.
  const other = await browser.newContext({ baseURL: base, storageState: await page.context().storageState() });
  const second = await other.newPage();
  await openStall(second);
  await expect(second.getByRole('button', { name: /Hollin Bridge/ })).toBeVisible();

  await openStall(page);
  const hand = thumb(page);
  await page.getByRole('button', { name: '1 enrolment to finish' }).tap();
  const steps1 = page.getByRole('dialog').getByRole('region', { name: 'Autocharge at Copperbeech' });
  await steps1.getByRole('button', { name: 'Done today' }).first().tap();
  await expect(steps1.getByRole('button', { name: /^Done \d/ })).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /Hollin Bridge/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  await allSent(page, 2);
  await second.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await second.getByRole('button', { name: /^Join: Hollin Bridge/ }).click();
  await expect(second.getByText(/observing/)).toBeVisible();
  await other.close();

  await page.goto('/');
  await expect(page).toHaveURL(/\/stall/);
  await expect(page.getByRole('main', { name: 'The visit so far' })).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.context().setOffline(true);
  await page.goto('/');
  await expect(page.getByRole('main', { name: 'The visit so far' })).toBeVisible();
  await hand.pad(/^More/);
  await hand.sheet('Enrolment steps …');
  await expect(page.getByRole('dialog')).toContainText('Plug in and show nothing');
  await page.context().setOffline(false);
});
