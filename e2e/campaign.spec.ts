import { expect, test } from '@playwright/test';
import { campaign, SHORT } from './campaign/campaign';
import type { Driver } from './campaign/world';
import { ownDatabase } from './hands/own-database';
import { ownServer } from './hands/own-server';

test('killed, stopped, full, slow, reordered, hostile, strange: nothing lost, twice, changed, failed or leaked', async ({ browser }) => {
  test.setTimeout(480_000);
  const database = await ownDatabase('campaign');
  const server = await ownServer({ DATABASE_URL: database.url });
  const open = async (d: Driver) => {
    const context = await browser.newContext({ baseURL: d.base, serviceWorkers: 'allow' });
    await context.addCookies(
      (d.headers.cookie as string).split('; ').map((c) => ({ name: c.split('=')[0] as string, value: c.slice(c.indexOf('=') + 1), url: d.base })),
    );
    return context.newPage();
  };
  try {
    const rows = await campaign({ database, server, open }, SHORT, 7, (r) => console.log(JSON.stringify(r)));
    for (const r of rows) {
      expect(r).toMatchObject({ lost: 0, twice: 0, changed: 0, failures: 0, leaks: 0 });
      expect([r.what, r.runs > 0]).toEqual([r.what, true]);
    }
  } finally {
    await server.kill();
    database.signal('SIGCONT');
    await database.end();
  }
});
