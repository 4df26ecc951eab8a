import { expect, type Page, test } from '@playwright/test';
import { newHousehold } from '../hands/household';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

test.use({ geolocation: { latitude: 46.051234567, longitude: 14.506 }, permissions: ['geolocation'] });

/** A new phone that charges at a place without a name. */
async function charging(page: Page, baseURL: string): Promise<ReturnType<typeof thumb>> {
  await newHousehold(page, baseURL);
  await openStall(page);
  const hand = thumb(page);
  await hand.at(page.getByRole('button', { name: /^Pulled in/, disabled: false }));
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  return hand;
}

test('pulling in somewhere new is one touch without a field; all works, and it is named when there is time', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await openStall(page);
  await expect(page.getByText('No sites yet')).toBeVisible();
  await page.evaluate(() => new Promise((done) => navigator.geolocation.getCurrentPosition(done, done)));
  const hand = thumb(page);
  await hand.at(page.getByRole('button', { name: /^Pulled in/, disabled: false }));
  expect(hand.taps).toBe(1);
  await expect(page.getByRole('heading', { name: 'Somewhere new' })).toBeVisible();
  // A dead stall counts here too.
  await hand.pad(/^Fault/);
  await hand.sheet('Stall dark or out of order');
  await page.keyboard.press('Escape');
  await page.context().setOffline(true);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.reading(['20', '118', '0.4']);
  // While it charges, without a network.
  await hand.at(page.getByRole('alert', { name: 'The place' }).getByRole('button', { name: 'Name it' }));
  const form = page.getByRole('dialog');
  await expect(form.getByRole('button', { name: 'Close' })).toBeFocused();
  await form.getByLabel('Site').fill('Drava Osier');
  await form.getByLabel('Network').fill('Otterbrook');
  await form.getByLabel('Stall number or name').fill('7');
  await form.getByLabel('Rated kW on the plate').fill('150');
  await form.getByLabel('Price, EUR per kWh').fill('0.50');
  await form.getByRole('button', { name: 'Add and choose' }).tap();
  await expect(page.getByRole('heading', { name: 'Drava Osier' })).toBeVisible();
  await expect(page.getByRole('alert', { name: 'The place' })).toHaveCount(0);
  await expect(page.getByText('By tariff about €0.20 so far.')).toBeVisible();
  await page.context().setOffline(false);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await allSent(page, 12);
  const events = (await keptEvents(page)).map((k) => k.event);
  const arrival = events.find((e) => e.kind === 'pulled_in');
  expect(arrival?.payload.siteId).toBeUndefined();
  expect(arrival?.payload.position).toEqual({ latitude: 46.05123, longitude: 14.506 });
  await page.goto(`/ledger/${arrival?.visitId}`);
  await expect(page.getByRole('heading', { name: /Drava Osier/ }).first()).toBeVisible();
  // Both attempts are at the stall that was named after them.
  await page.goto('/compare');
  await expect(page.getByRole('row').filter({ hasText: 'Otterbrook' })).toContainText('0 of 1');
});

test('left without a name it stands in the ledger and in no comparison, and is named from the visit that is over', async ({ page, baseURL }) => {
  const hand = await charging(page, baseURL as string);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await allSent(page, 7);
  const other = await page.context().newPage();
  await other.goto('/ledger');
  await expect(other.getByText('Somewhere new').first()).toBeVisible();
  await other.goto('/compare');
  await expect(other.getByRole('row').filter({ hasText: 'Somewhere new' })).toHaveCount(0);
  await other.close();
  await page.getByRole('region', { name: 'The visit' }).getByRole('button', { name: 'Name it' }).tap();
  await expect(page.getByRole('dialog').getByLabel('Site')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('abroad the money is said once: what is typed after it on this visit is in it, too, and no tariff of another is held against it', async ({
  page,
  baseURL,
}) => {
  const hand = await charging(page, baseURL as string);
  const currency = page.getByRole('dialog').getByLabel('Currency');
  await hand.pad(/^Add a reading/);
  await expect(currency).toHaveValue('EUR');
  await currency.selectOption('SEK');
  await hand.figures([null, '50', null, '112345.67']);
  // The car's screen shows no money.
  await hand.sheet('Car’s screen');
  await expect(currency).toHaveCount(0);
  await hand.sheet('Stall’s screen');
  await expect(currency).toHaveValue('SEK');
  await hand.sheet('Save the reading');
  await hand.pad(/^Add a reading/);
  await expect(currency).toHaveValue('SEK');
  await page.keyboard.press('Escape');
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await hand.pad(/^Bill/);
  await expect(currency).toHaveValue('SEK');
  await hand.figures(['230']);
  await hand.sheet('Save the bill');
  await allSent(page, 9);
  const events = (await keptEvents(page)).map((k) => k.event);
  expect(events.flatMap((e) => ('currency' in e.payload ? [[e.kind, e.payload.currency]] : []))).toEqual([
    ['reading', 'SEK'],
    ['bill', 'SEK'],
  ]);
  await page.goto(`/ledger/${events[0]?.visitId}`);
  await expect(page.getByText('SEK 230.00').filter({ visible: true }).first()).toBeVisible();
});
