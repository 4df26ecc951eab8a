import { generateKeyPairSync, sign } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { addRoad, look, type Told, tell, untilPower } from './hands/charging-now';
import { newHousehold, own } from './hands/household';

const DAY = 86_400_000;
const OVER: Told[] = [
  [1500, 'stop_asked', { by: 'button' }],
  [1505, 'reading', { screen: 'stall', kWh: '31.0' }],
  [1510, 'power_gone', { why: 'asked' }],
  [1530, 'unplugged'],
  [1560, 'pulled_out', { reason: 'enough' }],
];
const iso = (ms: number) => new Date(ms).toISOString();
/** A CDR as a network would hand it out, from power to the end. */
const cdr = (id: string, start: number, more: { kWh?: number; total?: number; site?: string; minutes?: number } = {}) => {
  const { kWh = 31, total = 15.5, site = 'Vrba Crossing', minutes = 24 } = more;
  return {
    country_code: 'SI',
    party_id: 'SMR',
    id,
    start_date_time: iso(start),
    end_date_time: iso(start + minutes * 60_000),
    cdr_token: { uid: 'SECRET-CARD', type: 'RFID', contract_id: 'SI-SMR-C12345678' },
    auth_method: 'WHITELIST',
    cdr_location: {
      id: 'L1',
      name: site,
      address: 'By the crossing 1',
      city: 'Vrba',
      country: 'SVN',
      coordinates: { latitude: '46.37700', longitude: '14.09200' },
      evse_uid: 'E-1',
      evse_id: 'SI*SMR*E1',
      connector_id: '1',
      connector_standard: 'IEC_62196_T2_COMBO',
      connector_format: 'CABLE',
      connector_power_type: 'DC',
    },
    currency: 'EUR',
    charging_periods: [{ start_date_time: iso(start), dimensions: [{ type: 'ENERGY', volume: kWh }] }],
    total_cost: { excl_vat: total / 1.22, incl_vat: total },
    total_energy: kWh,
    total_time: minutes / 60,
    last_updated: iso(start + 3_600_000),
  };
};

test('CDRs of a network: matched, one wrong bill found, taken in once, taken back and in again', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const day = Math.floor(Date.now() / 1000) * 1000 - 10 * DAY;
  const visit = (at: number) => tell(page, base, who, at, [...untilPower(road), look(62, 20, 120, '0.1'), look(700, 50, 100, '18.6'), ...OVER]);
  const [first, second] = [await visit(day), await visit(day + 2 * DAY)];
  const third = await visit(day + 4 * DAY);
  const power = 60_000;
  const meter = generateKeyPairSync('ec', { namedCurve: 'prime256v1' });
  const key = meter.publicKey.export({ format: 'der', type: 'spki' }).toString('hex');
  const registers = JSON.stringify({
    MV: 'Otter Meters',
    RD: [
      { TM: '2026-01-01T12:00:00,000+0000 S', TX: 'B', RV: 1000.5, RI: '1-b:1.8.0', RU: 'kWh', ST: 'G' },
      { TM: '2026-01-01T12:24:00,000+0000 S', TX: 'E', RV: 1031.4 },
    ],
  });
  const signature = JSON.stringify({ SD: sign('sha256', Buffer.from(registers), meter.privateKey).toString('hex') });
  const signed = Buffer.from(`OCMF|${registers}|${signature}`).toString('base64');
  const file = [
    {
      ...cdr('C-1', day + power + 40_000),
      charging_periods: [20, 11].map((volume, i) => ({ start_date_time: iso(day + power + 40_000 + i * 900_000), dimensions: [{ type: 'ENERGY', volume }] })),
      signed_data: { encoding_method: 'OCMF', signed_values: [{ nature: 'End', plain_data: '1031.4', signed_data: signed }] },
    },
    // Charged for half as much again.
    cdr('C-2', day + 2 * DAY + power + 40_000, { total: 23.25 }),
    cdr('C-3', day + 6 * DAY, { kWh: 9 }),
    { ...cdr('C-4', day), currency: '€' },
  ];
  const bytes = Buffer.from(JSON.stringify(file));
  await page.goto('/ledger/import');
  await page.getByLabel('The file, JSON').setInputFiles({ name: 'cdrs.json', mimeType: 'application/json', buffer: bytes });
  const rows = page.getByRole('region', { name: 'Bills of the file' }).getByRole('row');
  await expect(rows).toHaveCount(4);
  await expect(rows.filter({ hasText: 'SI*SMR*C-1' })).toContainText('the network’s clock 40 s later, the same energy');
  await expect(rows.filter({ hasText: 'SI*SMR*C-3' })).toContainText('no visit like it');
  await expect(page.getByRole('region', { name: 'What is left out' }).getByText('/3/currency is not written as it must be')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Not in this file' }).getByRole('link')).toHaveAttribute('href', `/ledger/${third}`);
  await page.getByRole('button', { name: 'Take in 2 bills' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 bills taken in.' })).toBeVisible();

  // The wrong one is found on its visit's page, by the price on file: 31 kWh at 0.50.
  await page.goto(`/ledger/${second}`);
  await expect(page.getByText('€23.25').first()).toBeVisible();
  await expect(page.getByText('€15.50').first()).toBeVisible();
  await page.goto(`/ledger/${first}`);
  await expect(page.getByText('€15.50').first()).toBeVisible();
  // The record itself stands beside what was recorded here, period by period, and its meter's signature is checked by the key on the meter.
  const network = page.getByRole('region', { name: 'The network’s record SI*SMR*C-1' });
  await expect(network.getByRole('row', { name: /^Energy/ })).toHaveText('Energy31.0 kWh31.0 kWh');
  await expect(network.getByRole('region', { name: 'Periods of the network’s record' }).getByRole('row')).toHaveCount(3);
  await expect(network.getByText('no key came with it, so it is not checked')).toBeVisible();
  await network.getByText('Check with a key of your own').click();
  await network.getByRole('button', { name: 'Check' }).click();
  await expect(network.getByText('The key, as it stands on the meter')).toBeVisible();
  await network.getByLabel('Public key of the meter').fill('00');
  await network.getByRole('button', { name: 'Check' }).click();
  await expect(network.getByText('what was given is no key that can be read')).toBeVisible();
  await network.getByLabel('Public key of the meter').fill(key);
  await network.getByRole('button', { name: 'Check' }).click();
  await expect(network.getByText('the signature holds')).toBeVisible();
  await expect(network.getByText('By the signed registers 30.9 kWh, from 13:00 to 13:24.')).toBeVisible();
  const elsewhere = await browser.newContext({ baseURL: base });
  const stranger = await elsewhere.newPage();
  await newHousehold(stranger, base);
  const billId = (await (await page.request.get(`/api/v1/visits/${first}`)).json()).bills?.[0]?.id ?? first;
  expect((await stranger.request.post('/api/v1/signed-values', { headers: own(base), data: { visitId: first, billId, key } })).status()).toBe(422);
  await elsewhere.close();
  const record = await (await page.request.get('/api/v1/export/events.csv')).text();
  expect(record).not.toContain('SECRET-CARD');
  expect(record).not.toContain('C12345678');

  // The same file again takes nothing in twice, whoever sends it and in whichever file it stands.
  const post = (of: Buffer, query = '') => page.request.post(`/api/v1/import/cdrs${query}`, { headers: own(base), data: of });
  expect((await (await post(bytes, '?take=yes')).json()).taken).toBe(0);
  expect((await (await post(Buffer.from(JSON.stringify([file[0]])), '?take=yes')).json()).taken).toBe(0);

  await page.goto('/ledger/import');
  await page.getByLabel('The file, JSON').setInputFiles({ name: 'cdrs.json', mimeType: 'application/json', buffer: bytes });
  await expect(rows.filter({ hasText: 'in the ledger' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Take this import back' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 bills taken back.' })).toBeVisible();
  await expect(rows.filter({ hasText: 'in the ledger' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Take in 2 bills' }).click();
  await expect(page.getByRole('status').filter({ hasText: '2 bills taken in.' })).toBeVisible();
  await page.goto(`/ledger/${first}`);
  await expect(page.getByText('€15.50').first()).toBeVisible();
});

test('a CDR of a charge whose bill somebody noted stands beside it, and is paid once', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const day = Math.floor(Date.now() / 1000) * 1000 - 10 * DAY;
  const noted: Told = [1570, 'bill', { sessions: [], amount: '15.50', currency: 'EUR', kWh: '31.0', state: 'charged' }];
  const visit = await tell(page, base, who, day, [...untilPower(road), look(62, 20, 120, '0.1'), look(700, 50, 100, '18.6'), ...OVER, noted]);
  const paid = async () => {
    const csv = await (await page.request.get('/api/v1/export/bills.csv')).text();
    return csv
      .trim()
      .split('\r\n')
      .slice(1)
      .map((r) => r.split(',').slice(4, 9).join(' '));
  };
  await page.goto('/ledger/import');
  const file = Buffer.from(JSON.stringify([cdr('C-9', day + 100_000, { total: 16.25 })]));
  await page.getByLabel('The file, JSON').setInputFiles({ name: 'cdrs.json', mimeType: 'application/json', buffer: file });
  await expect(page.getByText('noted there: €15.50, another amount. It is paid once.')).toBeVisible();
  await page.getByRole('button', { name: 'Take in 1 bill' }).click();
  await expect(page.getByRole('status').filter({ hasText: '1 bill taken in.' })).toBeVisible();
  expect((await paid()).sort()).toEqual(['15.50 EUR 31.0 charged yes', '16.25 EUR 31 charged no']);
  await page.goto(`/ledger/${visit}`);
  const bill = page.getByRole('region', { name: 'The bill' });
  await expect(bill.getByRole('row', { name: /^Told again/ })).toContainText('tells the bill above again, with another amount: hold one against the other');
  await expect(bill.getByRole('row', { name: /^Told again/ })).toContainText('€16.25');
  await expect(page.getByRole('region', { name: 'The network’s record SI*SMR*C-9' })).toBeVisible();
  // Taken in again there is nothing, and it is taken back like any other.
  await page.goto('/ledger/import');
  await page.getByLabel('The file, JSON').setInputFiles({ name: 'cdrs.json', mimeType: 'application/json', buffer: file });
  await expect(page.getByRole('button', { name: 'Take in 0 bills' })).toBeDisabled();
  await page.getByRole('button', { name: 'Take this import back' }).click();
  await expect(page.getByRole('status').filter({ hasText: '1 bill taken back.' })).toBeVisible();
  expect(await paid()).toEqual(['15.50 EUR 31.0 charged yes']);
});

test('CDRs that may be of more than one visit go where somebody says, many at once, whatever stands in their ids', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const day = Math.floor(Date.now() / 1000) * 1000 - 10 * DAY;
  // Recorded by two phones, and not joined.
  const told: Told[] = [...untilPower(road), look(62, 20, 120, '0.1'), ...OVER];
  const [, second] = [await tell(page, base, who, day, told), await tell(page, base, who, day, told)];
  const ids = Array.from({ length: 130 }, (_, i) => `C~${i}~1`);
  const file = Buffer.from(JSON.stringify(ids.map((id) => cdr(id, day + 100_000))));
  await page.goto('/ledger/import');
  await page.getByLabel('The file, JSON').setInputFiles({ name: 'cdrs.json', mimeType: 'application/json', buffer: file });
  await expect(page.getByLabel('Which visit is SI*SMR*C~0~1?')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take in 0 bills' })).toBeDisabled();
  // As somebody would choose each of them: what is asked of 130 is more than an address holds.
  await page.evaluate((visit) => {
    for (const select of document.querySelectorAll<HTMLSelectElement>('select[aria-label^="Which visit is"]')) {
      const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')?.set;
      set?.call(select, `${visit}~1`);
      select.dispatchEvent(new Event('change', { bubbles: true }));
    }
  }, second);
  await page.getByRole('button', { name: 'Take in 130 bills' }).click();
  await expect(page.getByRole('status').filter({ hasText: '130 bills taken in.' })).toBeVisible();
  const bills = (await (await page.request.get(`/api/v1/visits/${second}`)).json()).bills as { further: { cdr?: object } }[];
  expect(bills).toHaveLength(130);
});

test('what is no document is refused with its place, and nothing changes; sheets come out whole', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  await tell(page, base, who, Date.now() - DAY, [...untilPower(road), ...OVER, [1600, 'note', { text: '=SUM(A1)' }]]);
  const post = async (text: string) => {
    const answer = await page.request.post('/api/v1/import/cdrs?take=yes', { headers: own(base), data: Buffer.from(text) });
    return { status: answer.status(), ...(await answer.json()) };
  };
  expect(await post('[{"a": NaN}]')).toMatchObject({ status: 422, refused: { code: 'not_json' } });
  expect(await post('{"a": 1, "a": 2}')).toMatchObject({ status: 422, refused: { code: 'duplicate_key', where: { pointer: '/a' } } });
  expect(await post('['.repeat(100_000))).toMatchObject({ status: 422, refused: { code: 'too_deep' } });
  expect(await post('[]')).toMatchObject({ status: 200, rows: [], taken: 0 });
  expect(await post('42')).toMatchObject({ status: 200, rows: [], breaches: [{ pointer: '', code: 'type' }] });

  const csv = async (name: string) => (await page.request.get(`/api/v1/export/${name}.csv`)).text();
  expect((await csv('visits')).split('\r\n')).toHaveLength(3);
  expect(await csv('attempts')).toContain('Vrba Crossing');
  expect((await csv('sites')).split('\r\n')).toHaveLength(4);
  expect(await csv('tariffs')).toContain('0.50');
  expect((await page.request.get('/api/v1/export/secrets.csv')).status()).toBe(404);
  // Another household takes nothing of it along, and takes nothing of it back.
  const context = await browser.newContext({ baseURL: base });
  const other = await context.newPage();
  await newHousehold(other, base);
  expect((await (await other.request.get('/api/v1/export/visits.csv')).text()).split('\r\n')).toHaveLength(2);
  expect((await other.request.get('/api/v1/export/visits.csv')).headers()['content-type']).toContain('text/csv');
  await context.close();
});
