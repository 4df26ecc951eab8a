import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { addRoad, look, type Told, tell, untilPower } from '../hands/charging-now';
import { newHousehold, send } from '../hands/household';
import { openStall, thumb } from '../hands/stall';

test('stay or go, by a next leg and a next site, by touch and without a network', async ({ page, baseURL, context }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const ago = Date.now() - 9 * 60_000;
  // 60 s after the arrival power; 20 % then, 40 % six minutes and some later: what the curve says.
  await tell(page, base, who, ago, [...untilPower(road), look(62, 20, 119, '0.1'), look(250, 30, 120, '6.3'), look(436, 40, 119, '12.4')]);
  await openStall(page);
  await page.getByRole('button', { name: /^Join: Vrba Crossing/ }).tap();
  const line = page.getByRole('button', { name: /^Stay or go: About 80 % at \d\d:\d\d/ });
  await expect(line).toBeVisible();
  await context.setOffline(true);

  await line.tap();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByRole('row')).toHaveCount(7); // the head, and tens from 50 to 100 %
  await expect(sheet.getByText('Max stay ends')).toBeVisible();
  await sheet.getByRole('button', { name: 'not set' }).tap();
  const hand = thumb(page);
  // 180 km at 18 kWh/100 km of 62 kWh are 52.3 %, and 10 % of reserve.
  await hand.figures(['180']);
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(page.getByRole('dialog', { name: /^Stay until 63 %/ })).toBeVisible();
  await expect(sheet.getByText('63 %: leg and 10 % reserve covered')).toBeVisible();
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).include('[role="dialog"]').analyze();
  expect(axe.violations.map((v) => v.id)).toEqual([]);
  await sheet.getByRole('button', { name: '180 km' }).tap();
  await sheet.getByRole('combobox').selectOption({ label: 'Hollin Bridge' });
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(sheet.getByText('Type how far it is to there.')).toBeVisible();
  await expect(sheet.getByText('57 km as the crow flies; the road is longer.')).toBeVisible();
  await hand.figures(['84', '150']);
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(sheet.getByText(/Hollin Bridge was never seen/)).toBeVisible();
  // Past 40 % the car takes less here than it would there: go, and no figure of the meter to wait for.
  await expect(page.getByRole('dialog', { name: 'Go on to Hollin Bridge, if it stands as noted.' })).toBeVisible();
  await expect(sheet.getByText(/on the screen/)).toHaveCount(0);
  await sheet.getByText('How this was worked out').tap();
  await expect(sheet.getByText(/min for handshake and starts that fail/)).toBeVisible();
  // How fast the way is driven is kept.
  const leg = sheet.getByRole('button', { name: 'Hollin Bridge, 84 km' });
  const speed = sheet.getByRole('button', { name: /^Speed/ });
  await leg.tap();
  await speed.tap();
  // The first digit takes the place of the 80 that stands there.
  const pads = async (...keys: string[]) => {
    for (const key of keys) await sheet.getByRole('button', { name: key, exact: true }).tap();
  };
  await pads('1', '1', '0');
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(sheet.getByText(/Hollin Bridge was never seen/)).toBeVisible();
  await leg.tap();
  await expect(speed).toHaveText(/110\s*km\/h/);
  // What stands there can be mended as well, and is not begun anew once it was.
  await speed.tap();
  await pads('Take the last digit away', '5');
  await expect(speed).toHaveText(/115\s*km\/h/);
  await pads('Take the last digit away', '0');
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  // Should that site fail, another lies 60 km beyond it: 17.4 % on arrival, and 41.8 % to leave with. Read were 40 %.
  await leg.tap();
  await sheet.getByRole('button', { name: /^To fallback/ }).tap();
  await pads('6', '0');
  await sheet.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(page.getByRole('dialog', { name: 'By now probably enough to go on to Hollin Bridge, if it stands as noted.' })).toBeVisible();
  await expect(sheet.getByText(/^Read last: 40 %, \d+ min ago\. Look at the screen\./)).toBeVisible();
  await expect(sheet.locator('div').filter({ hasText: /^Turn to the fallback at the latest at18 %$/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Stay or go: (?!About)/ })).toBeVisible(); // the line follows what was set
  await page.setViewportSize({ width: 320, height: 568 });
  await expect(page.getByRole('button', { name: /^Stay or go: / })).toBeVisible();
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
});

test('under two readings nothing is said, and where the drive goes can be set', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  await tell(page, base, who, Date.now() - 3 * 60_000, untilPower(road));
  await openStall(page);
  await page.getByRole('button', { name: /^Join: Vrba Crossing/ }).tap();
  await page.getByRole('button', { name: 'Where next?' }).tap();
  await expect(page.getByText('After two readings of the battery it says how long to stay.')).toBeVisible();
});

// 40 to 80 % take 17.2 minutes of power, by the curve.
const CHARGED = [look(62, 20, 119, '0.1'), look(436, 40, 119, '12.4')];
for (const [what, more, says] of [
  ['while it is paused no time of day is told', [[440, 'change', { what: 'paused' }], look(460, 40, 0, '12.4')], /Once power is back: about 17 min to 80 %\./],
  [
    'once it is resumed what was shown in the pause says nothing',
    [[440, 'change', { what: 'paused' }], look(460, 40, 0, '12.4'), [500, 'change', { what: 'resumed' }]],
    /About 80 % at/,
  ],
  ['a look at a screen without power is believed', [look(460, 40, 0, '12.4')], /No power was shown last: it gets no fuller\./],
] as [string, Told[], RegExp][])
  test(what, async ({ page, baseURL }) => {
    const base = baseURL as string;
    const who = await newHousehold(page, base);
    const road = await addRoad(page, base);
    await tell(page, base, who, Date.now() - 9 * 60_000, [...untilPower(road), ...CHARGED, ...more]);
    await openStall(page);
    await page.getByRole('button', { name: /^Join: Vrba Crossing/ }).tap();
    await expect(page.getByRole('button', { name: new RegExp(`^Stay or go: ${says.source}`) })).toBeVisible();
  });

test('the whole tariff prices the charge while it runs, without a network; what the post says becomes the price of its place', async ({
  page,
  baseURL,
  context,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const { siteId, networkId } = road.here;
  // 0.40 per kWh and 0.05 per minute, the first thirty of them free.
  const object = {
    country_code: 'ZZ',
    party_id: 'OWN',
    id: 't',
    currency: 'EUR',
    elements: [
      { price_components: [{ type: 'ENERGY' as const, price: 0.4, step_size: 1 }] },
      { price_components: [{ type: 'TIME' as const, price: 3, step_size: 1 }] },
    ],
    last_updated: '2025-01-01T00:00:00Z',
  };
  const extra = { allowance: { free_minutes_per_session: 30, applies_to: ['TIME' as const] } };
  const fields = { networkId, siteId, currency: 'EUR', perKWh: '0.40', tariff: object, extra, validFrom: '2024-01-01' };
  await send(page.request, base, [{ type: 'record', record: recordItem('tariff', v7(), fields) }]);
  const ago = Date.now() - 9 * 60_000;
  await tell(page, base, who, ago, [...untilPower(road), look(62, 20, 119, '0.1'), look(436, 40, 119, '12.4')]);
  await openStall(page);
  await page.getByRole('button', { name: /^Join: Vrba Crossing/ }).tap();
  await context.setOffline(true);
  await expect(page.getByText(/^By tariff about €4\.96 so far\. From \d\d:\d\d €0\.050 per minute\.$/)).toBeVisible();
  const hand = thumb(page);
  await hand.pad(/^More/);
  await hand.sheet(/^Price shown/);
  const sheet = page.getByRole('dialog');
  const keep = sheet.getByRole('checkbox', { name: /^Guests’ price at Vrba Crossing from today/ });
  await expect(keep).toBeDisabled();
  await sheet.getByLabel('€ per kWh').fill('0,6x');
  await sheet.getByRole('button', { name: 'Record it' }).tap();
  await expect(sheet.getByText('A price such as 0.59')).toBeVisible();
  await sheet.getByLabel('€ per kWh').fill('0,60');
  await sheet.getByLabel('€ per start').fill('1');
  await keep.check();
  // By how much it would be more nobody knows.
  await hand.sheet('Tax on top');
  await expect(keep).not.toBeChecked();
  await hand.sheet('Tax on top');
  await expect(keep).toBeChecked();
  await page.setViewportSize({ width: 320, height: 568 });
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await sheet.getByRole('button', { name: 'Record it' }).tap();
  await expect(page.getByText('By tariff about €8.44 so far.')).toBeVisible();
  await context.setOffline(false);
  const onFile = async () => (await (await page.request.get('/api/v1/tariffs')).json()).items as { siteId: string; perKWh: string; startFee: string }[];
  await expect.poll(async () => (await onFile()).some((t) => t.siteId === siteId && Number(t.perKWh) === 0.6 && Number(t.startFee) === 1)).toBe(true);
});

test('prices of the place are added and changed at the stall, and the cost runs on after the charge until the car is unplugged', async ({
  page,
  baseURL,
  context,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const { siteId, networkId } = road.here;
  const planId = v7();
  const plan = recordItem('plan', planId, { name: 'Saltmarsh plan', networkId, currency: 'EUR', from: '2020-01-01' });
  await send(page.request, base, [{ type: 'record', record: plan }]);
  const ago = Date.now() - 20 * 60_000;
  const gone = { why: 'asked' };
  await tell(page, base, who, ago, [
    ...untilPower(road),
    look(62, 20, 119, '0.1'),
    look(436, 40, 119, '12.2'),
    [440, 'power_gone', gone],
    look(442, 40, 0, '12.4'),
  ]);
  await openStall(page);
  await page.getByRole('button', { name: /^Join: Vrba Crossing/ }).tap();
  await context.setOffline(true);
  await expect(page.getByText('By tariff about €6.20 so far.', { exact: true })).toBeVisible();
  await expect(page.getByText(/€0\.500\/kWh since 1 Jan 2020/)).toBeVisible();

  const hand = thumb(page);
  await hand.pad(/^More/);
  await hand.sheet('Prices here …');
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByText('€0.500 per kWh')).toBeVisible();
  await hand.sheet('Another price now');
  await expect(sheet.getByText('40 kWh in 30 min from now would cost €20.00.')).toBeVisible();
  await sheet.getByLabel('Per kWh, EUR').fill('x');
  await hand.sheet('Only Vrba Crossing');
  await hand.sheet('Minutes, idle, overstay, tax on top');
  await sheet.getByLabel('Idle from minute').fill('5');
  await hand.sheet('Keep the price');
  await expect(sheet.getByText('A decimal number such as 0.55')).toBeVisible();
  await expect(sheet.getByText('How much a minute?')).toBeVisible();
  await expect(sheet.getByLabel('Per kWh, EUR')).toBeFocused();
  await sheet.getByLabel('Per kWh, EUR').fill('0,40');
  await sheet.getByLabel('Idle, per minute').fill('0,1');
  await page.setViewportSize({ width: 320, height: 568 });
  await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa']).include('[role="dialog"]').analyze();
  expect(axe.violations.map((v) => v.id)).toEqual([]);
  await hand.sheet('Keep the price');
  await expect(sheet.getByText('€0.400 per kWh, idle €0.10 a minute from 5 min after charging')).toBeVisible();
  await page.setViewportSize({ width: 390, height: 844 });

  // One for a plan beside it, which is then what the visit goes by.
  await hand.sheet('Add a price');
  await sheet.getByLabel('For whom').selectOption('Plan: Saltmarsh plan');
  await sheet.getByLabel('Per kWh, EUR').fill('0.20');
  await hand.sheet('Keep the price');
  await expect(sheet.getByRole('listitem')).toHaveCount(2);
  // What was typed wrong is mended where it is.
  await sheet.getByRole('listitem').filter({ hasText: 'Saltmarsh plan' }).getByRole('button', { name: 'Mend this one' }).tap();
  await expect(sheet.getByLabel('Per kWh, EUR')).toHaveValue('0.2');
  await sheet.getByLabel('Per kWh, EUR').fill('0.25');
  await hand.sheet('Keep the price');
  await page.keyboard.press('Escape');
  // Twelve and some minutes after the charge, five of them of grace: 12.4 kWh at 0.40, and 0.10 a minute.
  await expect(page.getByText(/^By tariff about €5\.\d\d, €3\.10 with Saltmarsh plan so far\.$/)).toBeVisible();
  await expect(page.getByText(/€0\.250\/kWh with Saltmarsh plan since/)).toBeVisible();
  await page.getByRole('button', { name: 'This phone records now' }).tap();
  await hand.pad(/^Unplugged/);
  await hand.pad(/^Pulled out/);
  await expect(page.getByText('by tariff about €3.10')).toBeVisible();
  await context.setOffline(false);
  const onFile = async () => (await (await page.request.get('/api/v1/tariffs')).json()).items as { siteId: string; planId: string | null; perKWh: string }[];
  await expect
    .poll(async () =>
      (await onFile())
        .filter((t) => t.siteId === siteId)
        .map((t) => [t.planId, Number(t.perKWh)])
        .sort(),
    )
    .toEqual(
      [
        [null, 0.4],
        [planId, 0.25],
      ].sort(),
    );
});
