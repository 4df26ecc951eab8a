import { expect, test } from '@playwright/test';
import { addPlace, newHousehold, type Place } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

let place: Place;
test.beforeEach(async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  place = await addPlace(page, baseURL as string, { network: 'Ferrywell', site: 'Logarnik East' });
  await openStall(page);
  await page.getByRole('button', { name: /Logarnik East/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
});

test('a visit with two failed attempts over two stalls', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^Fault/);
  await hand.sheet('Start error');
  await hand.sheet('Same stall again');
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^Fault/);
  await hand.sheet('Waits for the car, times out');
  await hand.sheet('Another stall');
  await hand.sheet(/^Stall 2/);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.at(page.getByRole('button', { name: 'Accepted' }));
  await hand.pad(/^I see power/);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Power gone/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  // The bill is for the attempt that got power, unless said otherwise.
  await hand.pad(/^Bill/);
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByRole('checkbox', { name: '3. Stall 2: power' })).toBeChecked();
  await expect(sheet.getByRole('checkbox', { name: /^1\. Stall 1: failed/ })).not.toBeChecked();
  await hand.figures(['9.60', '20.5']);
  await hand.sheet('Save the bill');
  await allSent(page, 19);
  const events = (await keptEvents(page)).map((k) => k.event);
  expect(events.at(-1)?.payload.sessions).toEqual([events.filter((e) => e.kind === 'plugged')[2]?.id]);
  const at = (kind: string, n = 0) => (events.filter((e) => e.kind === kind)[n] as { at: number }).at;
  const lost = (at('plugged', 2) - at('plugged', 0)) / 1000;

  await page.getByRole('link', { name: 'Open its page' }).tap();
  const fact = (name: string) => page.locator('dl > div').filter({ has: page.locator('dt', { hasText: new RegExp(`^${name}$`) }) });
  await expect(fact('Attempts')).toContainText('3');
  await expect(fact('Attempts')).toContainText('2 failed');
  const text = lost < 59.95 ? `${(Math.round(lost * 10) / 10).toFixed(1)} s` : `1:0`;
  await expect(fact('Lost to faults')).toContainText(text);
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(start error\)/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /2\. Stall 1: failed \(waits for the car, times out\)/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /3\. Stall 2: power/ })).toBeVisible();
  await page.goto('/compare');
  await expect(page.getByRole('row').filter({ hasText: 'Ferrywell' })).toContainText('0 of 1, 1 not');
  // It was the first attempt that charged, says the receipt.
  await page.goBack();
  const record = page.getByRole('region', { name: 'The record' });
  await expect(record).toContainText('9.60 EUR, 20.5 kWh, attempt 3');
  await page.getByRole('button', { name: /^Correct Bill/ }).tap();
  await page.getByRole('checkbox', { name: /^1\. Stall 1: failed/ }).check();
  await page.getByRole('checkbox', { name: '3. Stall 2: power' }).uncheck();
  await page.getByRole('button', { name: 'Keep the correction' }).tap();
  await expect(record).toContainText('for which attempts set to attempt 1 by Tone Zupan');
  await expect(page.getByRole('region', { name: 'The bill' })).toContainText('Was charged for 20.5 kWh, attempt 1');
  await page.goto('/compare');
  await expect(page.getByRole('row').filter({ hasText: 'Ferrywell' })).toContainText('1 of 1');
});

test('a refused card, another means, and leaving without a charge', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.at(page.getByRole('button', { name: 'Refused' }));
  await hand.pad(/^More/);
  await hand.sheet('Other means …');
  await hand.sheet('Started in app');
  await hand.pad(/^Says charging/);
  await hand.pad(/^Fault/);
  await hand.sheet('Says charging, no power');
  await hand.sheet('Leave');
  await hand.sheet('Gave up');
  await expect(page.getByRole('heading', { name: 'The visit is over' })).toBeVisible();
  await allSent(page, 9);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(refused\)/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /2\. Stall 1: failed \(says charging, no power\)/ })).toBeVisible();
});

test('it says charging and no power comes: a failed attempt, whose side and words are added afterwards', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^Says charging/);
  await expect(page.getByRole('timer')).toContainText('Handshake, running'); // a claim is no proof: the clock runs on
  await hand.pad(/^Fault/);
  const before = hand.taps;
  await hand.sheet('Says charging, no power');
  expect(hand.taps - before).toBe(1); // with the pad itself, two
  const sheet = page.getByRole('dialog');
  await hand.sheet('site');
  await sheet.getByLabel('What it said').fill('Charging 0.0 kW');
  await sheet.getByLabel('What it said').blur();
  await hand.sheet('Other means');
  await expect(page.getByRole('dialog', { name: 'Which means?' })).toBeVisible();
  await page.keyboard.press('Escape');
  await hand.pad(/^More/);
  await hand.sheet('Pulled out …');
  await hand.sheet('Gave up');
  await allSent(page, 9);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(says charging, no power\)/ })).toBeVisible();
  const record = page.getByRole('region', { name: 'The record' });
  await expect(record).toContainText('site’s side, Charging 0.0 kW');
  await expect(record).toContainText(/corrected: whose side it seems set to site by Tone Zupan/);
  await page.goto('/compare');
  await expect(page.getByRole('row').filter({ hasText: 'Ferrywell' })).toContainText('0 of 1, 1 not');
});

test('a danger shows its caution; undo takes the last event back, and a mark’s time can be set', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Fault/);
  await hand.sheet(/^Shock, smell/);
  const danger = page.getByRole('dialog');
  await expect(danger).toContainText('Do not unplug');
  await expect(danger.getByRole('link', { name: 'Call 112' })).toHaveAttribute('href', 'tel:112');
  await expect(danger).toContainText('or your local number');
  await expect(danger).toContainText('The operator’s number is not noted. Do not go back to the post for it');
  // Nobody is sent back to it.
  for (const name of ['Same stall again', 'Another stall', 'Take a photo']) await expect(danger.getByRole('button', { name })).toHaveCount(0);
  await danger.getByRole('button', { name: 'What to read aloud' }).tap();
  await expect(danger).toContainText('Do not go back to the post for it');
  await danger.getByRole('button', { name: 'Close' }).tap();
  await expect(page.locator('[data-resting="false"]').getByRole('button').first()).toContainText('Call for help');
  await hand.pad(/^Undo/);
  await expect(page.getByRole('button', { name: /^Shock, smell.*Correct$/ })).toHaveCount(0);
  await page.getByRole('button', { name: /^Plugged in, .*Correct$/ }).tap();
  await page.getByRole('dialog').getByRole('button', { name: '2 min earlier' }).tap();
  const keep = page.getByRole('dialog').getByRole('button', { name: 'Keep this time' });
  await keep.tap();
  // It was plugged in seconds after the arrival.
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('That is before the arrival at');
  await keep.tap();
  await allSent(page, 6);
  const events = (await keptEvents(page)).map((k) => k.event);
  const plug = events.find((e) => e.kind === 'plugged');
  expect(events.find((e) => e.kind === 'correction')?.payload).toEqual({ target: plug?.id, at: (plug?.at ?? 0) - 120_000 });
  expect(events.filter((e) => e.kind === 'fault')).toHaveLength(1); // taken back, not deleted
});

test('a stall that can hurt is doubtful in every answer until somebody clears it with a reason; a missing helpline is asked for', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Fault/);
  await hand.sheet(/^Shock, smell/);
  await page.getByRole('dialog').getByRole('button', { name: 'Left the site' }).tap();
  await page.getByRole('dialog').getByRole('button', { name: 'Felt unsafe' }).tap();
  await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
  await page.getByRole('button', { name: 'Note the number' }).tap();
  const asked = page.getByRole('dialog');
  await asked.getByRole('button', { name: 'Keep the number' }).tap();
  await expect(asked).toContainText('The number, as on the post or in the app');
  await asked.getByLabel('Number on the post or in the app').fill('+386 1 555 01 01');
  await asked.getByRole('button', { name: 'Keep the number' }).tap();
  await expect(page.getByRole('button', { name: 'Note the number' })).toHaveCount(0);
  await allSent(page, 4);
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  // The phone that reported it knows at once, without a network.
  await page
    .getByRole('region', { name: 'Sites' })
    .getByRole('button', { name: /Logarnik East/ })
    .tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await expect(page.getByText(/; danger reported on \d+ \w{3}/)).toBeVisible();
  await expect(page.getByRole('radio', { name: /^Stall 2.*most kW by the plates/ })).toBeVisible();
  await page.context().setOffline(false);
  const { siteId } = place;
  await page.goto(`/places/${siteId}`);
  await expect(page.getByRole('cell', { name: /^danger reported on/ })).toBeVisible();
  await page.goto(`/places/${siteId}/stalls/${place.stalls[0]}`);
  await page.getByRole('button', { name: 'Clear it' }).tap();
  await expect(page.getByText('Say why it can be used again')).toBeVisible();
  await page.getByLabel('Why it can be used again').fill('new cable, the operator wrote on Monday');
  await page.getByRole('button', { name: 'Clear it' }).tap();
  await expect(page.getByText(/^Doubtful: danger reported/)).toHaveCount(0);
  await page.goto(`/places/${siteId}`);
  await expect(page.getByRole('cell', { name: /^danger reported on/ })).toHaveCount(0);
});

test('undone to its beginning, a visit is withdrawn and the site can be chosen anew', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Undo/);
  await hand.pad(/^Undo/);
  await expect(page.getByRole('heading', { name: 'Where are you?' })).toBeVisible();
  await allSent(page, 4);
  await page.goto('/ledger');
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
});

test('a wet double touch records once, however late a slow phone hands on its second half', async ({ page, context }) => {
  const pads = page.locator('[data-resting="false"]');
  const plug = pads.getByRole('button', { name: /^Plugged in/ });
  const box = await plug.boundingBox();
  if (!box) throw new Error('no pad');
  const touchPoints = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }];
  const cdp = await context.newCDPSession(page);
  const touch = async (timestamp: number) => {
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints, timestamp });
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [], timestamp: timestamp + 0.04 });
  };
  const first = Date.now() / 1000;
  await touch(first);
  await expect(page.getByRole('button', { name: /^Plugged in, .*Correct$/ })).toHaveCount(1);
  await touch(first + 0.15);
  // Once more when the rest is over: the finger of that touch went down 150 ms after the first.
  await pads.waitFor();
  await touch(first + 0.15);
  await thumb(page).pad(/^Fault/);
  await thumb(page).sheet(/^Start error/);
  await expect.poll(async () => (await keptEvents(page)).map((k) => k.event.kind)).toEqual(['pulled_in', 'stall_chosen', 'plugged', 'fault']);
});

test('on a slow phone what is pressed before the fault is kept counts: whose side it seems, and the same stall again', async ({ page }) => {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^Fault/);
  // From here on a store takes half a second to say that it has kept something.
  await page.evaluate(() => {
    const asIs = EventTarget.prototype.addEventListener;
    IDBTransaction.prototype.addEventListener = function (
      this: IDBTransaction,
      type: string,
      listener: EventListenerOrEventListenerObject | null,
      options?: AddEventListenerOptions | boolean,
    ) {
      const late = (e: Event) => setTimeout(() => (listener as EventListener).call(this, e), 500);
      asIs.call(this, type, type === 'complete' && typeof listener === 'function' ? late : listener, options);
    } as typeof asIs;
  });
  await hand.sheet('Start error');
  await hand.sheet('site');
  await hand.sheet('Same stall again');
  await hand.pad(/^Card shown/);
  await allSent(page, 8);
  const events = (await keptEvents(page)).map((k) => k.event);
  expect(events.map((e) => e.kind).sort()).toEqual(
    ['pulled_in', 'stall_chosen', 'plugged', 'means_shown', 'fault', 'correction', 'first_act', 'means_shown'].sort(),
  );
  const fault = events.find((e) => e.kind === 'fault');
  expect(events.find((e) => e.kind === 'correction')?.payload).toEqual({ target: fault?.id, set: { side: 'site' } });
});
