import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { addRoad, look, tell, untilPower } from './hands/charging-now';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';

/** The text of each page, read by a reader of PDF that knows nothing of ours. */
async function pagesOf(page: Page, link: string | RegExp): Promise<{ name: string; pages: string[]; glued: string }> {
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: link }).click()]);
  const document = await getDocument({ data: new Uint8Array(await readFile(await download.path())), useSystemFonts: false, verbosity: 0 }).promise;
  const pages: string[] = [];
  let glued = '';
  for (let n = 1; n <= document.numPages; n++) {
    const { items } = await (await document.getPage(n)).getTextContent();
    const words = items.map((i) => ('str' in i ? i.str : ''));
    pages.push(words.join(' ').replace(/\s+/g, ' '));
    // A word whose letters come of two fonts stands in pieces beside each other.
    glued += words.join('');
  }
  return { name: download.suggestedFilename(), pages, glued };
}

test('a visit and a month as PDF: their words can be read, each page has its number, the receipts are attached', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const at = Date.UTC(2026, 5, 10, 9);
  const picture = await page.screenshot({ type: 'jpeg' });
  const sha256 = createHash('sha256').update(picture).digest('hex');
  await page.request.put(`/api/v1/photos/${sha256}`, { headers: { ...own(base), 'content-type': 'image/jpeg' }, data: picture });
  const readings = Array.from({ length: 60 }, (_, i) => look(700 + i * 10, 50, 100 - i, (18 + i * 0.2).toFixed(1)));
  const visitId = await tell(page, base, who, at, [
    ...untilPower(road),
    ...readings,
    [1500, 'stop_asked', { by: 'button' }],
    [1505, 'reading', { screen: 'stall', kWh: '31.0' }],
    [1510, 'power_gone', { why: 'asked' }],
    [1530, 'unplugged'],
    [1560, 'pulled_out', { reason: 'enough' }],
    [1600, 'note', { text: 'Račun št. 7, polnilnica pri žlebu' }],
    [1610, 'bill', { sessions: [], amount: '15.50', currency: 'EUR', kWh: '31.0', state: 'charged', tax: '2.80' }],
    [1620, 'receipt', { sha256 }],
  ]);
  await page.goto(`/ledger/${visitId}`);
  const { name, pages, glued } = await pagesOf(page, /^PDF/);
  expect(name).toBe(`visit-${visitId}.pdf`);
  expect(pages.length).toBeGreaterThan(1);
  for (const [i, text] of pages.entries()) expect(text).toContain(`page ${i + 1} of ${pages.length}`);
  const all = pages.join(' ');
  for (const words of ['Vrba Crossing', '31.0 kWh', '€15.50', 'Attempts and their times', 'Readings', 'The record']) expect(all).toContain(words);
  expect(glued).toContain('Račun št. 7, polnilnica pri žlebu');
  // The heads of a table stand on every page that it reaches.
  expect(pages.filter((p) => p.includes('After power')).length).toBeGreaterThan(1);

  await page.goto('/ledger/statement?of=2026-06');
  const statement = await pagesOf(page, /^PDF/);
  expect(statement.name).toBe('statement-2026-06.pdf');
  expect(statement.pages[0]).toContain('€15.50 in 1 bill, from 1 visit.');
  expect(statement.pages[0]).toContain('1 receipt attached.');
  for (const w of ['Statement, Jun 2026', '10 Jun', 'of that tax', '€2.80']) expect(statement.pages[0]).toContain(w);
  expect(statement.pages).toHaveLength(2);
  expect(statement.pages[1]).toMatch(/Receipt, 10 Jun.*, Vrba Crossing/);

  // Nothing charged, no period, somebody else's.
  await page.goto('/ledger/statement?of=2020-01');
  const periods = page.getByRole('navigation', { name: 'Period' });
  await periods.getByRole('link', { name: 'Feb 2020' }).click();
  await expect(page).toHaveTitle('Statement, Feb 2020 · Mile Ledger');
  await periods.getByRole('link', { name: 'All of 2020' }).click();
  await expect(periods.getByRole('link')).toHaveText([/^2019$/, /^2021$/, 'This month', 'All of 2020', 'What is open', /^PDF/]);
  await periods.getByRole('link', { name: 'This month' }).click();
  await expect(periods.getByRole('link')).toHaveCount(5);
  await page.goto('/ledger/statement?of=2020-01');
  expect((await pagesOf(page, /^PDF/)).pages[0]).toContain('Nothing was charged or paid then.');
  expect((await page.request.get('/api/v1/pdf/statement?of=June')).status()).toBe(422);
  expect((await page.request.get(`/api/v1/pdf/visits/${who.householdId}`)).status()).toBe(404);
});

test('a site, a network and a trial as PDF, with n, dates, method and that the operator was not asked', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  for (const days of [40, 20, 3]) await send(page.request, base, asItems(visitEvents(who, place, Date.now() - days * 86_400_000, days === 20)));
  const trial = v7();
  const sides = place.stalls.map((key, i) => ({ key, label: `Vrba Crossing ${i + 1}`, siteId: place.siteId }));
  const plan = {
    name: 'Stall 1 or 2',
    kind: 'stall' as const,
    sides,
    rounds: 7,
    seed: 5,
    time: 'handshake' as const,
    mark: 'kW' as const,
    observers: 1 as const,
  };
  await send(page.request, base, [{ type: 'record', record: recordItem('trial', trial, plan) }]);

  await page.goto(`/places/${place.siteId}`);
  const site = await pagesOf(page, /^PDF/);
  expect(site.name).toBe(`site-${place.siteId}.pdf`);
  const words = [
    'What the visits say',
    'Starts at the first try',
    '2 of 3',
    'Stalls by starts at the first try',
    'Month by month',
    'Faults, newest first',
    'The operator was not asked.',
  ];
  for (const w of words) expect(site.pages.join(' ')).toContain(w);
  // A column in which nothing stands is left out.
  expect(site.pages.join(' ')).not.toContain('taken as');
  expect(site.pages.at(-1)).toMatch(/3 visits, .* Method: every visit that was recorded counts/);
  expect(site.pages[0]).toContain(`page 1 of ${site.pages.length}`);
  await page.goto(`/places/networks/${place.networkId}`);
  const network = await pagesOf(page, /^PDF/);
  expect(network.pages.join(' ')).toContain('Sites by starts at the first try');
  expect(network.pages.join(' ')).toContain('Vrba Crossing');
  await page.goto(`/compare/trials/${trial}`);
  const paper = await pagesOf(page, /^PDF/);
  for (const w of ['Stall 1 or 2: who gives power sooner?', 'by lot within each round, seed 5', 'No round was run yet.', 'the operators'])
    expect(paper.pages.join(' ')).toContain(w);
  for (const what of ['sites', 'networks', 'trials']) {
    expect((await page.request.get(`/api/v1/pdf/${what}/${v7()}`)).status()).toBe(404);
    expect((await page.request.get(`/api/v1/pdf/${what}/x`)).status()).toBe(404);
  }
});
