import { expect, type Page, test } from '@playwright/test';
import { v7 } from 'uuid';
import { CARD, KW, story } from '@/core/visit/fixtures/story';
import { addPlace, asItems, type Member, newHousehold, own, type Place, send } from '../hands/household';
import { allSent, openStall, thumb } from '../hands/stall';

/** A round as the phone would have told it: one stall, so many seconds from the card to power. */
function roundEvents(who: Member, place: Place, at: number, trialId: string, round: number, side: 'a' | 'b', s: number) {
  const visitId = v7({ msecs: at });
  const device = v7();
  return story(
    [0, 'pulled_in', { siteId: place.siteId, carId: place.carId }],
    [1, 'stall_chosen', { stallId: place.stalls[side === 'a' ? 0 : 1] }],
    [2, 'trial_round', { trialId, round, side }],
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [20 + s, 'power_seen', KW],
    [100, 'unplugged'],
    [110, 'pulled_out', { reason: 'enough' }],
  ).map((e, i) => ({
    ...e,
    householdId: who.householdId,
    personId: who.personId,
    id: v7({ msecs: at + i }),
    visitId,
    deviceId: device,
    life: device,
    at: at + Number(e.mono) - 10_000,
  }));
}

/** Plugs in, shows the card, sees power, stops and unplugs. @param watching a second phone that taps power too */
async function charge(page: Page, watching?: Page): Promise<void> {
  const hand = thumb(page);
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  // Both look at the same screen: the second phone has followed to here.
  if (watching) await expect(watching.locator('[data-resting]').getByRole('button', { name: /^I see power/, disabled: false })).toBeVisible();
  await Promise.all([hand.pad(/^I see power/), watching ? thumb(watching).pad(/^I see power/) : null]);
  await hand.pad(/^I pressed stop/);
  await hand.pad(/^Unplugged/);
}

test('a trial of two stalls by eight rounds, from two phones to its page', async ({ page, browser, baseURL }, info) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  await page.goto('/compare/trials/new');
  await page.getByRole('button', { name: 'Plan this trial' }).tap();
  await expect(page.getByText('Choose what is tried')).toBeVisible();
  await page.getByLabel('Side A').selectOption({ label: 'Lipa Barn 1' });
  await page.getByLabel('Side B').selectOption({ label: 'Lipa Barn 2' });
  await page.getByLabel('Rounds').fill('4');
  await expect(page.getByText(/Too few to tell anything/)).toBeVisible();
  await page.getByLabel('Rounds').fill('8');
  await expect(page.getByText(/At best: clearly\. All one way, 5 say probably, 7 clearly\./)).toBeVisible();
  await page.getByRole('radio', { name: 'Two phones' }).tap();
  await page.getByLabel('What is held equal').fill('Heron 62, dry');
  await page.getByRole('button', { name: 'Plan this trial' }).tap();
  await expect(page.getByRole('heading', { name: 'Lipa Barn 1 or Lipa Barn 2: who gives power sooner?' })).toBeVisible();
  await expect(page.getByText('Cannot tell yet: no round was run by both. These stalls, this day.')).toBeVisible();
  const trialId = page.url().split('/').at(-1) as string;

  // The first round at the Stall, the second phone looking on.
  await openStall(page);
  const card = page.getByRole('region', { name: 'Trial: Lipa Barn 1 or Lipa Barn 2' });
  await expect(card).toContainText('round 1 of 8');
  const next = card.getByRole('button', { name: /is next$/ });
  const first = (await next.textContent())?.includes('Barn 1') ? 'Lipa Barn 1' : 'Lipa Barn 2';
  const second = first === 'Lipa Barn 1' ? 'Lipa Barn 2' : 'Lipa Barn 1';
  await next.tap();
  await thumb(page).at(page.getByRole('button', { name: /^Pulled in/, disabled: false }));
  await expect(page.getByText(`Round 1: ${first}`)).toBeVisible();
  await allSent(page, 3);
  const context = await browser.newContext({ ...info.project.use, baseURL: base });
  const other = await context.newPage();
  await other.request.post('/api/v1/session', { headers: own(base), data: { email: who.email, password: who.password } });
  await openStall(other);
  await other.getByRole('button', { name: /^Join: Lipa Barn/ }).tap();
  await charge(page, other);
  await allSent(other, 1);
  // The other side stands at the same site: one goes on without leaving.
  await page.getByRole('button', { name: `Round 1: ${second}` }).tap();
  await expect(page.getByText(`Round 1: ${second}`).first()).toBeVisible();
  await charge(page);
  await thumb(page).pad(/^Pulled out/);
  await allSent(page, 14);
  // Back before a visit, the next round is offered, on the other phone too.
  await page.getByRole('button', { name: 'Leave the visit' }).tap();
  await expect(card).toContainText('round 2 of 8');
  await other.getByRole('button', { name: 'Leave the visit' }).tap();
  await expect(other.getByRole('region', { name: 'Trial: Lipa Barn 1 or Lipa Barn 2' })).toContainText('round 2 of 8');

  // All of them as another phone would have sent it, over the next hour, the first once more: what is run again counts.
  const later = Date.now() + 60_000;
  const rest = [1, 2, 3, 4, 5, 6, 7, 8].flatMap((n) => [
    ...roundEvents(who, place, later + n * 400_000, trialId, n, 'a', 10 + n / 10),
    ...roundEvents(who, place, later + n * 400_000 + 200_000, trialId, n, 'b', 30 + n / 3),
  ]);
  await send(page.request, base, asItems(rest as never));
  await page.goto(`/compare/trials/${trialId}`);
  const article = page.getByRole('article');
  await expect(article).toContainText(
    /Lipa Barn 1 clearly gave power sooner than Lipa Barn 2: in 8 of 8 rounds, by 2\d\.\d s in the middle \(95 %: .*\)\. Over ten stops that is about [34] minutes\. These stalls, (this day|these days)\./,
  );
  await expect(article.getByRole('img', { name: /^Waits of each round/ })).toContainText('Round 8');
  await expect(article.getByRole('img', { name: /after round 8: clearly/ })).toBeVisible();
  await expect(article).toContainText('Held equalHeron 62, dry');
  await expect(article.getByRole('row')).toHaveCount(19);
  await expect(article.getByText('Run again')).toHaveCount(2);
  await expect(
    article
      .getByRole('row')
      .nth(first === 'Lipa Barn 1' ? 1 : 3)
      .getByRole('cell')
      .nth(3),
  ).toHaveText(/^2/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  // A round is voided for a reason, and is to be run again.
  await article.getByRole('button', { name: 'Void round 8, Lipa Barn 2' }).tap();
  await article.getByRole('button', { name: 'Void it' }).tap();
  await expect(article.getByText('Say why it does not count')).toBeVisible();
  await article.getByLabel('Void because').fill('queue');
  await article.getByRole('button', { name: 'Void it' }).tap();
  await expect(article).toContainText('Voided: queue');
  await expect(article).toContainText('Next: round 8, Lipa Barn 2. 1 step left.');
  // Handed on without places.
  const shared = await (await page.request.get(`/api/v1/trials/${trialId}?places=no`)).text();
  for (const told of ['Lipa', trialId, place.stalls[0], 'Heron', who.personId]) expect(shared).not.toContain(told);
  expect(JSON.parse(shared).result.degree).toBe('clearly');
  expect((await (await page.request.get(`/api/v1/trials/${trialId}?as=csv`)).text()).split('\n')).toHaveLength(20);
  expect((await page.request.get(`/api/v1/trials/${v7()}`)).status()).toBe(404);
  // Its visits are in no everyday share.
  await page.goto('/compare');
  await expect(page.getByRole('heading', { name: 'Nothing to compare yet' })).toBeVisible();
  // Ended, it is offered no more.
  await page.goto(`/compare/trials/${trialId}`);
  await article.getByRole('button', { name: 'End the trial' }).tap();
  await expect(article.getByRole('button', { name: 'End the trial' })).toHaveCount(0);
  await page.goto('/stall');
  await expect(page.getByRole('button', { name: /^Pulled in/ })).toBeVisible();
  await expect(card).toHaveCount(0);
  await context.close();
});
