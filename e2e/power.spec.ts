import { expect, test } from '@playwright/test';
import { addRoad, look, type Told, tell, untilPower } from './hands/charging-now';
import { newHousehold } from './hands/household';

const DAY = 86_400_000;
const OVER: Told[] = [
  [1500, 'stop_asked', { by: 'button' }],
  [1510, 'power_gone', { why: 'asked' }],
  [1530, 'unplugged'],
  [1560, 'pulled_out', { reason: 'enough' }],
];
/** 120 kW until 40 %, as the car can. */
const ALONE: Told[] = [look(62, 20, 120, '0.1'), look(246, 30, 120, '6.2'), look(432, 40, 119, '12.4'), look(640, 50, 105, '18.6'), look(880, 60, 90, '24.8')];

test('a neighbour and the heater: bands, what held it back, and three visits over each other by keyboard', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const start = Date.now() - 10 * DAY;
  for (const day of [0, 1, 2]) await tell(page, base, who, start + day * DAY, [...untilPower(road), ...ALONE, ...OVER]);
  const visitId = await tell(page, base, who, start + 5 * DAY, [
    ...untilPower(road),
    ...ALONE.slice(0, 3),
    [440, 'change', { what: 'neighbour_in' }],
    look(740, 50, 75, '18.6'),
    look(1040, 60, 74, '24.8'),
    [1045, 'change', { what: 'neighbour_out' }],
    [1050, 'change', { what: 'climate_on' }],
    look(1400, 70, 60, '31.0'),
    ...OVER,
  ]);
  await page.goto(`/ledger/${visitId}`);
  await page.getByRole('link', { name: 'Power along the battery' }).click();
  await expect(page.getByText(/^The stall kept its word for \d\d % of the minutes it took\./)).toBeVisible();
  await expect(page.getByText(/From 40 to 60 % the neighbour probably took half the cabinet: about \d+ minutes\./)).toBeVisible();
  const bands = page.getByRole('region', { name: 'Bands of the battery' }).getByRole('row');
  // 10 % of 62 kWh in 184 s at 120 kW; then 300 s at half the cabinet.
  await expect(bands.filter({ hasText: '20–30' })).toContainText('3.1');
  await expect(bands.filter({ hasText: '20–30' })).toContainText('car');
  await expect(bands.filter({ hasText: '50–60' })).toContainText('5.0');
  await expect(bands.filter({ hasText: '50–60' })).toContainText('pair');
  await expect(bands.filter({ hasText: '60–70' })).toContainText('climate');
  await expect(page.getByRole('listitem').filter({ hasText: 'heating or cooling' })).toContainText('Noted');

  // By keyboard alone: two more visits over it, the crosshair along them, then along the clock.
  await page.getByRole('button', { name: /^Lay another visit over it/ }).focus();
  await page.keyboard.press('Enter');
  const boxes = page.getByRole('checkbox');
  await expect(boxes).toHaveCount(3);
  await boxes.nth(0).focus();
  await page.keyboard.press('Space');
  await expect(page).toHaveURL(/over=/);
  await expect(boxes.nth(0)).toBeChecked();
  await boxes.nth(1).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Lay another visit over it (2)' })).toBeVisible();
  await page.keyboard.press('Escape');
  const crosshair = page.getByRole('slider');
  await crosshair.focus();
  const drawn = await page.locator('svg path').count();
  await page.keyboard.press('Home');
  for (let i = 0; i < 5; i++) await page.keyboard.press('PageUp');
  await expect(crosshair).toHaveAttribute('aria-valuetext', /^60 %, .*: 7\d kW .*; .*kW.*; .*kW.*expected/);
  expect(await page.locator('svg path').count()).toBe(drawn);
  await page.getByRole('link', { name: 'Along the clock' }).click();
  await expect(page.getByRole('heading', { name: 'Power along the clock' })).toBeVisible();
  await expect(page).toHaveURL(/along=clock&over=/);

  await page.getByText('How this was checked').click();
  await expect(page.getByText('kWh against battery')).toBeVisible();
  await page.goto('/compare/power?by=stall');
  await expect(page.getByRole('row').filter({ hasText: 'Vrba Crossing 1' })).toContainText('4 sessions');
  await page.goto(`/garage/car/${road.carId}/curve`);
  await expect(page.getByRole('row').filter({ hasText: '30–35' })).toContainText('120 kW');
});

test('what is foreign, unknown or without power opens nothing', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const visitId = await tell(page, base, who, Date.now() - DAY, [
    [0, 'pulled_in', { siteId: road.here.siteId }],
    [60, 'pulled_out', { reason: 'queue' }],
  ]);
  await page.goto(`/ledger/${visitId}/power?over=${visitId},none,%00`);
  await expect(page.getByText('there is nothing to draw', { exact: false })).toBeVisible();
  const context = await browser.newContext({ baseURL: base });
  const other = await context.newPage();
  await newHousehold(other, base);
  for (const path of [`/ledger/${visitId}/power`, `/garage/car/${road.carId}/curve`, '/garage/car/none/curve', `/garage/means/${road.carId}/curve`])
    expect((await other.goto(path))?.status()).toBe(404);
  await other.goto(`/plan?car=${road.carId}&stall=${road.there.stallId}&from=abc&to=400`);
  await expect(other.getByText('Add a car to the garage', { exact: false })).toBeVisible();
  await other.goto('/compare/power?by=nothing&site=%00');
  await expect(other.getByText('No session with two readings', { exact: false })).toBeVisible();
  await context.close();
});

test('a stop thought of: minutes, money and range, against what else could be done', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const road = await addRoad(page, base);
  await page.goto('/plan');
  await page.getByLabel('at stall').selectOption({ label: 'Vrba Crossing 1' });
  await page.getByLabel('from, %').fill('20');
  await page.getByLabel('to, %').fill('40');
  await page.getByRole('button', { name: 'Work it out' }).click();
  const row = (name: string) => page.getByRole('row').filter({ hasText: name });
  // 20 % of 62 kWh at 120 kW are 6.2 min, 12.4 kWh at 0.50.
  await expect(row('This stop')).toContainText('6.2 min');
  await expect(row('This stop')).toContainText('€6.20');
  await expect(row('Hollin Bridge 1')).toContainText('no price on file');
  await page.getByLabel('a neighbour charges too').check();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(row('This stop')).toContainText('75 kW');
  await expect(row('This stop')).toContainText('pair 20–40 %');
  await page.goto(`/plan?stall=${road.here.stalls[0]}&from=80&to=20`);
  await expect(page.getByText('The battery is to be fuller afterwards than before.')).toBeVisible();
});
