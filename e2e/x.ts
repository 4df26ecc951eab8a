import { chromium } from 'playwright-core';

const base = 'http://127.0.0.1:4210';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const ctx = await b.newContext({ baseURL: base, viewport: { width: 1280, height: 800 } });
const p = await ctx.newPage();
await p.goto('/');
await p.getByRole('button', { name: /Open the demo/ }).click();
await p.waitForURL(/ledger/);
await p.goto('/ledger/new');
await p.waitForTimeout(800);
await p.screenshot({ path: '/tmp/tv.png' });
await p.screenshot({ path: '/tmp/tvf.png', fullPage: true });
await b.close();
