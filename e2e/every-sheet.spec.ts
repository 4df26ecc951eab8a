import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { pullIn } from './hands/at-the-site';
import { clean } from './hands/clean-page';
import { addPlace, newHousehold, send } from './hands/household';
import { openStall, thumb } from './hands/stall';

/** A phone that lies, a small one, and a desk's screen at 200 %. */
const SHAPES = [
  [844, 390],
  [320, 568],
  [640, 400],
  [390, 844],
] as const;

/** What is wrong with the shape of what is open: too wide, a target under 44 px, a sheet or its Save out of sight, a tape under 120 px. */
function illShaped(): string[] {
  const wrong: string[] = [];
  const { innerWidth: w, innerHeight: h } = window;
  if (document.documentElement.scrollWidth > w) wrong.push('wider than the screen');
  const dialog = document.querySelector('[role=dialog]');
  const box = dialog?.getBoundingClientRect();
  if (box && (box.top < -1 || box.bottom > h + 1 || box.left < -1 || box.right > w + 1)) wrong.push('the sheet is out of sight');
  for (const el of (dialog ?? document).querySelectorAll('button, a, input:not([type=hidden]), select, textarea')) {
    const r = el.getBoundingClientRect();
    // What is a pixel is for a reader alone: its label is pressed.
    const shown = r.width > 1 && r.height > 1 && getComputedStyle(el).visibility !== 'hidden';
    // The label of a box is its target.
    const target = el.matches('[type=checkbox], [type=radio]') ? (el.closest('label')?.getBoundingClientRect() ?? r) : r;
    if (shown && (target.height < 43.5 || target.width < 43.5))
      wrong.push(`${el.textContent || el.getAttribute('aria-label')}: ${Math.round(target.width)} × ${Math.round(target.height)}`);
  }
  const pad = dialog?.querySelector('[aria-label=Figures]')?.getBoundingClientRect();
  if (pad && pad.bottom > h + 1) wrong.push(`Save ends at ${Math.round(pad.bottom)} of ${h}`);
  const tape = document.querySelector('[data-tape]')?.getBoundingClientRect();
  if (!dialog && tape && tape.height < 119.5) wrong.push(`the tape keeps ${Math.round(tape.height)} px`);
  for (const bar of dialog ? [] : document.querySelectorAll('[data-resting] button'))
    if (bar.getBoundingClientRect().bottom > h + 1) wrong.push(`the pad ${bar.textContent} is out of sight`);
  return wrong;
}

test('every sheet of the stall, by day and by night, on every shape of screen', async ({ browser, baseURL }) => {
  test.setTimeout(480_000);
  const context = await browser.newContext({ baseURL, serviceWorkers: 'allow', viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const blocked: string[] = [];
  page.on('console', (m) => {
    if (/Content Security Policy|hydrat/i.test(m.text())) blocked.push(m.text());
  });
  const shapes = async (what: string) => {
    for (const [width, height] of SHAPES) {
      await page.setViewportSize({ width, height });
      expect(await page.evaluate(illShaped), `${what} at ${width} × ${height}`).toEqual([]);
    }
    await page.setViewportSize({ width: 390, height: 844 });
  };
  /** The same sheet in both sets of colours, and on every shape of screen. */
  const both = async (what: string) => {
    await shapes(what);
    await page.emulateMedia({ colorScheme: 'light' });
    await clean(page, what);
    await page.emulateMedia({ colorScheme: 'dark' });
    await expect(page.locator('html')).toHaveAttribute('data-sheet', 'night');
    const result = await new AxeBuilder({ page }).include('[role="dialog"], main').withRules('color-contrast').analyze();
    expect(result.violations.map((v) => `${what} by night: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
  };
  await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Bluebarn', site: 'Lipa Barn' });
  await openStall(page);
  await page.getByRole('button', { name: 'Join by code' }).tap();
  await page.getByRole('dialog').getByRole('button', { name: 'Join' }).tap();
  await expect(page.getByText(/^Eight signs/)).toBeVisible();
  await both('joining by code');
  await page.keyboard.press('Escape');
  await pullIn(page);
  await send(page.request, baseURL as string, [
    { type: 'record', record: recordItem('adapter', v7(), { name: 'CHAdeMO box', from: 'CHAdeMO', to: 'CCS2', maxA: 125, maxV: 500 }) },
    {
      type: 'record',
      record: recordItem(
        'stall',
        place.stalls[1] as string,
        {
          siteId: place.siteId,
          name: '2',
          outlets: [
            { connector: 'CCS2', ratedKW: 50 },
            { connector: 'CHAdeMO', ratedKW: 50 },
          ],
        },
        1,
      ),
    },
  ]);
  await page.reload();
  const hand = thumb(page);
  const dialog = page.getByRole('dialog');
  await expect(page.getByRole('main', { name: 'The visit so far' })).toBeVisible();
  await shapes('before the plug');
  for (const label of [
    'Look at the bays …',
    'Figures on arrival …',
    'Named in the app …',
    'Adapter fitted …',
    'Price shown …',
    'Prices here …',
    'Other means …',
    'Another stall …',
    'Power gone …',
    'Handle stuck …',
    'Pulled out …',
    'Stopwatch figure …',
    'Photo …',
    'Rating …',
    'Note …',
    'Cautions',
    'Another phone joins …',
    'Clock for filming',
  ]) {
    await hand.pad(/^More/);
    await hand.sheet(label);
    await expect(dialog.getByRole('heading', { name: 'More', exact: true })).toHaveCount(0);
    await expect(dialog).toBeVisible();
    await both(label);
    await page.keyboard.press('Escape');
    await expect(dialog).toHaveCount(0);
  }
  await hand.pad(/^Fault/);
  await hand.sheet('Start error');
  await both('after a fault');
  await hand.sheet('Helpline');
  await hand.sheet('Called');
  await expect(dialog.getByRole('timer')).toBeVisible();
  await both('the helpline, ringing');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Start error, .*Correct$/ }).tap();
  await both('correcting a mark');
  await page.keyboard.press('Escape');
  // An alarm, and storage that is full.
  await hand.pad(/^Plugged in/);
  await hand.pad(/^Card shown/);
  await hand.pad(/^I see power/);
  await hand.pad(/^Add a reading/);
  await hand.sheet('volts, amps');
  await shapes('a reading');
  await page.keyboard.press('Escape');
  await shapes('charging');
  await page.evaluate(
    "{ const real = Date.now; Date.now = () => real() + 21 * 60_000; IDBObjectStore.prototype.put = () => { throw new DOMException('no room', 'QuotaExceededError'); }; }",
  );
  await expect(page.getByRole('alert', { name: 'Alarm' })).toBeVisible();
  await hand.pad(/^I pressed stop/);
  await expect(page.getByRole('alert').filter({ hasText: 'its storage is full' })).toBeVisible();
  await both('an alarm, and a phone that is full');
  expect(blocked).toEqual([]);
  await context.close();
});
