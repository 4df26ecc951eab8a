import { expect, type Page, test } from '@playwright/test';
import { addPlace, asItems, newHousehold, send, visitEvents } from './hands/household';
import { allSent, keptEvents } from './hands/stall';

/** Moves the focus to a control by Tab alone and presses it. */
async function press(page: Page, name: RegExp | string, key = 'Enter') {
  const wanted = page
    .getByRole('button', { name, disabled: false })
    .or(page.getByRole('radio', { name, disabled: false }))
    .first();
  await expect(wanted).toBeVisible();
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab');
    if (await wanted.evaluate((el) => el === document.activeElement)) return page.keyboard.press(key);
  }
  throw new Error(`the focus never came to ${name}`);
}

test('a visit is recorded with the keyboard alone, its times those of the key presses', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Kamen Toll' });
  await page.goto('/stall');
  await press(page, /Kamen Toll/);
  await press(page, /^Stall 1/);
  await press(page, /^Pulled in/);
  const before = Date.now();
  await press(page, /^Plugged in/);
  await press(page, /^Card shown/, 'Space');
  await press(page, /^I see power/);
  await press(page, /^Add a reading/);
  const sheet = page.getByRole('dialog', { name: 'Reading' });
  await expect(sheet).toBeVisible();
  // Digits and Enter work as soon as the sheet is open, and the focus goes back to the pad.
  await page.keyboard.type('44');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type('98');
  await page.keyboard.press('Enter');
  await expect(sheet).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Add a reading/ })).toBeFocused();
  await press(page, /^I pressed stop/);
  await press(page, /^Fault/);
  await expect(page.getByRole('dialog', { name: 'Fault' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await press(page, /^Unplugged/);
  await press(page, /^Pulled out/);
  await allSent(page, 9);
  const events = (await keptEvents(page)).map((k) => k.event);
  expect(events.map((e) => e.kind)).toEqual([
    'pulled_in',
    'stall_chosen',
    'plugged',
    'means_shown',
    'power_seen',
    'reading',
    'stop_asked',
    'unplugged',
    'pulled_out',
  ]);
  expect(events.find((e) => e.kind === 'reading')?.payload).toMatchObject({ socPct: 44, kW: 98 });
  for (const e of events.slice(2)) expect(e.at).toBeGreaterThanOrEqual(before);
  for (let i = 1; i < events.length; i++) expect(events[i]?.at).toBeGreaterThanOrEqual(events[i - 1]?.at as number);
});

test('places open by their numbers from the Stall too, until a visit is open', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Kamen Toll' });
  await page.goto('/stall');
  await expect(page.getByRole('button', { name: /Kamen Toll/ })).toBeVisible();
  await expect(async () => {
    await page.keyboard.press('3');
    await expect(page).toHaveURL(/\/compare$/, { timeout: 1000 });
  }).toPass();
  // A key pressed before the page has come to life goes nowhere: the driver presses it again.
  await expect(async () => {
    await page.keyboard.press('n');
    await expect(page).toHaveURL(/\/stall$/, { timeout: 1000 });
  }).toPass();
  await page.getByRole('button', { name: /Kamen Toll/ }).click();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).click();
  await expect(page.getByRole('main', { name: 'The visit so far' })).toBeVisible();
  await page.keyboard.press('2');
  await expect(page).toHaveURL(/\/stall$/);
});

test('a find box that cannot be fetched says so over a form half typed, and comes when asked again', async ({ page, baseURL }) => {
  let away = false;
  await page.route(/\/_next\/static\/.*\.js/, (r) => (away ? r.abort() : r.continue()));
  await newHousehold(page, baseURL as string);
  await page.goto('/ledger/new');
  const note = page.getByLabel(/^Note/);
  await note.fill('the second lane was blocked');
  away = true;
  await page.keyboard.press('Control+k');
  const trouble = page.getByRole('alert').filter({ hasText: 'not on this device yet' });
  await expect(trouble).toBeVisible();
  await trouble.getByRole('button', { name: 'Close' }).click();
  await expect(trouble).toHaveCount(0);
  await expect(note).toHaveValue('the second lane was blocked');
  await page.keyboard.press('Control+k');
  await expect(trouble).toBeVisible();
  away = false;
  await trouble.getByRole('button', { name: 'Try again' }).click();
  await page.getByRole('combobox', { name: /find/i }).fill('Settings');
  await expect(page.getByRole('option').first()).toBeVisible();
  await expect(note).toHaveValue('the second lane was blocked');
});

test('what is stepped to on a narrow screen is never hidden, what is chosen is seen without our colours, and the rows can be sorted', async ({
  page,
  baseURL,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Copperbeech', site: 'Kamen Toll' });
  const other = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const visits = [place, other].flatMap((p, i) => [20, 9].map((days) => visitEvents(who, p, Date.now() - (days + i) * 86_400_000, days === 9)));
  for (const events of visits) await send(page.request, base, asItems(events));
  await page.setViewportSize({ width: 320, height: 640 });
  // WCAG 2.2, 2.4.11: something of what has the focus is in sight.
  const hidden = () =>
    page.evaluate(() => {
      const el = document.activeElement as HTMLElement;
      const { left, top, width, height } = el.getBoundingClientRect();
      if (el === document.body || width < 2 || height < 2) return null;
      const seen = [0.1, 0.5, 0.9].some((y) => {
        const there = document.elementFromPoint(left + width / 2, top + height * y);
        return there !== null && (el.contains(there) || there.contains(el));
      });
      return seen ? null : `${el.tagName} ${el.textContent?.slice(0, 40)} at ${Math.round(top)}`;
    });
  for (const address of [`/ledger/${visits[0]?.[0]?.visitId}`, '/compare', '/settings']) {
    await page.goto(address);
    for (let i = 0; i < 60; i++) {
      await page.keyboard.press('Tab');
      expect([address, await hidden()]).toEqual([address, null]);
    }
  }
  await page.goto('/compare');
  const names = page.getByRole('region', { name: 'networks compared' }).getByRole('rowheader');
  await page.getByLabel('Sorted by').selectOption({ label: 'Lost per visit' });
  await expect(page).toHaveURL(/sort=lost/);
  await expect(names).toHaveCount(2);
  await expect(page.getByLabel('Sorted by')).toHaveValue('lost');
  // In the system's own colours what is chosen is framed.
  await page.emulateMedia({ forcedColors: 'active' });
  await expect(page.getByRole('radio', { name: 'Networks' })).toHaveCSS('outline-style', 'solid');
  await expect(page.getByRole('radio', { name: 'Sites' })).toHaveCSS('outline-style', 'none');
});

// WCAG 2.2, 1.4.12 (from memory): line height 1.5, letters 0.12 em and words 0.16 em apart.
test('with letters and words further apart nothing is cut from the lists', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing by the old ferry' });
  await send(page.request, base, asItems(visitEvents(who, place, Date.now() - 86_400_000, true)));
  await page.setViewportSize({ width: 320, height: 640 });
  for (const path of ['/ledger', '/places', '/stall']) {
    await page.goto(path);
    await expect(page.getByText('Vrba Crossing by the old ferry').first()).toBeVisible();
    await page.evaluate(() => {
      const spaced = new CSSStyleSheet();
      spaced.replaceSync('* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important }');
      document.adoptedStyleSheets = [...document.adoptedStyleSheets, spaced];
    });
    const cut = await page
      .locator('[data-ledger-row] *, main button *')
      .evaluateAll((all) =>
        all
          .filter(
            (e) => getComputedStyle(e).overflow === 'hidden' && e.clientWidth > 1 && (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 1),
          )
          .map((e) => e.textContent),
      );
    expect(
      cut.filter((t) => t?.trim()),
      path,
    ).toEqual([]);
  }
});
