import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { addPlace, newHousehold, send } from './hands/household';

const choose = async (page: Page, of: object | string, name = 'sites.geojson') => {
  await page.goto('/places/import');
  await page
    .getByLabel('The file, GeoJSON or OCPI')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(typeof of === 'string' ? of : JSON.stringify(of)) });
};
const point = (name: string, at: [number, number] | null, more: object = {}) => ({
  type: 'Feature',
  geometry: at ? { type: 'Point', coordinates: at } : null,
  properties: { name, ...more },
});
const status = (page: Page, text: string) => expect(page.getByRole('status').filter({ hasText: text })).toBeVisible();
const sites = async (page: Page) =>
  (await (await page.request.get('/api/v1/places')).json()).items as {
    id: string;
    name: string;
    network: string;
    latitude: number | null;
    longitude: number | null;
    zone: string;
    openingHours: string | null;
    entrance: string | null;
    food: string | null;
    stalls: { name: string }[];
  }[];

test('sites of a GeoJSON file: what is plain is proposed, what is likely a slip is asked, what is here is not changed', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  // What is far is told by the sites of which the place is known.
  await send(page.request, base, [{ type: 'record', record: { type: 'site', id: place.siteId, baseRev: 1, fields: { latitude: 46.377, longitude: 14.092 } } }]);
  const file = {
    type: 'FeatureCollection',
    features: [
      point('vrba crossing', [14.092, 46.377]),
      point('Hrast Depo', [14.605, 46.051], { network: 'saltmarsh rapid' }),
      point('Birch Halt', null),
      point('Lipa Barn', [45.902, 14.553], { network: 'Bluebarn' }),
      { type: 'Feature', geometry: { type: 'LineString', coordinates: [] }, properties: { name: 'A road' } },
    ],
  };
  await choose(page, file);
  await expect(page.getByRole('listitem').filter({ hasText: 'Hrast Depo' })).toContainText('new, 46.051, 14.605');
  await expect(page.getByRole('listitem').filter({ hasText: 'vrba crossing' })).toContainText('is here already');
  await expect(page.getByRole('region', { name: 'What is left out' })).toContainText('/features/4/geometry/type is no point');
  // A site without a network is not made, and one that looks swapped is not ticked.
  await expect(page.getByRole('button', { name: /^Take in/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Untick all 2' }).click();
  await expect(page.getByRole('button', { name: 'Take in 0 places' })).toBeDisabled();
  await page.getByRole('button', { name: 'Tick all 2' }).click();
  await page.getByLabel('Network of Birch Halt').fill('Neunlicht');
  const swapped = page.getByRole('listitem').filter({ hasText: 'Lipa Barn' });
  await expect(swapped).toContainText('Latitude and longitude look swapped.');
  await expect(swapped.getByRole('checkbox')).not.toBeChecked();
  await swapped.getByRole('checkbox').check();
  await expect(page.getByLabel('Position of Lipa Barn')).toHaveValue('turned');
  expect(await sites(page)).toHaveLength(1);
  await page.getByRole('button', { name: 'Take in 3 places' }).click();
  await status(page, '5 records taken in: sites, stalls and networks.');
  const found = Object.fromEntries((await sites(page)).map((s) => [s.name, s]));
  expect(found['Vrba Crossing']).toMatchObject({ network: 'Saltmarsh Rapid', latitude: 46.377, longitude: 14.092 });
  expect(found['Hrast Depo']).toMatchObject({ network: 'Saltmarsh Rapid', zone: 'Europe/Ljubljana' });
  expect(found['Birch Halt']).toMatchObject({ network: 'Neunlicht', latitude: null });
  expect(found['Lipa Barn']).toMatchObject({ latitude: 45.902, longitude: 14.553 });
  // The same file again brings nothing.
  await choose(page, file);
  await expect(page.getByRole('listitem').filter({ hasText: 'Hrast Depo' })).toContainText('is here already');
  await expect(page.getByRole('button', { name: 'Take in 0 places' })).toBeDisabled();
  // One of a name that is here, elsewhere: moved, left, or another.
  await choose(page, point('Hrast Depo', [14.9, 46.2]));
  await expect(page.getByRole('listitem').filter({ hasText: 'Hrast Depo' })).toContainText('Here it stands over a kilometre away.');
  await page.getByRole('checkbox').check();
  await page.getByLabel('Position of Hrast Depo').selectOption({ label: 'another place of that name, in the file’s position' });
  await expect(page.getByLabel('Network of Hrast Depo')).toHaveValue('Saltmarsh Rapid');
  await page.getByRole('button', { name: 'Take in 1 place' }).click();
  await status(page, '1 record taken in: sites, stalls and networks.');
  expect(
    (await sites(page))
      .filter((s) => s.name === 'Hrast Depo')
      .map((s) => s.latitude)
      .sort(),
  ).toEqual([46.051, 46.2]);

  // Of hundreds without a network nobody types each.
  await choose(page, { type: 'FeatureCollection', features: ['Reed Bank', 'Mill Race', 'Toll Gate'].map((name) => point(name, null)) });
  await page.getByLabel('Network of Mill Race').fill('Bluebarn');
  await page.getByLabel('Network of those that have none').fill('Otterbrook');
  await page.getByRole('button', { name: 'Fill it in' }).click();
  await page.getByRole('button', { name: 'Take in 3 places' }).click();
  await status(page, '4 records taken in: sites, stalls and networks.');
  const filled = (await sites(page)).filter((s) => s.latitude === null && s.name !== 'Birch Halt').map((s) => [s.name, s.network]);
  expect(Object.fromEntries(filled)).toEqual({ 'Reed Bank': 'Otterbrook', 'Mill Race': 'Bluebarn', 'Toll Gate': 'Otterbrook' });

  for (const [of, said] of [
    ['{"a":', 'It is not JSON.'],
    ['{"type":"Point"}', 'It is no FeatureCollection and no Feature.'],
    ['{"hello":1}', 'It holds neither GeoJSON nor OCPI Locations.'],
    ['[{"country_code":"SI","coordinates":{}}]', ''],
  ] as const) {
    await choose(page, of);
    if (said) await status(page, said);
    else await expect(page.getByText('No site of it can be read.')).toBeVisible();
  }
  const beside = (asked: string) => ({
    headers: { origin: base },
    multipart: { asked, file: { name: 'sites.geojson', mimeType: 'application/geo+json', buffer: Buffer.from(JSON.stringify(file)) } },
  });
  const said = await page.request.post('/api/v1/import/places', beside('{"choices":[{"pointer":"/features/0","network":" ","position":"file"}]}'));
  expect([said.status(), await said.json()]).toEqual([422, { error: 'asked.choices.0.network: of which network?' }]);
});

test('Locations of a network with their posts; places and prices go out and start somebody else’s ledger', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const evse = (uid: string, name: string) => ({
    uid,
    evse_id: `SI*SMR*${uid}`,
    status: 'AVAILABLE',
    physical_reference: name,
    last_updated: '2026-01-01T00:00:00Z',
    connectors: [
      {
        id: '1',
        standard: 'IEC_62196_T2_COMBO',
        format: 'CABLE',
        power_type: 'DC',
        max_voltage: 920,
        max_amperage: 500,
        max_electric_power: 300000,
        last_updated: '2026-01-01T00:00:00Z',
      },
    ],
  });
  const location = (id: string, name: string, evses: object[]) => ({
    country_code: 'SI',
    party_id: 'SMR',
    id,
    publish: true,
    name,
    address: 'By the crossing 1',
    city: 'Vrba',
    country: 'SVN',
    coordinates: { latitude: '46.37700', longitude: '14.09200' },
    operator: { name: 'Saltmarsh Rapid' },
    time_zone: 'Europe/Ljubljana',
    opening_times: { twentyfourseven: false, regular_hours: [1, 2, 3, 4, 5].map((weekday) => ({ weekday, period_begin: '07:00', period_end: '19:00' })) },
    evses,
    last_updated: '2026-01-01T00:00:00Z',
  });
  const file = {
    data: [
      location('A', 'Vrba Crossing', [evse('E1', '1'), evse('E3', '3')]),
      { ...location('B', 'Hrast Depo', [evse('E9', '1')]), parking_type: 'UNDERGROUND_GARAGE', facilities: ['CAFE'], x_canopy: { bays: 4 } },
      { id: 'C' },
      location('D', 'Pay to 4111 1111 1111 1111', [evse('E8', '1')]),
    ],
  };
  await choose(page, file, 'locations.json');
  await expect(page.getByRole('listitem').filter({ hasText: 'Vrba Crossing' })).toContainText(
    'adds to what is here, 46.377, 14.092, 1 new stall, with opening hours, what its file says',
  );
  await expect(page.getByRole('region', { name: 'What is left out' })).toContainText('/data/2/coordinates is missing');
  await page.getByRole('button', { name: 'Take in 3 places' }).click();
  await status(page, 'taken in: sites, stalls and networks.');
  // One that cannot be kept costs no other, and is told.
  await expect(page.getByRole('region', { name: 'What is left out' })).toContainText(/\/data\/3 ?Pay to 4111 1111 1111 1111 was not taken: /);
  const found = Object.fromEntries((await sites(page)).map((s) => [s.name, s.stalls.map((x) => x.name).sort()]));
  expect(found).toEqual({ 'Vrba Crossing': ['1', '2', '3'], 'Hrast Depo': ['1'] });

  expect((await sites(page)).map((s) => [s.entrance, s.food]).sort()).toEqual(
    [
      ['in an underground car park', 'cafe'],
      [null, null],
    ].sort(),
  );
  expect((await sites(page)).map((s) => s.openingHours)).toEqual(['Mon–Fri 07:00–19:00', 'Mon–Fri 07:00–19:00']);
  // Out again: as Locations, as GeoJSON, and as a start for somebody else.
  const out = await (await page.request.get('/api/v1/export/ocpi-locations.json')).json();
  expect(out.data.map((l: { name: string }) => l.name).sort()).toEqual(['Hrast Depo', 'Vrba Crossing']);
  const geo = await (await page.request.get('/api/v1/export/sites.geojson')).json();
  expect(geo.features).toHaveLength(2);
  // What no field of a site has is kept with it: on its page, and in what goes out.
  expect(out.data.find((l: { name: string }) => l.name === 'Hrast Depo')).toMatchObject({
    city: 'Vrba',
    address: 'By the crossing 1',
    facilities: ['CAFE'],
    x_canopy: { bays: 4 },
  });
  await page.goto(`/places/${(await sites(page)).find((s) => s.name === 'Hrast Depo')?.id}`);
  await page.getByText('What its file says, OCPI').click();
  await expect(page.getByRole('definition').filter({ hasText: 'By the crossing 1' })).toBeVisible();
  await expect(page.getByText('x_canopy/bays')).toBeVisible();
  await choose(page, file, 'locations.json');
  await expect(page.getByRole('listitem').filter({ hasText: 'Hrast Depo' })).toContainText('is here already');
  await expect(page.getByRole('listitem').filter({ hasText: 'Vrba Crossing' })).toContainText('is here already');
  await page.goto('/settings/export');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'ZIP of Places and prices' }).click()]);
  expect(download.suggestedFilename()).toBe('mile-ledger-places.zip');
  const elsewhere = await browser.newContext({ baseURL: base });
  const other = await elsewhere.newPage();
  await newHousehold(other, base);
  await other.goto('/settings/restore');
  await other
    .getByLabel('The file, ZIP or JSON')
    .setInputFiles({ name: 'places.zip', mimeType: 'application/zip', buffer: await readFile(await download.path()) });
  await expect(other.getByRole('status')).toContainText('8 records.');
  await other.getByRole('button', { name: 'Bring it in' }).click();
  await expect(other.getByRole('status')).toContainText('Brought in: 8 records.');
  expect(await sites(other)).toEqual(await sites(page));
  await elsewhere.close();
  // Somebody who has some of them already is given the rest of them.
  const usedBy = await (await browser.newContext({ baseURL: base })).newPage();
  await newHousehold(usedBy, base);
  const theirOwn = await addPlace(usedBy, base, { network: 'SALTMARSH rapid', site: 'vrba crossing' });
  await usedBy.goto('/settings/restore');
  await usedBy
    .getByLabel('The file, ZIP or JSON')
    .setInputFiles({ name: 'places.zip', mimeType: 'application/zip', buffer: await readFile(await download.path()) });
  await expect(usedBy.getByText(/^Here already under another id: Saltmarsh Rapid, Vrba Crossing, 2 stalls, 1 price\.$/)).toBeVisible();
  const byName = usedBy.getByRole('checkbox', { name: /What is of one name is one/ });
  await byName.uncheck();
  await expect(usedBy.getByRole('status')).toContainText('8 records.');
  await byName.check();
  await expect(usedBy.getByText(/^Here already under another id/)).toBeVisible();
  await usedBy.getByRole('button', { name: 'Bring it in' }).click();
  await expect(usedBy.getByRole('status')).toContainText('Brought in: ');
  const both = await sites(usedBy);
  expect(both.map((s) => [s.id === theirOwn.siteId, s.name, s.openingHours]).sort()).toEqual([
    [false, 'Hrast Depo', 'Mon–Fri 07:00–19:00'],
    [true, 'vrba crossing', 'Mon–Fri 07:00–19:00'],
  ]);
  expect(both.map((s) => s.stalls.map((x) => x.name).sort()).sort()).toEqual([['1'], ['1', '2', '3']]);
  await usedBy.context().close();
  // GeoJSON alone starts a ledger too: what was noted of the sites is there again.
  const third = await (await browser.newContext({ baseURL: base })).newPage();
  await newHousehold(third, base);
  await choose(third, { ...geo, features: geo.features.map((f: { properties: object }) => ({ ...f, properties: { ...f.properties, x_lamp: 'yes' } })) });
  await third.getByRole('button', { name: 'Take in 2 places' }).click();
  await status(third, '3 records taken in: sites, stalls and networks.');
  const noted = async (of: Page) =>
    Object.fromEntries(
      (await sites(of)).map(({ name, network, latitude, zone, openingHours, entrance, food }) => [
        name,
        [network, latitude, zone, openingHours, entrance, food],
      ]),
    );
  expect(await noted(third)).toEqual(await noted(page));
  const again = await (await third.request.get('/api/v1/export/sites.geojson')).json();
  expect(again.features.map((f: { properties: { x_lamp: string } }) => f.properties.x_lamp)).toEqual(['yes', 'yes']);
  await third.context().close();
});

test('Tariffs of a network become its prices for whom and where one says, each once', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const tariff = (id: string, called: string, price: number) => ({
    country_code: 'SI',
    party_id: 'SMR',
    id,
    currency: 'EUR',
    tariff_alt_text: [{ language: 'en', text: called }],
    elements: [{ price_components: [{ type: 'ENERGY', price, vat: 22, step_size: 1 }] }],
    last_updated: '2026-01-01T00:00:00Z',
  });
  const put = (of: object) =>
    page.getByLabel('The file, OCPI Tariffs').setInputFiles({ name: 'tariffs.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(of)) });
  await page.goto(`/places/networks/${place.networkId}`);
  await page.getByRole('link', { name: 'Prices from a file' }).click();
  await put({ hello: 1 });
  await expect(page.getByText('/country_code is missing')).toBeVisible();
  await put([tariff('G', 'By the kWh', 0.5), tariff('M', 'For members', 0.4), { ...tariff('X', 'Bent', 1), currency: 'euro' }]);
  await expect(page.getByRole('list', { name: 'Reasons by place in the file' })).toHaveText('/2/currency is not written as it must be');
  await expect(page.getByRole('button', { name: 'Keep 0 prices' })).toBeDisabled();
  await page.getByRole('checkbox', { name: 'By the kWh' }).check();
  await page.getByLabel('First day of By the kWh').fill('2026-02-01');
  await page.getByLabel('Last day of By the kWh').fill('2026-01-01');
  await expect(page.getByRole('button', { name: 'Keep 1 price' })).toBeDisabled();
  await page.getByLabel('Last day of By the kWh').fill('');
  await page.getByLabel('Where By the kWh holds').selectOption({ label: 'Only Vrba Crossing' });
  await page.getByRole('button', { name: 'Keep 1 price' }).click();
  await status(page, '1 price kept.');
  await expect(page.getByRole('listitem').filter({ hasText: 'By the kWh' })).toContainText('on file already');
  await expect(page.getByRole('listitem').filter({ hasText: 'For members' })).not.toContainText('on file already');
  await page.goto(`/places/${place.siteId}/prices`);
  await expect(page.getByRole('link', { name: '€0.610 per kWh', exact: true })).toBeVisible();
  await expect(page.getByText('for guests, Vrba Crossing, from')).toBeVisible();
});

test('of a register of a country nothing is ticked; one finds one’s own, and its reasons are told as far as they can be read', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const posts = Array.from({ length: 700 }, (_, i) => point(`Post ${i}`, [14 + i / 1e4, 46], { network: i % 2 ? 'Bluebarn' : 'Ferrywell' }));
  await choose(page, { type: 'FeatureCollection', features: [...posts, ...Array.from({ length: 1_300 }, () => 1)] });
  const rows = page.getByRole('checkbox');
  await expect(page.getByText('It has 700 places. Nothing is ticked yet')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take in 0 places' })).toBeDisabled();
  await expect(rows).toHaveCount(200);
  await page.getByRole('button', { name: 'Show 200 more' }).click();
  await expect(rows).toHaveCount(400);
  const left = page.getByRole('region', { name: 'What is left out' });
  await expect(left.getByRole('listitem')).toHaveCount(200);
  await expect(left).toContainText('1100 more are not listed.');

  const find = page.getByLabel('Find a place or network of the file');
  await find.fill('nowhere');
  await expect(page.getByText('None of its places is called so.')).toBeVisible();
  // What is found is ticked, the rest stays as it was.
  await find.fill('bluebarn post 69');
  const own69 = posts.map((_, i) => i).filter((i) => i % 2 && String(i).includes('69'));
  await page.getByRole('button', { name: `Tick all ${own69.length}` }).click();
  await find.fill('post 44');
  await page.getByRole('checkbox', { name: /^Post 44 / }).check();
  await find.fill('');
  await page.getByRole('button', { name: `Take in ${own69.length + 1} places` }).click();
  await status(page, 'taken in: sites, stalls and networks.');
  expect((await sites(page)).map((s) => s.name).sort()).toEqual([44, ...own69].map((i) => `Post ${i}`).sort());
});
