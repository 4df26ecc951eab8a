import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';

test('a phone on the local network comes in by https with the code, and then has a service worker', async ({ browser, baseURL }) => {
  const dir = mkdtempSync(path.join(tmpdir(), 'mile-lan-'));
  const port = 20_000 + Math.floor(process.pid % 20_000);
  const front: ChildProcess = spawn(process.execPath, [
    'server/lan/front.mjs',
    '--app-port',
    new URL(baseURL as string).port,
    '--dir',
    dir,
    '--port',
    String(port),
    '--host',
    '127.0.0.1',
  ]);
  try {
    let said = '';
    await new Promise<void>((done, fail) => {
      front.stdout?.on('data', (part) => {
        said += part;
        if (/without a network/.test(said)) done();
      });
      front.once('exit', () => fail(new Error('the front ended')));
    });
    expect(said).toMatch(/fingerprint {2}([0-9A-F]{2}:){31}[0-9A-F]{2}/);
    const code = /code +(\d{6})/.exec(said)?.[1] as string;

    const context = await browser.newContext({ baseURL: `https://127.0.0.1:${port}`, ignoreHTTPSErrors: true, serviceWorkers: 'allow' });
    const page = await context.newPage();
    expect((await page.goto('/sign-in'))?.status()).toBe(401);
    await page.getByLabel('Code from the terminal').fill(code === '000000' ? '000001' : '000000');
    await page.getByRole('button', { name: 'Let me in' }).click();
    await expect(page.getByText('That is not the code.')).toBeVisible();
    await page.getByLabel('Code from the terminal').fill(code);
    await page.getByRole('button', { name: 'Let me in' }).click();
    await expect(page).toHaveURL(/\/stall$/);
    expect(await page.evaluate(() => [isSecureContext, 'serviceWorker' in navigator])).toEqual([true, true]);
    await page.goto('/sign-up');
    await page.getByLabel('Your name').fill('Ana');
    await page.getByLabel('Household').fill('Ana');
    await page.getByLabel('E-mail address').fill(`ana-${Date.now()}@example.invalid`);
    await page.getByLabel('Password').fill('a long enough one');
    await page.getByRole('button', { name: 'Make the account' }).click();
    await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
    expect((await context.cookies()).find((c) => c.name === '__Host-mile_session')?.secure).toBe(true);
    expect((await page.request.get('/stall')).headers()['strict-transport-security']).toBe('max-age=31536000');

    // Two hundred guesses at once: of the five that a minute allows two are used up already.
    const stranger = await browser.newContext({ baseURL: `https://127.0.0.1:${port}`, ignoreHTTPSErrors: true });
    const guesses = await Promise.all(
      Array.from({ length: 200 }, (_, i) => stranger.request.post('/lan/code', { form: { code: `x${i}` }, headers: { origin: `https://127.0.0.1:${port}` } })),
    );
    expect(guesses.filter((g) => g.status() === 401)).toHaveLength(3);
    expect(guesses.filter((g) => g.status() === 429)).toHaveLength(197);
    expect(guesses[0]?.headers()).toMatchObject({
      'strict-transport-security': 'max-age=31536000',
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
    });
    // Who was let in before is let in.
    expect((await page.request.get('/api/v1/me')).status()).toBe(200);
    await stranger.close();
    await context.close();
  } finally {
    front.kill();
  }
});
