import { readFile, writeFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { v7 } from 'uuid';
import { addRoad, look, tell, untilPower } from './hands/charging-now';
import { newHousehold, own, send } from './hands/household';

/** A local time of Europe/Ljubljana in summer, as a German sheet writes it. */
const stamp = (ms: number) => {
  const d = new Date(ms + 2 * 3_600_000).toISOString();
  return `${d.slice(8, 10)}.${d.slice(5, 7)}.${d.slice(0, 4)} ${d.slice(11, 16)}`;
};
const DAY0 = Date.UTC(2026, 5, 10, 9, 0);
const DAY = 86_400_000;
const HEAD = 'Beginn;Ende;Station;Ladesäule;Energie (kWh);Betrag (€);Bemerkung';
const row = (at: number, site: string, kWh: string, amount: string, note = '') => `${stamp(at)};${stamp(at + 24 * 60_000)};${site};1;${kWh};${amount};${note}`;
const sheet = (rows: string[]) => Buffer.from(`\uFEFF${[HEAD, ...rows].join('\r\n')}\r\n`);
/** A file and what is said of it, as the page sends them. */
const form = (file: Buffer, asked: string) => ({ asked, file: { name: 'visits.csv', mimeType: 'text/csv', buffer: file } });
const choose = async (page: Page, buffer: Buffer, name = 'visits.csv') => {
  await page.goto('/ledger/import/sheet');
  await page.getByLabel('The file, CSV').setInputFiles({ name, mimeType: 'text/csv', buffer });
};
/** Visits that stand in the ledger, as the ledger itself gives them out: withdrawn ones say so in their last cell. */
const standing = async (page: Page) => {
  const rows = (await (await page.request.get('/api/v1/export/visits.csv')).text()).trim().split('\r\n');
  return rows.filter((r) => r.endsWith(',no')).length;
};
const status = (page: Page, text: string) => expect(page.getByRole('status').filter({ hasText: text })).toBeVisible();

test('a spreadsheet: each row as it would be, asked where it is not plain, taken in once, taken back whole', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const road = await addRoad(page, base);
  const charge: Parameters<typeof tell>[4] = [
    ...untilPower(road),
    look(700, 50, 100, '18.6'),
    [1500, 'stop_asked', { by: 'button' }],
    [1505, 'reading', { screen: 'stall', kWh: '31.0' }],
    [1560, 'pulled_out', { reason: 'enough' }],
  ];
  const recorded = await tell(page, base, who, DAY0 + 6 * DAY, charge);
  const forgotten = await tell(page, base, who, DAY0 + 3.5 * DAY, charge);
  const file = sheet([
    row(DAY0, 'Vrba Crossing', '41,37', '23,10', '=1+1'),
    row(DAY0 + DAY, 'Lipa Barn', '14,1', '7,61'),
    row(DAY0 + 2 * DAY, 'Vrba Crossing', 'viel', '1,00'),
    row(DAY0 + 3 * DAY, 'Vrba Crossing', '12,5', '6,00'),
    row(DAY0 + 3 * DAY + 120_000, 'vrba crossing', '12,5', '6,00'),
    row(DAY0 + 4 * DAY, 'Vrba Crossing', '0', '0'),
    row(DAY0 + 5 * DAY, 'Vrba Crossing', '', '-3,20'),
    row(DAY0 + 6 * DAY, 'Vrba Crossing', '31,0', '15,50'),
    'Summe;;;;99,9;49,2;',
  ]);
  await choose(page, file);
  const rows = page.getByRole('region', { name: 'Rows of the file' }).getByRole('row');
  await expect(rows).toHaveCount(8);
  await expect(page.getByText('2 new, 1 perhaps recorded here, 2 twice in the file, 1 at a site not known here, 1 refunded', { exact: false })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Rows that cannot be read' })).toContainText('Line 4: Energie (kWh): no figure');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save these rows to mend them' }).click()]);
  const saved = await readFile(await download.path(), 'utf8');
  expect(saved.split('\r\n')).toHaveLength(3);
  expect(saved).toContain('viel;1,00;;line 4: Energie (kWh): no figure');
  await expect(rows.filter({ hasText: 'recorded here' }).getByRole('link')).toHaveAttribute('href', `/ledger/${recorded}`);
  expect(await standing(page)).toBe(2);
  // What was recorded at its network within its time and does not stand in it.
  const leftOut = page.getByRole('region', { name: 'Not in this file' });
  await expect(leftOut).toContainText('1 session of its time at its networks. What of it is not read yet may tell some of them.');
  await expect(leftOut.getByRole('listitem')).toContainText('no bill noted');
  await expect(leftOut.getByRole('link')).toHaveAttribute('href', `/ledger/${forgotten}`);

  await page.getByLabel('The same visit twice, or two visits?').selectOption({ label: 'the same visit' });
  await expect(page.getByRole('button', { name: 'Take in 3 rows' })).toBeVisible();
  await page.getByLabel('Lipa Barn').check();
  await expect(page.getByRole('button', { name: 'Take in 4 rows' })).toBeDisabled();
  await page.getByLabel('Network of Lipa Barn').fill('Bluebarn');
  await page.getByRole('button', { name: 'Take in 4 rows' }).click();
  await status(page, '4 rows taken in.');
  await rows.filter({ hasText: 'in the ledger' }).filter({ hasText: '41.37' }).getByRole('link').click();
  await expect(page.getByText('€23.10').first()).toBeVisible();
  await expect(page.getByText('=1+1').first()).toBeVisible();

  // Again, and within another file: nothing comes in twice.
  const post = async (of: Buffer, asked: object = {}) =>
    (await page.request.post('/api/v1/import/sheet?take=yes', { headers: { origin: base }, multipart: form(of, JSON.stringify(asked)) })).json();
  const same = { answers: [{ code: 'duplicate', answer: 'same' }] };
  expect(await post(file, same)).toMatchObject({ taken: 0, left: 0, counts: { there: 4 } });
  expect(await post(sheet([row(DAY0 + DAY, 'LIPA  BARN', '14,1', '7,61')]))).toMatchObject({ taken: 0, counts: { there: 1 } });

  await choose(page, file);
  await page.getByLabel('The same visit twice, or two visits?').selectOption({ label: 'the same visit' });
  await page.getByRole('button', { name: 'Take this import back' }).click();
  await status(page, '4 rows taken back.');
  expect(await standing(page)).toBe(2);
  await page.getByRole('button', { name: 'Take in 4 rows' }).click();
  await status(page, '4 rows taken in.');
  // The row that is a visit recorded here comes to stand beside it as its bill; taken back, it can be another visit as well.
  await page.getByRole('button', { name: 'Yes: put it beside' }).click();
  await expect(rows.filter({ hasText: 'beside the visit recorded here' })).toHaveCount(1);
  await page.getByRole('button', { name: 'Take in 1 row' }).click();
  await status(page, '1 row taken in.');
  expect(await standing(page)).toBe(6);
  const bills = async () =>
    (await (await page.request.get(`/api/v1/visits/${recorded}`)).json()).bills as {
      amount: string;
      billed_kWh: string;
      further: { sheet: { line: number } };
    }[];
  expect(await bills()).toMatchObject([{ amount: '15.5', billed_kWh: '31', further: { sheet: { line: 9 } } }]);
  expect(await post(file, same)).toMatchObject({ taken: 0, counts: { there: 5, near: 0 } });
  await choose(page, file);
  await page.getByRole('button', { name: 'Take this import back' }).click();
  await status(page, '5 rows taken back.');
  expect(await bills()).toEqual([]);
  await page.getByLabel('The same visit twice, or two visits?').selectOption({ label: 'the same visit' });
  await page.getByRole('button', { name: 'No, another visit' }).click();
  await page.getByRole('button', { name: 'Take in 5 rows' }).click();
  await status(page, '5 rows taken in.');
  expect(await standing(page)).toBe(7);
  // Years later nobody has the file any more.
  await page.goto('/ledger/import');
  await page.getByText('What was brought in before').click();
  const before = page.getByRole('listitem').filter({ hasText: 'A spreadsheet' });
  await expect(before).toContainText('by Tone Zupan5 visits, from 10 Jun 2026 to 16 Jun 2026');
  // Not by a slip: there is no file that would bring it in again.
  await before.getByRole('button', { name: 'Take it back' }).click();
  await before.getByRole('button', { name: 'Leave it' }).click();
  expect(await standing(page)).toBe(7);
  await before.getByRole('button', { name: 'Take it back' }).click();
  await before.getByRole('button', { name: 'Yes, take it back' }).click();
  await status(page, '5 rows taken back.');
  await expect(before).toContainText('5 visits, 0 of them standing');
  expect(await standing(page)).toBe(2);
});

test('a sheet comes in part by part, in its household alone; what is none is refused with its place', async ({ page, baseURL, browser }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  await addRoad(page, base);
  const many = sheet(Array.from({ length: 1020 }, (_, i) => row(DAY0 - (i * DAY) / 3, 'Vrba Crossing', `${10 + (i % 50)},5`, '6,00')));
  const post = async (of: Buffer, query = '', asked = '{}') => {
    const answer = await page.request.post(`/api/v1/import/sheet${query}`, { headers: { origin: base }, multipart: form(of, asked) });
    return { status: answer.status(), ...(await answer.json()) };
  };
  expect(await post(many)).toMatchObject({ status: 200, counts: { new: 1020 } });
  expect(await post(many, '?take=yes')).toMatchObject({ taken: 1000, left: 20 });
  expect(await post(many, '?take=yes')).toMatchObject({ taken: 20, left: 0, counts: { there: 1020, new: 0 } });
  // A file that is longer than what is usually sent arrives whole.
  const wide = Array.from({ length: 220 }, (_, i) => `${row(DAY0 - i * DAY, 'Vrba Crossing', `${i + 1},5`, '6,00')};${'x'.repeat(60_000)}`);
  expect(await post(Buffer.from([`${HEAD};Mehr`, ...wide].join('\n')))).toMatchObject({ status: 200, accepted: 220, counts: { refused: 0 } });
  expect(await post(Buffer.from(''))).toMatchObject({ status: 422, refused: { code: 'empty' } });
  expect(await post(Buffer.from('Beginn;Station\n\0;x\n'))).toMatchObject({ status: 422, refused: { code: 'nul_byte', where: { byte: 15 } } });
  expect(await post(many, '', '{')).toMatchObject({ status: 422, error: 'asked: is not JSON' });
  expect(await post(many, '', '{"sites":[{"name":"X","network":" "}]}')).toMatchObject({ status: 422 });
  // Without headings nothing is read until somebody says what the columns are.
  const doubled = Array.from({ length: 150 }, (_, i) => row(DAY0 - (400 + i) * DAY, 'Vrba Crossing', `${i + 1},5`, '6,00'));
  await choose(page, sheet(doubled.flatMap((r) => [r, r])));
  await expect(page.getByLabel('The same visit twice, or two visits?')).toHaveCount(20);
  await page.getByLabel('All rows that look like the same visit twice').selectOption({ label: 'the same visit' });
  await expect(page.getByText('150 new, 150 the same as a row before')).toBeVisible();
  // Of the sites of years nobody ticks each.
  await choose(page, sheet([row(DAY0, 'Lipa Barn', '9,5', '4,00'), row(DAY0 + DAY, 'Brod Halt', '8,5', '4,00')]));
  await page.getByRole('button', { name: 'Tick all 2' }).click();
  await expect(page.getByText('A site needs its network.')).toBeVisible();
  await page.getByLabel('Network of those that have none').fill('Bluebarn');
  await page.getByRole('button', { name: 'Fill it in' }).click();
  for (const name of ['Lipa Barn', 'Brod Halt']) await expect(page.getByLabel(`Network of ${name}`)).toHaveValue('Bluebarn');
  await expect(page.getByRole('button', { name: 'Take in 2 rows' })).toBeEnabled();
  await page.getByRole('button', { name: 'Untick all 2' }).click();
  await expect(page.getByRole('button', { name: 'Take in 0 rows' })).toBeDisabled();
  const bare = Buffer.from('2026-07-01 10:00;Vrba Crossing;12,5\n');
  const columns = { answers: [{ code: 'columns', answer: { 1: { field: 'start' }, 2: { field: 'site' }, 3: { field: 'kWh', unit: 'kWh' } } }] };
  expect(await post(bare)).toMatchObject({ asks: [{ code: 'columns' }], counts: { new: 0, waiting: 1 }, first: ['2026-07-01 10:00', 'Vrba Crossing', '12,5'] });
  expect(await post(bare, '', JSON.stringify(columns))).toMatchObject({ asks: [], counts: { new: 1, waiting: 0 } });
  // What was said of a sheet holds for the next of the same headings, as far as that asks it; it is said, and can be asked again.
  const usual = (day: string) => Buffer.from(`Date,Station,Charged\n${day},Vrba Crossing,"14,125"\n`);
  const said = {
    answers: [
      { code: 'date_order', answer: 'dmy' },
      { code: 'decimal_mark', answer: ',' },
      { code: 'energy_unit', column: 3, answer: 'kWh' },
      { code: 'columns', answer: { 3: { field: 'kWh' } } },
    ],
  };
  expect(await post(usual('03/04/2024'), '?take=yes', JSON.stringify(said))).toMatchObject({ taken: 1, remembered: false });
  expect(await post(usual('05/04/2024'))).toMatchObject({ remembered: true, counts: { new: 1, waiting: 0 }, rows: [{ start: Date.UTC(2024, 3, 5, 10) }] });
  expect(await post(usual('05/13/2024'))).toMatchObject({ remembered: true, rows: [{ start: Date.UTC(2024, 4, 13, 10) }] });
  expect(await post(usual('05/04/2024'), '', '{"answers":[]}')).toMatchObject({ remembered: false, counts: { new: 0 } });
  // One that somebody took back by hand does not come back with the file.
  const visits = (await (await page.request.get('/api/v1/export/visits.csv')).text()).split('\r\n');
  const gone = (visits[1] as string).split(',')[0] as string;
  const envelope = {
    householdId: who.householdId,
    personId: who.personId,
    v: 1,
    precision: 'ms',
    zone: 'UTC',
    deviceId: v7(),
    life: v7(),
    mono: 0,
    awake: true,
  };
  const byHand = {
    ...envelope,
    id: v7(),
    visitId: gone,
    at: Date.now(),
    seq: 900,
    kind: 'withdrawal',
    payload: { target: gone },
    origin: 'typed',
    role: 'recorder',
  };
  const [withdrawn] = await send(page.request, base, [{ type: 'event', event: byHand }]);
  expect(withdrawn).toMatchObject({ status: 'taken' });
  expect(await post(many, '?take=yes')).toMatchObject({ taken: 0, left: 0, counts: { there: 1020, new: 0 } });
  const id = (await post(many)).importId;

  const context = await browser.newContext({ baseURL: base });
  const other = await context.newPage();
  await newHousehold(other, base);
  const undone = await other.request.delete('/api/v1/import/sheet', { headers: own(base), data: { id } });
  expect(await undone.json()).toEqual({ undone: 0, next: null });
  const theirs = await other.request.post('/api/v1/import/sheet', { headers: { origin: base }, multipart: form(many, '{}') });
  expect(await theirs.json()).toMatchObject({ counts: { place: 1020, there: 0 }, proposed: { sites: [['Vrba Crossing', null]] } });
  await context.close();
  // Taken back part by part; a place to go on from that no answer named is none.
  const back = async (next?: unknown) => page.request.delete('/api/v1/import/sheet', { headers: own(base), data: { id, next } });
  for (const next of ['visit', 'visit x', `site ${id}`, `visit ${id} ${id}`, 7, {}]) expect((await back(next)).status()).toBe(422);
  const first = await (await back()).json();
  expect(first).toEqual({ undone: 1000, next: expect.stringMatching(/^visit [0-9a-f-]{36}$/) });
  expect(await (await back(first.next)).json()).toEqual({ undone: 19, next: null });
  expect(await (await back()).json()).toEqual({ undone: 0, next: null });
  expect(await post(many)).toMatchObject({ counts: { there: 1, new: 1019 } });
});

test('what a file says of itself can be said otherwise, and the next of its headings is read so', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addRoad(page, base);
  // In Wh whatever the heading says, in pounds without a word of it, the month first by one slip.
  const of = (days: string[]) => Buffer.from(['Date,Station,Energy (kWh),Cost', ...days.map((d, i) => `${d},Vrba Crossing,1250${i},${6 + i}.50`)].join('\n'));
  await choose(page, of(['03/04/2026', '04/13/2026']));
  await expect(page.getByRole('region', { name: 'Rows that cannot be read' }).getByRole('listitem')).toHaveCount(2);
  await page.getByText('Columns, as they are read').click();
  await expect(page.getByLabel('Order of its dates')).toContainText('as they prove: month first');
  await page.getByLabel('In what Energy (kWh) is').selectOption('Wh');
  const rows = page.getByRole('region', { name: 'Rows of the file' }).getByRole('row');
  await expect(rows.filter({ hasText: '12.5 kWh' })).toContainText('4 Mar 2026');
  await page.getByLabel('In what Cost is').selectOption('GBP');
  await expect(rows.filter({ hasText: '12.5 kWh' })).toContainText('£6.50');
  await page.getByLabel('Order of its dates').selectOption('day first');
  await expect(rows.filter({ hasText: '12.5 kWh' })).toContainText('3 Apr 2026');
  await expect(page.getByRole('region', { name: 'Rows that cannot be read' })).toContainText('Line 3: Date: no date');
  await page.getByRole('button', { name: 'Take in 1 row' }).click();
  await status(page, '1 row taken in.');
  await choose(page, of(['05/04/2026', '04/14/2026']));
  await expect(page.getByText('Read as you said of such a sheet before.')).toBeVisible();
  await expect(rows.filter({ hasText: '12.5 kWh' })).toContainText('5 Apr 2026');
  await expect(rows.filter({ hasText: '12.5 kWh' })).toContainText('£6.50');
  await page.getByRole('button', { name: 'Ask everything again' }).click();
  await expect(page.getByRole('region', { name: 'Rows that cannot be read' }).getByRole('listitem')).toHaveCount(2);
});

test('answers given one upon the other are all kept, though the file is slow to look at', async ({ page, baseURL }) => {
  await page.addInitScript(() => {
    const asIs = Blob.prototype.arrayBuffer;
    Blob.prototype.arrayBuffer = async function () {
      await new Promise((done) => setTimeout(done, 600));
      return asIs.call(this);
    };
  });
  await newHousehold(page, baseURL as string);
  await addRoad(page, baseURL as string);
  await choose(page, Buffer.from('Start;Station;Energy (kWh);Cost (EUR)\n01/02/2026 10:00;Vrba Crossing;12,345;1,234\n'));
  const order = page.getByLabel(/^Is the day first/);
  await expect(order).toBeVisible();
  const first = page.waitForRequest(/\/api\/v1\/import\/sheet/);
  await order.selectOption('day first');
  const answer = (await first).response();
  // While the file is looked at for the second answer, the first comes back.
  await page.getByLabel(/^Which is the decimal mark.*Energy/).selectOption('the comma');
  await answer;
  await page.getByLabel(/^Which is the decimal mark.*Cost/).selectOption('the comma');
  await expect(page.getByRole('region', { name: 'Questions' })).toHaveCount(0);
  await expect(page.getByRole('region', { name: 'Rows of the file' }).getByRole('row').nth(1)).toContainText('1 Feb 2026');
});

test('a file at the wrong door is told where it belongs and not sent; what is taken in is what was shown, whatever became of the file meanwhile', async ({
  page,
  baseURL,
}, info) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addRoad(page, base);
  let sent = 0;
  await page.route('**/api/v1/import/**', (route) => {
    sent += 1;
    return route.continue();
  });
  const workbook = Buffer.from(zipSync({ '[Content_Types].xml': strToU8('<Types/>'), 'xl/workbook.xml': strToU8('<workbook/>') }));
  const doors = [
    ['/ledger/import/sheet', 'plan.xlsx', workbook, 'Save its sheet as CSV, and choose that.'],
    ['/ledger/import/sheet', 'cdrs.json', Buffer.from('[{"cdr_token":{},"cdr_location":{}}]'), 'They come in at Settings, Bills from a network.'],
    ['/ledger/import', 'visits.csv', sheet([row(DAY0, 'Vrba Crossing', '1,5', '1')]), 'comes in as CSV at Settings, A spreadsheet.'],
    ['/places/import', 'ledger.zip', Buffer.from(zipSync({ 'ledger.json': strToU8('{}') })), 'It comes in at Settings, Bring a ledger in.'],
    ['/settings/restore', 'sites.geojson', Buffer.from('{"type":"FeatureCollection"}'), 'Sites come in at Settings, Places from a file.'],
  ] as const;
  for (const [door, name, buffer, said] of doors) {
    await page.goto(door);
    await page.getByLabel(/^The file/).setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
    await status(page, said);
  }
  expect(sent).toBe(0);

  // Our own table of visits is read as any other, and it is said that it is not the ledger.
  await choose(page, Buffer.from(await (await page.request.get('/api/v1/export/visits.csv')).body()));
  await status(page, 'It holds figures, not the record');
  await expect(page.getByText('Columns, as they are read')).toBeVisible();

  const onDisk = info.outputPath('visits.csv');
  await writeFile(onDisk, sheet([row(DAY0, 'Vrba Crossing', '41,37', '23,10'), row(DAY0 + DAY, 'Vrba Crossing', 'viel', '1,00')]));
  await page.getByLabel('The file, CSV').setInputFiles(onDisk);
  await expect(page.getByRole('button', { name: 'Take in 1 row' })).toBeEnabled();
  await writeFile(onDisk, sheet([row(DAY0, 'Vrba Crossing', '41,37', '23,10'), row(DAY0 + DAY, 'Vrba Crossing', '12,5', '1,00')]));
  await page.getByRole('button', { name: 'Take in 1 row' }).click();
  await status(page, '1 row taken in.');
  // Who opens the choice and chooses nothing keeps what there is.
  await Promise.all([page.waitForEvent('filechooser'), page.getByLabel('The file, CSV').click()]);
  await page.getByLabel('The file, CSV').dispatchEvent('cancel');
  expect(await page.getByLabel('The file, CSV').evaluate((e: HTMLInputElement) => e.files?.[0]?.name)).toBe('visits.csv');
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByLabel('The file, CSV').click()]);
  await chooser.setFiles(onDisk);
  await page.getByRole('button', { name: 'Take in 1 row' }).click();
  await status(page, '1 row taken in.');
  expect(await standing(page)).toBe(2);
});
