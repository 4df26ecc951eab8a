import { expect, test } from '@playwright/test';
import { addRoad, look, tell, untilPower } from '../hands/charging-now';
import { newHousehold } from '../hands/household';
import { thumb } from '../hands/stall';

// What the phone asks for is held up on its way: by a worker of the service it would not be.
test.use({ serviceWorkers: 'block' });

test('a new phone on a slow network: it fetches the places, could not, has them; a visit joined slowly takes nobody away who pulled in meanwhile', async ({
  page,
  baseURL,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const theirs = await tell(page, base, who, Date.now() - 500_000, [...untilPower(road), look(62, 20, 119, '0.1'), look(436, 40, 119, '12.4')]);
  let release: (how: 'cut' | 'answer') => void = () => {};
  const held = () => new Promise<'cut' | 'answer'>((resolve) => (release = resolve));
  await page.route('**/api/v1/changes*', async (route) => ((await held()) === 'cut' ? route.abort() : route.continue()));
  await page.goto('/stall');
  const add = page.getByRole('button', { name: 'Add a site' });
  await expect(page.getByRole('heading', { name: 'Fetching your places …' })).toBeVisible();
  // Nobody is led to note once more what is only on its way.
  await expect(add).not.toHaveClass(/plate-next/);
  release('cut');
  await expect(page.getByRole('heading', { name: 'Your places are not on this phone yet' })).toBeVisible();
  await page.unroute('**/api/v1/changes*');
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await expect(page.getByRole('button', { name: /^Vrba Crossing/ }).first()).toBeVisible();

  // Its events are not here: they are fetched when it is joined.
  await page.evaluate(
    (of) =>
      new Promise<void>((done, fail) => {
        const open = indexedDB.open(of);
        open.onerror = () => fail(open.error);
        open.onsuccess = () => {
          const clear = open.result.transaction('event', 'readwrite');
          clear.objectStore('event').clear();
          clear.oncomplete = () => {
            open.result.close();
            done();
          };
        };
      }),
    (await page.evaluate(async () => (await indexedDB.databases()).map((d) => d.name ?? ''))).find((n) => n.includes(who.householdId)) as string,
  );
  await page.route(`**/api/v1/visits/${theirs}/events*`, async (route) => {
    await held();
    await route.continue();
  });
  const join = page.getByRole('button', { name: /^Join: Vrba Crossing/ });
  await join.tap();
  await expect(join).toContainText('opening …');
  await page.getByRole('button', { name: /^Pulled in/ }).tap();
  await expect(page.getByRole('button', { name: /^Plugged in/ }).first()).toBeVisible();
  const answered = page.waitForResponse(`**/api/v1/visits/${theirs}/events*`);
  release('answer');
  await answered;
  await thumb(page).pad(/^Plugged in/);
  await expect(page.locator('main, section').getByText('40 %')).toHaveCount(0);
  await expect(page.getByText('observing')).toHaveCount(0);
});
