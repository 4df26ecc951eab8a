import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { addRoad, look, tell, untilPower } from './hands/charging-now';
import { newHousehold, own } from './hands/household';

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
  expect(statement.pages).toHaveLength(2);
  expect(statement.pages[1]).toMatch(/Receipt, 10 Jun.*, Vrba Crossing/);

  // Nothing charged, no period, somebody else's.
  await page.goto('/ledger/statement?of=2020-01');
  expect((await pagesOf(page, /^PDF/)).pages[0]).toContain('Nothing was charged or paid then.');
  expect((await page.request.get('/api/v1/pdf/statement?of=June')).status()).toBe(422);
  expect((await page.request.get(`/api/v1/pdf/visits/${who.householdId}`)).status()).toBe(404);
});
