import { createHash } from 'node:crypto';
import { deflateSync } from 'node:zlib';
import { expect, test } from '@playwright/test';
import mysql from 'mysql2/promise';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { sweepPhotos } from '@/server/photos/unreferenced';
import { answers } from './hands/answers';
import { addPlace, from, newHousehold, own, send, visitEvents } from './hands/household';

test('the password is changed with the old one; common ones and one’s own address are refused; every other device is signed out', async ({
  browser,
  page,
  baseURL,
}) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const other = await browser.newContext({ baseURL: base });
  const sign = (password: string) => other.request.post('/api/v1/session', { headers: from(base), data: { email: who.email, password } });
  expect((await sign(who.password)).status()).toBe(200);

  await page.goto('/settings');
  const change = async (old: string, password: string) => {
    await page.getByLabel('Your password now').fill(old);
    await page.getByLabel('New password').fill(password);
    await page.getByRole('button', { name: 'Change the password' }).click();
  };
  await change('not this one at all', 'copper beech at dawn');
  await expect(page.getByText('This is not your password')).toBeVisible();
  await change(who.password, 'short');
  await expect(page.locator('#new-password-error')).toHaveText('At least 10 characters');
  await change(who.password, 'password123');
  await expect(page.getByText('among the passwords that are tried first')).toBeVisible();
  await change(who.password, who.email);
  await expect(page.getByText('your own name or address')).toBeVisible();
  await change(who.password, 'copper beech at dawn');
  await expect(page.getByText('The password is changed.')).toBeVisible();
  expect((await page.request.get('/api/v1/me')).status()).toBe(200);
  expect((await other.request.get('/api/v1/me')).status()).toBe(401);
  expect((await sign(who.password)).status()).toBe(401);
  expect((await sign('copper beech at dawn')).status()).toBe(200);
  await other.close();
});

test('a printed recovery code opens the account once and sets a new password', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  await page.goto('/settings');
  await page.locator('#again').fill('not this one at all');
  await page.getByRole('button', { name: 'Make a recovery code' }).click();
  await expect(page.getByText('This is not your password')).toBeVisible();
  await page.locator('#again').fill(who.password);
  await page.getByRole('button', { name: 'Make a recovery code' }).click();
  const code = (await page.locator('#recovery-code').textContent()) as string;
  expect(code).toMatch(/^[2-9A-HJKMNP-TV-Z]{4}(-[2-9A-HJKMNP-TV-Z]{4}){2}$/);
  await page.reload();
  await expect(page.getByText(/One was made on/)).toBeVisible();
  expect(await page.content()).not.toContain(code);

  const lost = await browser.newPage({ baseURL: base });
  await lost.goto('/sign-in');
  await lost.getByRole('link', { name: 'Use your recovery code' }).click();
  const use = async (typed: string) => {
    await lost.getByLabel('E-mail address').fill(who.email);
    await lost.getByLabel('Recovery code').fill(typed);
    await lost.getByLabel('New password').fill('bells over the valley');
    await lost.getByRole('button', { name: 'Set the password and sign in' }).click();
  };
  await use('2222-2222-2222');
  await expect(lost.getByText('E-mail address and recovery code do not fit.')).toBeVisible();
  await use(code.toLowerCase().replaceAll('-', ' '));
  await expect(lost.getByRole('heading', { name: 'The ledger is empty' })).toBeVisible();
  expect((await page.request.get('/api/v1/me')).status()).toBe(401);
  const again = { headers: from(base), data: { email: who.email, code, password: 'another good long one' } };
  expect((await page.request.post('/api/v1/recovery', again)).status()).toBe(401);
  expect((await page.request.post('/api/v1/session', { headers: from(base), data: { email: who.email, password: who.password } })).status()).toBe(401);
  await lost.close();
});

test('signed-in devices are listed, one is ended, then all others; the log tells of it; a new sign-in is a new session', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const others = await Promise.all(
    [1, 2, 3].map(() => browser.newContext({ baseURL: base, userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:132.0) Gecko/20100101 Firefox/132.0' })),
  );
  const credentials = { email: who.email, password: who.password };
  for (const c of others) expect((await c.request.post('/api/v1/session', { headers: from(base), data: credentials })).status()).toBe(200);
  const signedIn = () => Promise.all(others.map(async (c) => (await c.request.get('/api/v1/me')).status()));

  await page.goto('/settings');
  const list = page.getByRole('list', { name: 'Signed-in devices' }).getByRole('listitem');
  await expect(list).toHaveCount(4);
  await expect(list.filter({ hasText: '(this one)' })).toHaveCount(1);
  const end = list.filter({ hasText: 'Firefox on Linux' }).first().getByRole('button', { name: /^End/ });
  await answers(end);
  await end.click();
  await expect(list).toHaveCount(3);
  expect((await signedIn()).filter((s) => s === 401)).toHaveLength(1);
  await page.getByRole('button', { name: 'End all others' }).click();
  await expect(list).toHaveCount(1);
  expect(await signedIn()).toEqual([401, 401, 401]);

  // Somebody else's session is not here, nor is one that never was.
  const stranger = await browser.newPage({ baseURL: base });
  await newHousehold(stranger, base);
  const { sessionId } = await (await page.request.get('/api/v1/me')).json();
  expect((await stranger.request.delete('/api/v1/sessions', { headers: own(base), data: { id: sessionId } })).status()).toBe(404);
  expect((await stranger.request.delete('/api/v1/sessions', { headers: own(base), data: { id: 'x' } })).status()).toBe(422);
  expect((await page.request.get('/api/v1/me')).status()).toBe(200);

  const before = (await page.context().cookies()).find((c) => c.name === 'mile_session')?.value;
  expect((await page.request.post('/api/v1/session', { headers: from(base), data: credentials })).status()).toBe(200);
  const cookies = await page.context().cookies();
  expect(cookies.find((c) => c.name === 'mile_session')?.value).not.toBe(before);
  const old = await browser.newContext({ baseURL: base });
  await old.addCookies([{ name: 'mile_session', value: before as string, url: base }]);
  expect((await old.request.get('/api/v1/me')).status()).toBe(401);
  await page.request.post('/api/v1/session', { headers: from(base), data: { ...credentials, password: 'x' } });

  await page.goto('/settings');
  await page.getByRole('link', { name: 'open the log' }).click();
  await expect(page.getByRole('heading', { name: 'Security log' })).toBeVisible();
  const lines = page.getByRole('main').getByRole('listitem');
  await expect(lines.first()).toContainText('A sign-in failed');
  await expect(lines.filter({ hasText: 'A signed-in device was ended' })).toHaveCount(2);
  await expect(lines.filter({ hasText: /^.*Signed in,/ })).toHaveCount(5);
  expect(await page.getByRole('main').textContent()).not.toContain(who.email);
  for (const c of [...others, old]) await c.close();
  await stranger.close();
});

test('signing out clears the cache, 401 is kept nowhere, and every path carries the headers', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await newHousehold(page, base);
  await page.goto('/ledger');
  const chunk = await page.evaluate(
    () =>
      performance
        .getEntriesByType('resource')
        .map((r) => r.name)
        .find((n) => n.includes('/_next/static/')) as string,
  );
  for (const path of [
    '/ledger',
    '/stall',
    '/sign-in',
    '/nowhere/at/all',
    '/api/v1/me',
    '/api/v1/nothing',
    '/manifest.webmanifest',
    '/sheet.js',
    '/icon-512.png',
    '/serwist/sw.js',
    '/%ff',
    chunk,
  ]) {
    const headers = (await page.request.get(path)).headers();
    expect([path, headers['x-content-type-options'], headers['x-frame-options']]).toEqual([path, 'nosniff', 'DENY']);
    expect([path, headers['content-security-policy']]).toEqual([path, expect.stringContaining("frame-ancestors 'none'")]);
    expect([path, headers['x-powered-by']]).toEqual([path, undefined]);
  }
  const out = await page.request.delete('/api/v1/session', { headers: own(base), data: {} });
  expect(out.headers()).toMatchObject({ 'clear-site-data': '"cache"', 'cache-control': 'no-store' });
  for (const path of ['/api/v1/me', '/api/v1/changes', '/api/v1/visits', `/api/v1/photos/${'a'.repeat(64)}`]) {
    const answer = await page.request.get(path);
    expect([path, answer.status(), answer.headers()['cache-control']]).toEqual([path, 401, 'no-store']);
  }
});

test('a session that nobody used for sixty days is over, and any after half a year', async ({ page, baseURL }) => {
  const who = await newHousehold(page, baseURL as string);
  const me = async () => (await page.request.get('/api/v1/me')).status();
  const db = await mysql.createConnection(process.env.DATABASE_URL as string);
  const set = (sql: string) => db.query(`UPDATE signed_in_session SET ${sql} WHERE person_id = UNHEX(?)`, [who.personId.replaceAll('-', '')]);
  await set('last_seen_at = UTC_TIMESTAMP(3) - INTERVAL 59 DAY');
  expect(await me()).toBe(200);
  // That was a use.
  await set('last_seen_at = last_seen_at - INTERVAL 59 DAY');
  expect(await me()).toBe(200);
  await set('last_seen_at = last_seen_at - INTERVAL 61 DAY');
  expect(await me()).toBe(401);
  await set('last_seen_at = UTC_TIMESTAMP(3)');
  expect(await me()).toBe(200);
  await set('expires_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND');
  expect(await me()).toBe(401);
  await db.end();
});

test('photos that nothing names go after a day, named ones stay, and a household keeps no more than it may', async ({ page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Bluebarn', site: 'Lipa Barn' });
  const put = async (shade: string) => {
    const body = await sharp({ create: { width: 60, height: 40, channels: 3, background: shade } })
      .jpeg()
      .toBuffer();
    const sha256 = createHash('sha256').update(body).digest('hex');
    const answer = await page.request.put(`/api/v1/photos/${sha256}`, { headers: { origin: base, 'content-type': 'image/jpeg' }, data: body });
    return { sha256, status: answer.status(), error: (await answer.json()).error as string | undefined };
  };
  const [alone, onEvent, onSite, fresh] = [await put('#100'), await put('#200'), await put('#300'), await put('#400')];
  const [first] = visitEvents(who, place, Date.now() - 86_400_000);
  await send(page.request, base, [
    { type: 'event', event: { ...first, kind: 'receipt', payload: { sha256: onEvent.sha256 } } },
    {
      type: 'record',
      record: {
        type: 'site',
        id: v7(),
        baseRev: 0,
        fields: { networkId: place.networkId, name: 'Kamen Toll', zone: 'UTC', photos: [{ sha256: onSite.sha256, text: 'x' }] },
      },
    },
  ]);
  const db = await mysql.createConnection(process.env.DATABASE_URL as string);
  const hh = who.householdId.replaceAll('-', '');
  await db.query('UPDATE photo SET kept_at = kept_at - INTERVAL 25 HOUR WHERE household_id = UNHEX(?) AND sha256 <> UNHEX(?)', [hh, fresh.sha256]);
  expect(await sweepPhotos(who.householdId, true)).toBe(1);
  const there = async (p: { sha256: string }) => (await page.request.get(`/api/v1/photos/${p.sha256}`)).status();
  expect([await there(alone), await there(onEvent), await there(onSite), await there(fresh)]).toEqual([404, 200, 200, 200]);

  const person = Buffer.from(who.personId.replaceAll('-', ''), 'hex');
  await db.query('INSERT INTO photo (household_id, sha256, person_id, width, height, bytes, kept_at) VALUES ?', [
    Array.from({ length: 1997 }, (_, i) => [Buffer.from(hh, 'hex'), createHash('sha256').update(String(i)).digest(), person, 1, 1, 1, new Date()]),
  ]);
  expect(await put('#500')).toMatchObject({ status: 422, error: expect.stringContaining('as many photos as it can') });
  await db.end();
});

/** A PNG of so many pixels a side, all of one colour: a few kB that become gigabytes. */
function bomb(side: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const crc = Buffer.alloc(4);
    crc.writeUInt32BE(crc32(body));
    const length = Buffer.alloc(4);
    length.writeUInt32BE(data.length);
    return Buffer.concat([length, body, crc]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header.set([1, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc((Math.ceil(side / 8) + 1) * side))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
/** CRC-32 of PNG (ISO/IEC 15948, annex D). */
function crc32(bytes: Buffer): number {
  let c = 0xffffffff;
  for (const b of bytes) {
    c ^= b;
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  }
  return (c ^ 0xffffffff) >>> 0;
}

test('eight hostile pictures at once are refused, and a sign-in meanwhile is answered', async ({ browser, page, baseURL }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const put = (body: Buffer, type = 'image/jpeg') =>
    page.request.put(`/api/v1/photos/${createHash('sha256').update(body).digest('hex')}`, { headers: { origin: base, 'content-type': type }, data: body });
  const huge = bomb(12_000);
  expect(huge.length).toBeLessThan(100_000);
  const hostile = Array.from({ length: 8 }, (_, i) => Buffer.concat([huge, Buffer.from([i])]));
  const other = await browser.newContext({ baseURL: base });
  const [signedIn, ...answers] = await Promise.all([
    other.request.post('/api/v1/session', { headers: from(base), data: { email: who.email, password: who.password } }),
    ...hostile.map((b) => put(b, 'image/png')),
  ]);
  expect(signedIn?.status()).toBe(200);
  for (const a of answers) expect([a.status(), (await a.json()).error]).toEqual([422, 'This picture has more than 40 million pixels.']);

  const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>alert(1)</script></svg>');
  expect((await put(svg, 'image/svg+xml')).status()).toBe(415);
  expect((await put(Buffer.from('<html><script>alert(1)</script>'), 'text/html')).status()).toBe(415);
  for (const body of [svg, Buffer.from('<html>'), Buffer.from('GIF89a'), Buffer.from([0xff, 0xd8, 0xff, 1, 2, 3]), huge.subarray(0, 200), Buffer.alloc(0)])
    expect((await put(body)).status()).toBe(422);
  await other.close();
});
