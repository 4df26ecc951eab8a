import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { addPlace, asItems, from, newHousehold, own, send, visitEvents } from './hands/household';

test('sign-in is refused with a message, slowed after five tries, and right credentials open the ledger', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  await page.context().clearCookies();
  await page.goto('/ledger');
  await expect(page).toHaveURL(/\/sign-in$/);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('This is not an e-mail address')).toBeVisible();
  await page.getByLabel('E-mail address').fill(who.email);
  await page.getByLabel('Password').fill('not this one');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('E-mail address and password do not fit.')).toBeVisible();
  await page.getByLabel('Password').fill(who.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();

  // From an address of its own, so that other tests are not slowed.
  const headers = from(baseURL as string);
  const stranger = `nobody-${v7()}@example.invalid`;
  const statuses: number[] = [];
  for (let i = 0; i < 6; i++) statuses.push((await page.request.post('/api/v1/session', { headers, data: { email: stranger, password: 'x' } })).status());
  expect(statuses).toEqual([401, 401, 401, 401, 401, 429]);
});

test('who is not signed in is led on to what was asked, and nowhere else; a page is called by what it shows', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Copperbeech', site: 'Kamen Toll' });
  const events = visitEvents(who, place, Date.parse('2026-03-04T12:00:00Z'));
  await send(page.request, base, asItems(events));
  const signIn = async () => {
    await page.getByLabel('E-mail address').fill(who.email);
    await page.getByLabel('Password').fill(who.password);
    await page.getByRole('button', { name: 'Sign in' }).click();
  };
  await page.context().clearCookies();
  const asked = `/ledger/${events[0]?.visitId}?network=${place.networkId}&text=a+%26+b`;
  await page.goto(asked);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Use your recovery code' })).toHaveAttribute('href', `/recover?${new URLSearchParams({ to: asked })}`);
  await signIn();
  await expect(page).toHaveURL(base + asked);
  await expect(page).toHaveTitle('Kamen Toll, 4 Mar 2026 · Mile Ledger');
  await page.goto(`/places/${place.siteId}/stalls/${place.stalls[0]}`);
  await expect(page).toHaveTitle('Kamen Toll, stall 1 · Mile Ledger');
  await page.goto(`/ledger/${v7()}/power`);
  await expect(page).toHaveTitle(/^(Power|Not here) · Mile Ledger$/);
  // The session ends while a page is open, and a link of it is pressed.
  await page.goto('/compare?by=site');
  await expect(page).toHaveTitle('Compare sites · Mile Ledger');
  await page.context().clearCookies();
  await page.getByRole('link', { name: 'Statement' }).click();
  await expect(page).toHaveURL(/\/sign-in\?to=%2Fledger%2Fstatement$/);
  for (const elsewhere of ['//elsewhere.invalid/', '/\\elsewhere.invalid', 'https://elsewhere.invalid', 'javascript:alert(1)']) {
    await page.context().clearCookies();
    await page.goto(`/sign-in?${new URLSearchParams({ to: elsewhere })}`);
    await signIn();
    await expect(page).toHaveURL(`${base}/ledger`);
  }
  // Who is signed in is let through at once.
  await page.goto('/sign-in?to=%2Fgarage%2Fcar');
  await expect(page).toHaveURL(`${base}/garage/car`);
  await expect(page).toHaveTitle('Cars · Mile Ledger');
});

test('signing out ends the session everywhere its cookie went', async ({ page, baseURL }) => {
  await newHousehold(page, baseURL as string);
  const cookies = await page.context().cookies();
  expect(cookies.find((c) => c.name === 'mile_session')).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  await page.goto('/settings');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page).toHaveURL(/\/sign-in$/);
  await page.context().addCookies(cookies);
  expect((await page.request.get('/api/v1/me')).status()).toBe(401);
});

test('another household’s visit is not here, nor its records, and nothing can be written into it', async ({ browser, baseURL }) => {
  const base = baseURL as string;
  const [a, b] = await Promise.all([browser.newContext({ baseURL: base }), browser.newContext({ baseURL: base })]);
  const [mine, theirs] = [await a.newPage(), await b.newPage()];
  const me = await newHousehold(mine, base);
  const them = await newHousehold(theirs, base);
  const place = await addPlace(theirs, base, { network: 'Copperbeech', site: 'Kamen Toll' });
  const events = visitEvents(them, place, Date.now() - 86_400_000);
  await send(theirs.request, base, asItems(events));
  const visitId = events[0]?.visitId as string;

  expect((await theirs.goto(`/ledger/${visitId}`))?.status()).toBe(200);
  for (const id of [visitId, v7(), 'no-id-at-all']) {
    const response = await mine.goto(`/ledger/${id}`);
    expect(response?.status()).toBe(404);
    await expect(mine.getByRole('heading', { name: 'Not here' })).toBeVisible();
  }
  expect((await (await mine.request.get('/api/v1/changes?since=0')).json()).records).toEqual([]);
  expect((await (await mine.request.get('/api/v1/visits/lately')).json()).rows).toEqual([]);
  expect((await mine.request.get(`/api/v1/visits/${visitId}/events`)).status()).toBe(404);
  const own = { ...(events[0] as object), id: v7(), visitId: v7(), householdId: me.householdId, personId: me.personId } as (typeof events)[number];
  await send(mine.request, base, asItems([own]));
  for (const [into, from] of [
    [own.visitId, visitId],
    [visitId, own.visitId],
  ])
    expect((await mine.request.post('/api/v1/visits/join', { headers: { origin: base }, data: { into, from } })).status()).toBe(422);
  const intruding = { ...(events[0] as object), id: v7() };
  expect(
    await send(mine.request, base, [
      { type: 'event', event: intruding },
      { type: 'event', event: { ...intruding, id: v7(), householdId: me.householdId } },
    ]),
  ).toEqual([
    expect.objectContaining({ status: 'refused', code: 'other_household', path: 'householdId' }),
    expect.objectContaining({ status: 'refused', code: 'other_person', path: 'personId' }),
  ]);
  await Promise.all([a.close(), b.close()]);
});

test('nothing is answered without a sign-in', async ({ request, baseURL }) => {
  for (const path of ['/api/v1/me', '/api/v1/changes']) expect((await request.get(path)).status()).toBe(401);
  expect((await request.post('/api/v1/outbox', { headers: own(baseURL as string), data: { items: [] } })).status()).toBe(401);
  expect((await request.post('/api/v1/session', { headers: own(baseURL as string), data: { demo: true } })).status()).toBe(404);
});
