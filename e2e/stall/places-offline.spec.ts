import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { recordItem } from '@/core/records/record-schema';
import { pulledIn } from '../hands/at-the-site';
import { addPlace, newHousehold, send } from '../hands/household';
import { openStall, thumb } from '../hands/stall';

const changes = async (page: import('@playwright/test').Page) => (await (await page.request.get('/api/v1/changes?since=0')).json()).records;

test('a stall is changed without a network, twice, and arrives once; the phone’s copy follows changes made elsewhere', async ({ page, context, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  await openStall(page);
  await page.getByRole('button', { name: /Hollin Bridge/ }).tap();
  await page.getByRole('radio', { name: /^Stall 2/ }).tap();
  await expect(page.getByText('Stall 2: 150 kW CCS2')).toBeVisible();
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('button', { name: /Hollin Bridge/ }).tap();
  await page.getByRole('radio', { name: /^Stall 2/ }).tap();
  await page.getByRole('radio', { name: 'Closed today' }).tap();
  await expect(page.getByText(/Not for the Heron 62: closed/)).toBeVisible();
  await page.getByRole('radio', { name: 'Works today' }).tap();
  await page.getByRole('button', { name: 'Change this stall' }).tap();
  const form = page.getByRole('dialog');
  await form.getByLabel('On the plate').fill('35000');
  await form.getByRole('button', { name: 'Keep the change' }).tap();
  await expect(form.getByText('At most 4000 kW: is this in watts?')).toBeVisible();
  await form.getByLabel('On the plate').fill('200');
  await form.getByRole('button', { name: 'Keep the change' }).tap();
  await expect(page.getByText('Stall 2: 200 kW CCS2')).toBeVisible();
  await expect(page.getByText(/Kept on\s*phone 1/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/All\s*sent/)).toBeVisible();
  const there = (await changes(page)).find((r: { id: string }) => r.id === place.stalls[1]);
  expect(there.fields).toMatchObject({ outlets: [{ ratedKW: 200 }], state: { is: 'working', by: 'Tone Zupan' } });

  // Changed elsewhere meanwhile in another field: both changes stand, and nobody is asked.
  const stallNow = async () => (await changes(page)).find((r: { id: string }) => r.id === there.id);
  const elsewhere = async (fields: object) => {
    const now = await stallNow();
    const theirs = { type: 'stall', id: there.id, baseRev: now.rev, fields };
    expect((await send(page.request, base, [{ type: 'record', record: theirs }]))[0]).toMatchObject({ status: 'taken' });
  };
  await elsewhere({ note: 'Screen is cracked' });
  await page.getByRole('radio', { name: 'Closed today' }).tap();
  await expect(page.getByText('Screen is cracked')).toBeVisible();
  await expect(page.getByText(/All\s*sent/)).toBeVisible();
  expect((await stallNow()).fields).toMatchObject({ note: 'Screen is cracked', state: { is: 'closed' } });

  // In the same field: shown as a difference, and neither is lost.
  await elsewhere({ state: { is: 'derated', kW: 50, seenOn: there.fields.state.seenOn, by: 'Ana' } });
  await page.getByRole('radio', { name: 'Works today' }).tap();
  await page.getByRole('button', { name: '1 to settle' }).tap();
  await page.getByRole('button', { name: 'Choose' }).tap();
  const dialog = page.getByRole('dialog', { name: /changed elsewhere too/ });
  await expect(dialog.getByRole('group', { name: 'State' }).getByRole('radio', { name: /Mine/ })).toBeChecked();
  await dialog.getByRole('button', { name: 'Keep this choice' }).tap();
  await expect(page.getByText('Nothing waits for a choice on this device.')).toBeVisible();
  expect((await stallNow()).fields).toMatchObject({ note: 'Screen is cracked', state: { is: 'working' } });
});

test('a site with several stalls is found at the Stall by the name on the post, without a network', async ({ page, context, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  await send(page.request, base, [
    {
      type: 'record',
      record: recordItem('stall', place.siteId.replace(/^.{8}/, '01990000'), {
        siteId: place.siteId,
        name: 'North',
        outlets: [{ connector: 'CCS2', ratedKW: 100 }],
      }),
    },
  ]);
  await openStall(page);
  await expect(page.getByRole('button', { name: /Lipa Barn/ })).toBeVisible();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('button', { name: /Lipa Barn/ })).toBeVisible();
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Find' })).toBeVisible();
  await page.keyboard.type('north');
  await expect(page.getByRole('option', { name: /Lipa Barn, stall North/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('radio', { name: /^Stall North/ })).toHaveAttribute('aria-checked', 'true');
});

test('the garage is looked up and added to at the Stall without a network', async ({ page, context, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addPlace(page, base, { network: 'Copperbeech', site: 'Hollin Bridge' });
  await openStall(page);
  await expect(page.getByRole('button', { name: /Hollin Bridge/ })).toBeVisible();
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('button', { name: 'Garage' }).tap();
  const sheet = page.getByRole('dialog');
  await expect(sheet.getByRole('button', { name: /Heron 62.*62 kWh, CCS2/ })).toBeVisible();
  await sheet.getByRole('radio', { name: 'Ways to pay' }).tap();
  await sheet.getByRole('button', { name: 'Add: way to pay' }).tap();
  await sheet.getByLabel('Label').fill('4111 1111 1111 1111');
  await sheet.getByRole('button', { name: 'Add the way to pay' }).tap();
  await expect(sheet.getByText(/Card numbers are never kept here/)).toBeVisible();
  await sheet.getByLabel('Label').fill('Blue card');
  await sheet.getByLabel('Provider').fill('Lindenpass');
  await sheet.getByRole('button', { name: 'Add the way to pay' }).tap();
  await expect(sheet.getByRole('button', { name: /Blue card.*Contactless card, Lindenpass/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/Kept on\s*phone 2/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText(/All\s*sent/)).toBeVisible();
  const names = (await changes(page)).map((r: { fields: { name?: string; label?: string } }) => r.fields.name ?? r.fields.label);
  expect(names).toEqual(expect.arrayContaining(['Lindenpass', 'Blue card']));
});

test('the nearest sites come first where the position is allowed, and a site made on the spot notes where it is, without a network', async ({
  page,
  context,
  baseURL,
}) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const networkId = v7();
  const east = (name: string, longitude: number | null) =>
    recordItem('site', v7(), { networkId, name, zone: 'Europe/Ljubljana', ...(longitude === null ? {} : { latitude: 46, longitude }) });
  await send(
    page.request,
    base,
    [
      recordItem('network', networkId, { name: 'Ferrywell' }),
      ...[15.5, 15.4, 15.3, 15.2, 15.1, 15].map((l, i) => east(`Site ${i + 1}`, l)),
      east('Nowhere', null),
    ].map((record) => ({ type: 'record', record })),
  );
  await openStall(page);
  const sites = page.getByRole('region', { name: 'Sites' }).getByRole('listitem');
  await expect(sites.first()).toContainText('Nowhere');
  await page.getByRole('button', { name: 'Nearest first' }).tap();
  await expect(page.getByRole('alert').filter({ hasText: 'The position was not given.' })).toBeVisible();

  await context.grantPermissions(['geolocation']);
  await context.setGeolocation({ latitude: 46, longitude: 15.01 });
  await context.setOffline(true);
  await page.reload();
  // One degree of longitude at 46° north is 111.195 km × cos 46° on the mean sphere (IUGG R1): a hundredth of it is 0.77 km.
  await expect(sites.first()).toContainText(/Site 6.*0\.8 km/);
  await expect(sites.nth(5)).toContainText(/Site 1.*38 km/);
  await expect(sites.last()).toContainText('Nowhere');
  await page.getByRole('button', { name: 'Nearest first' }).tap();
  await expect(sites.first()).toContainText('Nowhere');

  await page.getByRole('button', { name: 'Add a site' }).tap();
  const form = page.getByRole('dialog');
  await form.getByLabel('Site').fill('Mill of Zdravec');
  await form.getByLabel('Network').fill('Ferrywell');
  await form.getByRole('button', { name: 'It is where I am now' }).tap();
  await expect(form.getByRole('button', { name: '46.00000, 15.01000' })).toBeVisible();
  await form.getByLabel('Stall number or name').fill('1');
  await form.getByLabel('Rated kW on the plate').fill('50');
  await form.getByRole('button', { name: 'Add and choose' }).tap();
  await expect(page.getByRole('heading', { name: 'Mill of Zdravec' })).toBeVisible();
  await context.setOffline(false);
  await expect
    .poll(async () => (await changes(page)).find((r: { fields: { name?: string } }) => r.fields.name === 'Mill of Zdravec')?.fields)
    .toMatchObject({ latitude: 46, longitude: 15.01, zone: 'Europe/Ljubljana' });
});

test('bays seen dark or derated are noted with the stalls, without a network', async ({ page, context, baseURL }) => {
  const { place } = await pulledIn(page, baseURL as string);
  await context.setOffline(true);
  const hand = thumb(page);
  await hand.pad(/^More/);
  await hand.sheet('Look at the bays …');
  const dialog = page.getByRole('dialog');
  await hand.sheet('Derated');
  await dialog.getByLabel('Derated to, kW').fill('5000');
  await expect(dialog.getByText('A figure between 1 and 4000')).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Record the bays' })).toBeDisabled();
  await dialog.getByLabel('Derated to, kW').fill('62,5');
  await dialog.getByRole('radio', { name: /^Stall 2/ }).tap();
  await hand.sheet('Dark');
  await expect(dialog.getByText('1 free, 0 taken, 1 out of order.')).toBeVisible();
  await hand.sheet('Record the bays');
  await expect(dialog).toHaveCount(0);
  await context.setOffline(false);
  const states = async () =>
    Object.fromEntries(
      (await changes(page)).flatMap((r: { id: string; type: string; fields: { state?: object } }) => (r.type === 'stall' ? [[r.id, r.fields.state]] : [])),
    );
  await expect
    .poll(states)
    .toMatchObject({ [place.stalls[0] as string]: { is: 'derated', kW: 62.5, by: 'Tone Zupan' }, [place.stalls[1] as string]: { is: 'closed', kW: null } });
  await page.goto(`/places/${place.siteId}`);
  await expect(page.getByText('62.5 of 150')).toBeVisible();
});

test('a stall that was closed some days ago is closed today once somebody says so', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  const seen = { id: place.stalls[0] as string, baseRev: 1, fields: { state: { is: 'closed', kW: null, seenOn: '2025-10-09', by: 'Ana' } } };
  expect((await send(page.request, base, [{ type: 'record', record: { type: 'stall', ...seen } }]))[0]).toMatchObject({ status: 'taken' });
  await openStall(page);
  await page.getByRole('button', { name: /Lipa Barn/ }).tap();
  await page.getByRole('radio', { name: /^Stall 1/ }).tap();
  const closed = page.getByRole('radio', { name: 'Closed today' });
  await expect(closed).not.toBeChecked();
  await closed.tap();
  await expect(closed).toBeChecked();
  const stateOf = async () =>
    (await changes(page)).find((r: { id: string }) => r.id === place.stalls[0])?.fields.state as { is: string; seenOn: string; by: string };
  await expect.poll(async () => (await stateOf()).seenOn).not.toBe('2025-10-09');
  expect(await stateOf()).toMatchObject({ is: 'closed', by: 'Tone Zupan' });
});
