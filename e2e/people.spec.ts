import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { openLedger } from '@/core/formats/ledger-file';
import { recordItem } from '@/core/records/record-schema';
import { addPlace, asItems, from, newHousehold, own, send, visitEvents } from './hands/household';
import { invitedMember } from './hands/people';

test('an owner invites by a link that opens once; who comes reads, drives, owns, leaves', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  await send(page.request, base, asItems(visitEvents(who, place, Date.now() - 86_400_000)));
  await page.goto('/settings/people');
  await page.getByRole('radio', { name: 'Reader' }).click();
  await page.getByRole('button', { name: 'Make an invitation' }).click();
  const link = (await page.locator('#invitation-link').textContent()) as string;
  expect(link).toMatch(new RegExp(`^${base}/join#([2-9A-Z]{4}-){2}[2-9A-Z]{4}$`));
  await expect(page.getByRole('img', { name: /QR code/ })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Open invitations' }).getByText(/^Reader, made/)).toBeVisible();

  const other = await browser.newContext({ baseURL: base, extraHTTPHeaders: {} });
  const guest = await other.newPage();
  await guest.goto(link);
  await expect(guest.getByRole('heading', { name: 'Test household' })).toBeVisible();
  await expect(guest.getByText(/Tone Zupan invites you. You come as reader/)).toBeVisible();
  await guest.getByLabel('Your name').fill('Vid Kos');
  const email = `vid-${v7()}@example.invalid`;
  await guest.getByLabel('E-mail address').fill(email);
  await guest.getByLabel('Password', { exact: true }).fill('short');
  await guest.getByRole('button', { name: 'Make the account and come in' }).click();
  await expect(guest.getByText('At least 10 characters').last()).toBeVisible();
  await guest.getByLabel('Password', { exact: true }).fill('copper beech at dawn');
  await guest.getByRole('button', { name: 'Make the account and come in' }).click();
  await expect(guest.getByRole('heading', { name: 'Ledger', level: 1 })).toBeVisible();

  // A reader reads, and is offered nothing else.
  await expect(guest.locator('[data-ledger-row]')).toHaveCount(1);
  await expect(guest.getByRole('link', { name: 'Type in a visit' })).toHaveCount(0);
  await expect(guest.getByRole('button', { name: /Choose several|Correct|Withdraw the visit|Business/ })).toHaveCount(0);
  await guest.goto('/places/new');
  await expect(guest.getByText(/^You read this ledger/)).toBeVisible();
  await expect(guest.getByRole('button', { name: 'Add the site' })).toBeDisabled();
  await guest.goto('/stall');
  await expect(guest.getByText(/^You read this ledger/)).toBeVisible();
  await expect(guest.getByRole('button', { name: /^Pulled in/ })).toHaveCount(0);
  await guest.goto('/settings/people');
  await expect(guest.getByRole('heading', { name: 'Invite somebody' })).toHaveCount(0);
  for (const [url, method] of [
    ['/api/v1/invitations', 'post'],
    ['/api/v1/household', 'put'],
    ['/api/v1/visits/mark', 'post'],
    ['/api/v1/visits/join', 'post'],
  ] as const)
    expect(
      (await guest.request[method](url, { headers: own(base), data: { role: 'driver', householdName: 'x', currency: 'EUR', zone: 'UTC' } })).status(),
      url,
    ).toBeGreaterThanOrEqual(400);
  expect((await guest.request.get('/api/v1/household/export')).status()).toBe(403);

  // The link opened once.
  const third = await browser.newContext({ baseURL: base });
  const late = await third.newPage();
  await late.goto(link);
  await expect(late.getByText(/^This code opens nothing/)).toBeVisible();
  await third.close();

  await page.reload();
  await page.getByRole('combobox', { name: 'What Vid Kos may do' }).selectOption('driver');
  await expect(page.getByText(/^Driver since/)).toBeVisible();
  await guest.goto('/ledger');
  await expect(guest.getByRole('link', { name: 'Type in a visit' })).toBeVisible();
  await page.getByRole('button', { name: 'Hand over to Vid Kos' }).click();
  await page.getByRole('button', { name: 'Hand over', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Leave', exact: true })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Invite somebody' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Leave', exact: true }).click();
  await page.getByRole('alert').getByRole('button', { name: 'Leave' }).click();
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
  await guest.goto('/settings/people');
  await expect(guest.getByText(/^left on/)).toBeVisible();
  await guest.goto('/ledger');
  await expect(guest.locator('[data-ledger-row]')).toHaveCount(1);
  await other.close();
});

test('an account belongs to two households, goes from one to the other, and deletes one with a word', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const owner = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  await send(page.request, base, asItems(visitEvents(owner, place, Date.now() - 86_400_000)));
  const made = await page.request.post('/api/v1/invitations', { headers: own(base), data: { role: 'driver' } });
  const { code } = await made.json();

  const other = await browser.newContext({ baseURL: base });
  const guest = await other.newPage();
  const me = await newHousehold(guest, base);
  await guest.goto('/join');
  await guest.getByLabel('Code').fill('AAAA-BBBB-CCCC');
  await guest.getByRole('button', { name: 'Look' }).click();
  await expect(guest.getByText(/^This code opens nothing/)).toBeVisible();
  await guest.getByLabel('Code').fill(code.toLowerCase().replaceAll('-', ' '));
  await guest.getByRole('button', { name: 'Look' }).click();
  await guest.getByRole('button', { name: 'Come in as Tone Zupan' }).click();
  await expect(guest.locator('[data-ledger-row]')).toHaveCount(1);

  await guest.goto('/settings/people');
  await guest
    .getByRole('list', { name: 'Households' })
    .getByRole('button', { name: /^Go to/ })
    .click();
  await expect(guest.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
  expect((await (await guest.request.get('/api/v1/me')).json()).householdId).toBe(me.householdId);
  // The next sign-in leads where one was last.
  await guest.request.delete('/api/v1/session', { headers: own(base), data: {} });
  await guest.request.post('/api/v1/session', { headers: from(base), data: { email: me.email, password: me.password } });
  expect((await (await guest.request.get('/api/v1/me')).json()).householdId).toBe(me.householdId);

  // Who goes while a visit runs is told so, before and there.
  const home = await addPlace(guest, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  await send(guest.request, base, asItems(visitEvents(me, home, Date.now() - 60_000).slice(0, 2)));
  await guest.goto('/settings/people');
  const theirs = guest.getByRole('list', { name: 'Households' });
  await theirs.getByRole('button', { name: /^Go to/ }).click();
  const told = guest.getByRole('alert').filter({ hasText: 'A visit of yours is running here' });
  await expect(told).not.toContainText('not sent yet');
  await told.getByRole('button', { name: /^Go to/ }).click();
  await expect(guest.locator('[data-ledger-row]')).toHaveCount(1);
  await guest.goto('/settings/people');
  await expect(theirs.getByRole('listitem').filter({ hasText: 'A visit of yours is running there' })).toHaveCount(1);

  await page.goto('/settings/people');
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'take it along as a file' }).click()]);
  const whole = await openLedger(new Uint8Array(await readFile(await file.path())));
  expect(whole.ok && whole.value.head.events.length).toBeGreaterThan(4);
  const remove = page.locator('#delete-household');
  await remove.getByLabel('The household’s name').fill('test household');
  await remove.getByLabel('Your password').fill(owner.password);
  await remove.getByRole('button', { name: 'Delete the household' }).click();
  await expect(remove.getByText('Type Test household').first()).toBeVisible();
  await remove.getByLabel('The household’s name').fill('Test household');
  await remove.getByLabel('Your password').fill('not this one at all');
  await remove.getByRole('button', { name: 'Delete the household' }).click();
  await expect(remove.getByText('This is not your password')).toBeVisible();
  expect((await page.request.get('/api/v1/visits/lately')).ok()).toBe(true);
  await remove.getByLabel('Your password').fill(owner.password);
  await remove.getByRole('button', { name: 'Delete the household' }).click();
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
  await guest.goto('/settings/people');
  await expect(guest.getByRole('list', { name: 'Households' }).getByRole('listitem')).toHaveCount(1);

  // The account itself.
  const own_ = guest.locator('#delete-account');
  await own_.getByLabel('Your name').fill('Tone Zupan');
  await own_.getByLabel('Your password').fill(me.password);
  await own_.getByRole('button', { name: 'Delete the account' }).click();
  await expect(guest.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect((await guest.request.post('/api/v1/session', { headers: from(base), data: { email: me.email, password: me.password } })).status()).toBe(401);
  await other.close();
});

test('what is still on the phone of who was removed is told, goes into a file and with it into a ledger of their own; others are told of it only', async ({
  browser,
  page,
  baseURL,
}) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const phone = await browser.newContext({ baseURL: base, viewport: { width: 390, height: 844 }, hasTouch: true });
  const guest = await phone.newPage();
  const vid = await invitedMember(page, guest.request, base, 'driver', 'Vid Kos');
  await guest.goto('/stall');
  await guest.getByRole('button', { name: /Brod Landing/ }).tap();
  await phone.setOffline(true);
  await guest.getByRole('button', { name: /^Pulled in/ }).tap();
  await expect(guest.getByText('Kept on phone 1')).toBeVisible();
  const removed = await page.request.delete('/api/v1/members', { headers: own(base), data: { personId: vid.personId } });
  expect(removed.status()).toBe(200);
  await phone.setOffline(false);
  await guest.goto('/stall');
  await expect(guest.getByText(/^1 thing recorded on this phone by another sign-in, or for another household, is not sent/)).toBeVisible();
  await guest.getByRole('link', { name: 'Look' }).tap();
  const waits = guest.locator('#elsewhere');
  await expect(waits).toContainText('1 thing that you recorded for Test household. You do not belong to it any more');
  const [file] = await Promise.all([guest.waitForEvent('download'), waits.getByRole('button', { name: 'Save as a file' }).tap()]);
  await guest.goto('/settings/restore');
  await guest.locator('input[type=file]').setInputFiles(await file.path());
  await guest.getByRole('button', { name: 'Bring it in' }).tap();
  await expect(guest.getByText('Brought in: 3 records, 1 event')).toBeVisible();
  await guest.goto('/ledger');
  await expect(guest.locator('[data-ledger-row]')).toContainText('Brod Landing');

  // Somebody else on this phone is told, and can neither save nor delete it.
  await guest.request.delete('/api/v1/session', { headers: own(base), data: {} });
  await newHousehold(guest, base);
  await guest.goto('/settings');
  await expect(waits).toContainText('1 thing that Vid Kos recorded for Test household: sent when Vid Kos signs in here.');
  await expect(waits.getByRole('button')).toHaveCount(0);
  await guest.request.delete('/api/v1/session', { headers: own(base), data: {} });
  await guest.request.post('/api/v1/session', { headers: from(base), data: { email: vid.email, password: vid.password } });
  await guest.goto('/settings');
  await waits.getByRole('button', { name: 'Take off this device' }).tap();
  await expect(waits.getByRole('alert')).toContainText('It is nowhere else. Taken off here, it is lost.');
  await waits.getByRole('button', { name: 'Keep it' }).tap();
  await waits.getByRole('button', { name: 'Take off this device' }).tap();
  await waits.getByRole('button', { name: 'Take it off' }).tap();
  await expect(waits).toHaveCount(0);
  await guest.reload();
  await expect(guest.getByRole('heading', { name: 'Changes to settle' })).toBeVisible();
  await expect(waits).toHaveCount(0);
  await phone.close();
});

test('name, units, emergency number and colours are kept, and what is shown follows', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const site = (name: string, id: string, latitude: number, baseRev: number) =>
    recordItem('site', id, { networkId: place.networkId, name, zone: 'Europe/Ljubljana', latitude, longitude: 15.4 }, baseRev);
  await send(
    page.request,
    base,
    [site('Brod Landing', place.siteId, 45.8, 1), site('Vrba Crossing', v7(), 46.3, 0)].map((record) => ({ type: 'record', record })),
  );
  await page.goto(`/places?from=${place.siteId}`);
  await expect(page.getByText('Ferrywell, 56 km')).toBeVisible();
  await page.goto('/settings');
  await page.getByRole('radio', { name: 'Miles' }).click();
  await page.getByRole('radio', { name: 'mi/kWh' }).click();
  await page.getByLabel('Emergency number').fill('call me');
  await page.getByRole('button', { name: 'Keep the number' }).click();
  await expect(page.getByText('A telephone number, such as 112')).toBeVisible();
  await page.getByLabel('Emergency number').fill('911');
  await page.getByRole('button', { name: 'Keep the number' }).click();
  await page.getByLabel('Your name').fill('Tone the Second');
  await page.getByRole('button', { name: 'Keep the name' }).click();
  await expect(page.getByRole('heading', { name: 'Tone the Second' })).toBeVisible();
  await page.getByRole('radio', { name: 'Night' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-sheet', 'night');
  await page.reload();
  await expect(page.getByRole('radio', { name: 'Miles' })).toBeChecked();
  await expect(page.getByRole('radio', { name: 'Night' })).toBeChecked();
  await expect(page.getByLabel('Emergency number')).toHaveValue('911');
  await page.goto(`/places?from=${place.siteId}`);
  await expect(page.getByText('Ferrywell, 35 mi')).toBeVisible();
  // Consumption is typed and read in the unit that is wished for; what is not typed anew stays what it was.
  const uses = page.getByLabel('Usual consumption, mi/kWh');
  const kept = async () => {
    const { records } = await (await page.request.get('/api/v1/changes?since=0')).json();
    return records.find((r: { id: string }) => r.id === place.carId)?.fields.kWhPer100km;
  };
  await page.goto(`/garage/car/${place.carId}`);
  await uses.fill('3,5');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect.poll(kept).toBe(17.753);
  await page.goto(`/garage/car/${place.carId}`);
  await expect(uses).toHaveValue('3.5');
  await page.getByLabel('Name', { exact: true }).fill('Heron at last');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'Heron at last' })).toBeVisible();
  expect(await kept()).toBe(17.753);
  // An odometer is typed and read in miles, and kept in km.
  await send(page.request, base, asItems(visitEvents(who, place, Date.now() - 86_400_000)));
  await page.goto('/ledger');
  await page.getByRole('button', { name: /^Correct Pulled in/ }).click();
  await page.getByLabel('Odometer, mi').fill('38049');
  await page.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.getByText('38049 mi')).toBeVisible();

  await page.goto('/settings/people');
  const household = page.locator('#household');
  await household.getByLabel('Time zone').fill('Middle/Earth');
  await household.getByRole('button', { name: 'Keep this' }).click();
  await expect(household.getByText('Not a known time zone')).toBeVisible();
  await household.getByLabel('Time zone').fill('Europe/Zurich');
  await household.getByLabel('Name', { exact: true }).fill('Zupan and daughter');
  await household.getByRole('button', { name: 'Keep this' }).click();
  await expect(page.getByRole('heading', { name: 'Zupan and daughter' })).toBeVisible();
  await page.getByRole('button', { name: 'Start another household' }).click();
  const fresh = page.locator('#households');
  await fresh.getByLabel('Name', { exact: true }).fill('The workshop');
  await fresh.getByRole('button', { name: 'Start it and go there' }).click();
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
  expect((await (await page.request.get('/api/v1/me')).json()).householdName).toBe('The workshop');
});

test('a visit says who drove; marked private it shows the others that the car was charged; several are marked at once', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const ines = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Ferrywell', site: 'Brod Landing' });
  const other = await browser.newContext({ baseURL: base });
  const guest = await other.newPage();
  const vid = await invitedMember(page, guest.request, base, 'driver', 'Vid Kos');
  await send(
    page.request,
    base,
    asItems([visitEvents(ines, place, Date.now() - 3 * 86_400_000), visitEvents(ines, place, Date.now() - 2 * 86_400_000)].flat()),
  );
  await send(guest.request, base, asItems(visitEvents(vid, place, Date.now() - 86_400_000)));

  await page.goto('/ledger');
  await expect(page.getByText(/Vid Kos drove/)).toBeVisible();
  // Typed by one, driven by the other.
  await page.getByRole('button', { name: /^Correct Pulled in/ }).click();
  await page.getByLabel('Who drove').selectOption({ label: 'Tone Zupan' });
  await page.getByRole('button', { name: 'Keep the correction' }).click();
  await expect(page.getByText(/Tone Zupan drove/)).toBeVisible();
  await page.getByRole('radio', { name: 'Private', exact: true }).click();
  await expect(page.getByRole('radio', { name: 'Private', exact: true })).toHaveAttribute('aria-checked', 'true');

  await guest.goto('/ledger');
  const row = guest.locator('[data-ledger-row]').first();
  await expect(row).toContainText('Private');
  await expect(row).toContainText('charged by Tone Zupan');
  await expect(row).not.toContainText('Brod');
  await row.click();
  await expect(guest.getByRole('heading', { name: 'Private' })).toBeVisible();
  await expect(guest.getByRole('article')).not.toContainText('Brod');
  await expect(guest.getByRole('article')).toContainText(/\d kWh/);
  expect((await (await guest.request.get('/api/v1/visits/lately')).json()).rows.length).toBe(2);
  await guest.goto('/ledger?text=brod');
  await expect(guest.locator('[data-ledger-row]')).toHaveCount(2);

  // Several at once.
  await page.goto('/ledger');
  await page.getByRole('button', { name: 'Choose several' }).click();
  await page.getByRole('button', { name: 'All on this page' }).click();
  await expect(page.getByText('3 visits chosen')).toBeVisible();
  await page.getByRole('checkbox').first().uncheck();
  await page.getByRole('button', { name: 'Mark as business' }).click();
  await expect(page.getByText('none chosen')).toBeVisible();
  await page.goto('/ledger?only=business');
  await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
  await page.getByRole('button', { name: 'Choose several' }).click();
  await page.getByRole('checkbox').first().check();
  await page.getByRole('region', { name: 'Several visits' }).getByRole('button', { name: 'Leave out of comparisons' }).click();
  await page.getByRole('button', { name: 'Leave out', exact: true }).click();
  await expect(page.getByText('Say why: others will ask')).toBeVisible();
  await page.getByLabel('Left out of comparisons because').fill('a trial');
  await page.getByRole('button', { name: 'Leave out', exact: true }).click();
  await expect(page.getByText('none chosen')).toBeVisible();
  await page.goto('/ledger?only=left_out');
  await expect(page.getByText('Left out of comparisons: a trial.')).toBeVisible();
  await page.getByRole('button', { name: 'Choose several' }).click();
  await page.getByRole('button', { name: 'All on this page' }).click();
  await page.getByRole('region', { name: 'Several visits' }).getByRole('button', { name: 'Withdraw' }).click();
  await page.getByRole('button', { name: 'Withdraw them' }).click();
  await expect(page.getByRole('heading', { name: 'No visit fits' })).toBeVisible();
  await page.goto('/ledger');
  await expect(page.locator('[data-ledger-row]')).toHaveCount(2);
  await other.close();
});
