import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';
import { openStall, thumb } from './hands/stall';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];
async function clean(page: Page, what: string) {
  await page.evaluate(() => document.fonts.ready);
  const result = await new AxeBuilder({ page }).withTags(TAGS).analyze();
  expect(result.violations.map((v) => `${what}: ${v.id} at ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

for (const scheme of ['light', 'dark'] as const) {
  test.describe(scheme === 'light' ? 'by day' : 'by night', () => {
    test.use({ colorScheme: scheme });
    let out: string[];
    let blocked: string[];
    test.beforeEach(({ page, baseURL }) => {
      out = [];
      blocked = [];
      page.on('request', (r) => {
        if (!r.url().startsWith(baseURL as string) && !/^(data|blob):/.test(r.url())) out.push(r.url());
      });
      page.on('console', (m) => {
        if (/Content Security Policy|hydrat/i.test(m.text())) blocked.push(m.text());
      });
      page.on('pageerror', (e) => blocked.push(e.message));
    });
    test.afterEach(() => {
      expect(out, 'no request leaves the machine').toEqual([]);
      expect(blocked, 'nothing is blocked by the policy, nothing fails to hydrate').toEqual([]);
    });

    test('the doors, the empty and the full ledger, a visit, Compare, settings', async ({ page, baseURL }) => {
      const base = baseURL as string;
      await page.goto('/sign-in');
      await clean(page, 'sign in');
      await page.goto('/sign-up');
      await page.getByRole('button', { name: 'Make the account' }).click();
      await clean(page, 'sign up with messages');
      const who = await newHousehold(page, base);
      await page.goto('/ledger');
      await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
      await clean(page, 'empty ledger');
      await page.goto('/compare');
      await clean(page, 'empty comparison');
      const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
      const now = Date.now();
      await send(page.request, base, asItems([visitEvents(who, place, now - 5 * 86_400_000, true), visitEvents(who, place, now - 3 * 86_400_000)].flat()));
      await page.goto('/ledger');
      await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
      await clean(page, 'ledger');
      await page.locator('[data-ledger-row]').nth(1).click();
      await expect(page.getByRole('heading', { name: /1\. Stall 1: failed/ })).toBeVisible();
      await page.getByText('Arrival to power', { exact: true }).click();
      await clean(page, 'visit');
      await page
        .getByRole('button', { name: /^Correct Reading/ })
        .first()
        .click();
      await clean(page, 'correction');
      await page.keyboard.press('Escape');
      await page.goto('/compare');
      await clean(page, 'comparison');
      await page.goto('/settings');
      await clean(page, 'settings');
    });

    test('not found, no network', async ({ page, baseURL }) => {
      await newHousehold(page, baseURL as string);
      await page.goto('/ledger/00000000-0000-7000-8000-000000000000');
      await clean(page, 'visit not found');
      await page.goto('/nowhere');
      await clean(page, 'page not found');
      await page.goto('/offline');
      await clean(page, 'no network');
    });

    test('the stall', async ({ browser, baseURL }) => {
      const context = await browser.newContext({ baseURL, colorScheme: scheme, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
      const page = await context.newPage();
      page.on('console', (m) => {
        if (/Content Security Policy|hydrat/i.test(m.text())) blocked.push(m.text());
      });
      await page.goto('/stall');
      await clean(page, 'stall, nobody signed in');
      await newHousehold(page, baseURL as string);
      await openStall(page);
      await clean(page, 'stall without sites');
      await page.getByRole('button', { name: 'Add a site' }).tap();
      await clean(page, 'adding a site');
      await page.keyboard.press('Escape');
      await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
      await page.reload();
      await page.getByRole('button', { name: /Hollin Bridge/ }).tap();
      await page.getByRole('button', { name: /^Stall 1/ }).tap();
      await clean(page, 'choosing a stall');
      await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
      const hand = thumb(page);
      await hand.pad(/^Plugged in/);
      await hand.pad(/^Card shown/);
      await clean(page, 'waiting for power');
      for (const [pad, what] of [
        [/^Fault/, 'faults'],
        [/^Changed/, 'changes'],
        [/^More/, 'more'],
      ] as const) {
        await hand.pad(pad);
        await expect(page.getByRole('dialog')).toBeVisible();
        await clean(page, what);
        await page.keyboard.press('Escape');
      }
      await hand.pad(/^I see power/);
      await hand.pad(/^Add a reading/);
      await clean(page, 'reading');
      await hand.figures(['20', '118', '0.4']);
      await page.getByRole('dialog').getByRole('button', { name: 'Save the reading' }).tap();
      await expect(page.getByRole('region', { name: 'Charging' })).toContainText('118 kW');
      await clean(page, 'charging');
      await hand.pad(/^I pressed stop/);
      await hand.pad(/^Unplugged/);
      await hand.pad(/^Pulled out/);
      await clean(page, 'the visit is over');
      await context.close();
    });
  });
}

test('security headers stand on every page', async ({ request, baseURL }) => {
  for (const path of ['/stall', '/sign-in', '/offline', '/nowhere']) {
    const headers = (await request.get(path)).headers();
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['content-security-policy']).not.toContain('unsafe-inline');
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-frame-options']).toBe('DENY');
  }
  expect((await request.delete('/api/v1/session', { headers: own(baseURL as string), data: {} })).status()).toBe(200);
});
