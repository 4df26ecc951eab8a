import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { addPlace, asItems, type Member, newHousehold, own, type Place, send, visitEvents } from './hands/household';

let who: Member;
let place: Place;
/** A charge in a month that is over, its card's hold still standing, and no bill yet. */
let visitId: string;
const lastMonth = () => {
  const now = new Date();
  return new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - 1, 12, 10));
};
test.beforeEach(async ({ page, baseURL }) => {
  const base = baseURL as string;
  who = await newHousehold(page, base);
  place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const events = visitEvents(who, place, lastMonth().getTime())
    .filter((e) => e.kind !== 'bill')
    .map((e) => (e.kind === 'means_shown' ? { ...e, payload: { ...e.payload, holdAmount: '40', currency: 'EUR' } } : e));
  visitId = events[0]?.visitId as string;
  await send(page.request, base, asItems(events));
});

test('a bill that came later, a parking ticket and a receipt, a hold released: each leaves the list of what is open', async ({ page }) => {
  await page.goto('/ledger/statement');
  await page.getByRole('link', { name: 'What is open' }).click();
  await expect(page.getByText(/^2 things about money wait: charged, no bill 1, hold 1\.$/)).toBeVisible();
  await page.getByRole('link', { name: /no bill yet, estimated €/ }).click();
  const bill = page.locator('section[aria-labelledby="bill-head"]');
  const should = (await bill.getByRole('row', { name: /^Should be, tax in/ }).textContent())?.match(/€([\d.]+)/)?.[1] as string;

  await bill.getByRole('button', { name: 'Add a bill or receipt' }).press('Enter');
  const sheet = page.getByRole('dialog', { name: 'Add a bill or receipt' });
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).click();
  await expect(sheet.getByText('How much was it?')).toBeVisible();
  await sheet.getByLabel('Amount paid').fill('zwölf');
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).click();
  await expect(sheet.getByText('Not a number')).toBeVisible();
  await sheet.getByLabel('Amount paid').fill(should.replace('.', ','));
  await sheet.getByLabel('Number of the bill').fill('4111111111111111');
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).click();
  await expect(
    sheet
      .getByRole('alert')
      .or(sheet.getByText(/number/i))
      .first(),
  ).toBeVisible();
  await sheet.getByLabel('Number of the bill').fill('2025-77');
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).press('Enter');
  await expect(sheet).toBeHidden();
  await expect(bill.getByRole('row', { name: /^Was charged/ })).toContainText(`€${should}`);
  await expect(bill.getByText(/over\./)).toBeHidden();

  // Parking is a bill of its own: what charging should cost stays what it was.
  await bill.getByRole('button', { name: 'Add a bill or receipt' }).click();
  await sheet.getByLabel('Amount paid').fill('2.50');
  await sheet.getByLabel('For', { exact: true }).selectOption('Parking');
  await sheet.getByLabel('Paid to').fill('Brod town');
  await sheet.getByText('Read it off a receipt or the last screen').click();
  await sheet.getByLabel('A picture of it').setInputFiles('e2e/hands/ticket.jpg');
  const kept = sheet.getByLabel('Keep the picture with the visit');
  await expect(kept).toBeChecked({ timeout: 60_000 });
  // Another one that is no picture takes its place: nothing is kept that is not seen.
  const choice = sheet.getByLabel('A picture of it');
  await expect(choice).toBeEnabled({ timeout: 60_000 });
  await choice.setInputFiles({ name: 'bill.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4\n') });
  await expect(kept).toBeHidden();
  await choice.setInputFiles('e2e/hands/ticket.jpg');
  await expect(kept).toBeChecked({ timeout: 60_000 });
  await sheet.getByRole('button', { name: 'Keep it with the visit' }).click();
  await expect(sheet).toBeHidden();
  await expect(bill.getByRole('row', { name: /^Was charged for parking/ })).toContainText('€2.50');
  await expect(bill.getByText(/over\./)).toBeHidden();
  await expect(page.locator('section[aria-labelledby="record-head"] a[href^="/api/v1/photos/"]')).toHaveCount(1);

  await bill.getByText('It was released').click();
  await bill.getByLabel('On', { exact: true }).fill('2020-01-01');
  await bill.getByRole('button', { name: 'Note it' }).click();
  await expect(bill.getByText('Before it was held')).toBeVisible();
  await bill.getByLabel('On', { exact: true }).fill(new Date(lastMonth().getTime() + 3 * 86_400_000).toISOString().slice(0, 10));
  await bill.getByRole('button', { name: 'Note it' }).click();
  await expect(bill.getByText(/^released on .* after 3 days$/)).toBeVisible();
  await page.goto('/ledger/open');
  await expect(page.getByText(/^Nothing: every charge has its bill/)).toBeVisible();
});

test('a month is closed, told as it was closed, and what changed since is listed; another currency by its rate', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const bill = (amount: string, currency: string, seq: number) => {
    const [first] = visitEvents(who, place, lastMonth().getTime());
    const payload = { sessions: [], amount, currency, state: 'charged' };
    return { ...first, id: v7(), visitId, kind: 'bill', at: lastMonth().getTime() + 7_200_000, seq, payload } as never;
  };
  await send(page.request, base, asItems([bill('12.00', 'EUR', 80), bill('10.00', 'CHF', 81)]));
  const month = lastMonth().toISOString().slice(0, 7);
  await page.goto(`/ledger/statement?of=${month}`);
  await expect(page.getByText(/^No sum in EUR: no rate for CHF is noted/)).toBeVisible();
  await page.goto('/garage/rate/new');
  await page.getByLabel('One', { exact: true }).fill('CHF');
  await page.getByLabel('is so much').fill('0.95');
  await page.getByLabel('On', { exact: true }).fill('2020-01-01');
  await page
    .getByRole('button', { name: /^Add|^Keep/ })
    .first()
    .click();
  await expect(page).not.toHaveURL(/new$/);
  await page.goto(`/ledger/statement?of=${month}`);
  await expect(page.getByText('All of it in EUR: €21.50, by 1 CHF = 0.95 EUR of 1 Jan 2020, as noted.')).toBeVisible();

  await page.getByRole('button', { name: /^Close the books of/ }).press('Enter');
  await page.getByRole('button', { name: 'Leave it open' }).click();
  await page.getByRole('button', { name: /^Close the books of/ }).press('Enter');
  await page.getByRole('button', { name: /for good$/ }).press('Enter');
  const closed = page.getByRole('region', { name: 'Closed books' });
  await expect(closed).toContainText(/^Closed on .* by Tone Zupan\. Nothing changed since\.$/);
  await expect(page.getByRole('button', { name: /^Close the books of/ })).toBeHidden();

  await send(page.request, base, asItems([bill('3.00', 'EUR', 82)]));
  await page.reload();
  await expect(page.getByText(/€12\.00 in 1 bill, from 1 visit\.$/)).toBeVisible();
  await expect(closed.getByRole('listitem')).toContainText(/Brod Landing: paid .*€3\.00.*, was .*\(\+€3\.00\)$/);
  // Closed again, it stays; a month that is not over is not closed.
  expect((await page.request.post('/api/v1/books', { headers: own(base), data: { month } })).status()).toBe(200);
  expect((await page.request.post('/api/v1/books', { headers: own(base), data: { month: '2999-01' } })).status()).toBe(422);
  expect((await page.request.post('/api/v1/books', { headers: own(base), data: { month: 'soon' } })).status()).toBe(422);
  // Nobody from outside.
  const stranger = await browser.newContext({ baseURL: base });
  expect((await stranger.request.post('/api/v1/books', { headers: own(base), data: { month } })).status()).toBe(401);
  await stranger.close();
});

test('what a year came to, beside home, fuel and the time it took', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await page.goto('/compare/all-in');
  await expect(page.getByText(/^No charge of the last twelve months has both its kWh and its bill/)).toBeVisible();
  const events = visitEvents(who, place, Date.now() - 2 * 86_400_000);
  const kWh = Number(events.find((e) => e.kind === 'bill')?.payload.kWh);
  await send(page.request, base, [
    ...asItems(events),
    ...[
      recordItem('otherprice', v7(), { what: 'home', price: '0.20', currency: 'EUR', from: '2020-01-01' }),
      recordItem('otherprice', v7(), { what: 'petrol', price: '1.60', currency: 'EUR', needs: 7, from: '2020-01-01' }),
      recordItem('otherprice', v7(), { what: 'hour', price: '12', currency: 'EUR', from: '2020-01-01' }),
    ].map((record) => ({ type: 'record', record })),
  ]);
  await page.reload();
  await expect(
    page.getByText(`€0.500 per kWh with fees, over ${kWh.toFixed(1)} kWh of 1 billed charge. What 100 km cost is told once the car’s consumption is noted.`),
  ).toBeVisible();
  const [car] = (await (await page.request.get('/api/v1/changes?since=0')).json()).records.filter((r: { type: string }) => r.type === 'car');
  await send(page.request, base, [{ type: 'record', record: { type: 'car', id: car.id, baseRev: car.rev, fields: { kWhPer100km: 19 } } }]);
  await page.reload();
  // 0.50 ÷ 0.95 × 19 kWh per 100 km.
  await expect(page.getByText(/: €10\.00 for 100 km at 19\.0 kWh\/100 km, as noted with the car\.$/)).toBeVisible();
  await expect(page.getByText('the same as charging at €1.43 a litre; charging costs what a car of 6.3 l/100 km would need')).toBeVisible();
  // 0.20 ÷ 0.90 × 19.
  await expect(page.getByText('€4.22 for 100 km')).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'with €12.00 an hour' })).toBeVisible();
  await page.getByRole('link', { name: 'The same stop' }).click();
  await page.getByLabel('kWh').fill('40');
  await page.getByRole('button', { name: 'Price it' }).click();
  await expect(page.getByText('€0.526 a kWh in the battery')).toBeVisible();
});
