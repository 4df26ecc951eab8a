import { expect, type Page, test } from '@playwright/test';
import { pulledIn } from '../hands/at-the-site';
import { allSent, keptEvents, reloadWhenKept, thumb } from '../hands/stall';

/** The phone's clock shifted by what the test says, over reloads too. */
async function clockOf(page: Page) {
  await page.addInitScript("{ const real = Date.now; Date.now = () => real() + Number(localStorage.getItem('test.shift') ?? 0); }");
  return { set: (ms: number) => page.evaluate(`localStorage.setItem('test.shift', '${ms}')`) };
}

test('the clock set back an hour in one page life: the page’s own clock is believed, and the page says so', async ({ page, baseURL }) => {
  const clock = await clockOf(page);
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await clock.set(-3_600_000);
  await hand.pad(/^I see power/);
  await expect(page.getByRole('button', { name: /^Power seen/ })).toContainText(/clock jumped -3\d{3} s/);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await allSent(page, 8);
  const events = (await keptEvents(page)).map((k) => k.event);
  const of = (kind: string) => events.find((e) => e.kind === kind) as (typeof events)[number];
  expect(of('power_seen').at).toBeLessThan(of('means_shown').at - 3_500_000);
  // By the page's clock, which nobody set.
  const handshake = (of('power_seen').mono - of('means_shown').mono) / 1000;
  await page.getByRole('link', { name: 'Open its page' }).tap();
  const fact = page.locator('dl > div').filter({ has: page.locator('dt', { hasText: /^Handshake$/ }) });
  await expect(fact).toContainText(`${(Math.round(handshake * 10) / 10).toFixed(1)} s`);
  await expect(page.getByText(/The phone’s clock jumped 3\d{3} s back/)).toBeVisible();
});

test('a clock that is two minutes ahead all the time is told on the page; the times stay the phone’s', async ({ page, baseURL }) => {
  const clock = await clockOf(page);
  await page.goto('/offline');
  await clock.set(120_000);
  await pulledIn(page, baseURL as string);
  await allSent(page, 2);
  const visitId = (await keptEvents(page))[0]?.event.visitId as string;
  await page.goto(`/ledger/${visitId}`);
  await expect(page.getByText(/The clock of the phone that sent this was (2:00|1:5\d) ahead of the server’s/)).toBeVisible();
});

test('the clock set back an hour between two page lives: the order is kept, what spans the gap is unknown', async ({ page, baseURL }) => {
  const clock = await clockOf(page);
  await pulledIn(page, baseURL as string);
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await clock.set(-3_600_000);
  await reloadWhenKept(page, 4);
  await hand.pad(/^I see power/);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await allSent(page, 8);
  await page.getByRole('link', { name: 'Open its page' }).tap();
  const fact = page.locator('dl > div').filter({ has: page.locator('dt', { hasText: /^Handshake$/ }) });
  await expect(fact).toContainText('the phone’s clock ran back in between');
  await expect(page.getByRole('region', { name: 'The record' }).getByRole('listitem')).toHaveText([
    /Pulled in/,
    /Stall 1 chosen/,
    /Plugged in/,
    /Card shown/,
    /Power seen/,
    /Pressed stop/,
    /Unplugged/,
    /Pulled out/,
  ]);
});
