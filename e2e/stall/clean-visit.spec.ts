import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { allSent, keptEvents, openStall, thumb } from '../hands/stall';

test('a first account, a clean visit recorded by touch, its page and its row in Compare', async ({ page }) => {
  await page.goto('/sign-up');
  await page.getByLabel('Your name').fill('Tone Zupan');
  await page.getByLabel('Household').fill('Zupan');
  await page.getByLabel('E-mail address').fill(`tone-${v7()}@example.invalid`);
  await page.getByLabel('Password').fill('a long enough one');
  await page.getByRole('button', { name: 'Make the account' }).tap();
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();

  await openStall(page);
  await page.getByRole('button', { name: 'Add a site' }).tap();
  const form = page.getByRole('dialog');
  await form.getByRole('button', { name: 'Add and choose' }).tap();
  await expect(form.getByText('Name the site')).toBeVisible();
  await expect(form.getByText('A number of kW')).toBeVisible();
  await form.getByLabel('Site').fill('Vrba Crossing');
  await form.getByLabel('Network').fill('Saltmarsh Rapid');
  await form.getByLabel('Stall number or name').fill('4');
  await form.getByLabel('Rated kW on the plate').fill('150');
  await form.getByLabel('Price, EUR per kWh').fill('0.55');
  await form.getByRole('button', { name: 'Add and choose' }).tap();
  await expect(page.getByRole('radio', { name: /^Stall 4/ })).toHaveAttribute('aria-checked', 'true');

  const hand = thumb(page);
  await hand.at(page.getByRole('button', { name: /^Pulled in/, disabled: false }));
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await expect(page.getByRole('timer')).toContainText(/Handshake, running.*0:0\d\.\d/);
  await hand.pad(/^I see power/);
  const readings: [string, string, string][] = [
    ['20', '118', '0.4'],
    ['48', '112', '18.2'],
    ['80', '62', '40.1'],
  ];
  for (const figures of readings) await hand.reading(figures);
  await expect(page.getByText('€22.06')).toBeVisible(); // 40.1 × 0.55 = 22.055, half up
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await hand.pad(/^Bill/);
  await hand.figures(['22.06']);
  await page.getByRole('dialog').getByRole('button', { name: 'Save the bill' }).tap();
  // Eight taps besides the figures: pulled in, plugged, card, power, stop, unplugged, pulled out, bill.
  expect(hand.taps).toBe(8);
  await allSent(page, 12);

  // The handshake worked out apart: from the later of plug and card to power, by the events' own times.
  const events = (await keptEvents(page)).map((k) => k.event);
  const at = (kind: string) => (events.find((e) => e.kind === kind) as { at: number }).at;
  const handshake = (at('power_seen') - Math.max(at('plugged'), at('means_shown'))) / 1000;
  const charging = (at('stop_asked') - at('power_seen')) / 1000;

  await page.getByRole('link', { name: 'Open its page' }).tap();
  await expect(page.getByRole('heading', { name: 'Vrba Crossing', level: 1 })).toBeVisible();
  const fact = (name: string) => page.locator('dl > div').filter({ has: page.locator('dt', { hasText: new RegExp(`^${name}$`) }) });
  await expect(fact('Handshake')).toContainText(`${(Math.round(handshake * 10) / 10).toFixed(1)} s`);
  await expect(fact('Average power')).toContainText(`${Math.round((40.1 * 3600) / charging)} kW`);
  await expect(fact('Delivered')).toContainText('40.1 kWh');
  await expect(fact('Delivered')).toContainText('20 to 80 %');
  await expect(fact('Paid')).toContainText('€22.06');
  await expect(fact('Paid')).toContainText('€0.550 per kWh with fees');

  await page.getByRole('link', { name: 'Compare' }).tap();
  const row = page.getByRole('row').filter({ hasText: 'Saltmarsh Rapid' });
  await expect(row).toContainText('100 %');
  await expect(row).toContainText('1 of 1');
  await expect(row).toContainText('€0.550');
  await row.getByRole('link', { name: '1 visit, 1 site' }).tap();
  await expect(page.locator('[data-ledger-row]')).toHaveCount(1);
});

test('a known site and stall take at most three taps', async ({ page, baseURL }) => {
  const { newHousehold, addPlace } = await import('../hands/household');
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  await openStall(page);
  const hand = thumb(page);
  await hand.at(page.getByRole('button', { name: /Hollin Bridge/ }));
  await hand.at(page.getByRole('radio', { name: /^Stall 2/ }));
  expect(hand.taps).toBeLessThanOrEqual(3);
  await hand.at(page.getByRole('button', { name: /^Pulled in/, disabled: false }));
  await expect(page.getByRole('heading', { name: 'Hollin Bridge' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Stall 2 chosen/ })).toBeVisible();
});
