import { expect, type Locator, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { addRoad, look, type Told, tell, untilPower } from './hands/charging-now';
import { newHousehold, send } from './hands/household';

const DAY = 86_400_000;
const OVER: Told[] = [
  [1500, 'stop_asked', { by: 'button' }],
  [1510, 'power_gone', { why: 'asked' }],
  [1530, 'unplugged'],
  [1560, 'pulled_out', { reason: 'enough' }],
];
/** Paper is narrower than the screen that a figure was drawn for, and nothing measures it anew: it gets smaller then, rather than being cut off. */
const fitsPaper = async (figure: Locator) =>
  expect(
    await figure.evaluate((svg) => {
      const around = svg.parentElement as HTMLElement;
      around.style.width = '300px';
      const { width, height } = svg.getBoundingClientRect();
      const [, , wide = 0, high = 0] = (svg.getAttribute('viewBox') ?? '').split(' ').map(Number);
      around.style.width = '';
      return [width, Math.abs(height - (300 * high) / wide) < 1];
    }),
  ).toEqual([300, true]);
/** 120 kW until 40 %, as the car can. */
const ALONE: Told[] = [look(62, 20, 120, '0.1'), look(246, 30, 120, '6.2'), look(432, 40, 119, '12.4'), look(640, 50, 105, '18.6'), look(880, 60, 90, '24.8')];

test('a neighbour and the heater: bands, what held it back, and three visits over each other by keyboard', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const start = Date.now() - 10 * DAY;
  for (const day of [0, 1, 2]) await tell(page, base, who, start + day * DAY, [...untilPower(road), ...ALONE, ...OVER]);
  // Another car at the same site.
  const wren = recordItem('car', v7(), { name: 'Wren 50', usableKWh: 50, connectors: ['CCS2'] });
  await send(page.request, base, [{ type: 'record', record: wren }]);
  await tell(page, base, who, start + 4 * DAY, [...untilPower({ ...road, carId: wren.id }), ...ALONE, ...OVER]);
  const visitId = await tell(page, base, who, start + 5 * DAY, [
    ...untilPower(road),
    ...ALONE.slice(0, 3),
    [440, 'change', { what: 'neighbour_in' }],
    look(740, 50, 75, '18.6'),
    look(1040, 60, 74, '24.8'),
    [1045, 'change', { what: 'neighbour_out' }],
    [1047, 'change', { what: 'rain' }],
    [1048, 'change', { what: 'other', text: 'A barrier was put across the lane' }],
    [1050, 'change', { what: 'climate_on' }],
    look(1400, 70, 60, '31.0'),
    ...OVER,
  ]);
  await page.goto(`/ledger/${visitId}`);
  await fitsPaper(page.getByRole('img', { name: /^Tape of the visit:/ }));
  await page.getByRole('link', { name: 'Power along the battery' }).click();
  await fitsPaper(page.getByRole('img', { name: /^Power along the battery;/ }));
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

  // What bears on the power and what does not is marked where it was.
  for (const mark of ['Neighbour plugs in', 'Neighbour leaves', 'Heating or cooling on', 'Rain', 'A barrier was put acros…'])
    await expect(page.getByText(mark, { exact: true })).toBeVisible();

  // By keyboard alone: two more visits over it, the crosshair along them, then along the clock.
  await page.getByRole('button', { name: /^Lay another visit over it/ }).focus();
  await page.keyboard.press('Enter');
  const boxes = page.getByRole('checkbox');
  await expect(boxes).toHaveCount(4);
  await expect(page.getByRole('checkbox', { name: /Vrba Crossing, Wren 50$/ })).toBeVisible();
  await boxes.nth(0).focus();
  await page.keyboard.press('Space');
  await expect(page).toHaveURL(/over=/);
  await expect(boxes.nth(0)).toBeChecked();
  await boxes.nth(1).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Lay another visit over it (2)' })).toBeVisible();
  // Ticked at once, drawn when the page has come.
  await expect(page).toHaveURL(/over=[^,&]+(,|%2C)/);
  await page.keyboard.press('Escape');
  // What each line is stands below the picture, each once whatever an address says; a single one is named where it is.
  const named = page.locator('svg text').filter({ hasText: /^\d+ \w+ \d+, stall/ });
  await expect(named).toHaveCount(3);
  const asked = page.url();
  const laid = new URL(asked).searchParams.get('over') as string;
  await page.goto(`/ledger/${visitId}/power?over=${visitId},${laid},${laid}`);
  await expect(named).toHaveCount(3);
  await page.goto(`/ledger/${visitId}/power?over=${laid.split(',')[0]}`);
  await expect(named).toHaveCount(1);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(named).toHaveCount(2);
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(asked);
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

  // Any stretch of it, without losing what was chosen.
  await page.getByLabel('from, %').fill('24');
  await page.getByLabel('to, %').fill('36,5');
  await page.getByRole('button', { name: 'What it took' }).click();
  await expect(page.getByText(/^24 to 36\.5 %: \d\.\d min, 7\.\d kWh, 1\d\d kW by the meter, 43 km\.$/)).toBeVisible();
  await expect(page.getByText(/^36\.5 % after \d\.\d min of charging, at \d\d:\d\d\.$/)).toBeVisible();
  await expect(page).toHaveURL(/along=clock&over=/);
  await page.getByLabel('to, %').fill('10');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main').getByRole('alert')).toHaveText('The second level is to be above the first.');

  await page.getByText('How this was checked').click();
  await expect(page.getByText('kWh against battery')).toBeVisible();
  await page.goto('/compare/power?by=stall');
  await expect(page.getByRole('row').filter({ hasText: 'Vrba Crossing 1' })).toContainText('5 sessions');
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
  // The car takes no more elsewhere.
  await expect(page.getByText('No other post on file is quicker for this car.')).toBeVisible();
  await page.getByLabel('a neighbour charges too').check();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(row('Hollin Bridge 1')).toContainText('no price on file');
  await expect(row('This stop')).toContainText('75 kW');
  await expect(row('This stop')).toContainText('pair 20–40 %');
  await page.goto(`/plan?stall=${road.here.stalls[0]}&from=80&to=20`);
  await expect(page.getByText('The battery is to be fuller afterwards than before.')).toBeVisible();
  await page.getByLabel('to, %').fill('180');
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.getByRole('main').getByRole('alert')).toHaveText('“to” is no level of the battery: a number from 0 to 100.');
  await expect(page.getByLabel('to, %')).toHaveValue('180');
  await expect(page.getByRole('row')).toHaveCount(0);
  // What the car takes of alternating current is not on file: it is said, and nothing is held against it.
  const slow = recordItem('stall', v7(), { siteId: road.here.siteId, name: '9', outlets: [{ connector: 'Type 2', ratedKW: 22 }] });
  await send(page.request, base, [{ type: 'record', record: slow }]);
  await page.goto(`/plan?stall=${slow.id}`);
  await expect(page.getByText('How much alternating current the car takes is not on file', { exact: false })).toBeVisible();
  await expect(row('This stop')).toContainText('22 kW');
  await expect(row('Hollin Bridge 1')).toHaveCount(0);
});

test('a car’s own log beside a visit: how far each tap is from it, its readings taken in, drawn, and taken back', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const start = Date.now() - 10 * DAY;
  const visitId = await tell(page, base, who, start, [...untilPower(road), ...ALONE, ...OVER]);
  // Power came 60 s after the arrival: the recorder was switched on five minutes before it, its clock an hour off.
  const kW = (t: number) => (t < 0 || t > 1450 ? 0.3 : t < 380 ? 120 : 120 - (t - 380) / 17);
  const rows = Array.from(
    { length: 450 },
    (_, i) => `${new Date(start + i * 5000 - 3_600_000).toISOString()},${kW(i * 5 - 300).toFixed(1)},${(18 + i / 10).toFixed(1)}`,
  );
  const file = (name: string, text: string) => ({ name, mimeType: 'text/csv', buffer: Buffer.from(text) });
  await page.goto(`/ledger/${visitId}/power`);
  const log = page.getByRole('region', { name: /log of the car/ }).or(page.locator('section').filter({ hasText: 'A log of the car’s own' }));
  await log.getByLabel('The file').setInputFiles(file('x.csv', 'a,b\n1,2'));
  await expect(log.getByText(/^The log cannot be read\. No column of it is a time/)).toBeVisible();
  await log.getByLabel('The file').setInputFiles(file('log.csv', `timestamp,power (kW),soc (%)\n${rows.join('\n')}`));
  await expect(log.getByText(/^It goes with attempt 1: correlation 0\.9\d/)).toBeVisible();
  await expect(log.getByText('Power seen, tapped')).toBeVisible();
  await expect(log.getByText(/^Read 120 kW at/).first()).toBeVisible();
  await log.getByRole('button', { name: /^Take in \d+ readings/ }).click();
  await expect(log.getByText(/^\d+ readings taken in as the car’s\.$/)).toBeVisible();
  await expect(page.getByText('Power from the car’s screen.')).toBeVisible();
  await log.getByRole('button', { name: 'Take them back' }).click();
  await expect(log.getByText(/^\d+ readings taken back\.$/)).toBeVisible();
  await expect(page.getByText('Power from the stall’s screen.')).toBeVisible();
  await page.setViewportSize({ width: 320, height: 640 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(320);
});
