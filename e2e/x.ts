import { chromium } from 'playwright-core';
const base = 'http://127.0.0.1:4210';
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const ctx = await b.newContext({ baseURL: base, viewport: { width: 1280, height: 900 } });
const p = await ctx.newPage();
await p.goto('/'); await p.getByRole('button', { name: /Open the demo/ }).click(); await p.waitForURL(/ledger/);
await p.goto('/settings/export');
for (const n of ['Locations', 'CDRs', 'Sessions']) { await p.getByRole('link', { name: new RegExp(`JSON of .*${n}`) }).click(); await p.getByText(/saved\./).nth(0).waitFor(); await p.waitForTimeout(1500); }
await p.screenshot({ path: '/tmp/ex1.png' });
await p.setViewportSize({ width: 320, height: 900 }); await p.emulateMedia({ colorScheme: 'dark' });
await p.screenshot({ path: '/tmp/ex2.png', fullPage: true });
console.log(await p.evaluate(() => document.documentElement.scrollWidth), await p.getByText(/saved\./).allTextContents());
const page = await (await p.request.get('/plan?from=5&to=95')).text();
console.log(/The car’s curve is known[^<]*/.exec(page)?.[0]);
await b.close();
