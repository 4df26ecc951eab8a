import { execFile } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import { expect, type Page, test } from '@playwright/test';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { OpenAPIClientAxios } from 'openapi-client-axios';
import { v7 } from 'uuid';
import { addPlace, type Member, newHousehold, own, type Place, send, visitEvents } from './hands/household';

const run = promisify(execFile);
/** Makes a token as its person does. */
async function token(page: Page, name: string, writes: boolean): Promise<string> {
  await page.goto('/settings/programs');
  await page.getByLabel('What it is for').fill(name);
  if (writes) await page.getByLabel('read, and send events in your name').check();
  await page.getByRole('button', { name: 'Make a token' }).click();
  const shown = page.locator('code').filter({ hasText: /^mile_/ });
  await expect(shown).toBeVisible();
  return (await shown.textContent()) as string;
}
const bearer = (of: string) => ({ authorization: `Bearer ${of}` });
async function recorded(page: Page, base: string, visits: number): Promise<{ who: Member; place: Place }> {
  const who = await newHousehold(page, base);
  const place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  for (let i = 0; i < visits; i++)
    await send(
      page.request,
      base,
      visitEvents(who, place, Date.UTC(2026, 5, 1 + i, 9), i % 2 === 0).map((event) => ({ type: 'event', event })),
    );
  return { who, place };
}

test('a program reads by its token what its person sees; a token ended in mid-use opens nothing', async ({ page, baseURL, playwright }) => {
  const base = baseURL as string;
  const { who, place } = await recorded(page, base, 7);
  const reads = await token(page, 'spreadsheet', false);
  const program = await playwright.request.newContext({ baseURL: base });
  const get = (path: string, more: Record<string, string> = {}) => program.get(`/api/v1${path}`, { headers: { ...bearer(reads), ...more } });

  // Page by page each visit once.
  const seen: string[] = [];
  for (let next: string | null = ''; next !== null; ) {
    const answer = await get(`/visits?limit=3${next === '' ? '' : `&cursor=${next}`}`);
    const body = (await answer.json()) as { items: { visit: string; site_id: string; site: string; unknown: object }[]; next: string | null };
    expect(body.items[0]).toMatchObject({ site: 'Vrba Crossing', site_id: place.siteId });
    seen.push(...body.items.map((v) => v.visit));
    next = body.next;
  }
  expect([seen.length, new Set(seen).size]).toEqual([7, 7]);
  const one = await (await get(`/visits/${seen[0]}`)).json();
  expect([one.visit.visit, one.attempts.length > 0, one.events.length > 3]).toEqual([seen[0], true, true]);
  expect((await (await get('/visits?from=2026-06-03&to=2026-06-05')).json()).items).toHaveLength(2);
  // The plus of an offset that nobody encoded.
  expect((await (await get('/visits?from=2026-06-03T02:00:00+02:00&to=2026-06-05T00:00:00.123456Z')).json()).items).toHaveLength(2);
  expect((await (await get(`/visits?site=${v7()}`)).json()).items).toHaveLength(0);
  const compared = await (await get('/compare?by=network')).json();
  expect(compared.items[0].groups[0].name).toBe('Saltmarsh Rapid');
  expect(compared.sentences[0]).toMatchObject({ text: expect.stringContaining('Saltmarsh Rapid'), working: expect.any(Array) });
  expect(compared.on_watch).toEqual([]);

  // Nothing is told again until something is written.
  const etag = (await get('/visits')).headers().etag as string;
  expect((await get('/visits', { 'if-none-match': etag })).status()).toBe(304);
  expect((await get('/visits?limit=2', { 'if-none-match': etag })).status()).toBe(200);
  await send(
    page.request,
    base,
    visitEvents(who, place, Date.UTC(2026, 5, 20, 9)).map((event) => ({ type: 'event', event })),
  );
  expect((await get('/visits', { 'if-none-match': etag })).status()).toBe(200);

  // What is not understood, all of it, each by its place.
  const odd = await get('/visits?limit=0&cursor=x&from=yesterday&to=2026-02-30&site=y');
  expect([odd.status(), odd.headers()['content-type']]).toEqual([422, 'application/problem+json']);
  expect((await odd.json()).errors.map((e: { pointer: string }) => e.pointer)).toEqual(['?limit', '?cursor', '?from', '?to', '?site']);
  for (const [path, names] of [
    ['/visits?form=2026-06-03&site_id=x&limit=3', ['?form', '?site_id']],
    ['/tariffs?limit=1&limit=2', ['?limit']],
    ['/tariffs?limit=1e2', ['?limit']],
    ['/places?limit=0&site=x&from=y', ['?site', '?from', '?limit']],
    ['/compare?by=site&change=2026-06-03&group=hour:7', ['?change', '?group']],
    ['/export/visits.csv?from=2026-06-03', ['?from']],
  ] as const) {
    const answer = await get(path);
    expect([answer.status(), (await answer.json()).errors.map((e: { pointer: string }) => e.pointer)]).toEqual([422, names]);
  }
  const nowhere = await get('/nothing/here');
  expect([nowhere.status(), nowhere.headers()['content-type']]).toEqual([404, 'application/problem+json']);
  const method = await program.delete('/api/v1/visits', { headers: bearer(reads) });
  expect([method.status(), method.headers()['content-type'], method.headers().allow]).toEqual([405, 'application/problem+json', 'GET, HEAD']);
  expect((await get(`/visits/${v7()}`)).status()).toBe(404);
  expect((await get(`/visits?household=${v7()}`)).status()).toBe(403);
  const late = await program.post('/api/v1/events', { headers: bearer(reads), data: { events: [{}] } });
  expect([late.status(), (await late.json()).title]).toEqual([403, 'This token only reads.']);
  for (const headers of [{}, bearer('mile_nothing'), { authorization: 'Basic eDp5' }] as Record<string, string>[]) {
    const answer = await program.get('/api/v1/visits', { headers });
    expect([answer.status(), answer.headers()['www-authenticate']]).toEqual([401, 'Bearer realm="Mile Ledger"']);
  }

  // It is shown once, and ended at once.
  await page.reload();
  await expect(page.getByText(reads)).toHaveCount(0);
  await expect(page.getByText(/^reads Test household, made .*, last used/)).toBeVisible();
  await page.getByRole('button', { name: /^End it/ }).click();
  await page.getByRole('button', { name: 'End spreadsheet now' }).click();
  await expect(page.getByText('Ended: it opens nothing any more.')).toBeVisible();
  const over = await get('/visits');
  expect([over.status(), (await over.json()).title]).toEqual([401, 'This token opens nothing: it is unknown, or was ended.']);
  await program.dispose();
});

test('what docs/api.md says runs as it stands; the description is sound, and a client made of it works', async ({ page, baseURL }) => {
  const base = baseURL as string;
  await recorded(page, base, 2);
  const TOKEN = await token(page, 'car log', true);
  const lines = (await readFile('docs/api.md', 'utf8')).split('\n').filter((l) => l.startsWith('    curl '));
  expect(lines.length).toBeGreaterThan(10);
  for (const line of lines) {
    const { stdout } = await run('bash', ['-c', line], { env: { ...process.env, MILE: base, TOKEN } });
    if (line.includes('/events" ')) expect(JSON.parse(stdout).results.map((r: { status: string }) => r.status)).toEqual(['taken', 'taken', 'taken', 'taken']);
    else if (!line.includes('-o /dev/null')) expect(stdout.length).toBeGreaterThan(10);
  }
  // Sent again it is there already; the visit stands in the ledger with what it came from.
  const events = lines.find((l) => l.includes('/events" ')) as string;
  const { stdout } = await run('bash', ['-c', events], { env: { ...process.env, MILE: base, TOKEN } });
  expect(JSON.parse(stdout).results.map((r: { status: string }) => r.status)).toEqual(['already', 'already', 'already', 'already']);
  await page.goto('/ledger/01990000-0000-7000-8000-000000000000');
  await expect(page.getByText('Wednesday 10 June 2026, pulled in 13:52', { exact: false })).toBeVisible();

  const document = await (await page.request.get('/api/v1/openapi.json')).json();
  const config = await createConfig({ extends: ['recommended'], rules: { 'info-license': 'off' } });
  const problems = await lintFromString({ source: JSON.stringify(document), absoluteRef: '/openapi.json', config });
  expect(problems.filter((p) => p.severity === 'error').map((p) => `${p.ruleId}: ${p.message} ${p.location[0]?.pointer ?? ''}`)).toEqual([]);
  const client = (await new OpenAPIClientAxios({
    definition: { ...document, servers: [{ url: `${base}/api/v1` }] },
    axiosConfigDefaults: { headers: bearer(TOKEN), validateStatus: () => true },
  }).init()) as unknown as Record<
    'list_visits' | 'send_events',
    (
      parameters: object | null,
      data?: object,
    ) => Promise<{ status: number; data: { items: unknown[]; results: { status: string; pointer: string }[]; errors: { pointer: string }[] } }>
  >;
  const visits = await client.list_visits({ limit: 2 });
  expect([visits.status, visits.data.items.length]).toEqual([200, 2]);
  const refused = await client.send_events(null, {
    events: [
      { id: v7(), visitId: v7(), kind: 'reading', at: '2026-06-10T25:00Z', payload: {} },
      { id: 'x', colour: 1 },
      7,
      { id: v7(), visitId: v7(), kind: 'reading', at: '2026-06-10', payload: { screen: 'stall', kW: -1 } },
    ],
  });
  expect(refused.data.results.map((r) => [r.status, r.pointer])).toEqual([
    ['refused', '/events/0/at'],
    ['refused', '/events/1/id'],
    ['refused', '/events/2'],
    ['refused', '/events/3/payload/kW'],
  ]);
  const none = await client.send_events(null, { events: [] });
  expect([none.status, none.data.errors[0]?.pointer]).toEqual([422, '/events']);

  // From a page of somebody else's neither a token nor a cookie writes, and no token makes another.
  const elsewhere = await page.request.post('/api/v1/events', {
    headers: { ...bearer(TOKEN), origin: 'https://elsewhere.example', 'content-type': 'application/json' },
    data: { events: [{}] },
  });
  expect(elsewhere.status()).toBe(403);
  await page.goto('/settings/programs/api');
  await expect(page.getByRole('heading', { name: 'GET /visits', exact: true })).toBeVisible();
});

test('a token of several households says which; what its person may no more it may no more', async ({ page, baseURL, playwright }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const second = await page.request.post('/api/v1/households', {
    headers: own(base),
    data: { householdName: 'Workshop', currency: 'EUR', zone: 'Europe/Ljubljana' },
  });
  expect(second.ok()).toBe(true);
  const here = (await (await page.request.get('/api/v1/me')).json()).householdId as string;
  await page.goto('/settings/programs');
  await page.getByLabel('Workshop').check();
  await page.getByLabel('Test household').check();
  await page.getByLabel('read, and send events in your name').check();
  await page.getByLabel('What it is for').fill('both');
  await page.getByRole('button', { name: 'Make a token' }).click();
  const of = (await page
    .locator('code')
    .filter({ hasText: /^mile_/ })
    .textContent()) as string;
  const program = await playwright.request.newContext({ baseURL: base });
  const asked = await program.get('/api/v1/visits', { headers: bearer(of) });
  expect([asked.status(), (await asked.json()).errors[0].pointer]).toEqual([422, '?household']);
  expect((await program.get(`/api/v1/visits?household=${here}`, { headers: bearer(of) })).status()).toBe(200);
  expect((await program.get(`/api/v1/visits?household=${who.householdId}`, { headers: bearer(of) })).status()).toBe(200);
  // A household that is none of theirs opens to no token.
  const foreign = await page.request.post('/api/v1/tokens', { headers: own(base), data: { name: 'x', write: false, households: [v7()] } });
  expect([foreign.status(), (await foreign.json()).error]).toEqual([422, 'There is no such household of yours.']);
  // A token makes no token, and is no way in.
  expect(
    (
      await program.post('/api/v1/tokens', { headers: { ...bearer(of), ...own(base) }, data: { name: 'y', write: true, households: [who.householdId] } })
    ).status(),
  ).toBe(401);
  expect((await program.get('/api/v1/me', { headers: bearer(of) })).status()).toBe(401);
  // Too many at once are told to wait.
  let limited = 0;
  for (let i = 0; i < 40 && limited === 0; i++) {
    const answers = await Promise.all(Array.from({ length: 20 }, () => program.get(`/api/v1/tariffs?household=${who.householdId}`, { headers: bearer(of) })));
    const last = answers.find((a) => a.status() === 429);
    if (last) limited = Number(last.headers()['retry-after']);
  }
  expect(limited).toBeGreaterThan(0);
  await program.dispose();
});
