import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];
/**
 * axe on what can be reached: with a sheet open the page behind is out of reach, and was looked at before. And nothing is wider than the smallest phone, or a small tablet, nor is there
 * anything to scroll to below the page. By night the same pages have other colours, and nothing else.
 */
export async function clean(page: Page, what: string) {
  // A page that is fetched anew is without its title for a moment.
  await expect(page).toHaveTitle(/\S/);
  await page.evaluate(() => document.fonts.ready);
  const night = await page.evaluate(() => matchMedia('(prefers-color-scheme: dark)').matches);
  const axe = night ? new AxeBuilder({ page }).withRules(['color-contrast']) : new AxeBuilder({ page }).withTags(TAGS);
  if ((await page.getByRole('dialog').count()) > 0) axe.include('[role="dialog"]');
  const result = await axe.analyze();
  expect(result.violations.map((v) => `${what}: ${v.id} at ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
  if (night) return;
  const size = page.viewportSize();
  const below = () =>
    page.evaluate(() => document.documentElement.scrollHeight - Math.max(innerHeight, document.body.getBoundingClientRect().bottom + scrollY));
  for (const width of [320, 640]) {
    await page.setViewportSize({ width, height: size?.height ?? 568 });
    await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth), `${what}: how wide it is at ${width}`).toBeLessThanOrEqual(width);
    await expect.poll(below, `${what}: px below its end at ${width}`).toBeLessThan(1);
  }
  if (size) await page.setViewportSize(size);
}
