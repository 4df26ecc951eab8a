import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { dropFile } from './hands/drop-file';
import { addPlace, newHousehold } from './hands/household';

type Case = { id: string; text: string; expected: { proposal: Record<string, string | number | null> } };
const receipts = JSON.parse(readFileSync('core/formats/fixtures/receipts.json', 'utf8')) as { cases: Case[] };
type Kind = 'clean' | 'tilted' | 'glare';
/** A photo of a receipt, drawn: straight on white, turned by three degrees on a table, or under a lamp. */
async function photo(page: Page, text: string, kind: Kind): Promise<Buffer> {
  const sheet = await page.context().newPage();
  await sheet.goto('/sign-in');
  await sheet.setViewportSize({ width: 900, height: 760 });
  await sheet.evaluate(
    ({ text, kind }) => {
      document.body.innerHTML = '';
      document.body.style.cssText = `margin:0;background:${kind === 'clean' ? '#fff' : '#6b5b4a'}`;
      const paper = document.createElement('pre');
      paper.textContent = text;
      paper.style.cssText = `margin:40px;padding:30px 40px;background:#fdfcf8;color:#222;font:30px/1.7 "Overpass Mono Variable",monospace;white-space:pre;${kind === 'tilted' ? 'transform:rotate(3deg)' : ''}`;
      document.body.append(paper);
      if (kind !== 'glare') return;
      const lamp = document.createElement('div');
      lamp.style.cssText =
        'position:fixed;inset:0;background:radial-gradient(circle at 70% 35%, rgba(255,255,255,.75), rgba(255,255,255,0) 35%), linear-gradient(120deg, rgba(0,0,0,.35), rgba(0,0,0,0) 60%)';
      document.body.append(lamp);
    },
    { text, kind },
  );
  await sheet.evaluate(() => document.fonts.ready);
  const taken = await sheet.screenshot({ type: 'jpeg', quality: 80 });
  await sheet.close();
  return taken;
}
const receipt = (id: string) => receipts.cases.find((c) => c.id === id) as Case;

test('a receipt’s picture fills what is empty of a visit typed in, each figure beside where it stands', async ({ page, baseURL }) => {
  test.setTimeout(180_000);
  const base = baseURL as string;
  await newHousehold(page, base);
  await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  await page.goto('/ledger/new');
  await page.getByLabel('kWh').fill('19.2');
  await page.getByText('Read it off a receipt or the last screen').click();
  await page
    .getByLabel('A picture of it')
    .setInputFiles({ name: 'r.jpg', mimeType: 'image/jpeg', buffer: await photo(page, receipt('04-hold-tax-total').text, 'clean') });
  const amount = page.locator('dl > div').filter({ hasText: 'Amount' });
  await expect(amount).toContainText('12.2', { timeout: 100_000 });
  await expect(amount.getByRole('img', { name: 'Where it stands in the picture' })).toBeVisible();
  await page.getByRole('button', { name: 'Fill in what is empty' }).click();
  await expect(page.getByRole('status').filter({ hasText: '4 filled in below' })).toBeVisible();
  // What was typed stays.
  await expect(page.getByLabel('kWh')).toHaveValue('19.2');
  await expect(page.getByLabel('Day')).toHaveValue('2025-09-02');
  await expect(page.getByLabel('Amount paid')).toHaveValue('12.20');
  // A second receipt, with the visit's page open: its minutes are the bill's.
  await page.getByLabel('Site', { exact: true }).selectOption({ label: 'Lipa Barn' });
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await page.getByRole('button', { name: 'Add a bill or receipt' }).click();
  await page.getByText('Read it off a receipt or the last screen').click();
  await page.getByLabel('or its text').fill('Charging time 1 h 05\nTotal 5.00 EUR');
  await page.getByRole('button', { name: 'Read the text' }).click();
  await page.getByRole('button', { name: 'Fill in what is empty' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 filled in below. Look at each before you keep it.' })).toBeVisible();
  await expect(page.getByLabel('Minutes on the bill')).toHaveValue('65');
});

test('its text is read too; what cannot be told says why, and what is no picture is refused', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await page.goto('/ledger/new');
  await page.getByText('Read it off a receipt or the last screen').click();
  await page.getByLabel('or its text').fill(receipt('08-lost-marks').text);
  await page.getByRole('button', { name: 'Read the text' }).click();
  const row = (label: string) => page.locator('dl > div').filter({ hasText: label });
  await expect(row('Energy')).toContainText('its decimal mark is not plain');
  await expect(row('Minutes')).toContainText('65');
  await page.getByRole('button', { name: 'Fill in what is empty' }).click();
  await expect(page.getByLabel('Charged for, minutes')).toHaveValue('65');
  await expect(row('Site')).toContainText('none that is known here');
  await expect(row('Battery')).toContainText('not on it');
  await page.getByLabel('or its text').fill('Battery 24 % → 78 %\nVAT 22 %');
  await page.getByRole('button', { name: 'Read the text' }).click();
  await expect(row('Battery')).toContainText('24 to 78 %');
  await page.getByRole('button', { name: 'Fill in what is empty' }).click();
  await expect(page.getByLabel('Battery on arrival, %')).toHaveValue('24');
  await expect(page.getByLabel('Battery at the end, %')).toHaveValue('78');
  await page
    .getByLabel('A picture of it')
    .setInputFiles({ name: 'x.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>') });
  await expect(page.getByRole('status').filter({ hasText: 'This is no picture that can be read.' })).toBeVisible();
  await page.getByLabel('A picture of it').setInputFiles({ name: 'bill.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4\n') });
  await expect(page.getByRole('status').filter({ hasText: 'This is a PDF: choose a picture of its page, or paste its text below.' })).toBeVisible();
  // Dropped beside its field, it is chosen all the same, and what is folded away opens.
  await page.getByText('Read it off a receipt or the last screen').click();
  await expect(page.getByLabel('A picture of it')).toBeHidden();
  expect(await dropFile(page, 'x.jpg', '<svg xmlns="http://www.w3.org/2000/svg"/>')).toBe(true);
  await expect(page.getByRole('status').filter({ hasText: 'This is no picture that can be read.' })).toBeVisible();
  await expect(page.getByLabel('Charged for, minutes')).toHaveValue('65');
  await page.goto('/ledger/import/sheet');
  await expect.poll(() => dropFile(page, 'mine.csv', 'Start;Station;Energy (kWh)\n2026-03-04 12:00;Lipa Barn;12,5\n'), 'once the page answers').toBe(true);
  await expect(page.getByRole('region', { name: 'Rows of the file' })).toContainText('Lipa Barn');
  await page.goto('/ledger/import');
  await expect.poll(() => dropFile(page, 'mine.csv', 'Start;Station;Energy (kWh)\n'), 'once the page answers').toBe(true);
  await expect(page.getByRole('status').first()).not.toBeEmpty();
  for (const [type, data, status] of [
    ['image/jpeg', '<svg/>', 422],
    ['image/svg+xml', '<svg/>', 415],
    ['text/plain', '', 200],
  ] as const)
    expect((await page.request.post('/api/v1/read-receipt', { headers: { origin: base, 'content-type': type }, data })).status()).toBe(status);
});

test('the level of the battery is read off a picture of a screen, beside where it stands', async ({ page, baseURL }) => {
  test.setTimeout(180_000);
  const base = baseURL as string;
  await newHousehold(page, base);
  const answer = await page.request.post('/api/v1/read-receipt', {
    headers: { origin: base, 'content-type': 'image/jpeg' },
    data: await photo(page, 'CHARGING COMPLETE\n\nBattery 78 %\n\n41.30 kWh', 'clean'),
    timeout: 120_000,
  });
  expect(await answer.json()).toMatchObject({
    battery: { from: null, to: 78 },
    proposal: { kWh: '41.30' },
    seen: { battery: { at: { x: expect.any(Number) } } },
  });
});

test('pictures that are turned or under a lamp are read, or said not to be', async ({ page, baseURL }) => {
  test.setTimeout(240_000);
  const base = baseURL as string;
  await newHousehold(page, base);
  for (const [id, kind] of [
    ['01-german', 'tilted'],
    ['09-spaces-at-marks', 'glare'],
  ] as const) {
    const { text, expected } = receipt(id);
    const answer = await page.request.post('/api/v1/read-receipt', {
      headers: { origin: base, 'content-type': 'image/jpeg' },
      data: await photo(page, text, kind),
      timeout: 120_000,
    });
    const { proposal } = await answer.json();
    expect([kind, Number(proposal.kWh), Number(proposal.amount), proposal.currency, proposal.date]).toEqual([
      kind,
      Number(expected.proposal.kWh),
      Number(expected.proposal.amount),
      expected.proposal.currency,
      expected.proposal.date,
    ]);
  }
});
