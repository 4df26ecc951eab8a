// 200 touches at the Stall: from the finger to the disk, and how far the recorded time is from the driver's own clock. Run by bin/bench.
import { chromium } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { signUp } from '@/server/accounts/accounts';
import { SESSION_COOKIE, startSession } from '@/server/accounts/sessions';
import { pool } from '@/server/db/pool';
import { takeBatch } from '@/server/outbox/take-batch';
import { ownServer } from '../hands/own-server';
import { keptEvents } from '../hands/stall';

const TOUCHES = 200;
const who = { householdId: v7(), personId: v7() };
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`);
const at = (all: number[], share: number) => [...all].sort((a, b) => a - b)[Math.floor((all.length - 1) * share)] as number;

await signUp({ name: 'bench', householdName: 'bench', email: `${v7()}@example.invalid`, password: 'not needed here', currency: 'EUR', zone: 'UTC' }, who);
const [network, site] = [v7(), v7()];
await takeBatch(
  { ...who, role: 'owner' },
  {
    items: [
      recordItem('network', network, { name: 'Copperbeech' }),
      recordItem('site', site, { networkId: network, name: 'Hollin Bridge', zone: 'Europe/Ljubljana' }),
      recordItem('stall', v7(), { siteId: site, name: '1', outlets: [{ connector: 'CCS2', ratedKW: 150 }] }),
    ].map((record) => ({ type: 'record', record })),
  },
);

const server = await ownServer();
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
try {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  await context.addCookies([{ name: SESSION_COOKIE, value: (await startSession(who.householdId, who.personId)).token, url: server.url }]);
  const page = await context.newPage();
  // Fingers that go down and transactions that end are written down beside the application.
  await page.addInitScript(`{
    window.mileDown = []; window.mileUp = []; window.mileKept = [];
    addEventListener('pointerdown', (e) => window.mileDown.push(e.timeStamp), true);
    addEventListener('pointerup', (e) => window.mileUp.push(e.timeStamp), true);
    const open = IDBDatabase.prototype.transaction;
    IDBDatabase.prototype.transaction = function (stores, mode, options) {
      const tx = open.call(this, stores, mode, options);
      if (mode === 'readwrite' && Array.isArray(stores) && stores.includes('event') && stores.includes('meta')) tx.addEventListener('complete', () => window.mileKept.push(performance.now()));
      return tx;
    };
  }`);
  await page.goto(`${server.url}/stall`);
  await page.getByRole('button', { name: /^Hollin Bridge/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  await page.getByRole('button', { name: /^Pulled in/, disabled: false }).tap();
  const pads = page.locator('[data-resting="false"]');
  await pads.getByRole('button', { name: /^Plugged in/, disabled: false }).tap();
  await pads.getByRole('button', { name: /^Card shown/, disabled: false }).tap();
  // The pad beside Fault says one and then the other, in one place: no touch of theirs ends the wait for power.
  const pad = pads.getByRole('button', { name: /^(Says charging|Card again)/, disabled: false });
  await pad.waitFor();
  const box = await pad.boundingBox();
  if (!box) throw new Error('no pad');
  const cdp = await context.newCDPSession(page);
  const point = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }];
  await page.evaluate('window.mileDown = []; window.mileUp = []; window.mileKept = [];');
  const driver: number[] = [];
  for (let i = 0; i < TOUCHES; i++) {
    await pad.waitFor();
    driver.push(Date.now());
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: point });
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    // Asked again and again: the page's policy allows no code of the runner's to wait inside it.
    while (Number(await page.evaluate('window.mileKept.length')) <= i);
  }
  const down = (await page.evaluate('window.mileDown')) as number[];
  const up = (await page.evaluate('window.mileUp')) as number[];
  const kept = (await page.evaluate('window.mileKept')) as number[];
  const told = (await keptEvents(page))
    .filter((k) => k.event.kind === 'claimed' || k.event.kind === 'means_shown')
    .slice(1)
    .map((k) => k.event.at);
  if (told.length !== TOUCHES || down.length !== TOUCHES) throw new Error(`${told.length} events of ${TOUCHES} touches`);
  const since = (fingers: number[]) => kept.map((t, i) => t - (fingers[i] as number));
  const error = told.map((t, i) => Math.abs(t - (driver[i] as number)));
  const both = (all: number[]) => `${at(all, 0.5).toFixed(0)}, ${at(all, 0.95).toFixed(0)}`;
  say(`${TOUCHES} touches, finger lifted to kept on the disk: median, 95th, ms`, both(since(up)));
  say('  from the finger going down, however long it stays', both(since(down)));
  say('recorded time against the driver’s own clock: median, 95th, most, ms', [0.5, 0.95, 1].map((s) => at(error, s).toFixed(0)).join(', '));
} finally {
  await browser.close();
  await server.kill();
  await pool().end();
}
