import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { addPlace, asItems, newHousehold, send, visitEvents } from './hands/household';

const DAY = 86_400_000;
let visits: StoredEvent[][];

test.beforeEach(async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const copper = await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const ferry = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const now = Date.now();
  visits = [
    visitEvents(who, copper, now - 9 * DAY),
    visitEvents(who, copper, now - 6 * DAY),
    visitEvents(who, ferry, now - 4 * DAY, true),
    visitEvents(who, ferry, now - 2 * DAY),
  ];
  await send(page.request, base, asItems(visits.flat()));
});

const rows = '[data-ledger-row]';
const fact = (name: string) => `dl > div:has(dt:text-is("${name}"))`;

test('filters live in the address, and every number of Compare opens the visits behind it', async ({ page }) => {
  await page.goto('/ledger');
  await expect(page.locator(rows)).toHaveCount(4);
  // Many faults: a field narrows them, by keyboard too.
  await page.getByRole('button', { name: 'Faults: Faults or none' }).click();
  await page.keyboard.type('start err');
  await expect(page.getByRole('dialog', { name: 'Faults' }).getByRole('option')).toHaveText(['Start error']);
  await page.keyboard.type('x');
  await expect(page.getByText('Nothing of that name.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Faults: Faults or none' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.type('with');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/faults=any/);
  await expect(page.locator(rows)).toHaveCount(1);
  await page.getByLabel('Network').selectOption({ label: 'Copperbeech' });
  await expect(page.getByRole('heading', { name: 'No visit fits' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'No visit fits' })).toBeVisible();
  await page.getByRole('link', { name: 'Show all' }).click();
  await expect(page.locator(rows)).toHaveCount(4);

  // Further ways to narrow it open from one button, and what is shown is added up.
  await page.getByRole('button', { name: 'Filters', exact: true }).click();
  const more = page.getByRole('dialog', { name: 'Filters' });
  await more.getByLabel('Only').selectOption('Without a bill');
  await more.getByLabel('Words').fill('nowhere');
  await more.getByRole('button', { name: 'Show these' }).click();
  await expect(page).toHaveURL(/only=no_bill&text=nowhere/);
  await expect(page.getByRole('heading', { name: 'No visit fits' })).toBeVisible();
  await page.getByRole('button', { name: 'Filters: 2' }).click();
  await expect(more.getByLabel('Words')).toHaveValue('nowhere');
  await more.getByLabel('Words').fill('');
  await more.getByLabel('Only').selectOption('All visits');
  await more.getByLabel('From').fill('2020-01-01');
  await more.getByRole('button', { name: 'Show these' }).click();
  await expect(page).toHaveURL(/since=2020-01-01/);
  await expect(page.getByText(/^4 visits, .* kWh, €.*Show all/)).toBeVisible();

  await page.goto('/compare');
  await expect(page.getByText('Cannot tell yet: fewer than two networks have 5 counted visits.')).toBeVisible();
  const ferry = page.getByRole('row').filter({ hasText: 'Ferrywell' });
  await expect(ferry).toContainText('1 of 2, 1 not');
  await ferry.getByRole('link', { name: '1 not' }).click();
  await expect(page.locator(rows)).toHaveCount(1);
  await expect(page.locator(rows)).toContainText('2 attempts');
  await page.goBack();
  await ferry.getByRole('link', { name: /€0\.500/ }).click();
  await expect(page.locator(rows)).toHaveCount(2);
});

test('J and K move through the list, keys rest in a field and can be switched off', async ({ page }) => {
  await page.goto('/ledger');
  await expect(page.locator(rows).nth(0)).toHaveAttribute('aria-current', 'true');
  // The list of keys opens once the page has come to life.
  await expect(async () => {
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('j');
  await expect(page.locator(rows).nth(1)).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('j');
  await expect(page.locator(rows).nth(2)).toHaveAttribute('aria-current', 'true');
  await page.keyboard.press('k');
  await expect(page.locator(rows).nth(1)).toHaveAttribute('aria-current', 'true');
  await page.getByLabel('Network').focus();
  await page.keyboard.press('3');
  await expect(page).toHaveURL(/ledger/);
  await page.locator('#content').click({ position: { x: 700, y: 20 } });
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('3');
  await expect(page).toHaveURL(/\/compare$/);
  await page.goto('/settings');
  await page.getByRole('radio', { name: 'Off' }).click();
  await page.goto('/ledger');
  await page.keyboard.press('3');
  await expect(page).toHaveURL(/\/ledger$/);
});

test('a time and a figure are corrected by events, with history; bad figures get their message', async ({ page }) => {
  const clean = visits[3] as StoredEvent[];
  await page.goto(`/ledger/${clean[0]?.visitId}`);
  await expect(page.locator(fact('Handshake'))).toContainText('24.0 s');
  const record = page.getByRole('region', { name: 'The record' });
  await record.getByRole('button', { name: /^Correct Power seen/ }).click();
  const sheet = page.getByRole('dialog');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(sheet.getByText('Nothing was changed.')).toBeVisible();
  await sheet.getByRole('button', { name: '−10 s' }).click();
  await sheet.getByRole('button', { name: '−1 s' }).click();
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.locator(fact('Handshake'))).toContainText('13.0 s');
  await expect(record.getByText(/corrected: time set to .* by Tone Zupan/)).toBeVisible();

  await record.getByRole('button', { name: /^Correct Bill/ }).click();
  await sheet.getByLabel('Amount paid').fill('-5');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(sheet.getByText('must not be negative')).toBeVisible();
  await sheet.getByLabel('Amount paid').fill('30.00');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.locator(fact('Paid'))).toContainText('€30.00');
  await expect(page.locator(rows).first()).toContainText('€30.00');
});

test('a withdrawn visit is out of list and counts, opens by its address, and comes back', async ({ page }) => {
  const visitId = (visits[2] as StoredEvent[])[0]?.visitId;
  await page.goto(`/ledger/${visitId}`);
  await page.getByRole('button', { name: 'Withdraw the visit' }).click();
  await expect(page.getByText('This visit is withdrawn.')).toBeVisible();
  await expect(page.locator(rows)).toHaveCount(3);
  await page.goto('/compare');
  await expect(page.getByRole('row').filter({ hasText: 'Ferrywell' })).toContainText('1 of 1');
  await page.goto(`/ledger/${visitId}`);
  await page.getByRole('button', { name: 'Restore the visit' }).click();
  await expect(page.getByRole('button', { name: 'Withdraw the visit' })).toBeVisible();
  await expect(page.locator(rows)).toHaveCount(4);
});

test('a long ledger is paged by place, months keep their whole sums', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await (await page.request.get('/api/v1/me')).json();
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  for (let i = 0; i < 70; i += 10)
    await send(page.request, base, Array.from({ length: 10 }, (_, k) => asItems(visitEvents(who, place, Date.UTC(2025, 2, 10) + (i + k) * 3_600_000))).flat());
  await page.goto('/ledger');
  await expect(page.locator(rows)).toHaveCount(60);
  await expect(page.getByText(/^70 visits · /)).toBeVisible();
  await page.getByRole('link', { name: 'Older visits' }).click();
  await expect(page.locator(rows)).toHaveCount(14);
  await expect(page.getByText(/^70 visits · /)).toBeVisible();
  await page.getByRole('link', { name: 'Newest' }).click();
  await expect(page.locator(rows)).toHaveCount(60);
});

test('Compare says how surely networks differ, names the sites where they are few, and opens how it was worked out', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await (await page.request.get('/api/v1/me')).json();
  const blue = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  const marsh = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const at = (i: number) => Date.UTC(2025, 2, 2) + i * 12 * 3_600_000;
  // Each failure at a stall of its own: one stall that stays down counts once.
  const elsewhere = (events: StoredEvent[]) => {
    const first = events.find((e) => e.kind === 'stall_chosen')?.id;
    return events.map((e) => (e.id === first ? { ...e, payload: { ...e.payload, stallId: v7() } } : e));
  };
  for (const part of [0, 1, 2])
    await send(
      page.request,
      base,
      Array.from({ length: 10 }, (_, k) => part * 10 + k).flatMap((i) => [
        ...asItems(visitEvents(who, blue, at(i))),
        ...asItems(elsewhere(visitEvents(who, marsh, at(i) + 3_600_000, i % 3 !== 0))),
      ]),
    );
  await page.goto('/compare');
  const sentence = page.getByText(
    /^Lipa Barn \(Bluebarn\) clearly started at the first try more often than Vrba Crossing \(Saltmarsh Rapid\): 29 of 29 visits against \d+ of \d+ visits\./,
  );
  await expect(sentence).toBeVisible();
  await page.getByRole('button', { name: /^How this was worked out: Lipa Barn/ }).click();
  const working = page.getByRole('dialog', { name: 'How this was worked out' });
  await expect(working).toContainText('All visitsBluebarn 30 of 30 visits; Saltmarsh Rapid 10 of 30 visits');
  await expect(working).toContainText('First visits of a person, apartBluebarn 1; Saltmarsh Rapid 1');
  await expect(working).toContainText('Failures of a stall before it worked again, beyond the firstBluebarn 0; Saltmarsh Rapid 0');
  await expect(working).toContainText('Held tofound among 2 pairs and figures: probably from 14, clearly from 48');
  await page.keyboard.press('Escape');
  await expect(working).toHaveCount(0);
  // The curves, and the same as a table.
  const waiting = page.getByRole('region', { name: 'Still waiting for power after …' });
  await expect(waiting.getByRole('img')).toBeVisible();
  await waiting.getByText('The same as a table').click();
  await expect(waiting.getByRole('row').filter({ hasText: 'Bluebarn' })).toContainText('30 starts, 0 never');
  await expect(waiting.getByRole('row').filter({ hasText: 'Saltmarsh Rapid' })).toContainText('50 starts, 20 never');
  await expect(waiting.getByText('2 networks with fewer than five starts to draw.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Networks compared' }).getByRole('row').filter({ hasText: 'Bluebarn' })).toContainText('30 of 30');
});
