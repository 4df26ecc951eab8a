import { expect, type Page, test } from '@playwright/test';
import { pullIn } from '../hands/at-the-site';
import { addPlace, newHousehold } from '../hands/household';
import { keptEvents, thumb } from '../hands/stall';

// A browser that refuses service workers, as some do in private windows.
test.use({ serviceWorkers: 'block' });
/** Pulled in, and everything that the page fetches by itself fetched. */
async function pulledIn(page: Page, baseURL: string): Promise<void> {
  await newHousehold(page, baseURL);
  await addPlace(page, baseURL, { network: 'Bluebarn', site: 'Lipa Barn' });
  await page.goto('/stall');
  await pullIn(page);
  await page.waitForLoadState('networkidle');
  // It fetches one part after another while nothing else is to be done: until no more of them comes.
  let before = -1;
  await expect
    .poll(
      async () => {
        const parts = await page.evaluate(() => performance.getEntriesByType('resource').filter((r) => r.name.endsWith('.js')).length);
        const same = parts === before;
        before = parts;
        return same;
      },
      { intervals: [2000] },
    )
    .toBe(true);
}

test('without a service worker every part of the open Stall works when the network goes', async ({ page, context, baseURL }) => {
  await pulledIn(page, baseURL as string);
  await context.setOffline(true);
  const hand = thumb(page);
  const dialog = page.getByRole('dialog');
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await expect(page.getByRole('region', { name: 'Charging' })).toBeVisible();
  for (const label of ['Helpline …', 'Note …', 'Bill …', 'Rating …', 'Power gone …']) {
    await hand.pad(/^More/);
    await hand.sheet(label);
    await expect(dialog.getByRole('heading', { name: 'More', exact: true })).toHaveCount(0);
    await expect(dialog).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await expect(page.getByRole('heading', { name: /^The visit is over/ })).toBeVisible();
  expect(await keptEvents(page)).toHaveLength(8);
});

test('a part that cannot be fetched says so, the visit around it goes on, and it comes when asked again', async ({ page, baseURL }) => {
  let away = false;
  await page.route(/\/_next\/static\/.*\.js/, (r) => (away ? r.abort() : r.continue()));
  // Nothing is fetched ahead: the page is never idle.
  await page.addInitScript('window.requestIdleCallback = () => 0');
  await pulledIn(page, baseURL as string);
  away = true;
  const hand = thumb(page);
  const dialog = page.getByRole('dialog');
  const another = async () => {
    await hand.pad(/^More/);
    await hand.sheet('Another stall …');
  };
  await another();
  const trouble = page.getByRole('alert').filter({ hasText: 'not on this device yet' });
  await expect(trouble).toBeVisible();
  await trouble.getByRole('button', { name: 'Close' }).tap();
  await expect(trouble).toHaveCount(0);
  await hand.pad(/^Plugged in/);
  await expect(page.getByRole('button', { name: /^Plugged in, .*Correct$/ })).toBeVisible();
  await another();
  await expect(trouble).toBeVisible();
  away = false;
  await trouble.getByRole('button', { name: 'Try again' }).tap();
  await expect(dialog.getByRole('heading', { name: /^Which stall/ })).toBeVisible();
});

test('where the Stall’s own script cannot be fetched its page says so, and opens when asked again', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  const opens = page.getByRole('heading', { name: 'Where are you?' });
  // The script that begins, and one that comes with it.
  for (const kept of ['script[type=module]', 'link[rel=modulepreload]']) {
    await page.goto('/stall');
    await expect(opens).toBeVisible();
    const file = await page
      .locator(kept)
      .first()
      .evaluate((e) => new URL(e instanceof HTMLScriptElement ? e.src : (e as HTMLLinkElement).href).pathname);
    await page.route(`**${file}`, (r) => r.abort());
    await page.reload();
    const trouble = page.getByRole('alert').filter({ hasText: 'could not be fetched' });
    await expect(trouble).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0);
    await page.unroute(`**${file}`);
    await trouble.getByRole('link', { name: 'Try again' }).tap();
    await expect(opens).toBeVisible();
    await expect(trouble).toHaveCount(0);
  }
});
