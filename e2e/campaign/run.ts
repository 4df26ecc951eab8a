// Repeats the whole campaign for so many minutes, at least once, and prints a table. Run by bin/campaign.
import { chromium } from '@playwright/test';
import { ownDatabase } from '../hands/own-database';
import { ownServer } from '../hands/own-server';
import { campaign, clean, peakMemory, WHOLE } from './campaign';
import type { Driver, Row } from './world';

const minutes = Number(process.argv[2] ?? 0);
const until = Date.now() + minutes * 60_000;
const database = await ownDatabase('campaign');
const server = await ownServer({ DATABASE_URL: database.url });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
});
const open = async (d: Driver) => {
  const context = await browser.newContext({ baseURL: d.base, serviceWorkers: 'allow' });
  await context.addCookies(
    (d.headers.cookie as string).split('; ').map((c) => ({ name: c.split('=')[0] as string, value: c.slice(c.indexOf('=') + 1), url: d.base })),
  );
  return context.newPage();
};
const columns = ['runs', 'lost', 'twice', 'changed', 'failures', 'leaks'] as const;
const say = (r: Row) => console.log(`${r.what.padEnd(58)}${columns.map((c) => String(r[c]).padStart(9)).join('')}   ${r.note}`);
const sums = new Map<string, Row>();
try {
  console.log(`${''.padEnd(58)}${columns.map((c) => c.padStart(9)).join('')}`);
  for (let round = 0; round === 0 || Date.now() < until; round++)
    for (const r of await campaign({ database, server, open }, WHOLE, 20_261_126 + round * 1000, say)) {
      const sum = sums.get(r.what);
      if (sum) for (const c of columns) sum[c] += r[c];
      else sums.set(r.what, { ...r, note: '' });
    }
  console.log(`\nIn all, over everything:`);
  for (const r of sums.values()) say(r);
  console.log(`The application had at most ${peakMemory(server.pid())} MB since it was last started.`);
} finally {
  await browser.close();
  await server.kill();
  database.signal('SIGCONT');
  await database.end();
}
process.exit([...sums.values()].every(clean) ? 0 : 1);
