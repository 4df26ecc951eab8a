import { expect, type Page, test } from '@playwright/test';
import { pulledIn } from '../hands/at-the-site';
import { ownDatabase } from '../hands/own-database';
import { ownServer } from '../hands/own-server';
import { keptEvents, thumb } from '../hands/stall';

/** Sends whatever waits until nothing does, and holds what the server has against what the phone kept. */
async function everythingOnce(page: Page, visitId: string): Promise<void> {
  await expect
    .poll(async () => {
      await page.evaluate("dispatchEvent(new Event('online'))");
      return (await keptEvents(page)).map((k) => k.state).filter((s) => s !== 'sent').length;
    })
    .toBe(0);
  // A phone that looked meanwhile was told when the server heard of each: no part of the event.
  const kept = (await keptEvents(page)).map(({ event: { heard_ms: _, ...event } }) => event);
  const there = ((await (await page.request.get(`/api/v1/visits/${visitId}/events`)).json()).events as typeof kept).sort((a, b) => a.seq - b.seq);
  expect(there).toEqual(kept);
}

test('the server killed while events are being sent, and the database restarted: nothing lost, nothing twice', async ({ browser }, info) => {
  const database = await ownDatabase('restart');
  const server = await ownServer({ DATABASE_URL: database.url });
  const context = await browser.newContext({ ...info.project.use, baseURL: server.url });
  const page = await context.newPage();
  try {
    await pulledIn(page, server.url);
    const hand = thumb(page);
    const visitId = (await keptEvents(page))[0]?.event.visitId as string;
    await everythingOnce(page, visitId);

    // Killed at the moment the batch is on its way: its answer never comes.
    let killed: Promise<void> | null = null;
    await page.route('**/api/v1/outbox', async (route) => {
      const answer = route.continue();
      killed ??= server.kill();
      await Promise.all([killed, answer.catch(() => {})]);
    });
    await hand.pad(/^Plugged in/);
    await expect.poll(() => killed !== null).toBe(true);
    await killed;
    await page.unroute('**/api/v1/outbox');
    await hand.pad(/^Card shown/);
    await expect(page.getByText(/Kept on\s*phone/)).toBeVisible();
    await server.start();
    await everythingOnce(page, visitId);

    // Taken and answered, but the answer is lost: sent again, it is there already.
    let lost = 0;
    await page.route(
      '**/api/v1/outbox',
      async (route) => {
        await route.fetch();
        await route.abort();
        lost += 1;
      },
      { times: 1 },
    );
    await hand.pad(/^I see power/);
    await expect.poll(() => lost).toBe(1);
    await everythingOnce(page, visitId);

    await database.stop();
    await hand.reading(['31', '88', '1.2']);
    await expect(page.getByText(/Kept on\s*phone 1/)).toBeVisible();
    await database.start();
    await hand.pad(/^I pressed stop/);
    await everythingOnce(page, visitId);
    expect((await keptEvents(page)).map((k) => k.event.kind)).toEqual([
      'pulled_in',
      'stall_chosen',
      'plugged',
      'means_shown',
      'power_seen',
      'reading',
      'stop_asked',
    ]);
  } finally {
    await server.kill();
    await context.close();
    await database.end();
  }
});
