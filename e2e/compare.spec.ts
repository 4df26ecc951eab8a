import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { addPlace, asItems, type Member, newHousehold, own, type Place, send, visitEvents } from './hands/household';
import { invitedMember } from './hands/people';

const DAY = 86_400_000;
let who: Member;
let copper: Place;
let ferry: Place;

test.beforeEach(async ({ page, baseURL }) => {
  const base = baseURL as string;
  who = await newHousehold(page, base);
  copper = await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  ferry = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const now = Date.now();
  const visits = [9, 7, 5].flatMap((d) => [visitEvents(who, copper, now - d * DAY), visitEvents(who, ferry, now - (d - 0.5) * DAY, d > 5)]);
  await send(page.request, base, asItems(visits.flat()));
});

const table = 'table:has(th:has-text("Starts at the first try"))';

test('by anything, every number opens its visits; sorted, kept, saved by name', async ({ page }) => {
  await page.goto('/compare');
  // A busy machine takes its time until the page answers a press.
  await expect(async () => {
    await page.getByRole('radio', { name: 'Ways to pay' }).click();
    await expect(page).toHaveURL(/by=means/, { timeout: 2000 });
  }).toPass();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Compare ways to pay');
  const contactless = page.locator(`${table} tr`).filter({ hasText: 'Contactless card' });
  await expect(contactless).toContainText('4 of 6');
  await contactless.getByRole('link', { name: '2 not' }).click();
  await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
  await expect(page.getByText('did not start at the first try, means: Contactless card')).toBeVisible();
  await page.goBack();
  // And by another: the second list leaves out what is chosen.
  await page.getByLabel('And by').selectOption({ label: 'and by site' });
  await expect(page.locator(`${table} tbody tr`)).toHaveCount(2);
  await page.getByRole('radio', { name: 'Faults' }).click();
  const brod = page.locator('tbody tr').filter({ hasText: 'Brod Landing' });
  await expect(brod).toContainText(/\d in 3 visits/);
  await brod
    .getByRole('link', { name: /in 3 visits/ })
    .first()
    .click();
  await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
  await page.goBack();
  await page.getByRole('link', { name: /Handle stuck/ }).click();
  await expect(page.getByRole('columnheader', { name: /Handle stuck/ })).toHaveAttribute('aria-sort', 'descending');
  // Taken along.
  await page.getByRole('button', { name: /^Copy or save: Compared by means and site/ }).click();
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as CSV' }).click()]);
  expect(file.suggestedFilename()).toBe('compared-by-means-and-site.csv');
  expect(readFileSync(await file.path(), 'utf8').split('\n')[0]).toMatch(/^means,site,Visits,/);
  await page.keyboard.press('Escape');
  // By name, and found again.
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const saved = page.getByRole('dialog', { name: 'Saved comparisons' });
  await saved.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(saved).toContainText('A name by which it is found again');
  await saved.getByLabel('Save this comparison as').fill('Faults by card and site');
  await saved.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(saved.getByRole('link', { name: 'Faults by card and site' })).toBeVisible();
  await page.goto('/compare');
  await page.getByRole('button', { name: 'Saved: 1' }).click();
  await saved.getByRole('link', { name: 'Faults by card and site' }).click();
  await expect(page).toHaveURL(/by=means&and=site&look=faults&sort=stuck/);
  await page.getByRole('button', { name: 'Saved: 1' }).click();
  await saved.getByRole('button', { name: 'Remove Faults by card and site' }).click();
  await expect(page.getByRole('button', { name: 'Save', exact: true }).first()).toBeVisible();
});

test('which visits are compared is said, on paper too, where nothing is cut off', async ({ page }) => {
  await page.goto(`/compare?network=${ferry.networkId}&by=site`);
  const condition = page.getByText(/^Only visits of Ferrywell/);
  await expect(condition).toHaveText('Only visits of Ferrywell. All visits');
  await page.getByRole('button', { name: 'Filters', exact: true }).click();
  const more = page.getByRole('dialog', { name: 'Filters' });
  await more.getByLabel('From').fill('2020-01-01');
  await more.getByRole('button', { name: 'Show these' }).click();
  await expect(condition).toHaveText('Only visits of Ferrywell, since 1 Jan 2020. All visits');
  // A4 between the margins that browsers leave.
  await page.setViewportSize({ width: 717, height: 1046 });
  await page.emulateMedia({ media: 'print' });
  await expect(condition).toBeVisible();
  await expect(page.getByRole('link', { name: 'All visits' })).toBeHidden();
  await expect(page.getByRole('link', { name: 'Run a trial' })).toBeHidden();
  const right = await page.locator(table).evaluate((t) => t.getBoundingClientRect().right);
  expect(right).toBeLessThanOrEqual(717);
  await page.emulateMedia({ media: null });
  await page.setViewportSize({ width: 320, height: 640 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(320);
  await page.getByRole('link', { name: 'All visits' }).click();
  await expect(page).toHaveURL(/\/compare\?by=site$/);
  await expect(condition).toBeHidden();
  // Of what the household has not, and of a day that is none.
  await page.goto(`/compare/power?network=${v7()}&since=2025-13-01`);
  await expect(page.getByText('Only visits of a network not known here. All visits')).toBeVisible();
});

test('a pair is put on watch, counts from then on, and is ended', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  await page.goto('/compare');
  await page.getByRole('button', { name: 'Put a pair on watch' }).click();
  const put = page.getByRole('dialog', { name: 'Put a pair on watch' });
  await put.getByRole('button', { name: 'Put on watch' }).click();
  await expect(put).toContainText('Choose two different ones.');
  await put.getByLabel('One network').selectOption({ label: 'Copperbeech' });
  await put.getByLabel('and another').selectOption({ label: 'Ferrywell' });
  await put.getByRole('button', { name: 'Put on watch' }).click();
  const watch = page.getByRole('region', { name: 'On watch' });
  await expect(watch).toContainText('Cannot tell yet: no start at Copperbeech or Ferrywell since.');
  const later = Date.now() + 60_000;
  await send(
    page.request,
    base,
    asItems([1, 2, 3].flatMap((i) => [visitEvents(who, copper, later + i * 60_000), visitEvents(who, ferry, later + i * 60_000, true)].flat())),
  );
  await page.reload();
  await expect(watch).toContainText(/Cannot tell yet which starts more often at the first try: Copperbeech at 2 of 2 visits, Ferrywell at 0 of \d visits?\./);
  await watch.getByRole('button', { name: /^How this was worked out/ }).click();
  await expect(page.getByRole('dialog', { name: 'How this was worked out' })).toContainText('Held toprobably from 7, clearly from 24');
  await page.keyboard.press('Escape');
  // Under a filter chosen now it is not told.
  await page.goto(`/compare?car=${copper.carId}`);
  await expect(watch).toHaveCount(0);
  // Who reads changes nothing.
  const theirs = await browser.newContext();
  const reader = await theirs.newPage();
  await invitedMember(page, reader.request, base, 'reader', 'Vid Zupan');
  await reader.goto('/compare');
  await expect(reader.getByRole('region', { name: 'On watch' })).toContainText('Copperbeech and Ferrywell');
  await expect(reader.getByRole('button', { name: 'Put a pair on watch' })).toHaveCount(0);
  for (const [path, data] of [
    ['/api/v1/watches', { id: v7(), by: 'network', a: copper.networkId, b: ferry.networkId, figure: 'waiting' }],
    ['/api/v1/views', { id: v7(), name: 'x', address: '' }],
  ] as const)
    expect((await reader.request.post(path, { headers: own(base), data })).status()).toBe(403);
  await theirs.close();
  await page.goto('/compare');
  await watch.getByRole('button', { name: /^End the watch/ }).click();
  await expect(watch).toContainText('None.');
});

test('hostile filters get a clear answer, and an empty group says so', async ({ page, baseURL }) => {
  for (const odd of ['by=%00&and=%ff', 'least=-1&change=x', `group=${'a'.repeat(2000)}`, 'sort=constructor&by=__proto__', "car=' OR 1=1 --", 'look=toString']) {
    const answer = await page.goto(`/compare?${odd}`);
    expect(answer?.status()).toBe(200);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Compare networks');
  }
  for (const odd of ["group=model:' OR ''=''", 'group=hour:99&counted=first_yes', 'group=model:%25', 'group=stall:x,network:y'])
    expect((await page.goto(`/ledger?${odd}`))?.status()).toBe(200);
  await page.goto('/compare?by=weather');
  await expect(page.getByText('No visit fits: nothing to compare by weather under these filters.')).toBeVisible();
  await expect(page.getByText('6 visits left out: no weather was noted.')).toBeVisible();
  for (const [path, data] of [
    ['/api/v1/watches', { id: v7(), by: 'network', a: 'x', b: 'y', figure: 'waiting' }],
    ['/api/v1/watches', { id: 'x' }],
    ['/api/v1/views', { id: v7(), name: '', address: '' }],
  ] as const)
    expect((await page.request.post(path, { headers: own(baseURL as string), data })).status()).toBe(422);
});

test('the page of a network says what its visits say and that nobody asked the operator', async ({ page }) => {
  await page.goto('/compare');
  await page.getByRole('link', { name: 'Ferrywell', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ferrywell' })).toBeVisible();
  const article = page.getByRole('article', { name: 'Ferrywell' });
  await expect(article).toContainText('Starts at the first try1 of 3');
  await expect(article).toContainText('3 visits, ');
  await expect(article).toContainText('The operator was not asked.');
  await article.getByRole('link', { name: '1 of 3' }).first().click();
  await expect(page.locator('[data-ledger-row]')).toHaveCount(3);
  await page.goBack();
  await article.getByRole('link', { name: 'Brod Landing', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Brod Landing' })).toBeVisible();
  await expect(page.getByRole('article')).toContainText('No bays were looked at on arrival.');
  await page.getByRole('link', { name: 'Ferrywell', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ferrywell' })).toBeVisible();
  await page.goto(`/places/networks/${v7()}`);
  await expect(page.getByRole('heading', { name: 'Ferrywell' })).toHaveCount(0);
});
