import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import type { StoredEvent } from '@/core/visit/event';
import { addPlace, asItems, newHousehold, own, send, visitEvents } from './hands/household';

const DAY = 86_400_000;
const fact = (name: string) => `dl > div:has(dt:text-is("${name}"))`;

test('a visit typed in afterwards from a receipt and a stopwatch: only what is known, the rest is not read', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  await page.goto('/ledger/new');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByText('Which site?')).toBeVisible();
  await expect(page.getByText('Which day?')).toBeVisible();
  await page.getByLabel('Site', { exact: true }).selectOption({ label: 'Hollin Bridge' });
  await page.getByLabel('Stall', { exact: true }).selectOption({ label: '2' });
  await page.getByLabel('Day', { exact: true }).fill('2025-06-18');
  await page.getByLabel('Pulled in').fill('13:40');
  await page.getByLabel('Pulled out').fill('13:20');
  await page.getByLabel('Paid with').selectOption({ label: 'RFID card' });
  await page.getByLabel('Handshake by stopwatch').fill('1:05');
  await page.getByLabel('Delivered, kWh').fill('31,4');
  await page.getByLabel('Amount paid', { exact: true }).fill('15.70');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByText('Is before the time above it')).toBeVisible();
  await expect(page.getByLabel('Pulled out')).toBeFocused();
  await page.getByLabel('Pulled out').fill('14:25');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByRole('heading', { name: 'Hollin Bridge', level: 1 })).toBeVisible();
  await expect(page.locator(fact('Paid'))).toContainText('€0.500 per kWh with fees');
  await expect(page.locator(fact('Delivered'))).toContainText('31.4 kWh');
  await expect(page.locator(fact('Average power'))).toContainText('not read');
  await expect(page.locator(fact('Lost to faults'))).toContainText('45:00 visit');
  const given = page.getByRole('region', { name: 'Given figures' });
  await expect(given).toContainText('1:05 ± 2 s');
  await expect(page.locator(fact('Handshake'))).toContainText('plugging in was not recorded');
  // Chosen by a correction, the given figure counts.
  await page.getByRole('button', { name: /^Correct Stopwatch figure/ }).click();
  await page.getByLabel('Use it in place of the derived figure').selectOption('Yes');
  await page.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.locator(fact('Handshake'))).toContainText('1:05');
  await expect(given).toContainText('chosen');
});

test('of many sites one is found by typing; another site takes the stall of the first away', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const places = [];
  for (let n = 1; n <= 13; n++) places.push(await addPlace(page, base, { network: 'Copperbeech', site: `Kamen Toll ${n}` }));
  await page.goto('/ledger/new');
  const pick = async (typed: string, name: string) => {
    await page.getByLabel('Site', { exact: true }).click();
    await page.getByRole('combobox', { name: 'Choose' }).fill(typed);
    await page.getByRole('option', { name, exact: true }).click();
    await expect(page.getByLabel('Site', { exact: true })).toHaveText(name);
  };
  // The sites are at hand.
  await expect(page.getByRole('button', { name: 'Site', exact: true })).toHaveText('choose');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByLabel('Site', { exact: true })).toBeFocused();
  await pick('toll 12', 'Kamen Toll 12');
  await page.getByLabel('Stall', { exact: true }).selectOption({ label: '2' });
  await pick('7', 'Kamen Toll 7');
  await expect(page.getByLabel('Stall', { exact: true })).toHaveValue('');
  await page.getByLabel('Day', { exact: true }).fill('2025-06-18');
  await page.getByLabel('Delivered, kWh').fill('31.4');
  await page.getByRole('button', { name: 'Keep the visit' }).click();
  await expect(page.getByRole('heading', { name: 'Kamen Toll 7', level: 1 })).toBeVisible();
  await expect(page.getByText(/Stall chosen|stall 2/i)).toHaveCount(0);
});

test('any field of any event is corrected, with its history in words; an event is taken back', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Ferrywell', site: 'Brod Landing' });
  const events = visitEvents(who, place, Date.now() - DAY, true);
  await send(page.request, baseURL as string, asItems(events));
  await page.goto(`/ledger/${events[0]?.visitId}`);
  const record = page.getByRole('region', { name: 'The record' });
  const sheet = page.getByRole('dialog');
  await record.getByRole('button', { name: /^Correct Start error/ }).click();
  await sheet.getByLabel('Fault', { exact: true }).selectOption({ label: 'Waits for the car, times out' });
  await sheet.getByLabel('Whose side it seems').selectOption('car');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.getByRole('heading', { name: /1\. Stall 1: failed \(waits for the car, times out\)/ })).toBeVisible();
  await expect(record).toContainText('fault set to Waits for the car, times out by Tone Zupan');
  await record.getByRole('button', { name: /^Correct Stall 2 chosen/ }).click();
  await sheet.getByLabel('Stall', { exact: true }).selectOption({ label: '1' });
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(record).toContainText('stall set to 1 by Tone Zupan');
  await record.getByRole('button', { name: /^Correct Pulled in/ }).click();
  await sheet.getByLabel('Stalls in all').fill('four');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(sheet.getByText('Not a number')).toBeVisible();
  await sheet.getByLabel('Stalls in all').fill('-4');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(sheet.getByText('must not be negative')).toBeVisible();
  await sheet.getByLabel('Stalls in all').fill('4');
  await sheet.getByLabel('Free stalls seen').fill('1');
  await sheet.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(record).toContainText('1 of 4 free');
  await record.getByRole('button', { name: /^Correct Bill/ }).click();
  await sheet.getByRole('button', { name: 'Delete this entry' }).click();
  await expect(record).toContainText(/Taken back, kept and not counted: Bill/);
  await expect(page.locator(fact('Paid'))).toContainText('not read');
});

test('a dead site and the next one are one stop: the time lost is the stop’s', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const dead = await addPlace(page, baseURL as string, { network: 'Ferrywell', site: 'Brod Landing' });
  const good = await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const at = Date.now() - DAY;
  const second = visitEvents(who, good, at + 20 * 60_000);
  const of = (kind: string, events: StoredEvent[]) => events.find((e) => e.kind === kind) as StoredEvent;
  // The first visit: stall chosen, dead, left for the next site five minutes later.
  const whole = visitEvents(who, dead, at);
  const first = (['pulled_in', 'stall_chosen'] as const).map((k) => of(k, whole));
  const last = first[1] as StoredEvent;
  const after = (s: number, kind: string, payload: object, n: number): StoredEvent =>
    ({ ...last, id: v7(), kind, payload, at: last.at + s * 1000, mono: last.mono + s * 1000, seq: last.seq + n }) as StoredEvent;
  const events = [
    ...first,
    after(10, 'fault', { code: 'stall_dark', side: 'network' }, 1),
    after(300, 'pulled_out', { reason: 'gave_up', continuesVisit: second[0]?.visitId }, 2),
  ];
  await send(page.request, baseURL as string, asItems([...events, ...second]));
  await page.goto(`/ledger/${events[0]?.visitId}`);
  const stop = page.getByRole('region', { name: 'One stop of 2 visits' });
  const way = ((second[0]?.at as number) - (events[3]?.at as number)) / 1000;
  const clock = `${Math.floor(Math.round(way) / 60)}:${String(Math.round(way) % 60).padStart(2, '0')}`;
  await expect(stop).toContainText('Brod Landing without a charge, then Hollin Bridge');
  await expect(stop).toContainText('Lost at its stalls 4:50');
  await expect(stop).toContainText(`on the way to the next site ${clock}`);
  await stop.getByRole('link', { name: 'Hollin Bridge' }).click();
  await expect(page.getByRole('heading', { name: 'Hollin Bridge', level: 1 })).toBeVisible();
  await expect(stop.getByRole('link', { name: 'Brod Landing' })).toBeVisible();
});

test('signing out with something unsent warns and keeps it for its person', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const place = await addPlace(page, baseURL as string, { network: 'Copperbeech', site: 'Hollin Bridge' });
  const events = visitEvents(who, place, Date.now() - DAY);
  await send(page.request, baseURL as string, asItems(events));
  await page.goto(`/ledger/${events[0]?.visitId}`);
  await page.route('**/api/v1/outbox', (route) => route.abort());
  await page.getByRole('button', { name: /^Correct Power seen/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: '−10 s' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.getByText('Kept on this device')).toBeVisible();
  // Pressed again it is the same correction.
  await page.getByRole('dialog').getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.getByText('Kept on this device')).toBeVisible();
  await page.goto('/settings');
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByText('1 thing recorded on this device is not sent yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Stay signed in' }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: 'Sign out, keep them here' }).click();
  await page.waitForURL('**/sign-in');
  await page.unroute('**/api/v1/outbox');
  await page.request.post('/api/v1/session', { headers: own(baseURL as string), data: { email: who.email, password: who.password } });
  await page.goto(`/ledger/${events[0]?.visitId}`);
  await expect
    .poll(async () => ((await (await page.request.get(`/api/v1/visits/${events[0]?.visitId}/events`)).json()).events as StoredEvent[]).length)
    .toBe(events.length + 1);
});
