// Places with 2,000 sites and 10,000 stalls: the list query against the bare rows, and frames while the sketch is dragged and scaled. Run by bin/bench.
import { chromium } from '@playwright/test';
import type { RowDataPacket } from 'mysql2/promise';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { signUp } from '@/server/accounts/accounts';
import { SESSION_COOKIE, startSession } from '@/server/accounts/sessions';
import { toBin } from '@/server/db/binary-id';
import { pool } from '@/server/db/pool';
import { findEverything } from '@/server/find/find-everything';
import { takeBatch } from '@/server/outbox/take-batch';
import { siteList } from '@/server/places/site-list';
import { ownServer } from '../hands/own-server';

const SITES = 2000;
const who = { householdId: v7(), personId: v7() };
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const median = (all: number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] as number;
const share95 = (all: number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length * 0.95)] as number;

await signUp({ name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'not needed here', currency: 'EUR', zone: 'UTC' }, who);
const network = v7();
const items: object[] = [{ type: 'record', record: recordItem('network', network, { name: 'Copperbeech' }) }];
let seed = 7;
const random = () => {
  seed = (seed * 16807) % 2147483647;
  return seed / 2147483647;
};
for (let i = 0; i < SITES; i++) {
  const siteId = v7();
  const site = { networkId: network, name: `Milestone ${i + 1}`, zone: 'Europe/Ljubljana', latitude: 45 + random() * 4, longitude: 12 + random() * 6 };
  items.push({ type: 'record', record: recordItem('site', siteId, site) });
  for (let n = 1; n <= 5; n++)
    items.push({
      type: 'record',
      record: recordItem('stall', v7(), { siteId, name: String(n), outlets: [{ connector: 'CCS2', ratedKW: 50 * n }], cabinet: String(n), sharing: 'shared' }),
    });
}
for (let i = 0; i < items.length; i += 480) {
  const r = await takeBatch({ ...who, role: 'owner' }, { items: items.slice(i, i + 480) });
  if (!r.ok || r.results.some((x) => x.status !== 'taken')) throw new Error('the bench’s own places were refused');
}

const timed = async (work: () => Promise<unknown>) => {
  const all: number[] = [];
  for (let i = 0; i < 15; i++) {
    const started = performance.now();
    await work();
    all.push(performance.now() - started);
  }
  return median(all.slice(3));
};
const list = await timed(() => siteList(who));
const bare = await timed(async () => {
  await pool().execute<RowDataPacket[]>('SELECT id, name, zone, latitude, longitude, archived_at FROM site WHERE household_id = ? ORDER BY name, id', [
    toBin(who.householdId),
  ]);
  await pool().execute<RowDataPacket[]>('SELECT site_id, most_kw FROM stall WHERE household_id = ? AND archived_at IS NULL', [toBin(who.householdId)]);
});
say(`list of ${SITES} sites, ${SITES * 5} stalls: ms at the server`, list.toFixed(0));
say('list query against fetching the bare rows', `${(list / bare).toFixed(2)} ×`);
say('find among them: ms at the server', (await timed(() => findEverything(who, 'milestone 19'))).toFixed(0));

const server = await ownServer();
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.addCookies([{ name: SESSION_COOKIE, value: (await startSession(who.householdId, who.personId)).token, url: server.url }]);
  const page = await context.newPage();
  await page.goto(`${server.url}/places`);
  const canvas = page.getByRole('img', { name: `Sketch of ${SITES} sites` });
  const box = await canvas.boundingBox();
  if (!box) throw new Error('no sketch');
  await page.waitForLoadState('networkidle');
  // As text: the runner's own compiler would put names of its own into a function.
  await page.evaluate(
    'window.mileFrames = []; let last = performance.now(); const tick = (t) => { window.mileFrames.push(t - last); last = t; requestAnimationFrame(tick); }; requestAnimationFrame(tick);',
  );
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, i < 6 ? -120 : 120);
  await page.mouse.down();
  for (let i = 0; i < 90; i++) await page.mouse.move(x + 80 * Math.sin(i / 8), y + 50 * Math.cos(i / 8));
  await page.mouse.up();
  const frames = ((await page.evaluate('window.mileFrames')) as number[]).slice(2);
  say(`sketch of ${SITES} sites, dragged and scaled: frames`, String(frames.length));
  say('  ms per frame, median and 95th', `${median(frames).toFixed(1)} and ${share95(frames).toFixed(1)}`);
  say('  frames above 50 ms', `${frames.filter((f) => f > 50).length} of ${frames.length}`);
} finally {
  await browser.close();
  await server.kill();
  await pool().end();
}
