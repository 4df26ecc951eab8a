import { type APIResponse, expect, test } from '@playwright/test';
import Ajv from 'ajv/dist/2020.js';
import { addPlace, newHousehold, own, type Place, send, visitEvents } from './hands/household';

type Described = { parameters?: { name: string; in: string; schema: { enum?: string[] } }[]; responses: Record<string, { content?: Record<string, object> }> };
type Description = { paths: Record<string, Record<string, Described>> };

/** A pointer's part, RFC 6901. */
const part = (name: string) => name.replaceAll('~', '~0').replaceAll('/', '~1');

test('every answer is one of those that the description names, and fits its schema', async ({ page, baseURL, playwright }) => {
  const base = baseURL as string;
  const who = await newHousehold(page, base);
  const place: Place = await addPlace(page, base, { network: 'Saltmarsh Rapid', site: 'Vrba Crossing' });
  const events = [0, 1, 2].flatMap((i) => visitEvents(who, place, Date.UTC(2026, 5, 1 + i, 9), i === 1));
  await send(
    page.request,
    base,
    events.map((event) => ({ type: 'event', event })),
  );
  const made = await page.request.post('/api/v1/tokens', { headers: own(base), data: { name: 'described', write: true, households: [who.householdId] } });
  const program = await playwright.request.newContext({ baseURL: base, extraHTTPHeaders: { authorization: `Bearer ${(await made.json()).token}` } });
  const described = (await (await program.get('/api/v1/openapi.json')).json()) as Description;
  const ajv = new Ajv({ strict: false, allErrors: true, validateFormats: false }).addSchema(described, 'api');

  const fits = async (method: string, path: string, answer: APIResponse) => {
    const of = described.paths[path]?.[method]?.responses ?? {};
    const status = String(answer.status());
    const type = (answer.headers()['content-type'] ?? '').split(';')[0] ?? '';
    const at = `${method} ${path} ${answer.url()} ${status} ${type}`;
    // Nothing falls under "anything else".
    expect(Object.keys(of), at).toContain(status);
    if (status === '304') return;
    expect(Object.keys(of[status]?.content ?? {}), at).toContain(type);
    if (Number(status) >= 400 && path !== '/price') expect(type, at).toBe('application/problem+json');
    if (!type.endsWith('json')) return;
    const valid = ajv.getSchema(`api#/paths/${part(path)}/${method}/responses/${status}/content/${part(type)}/schema`);
    expect(valid?.(await answer.json()), `${at} ${JSON.stringify(valid?.errors)}`).toBe(true);
  };
  const get = async (path: string, at = path) => {
    const answer = await program.get(`/api/v1${at}`);
    await fits('get', path, answer);
    return answer;
  };
  const post = async (path: string, data: unknown) => {
    const answer = await program.post(`/api/v1${path}`, { headers: { 'content-type': 'application/json' }, data: Buffer.from(data as string) });
    await fits('post', path, answer);
    return answer;
  };

  for (const path of ['/visits', '/attempts', '/readings', '/bills', '/events', '/places', '/tariffs', '/compare', '/household/export']) {
    await get(path);
    await get(path, `${path}?household=x`);
    const tag = (await get(path)).headers().etag;
    if (path !== '/household/export') await fits('get', path, await program.get(`/api/v1${path}`, { headers: { 'if-none-match': tag as string } }));
  }
  await get('/visits/{visitId}', `/visits/${events[0]?.visitId}`);
  await get('/visits/{visitId}', '/visits/none');
  const files = described.paths['/export/{sheet}']?.get?.parameters?.find((p) => p.name === 'sheet')?.schema.enum ?? [];
  expect(files).toContain('places.zip');
  for (const file of [...files, 'visits', 'ledger.csv']) await get('/export/{sheet}', `/export/${file}`);

  // A comparison that is asked with a slip is none of something else.
  const two = await (await get('/compare', '/compare?by=site,means&look=faults&sort=stuck&least=0&since=2026-01-01')).json();
  expect([two.by, two.look]).toEqual([['site', 'means'], 'faults']);
  const slip = await get('/compare', '/compare?by=sites&since=june&group=moon:x');
  expect([slip.status(), (await slip.json()).errors.map((e: { pointer: string }) => e.pointer)]).toEqual([422, ['?group', '?since', '?by']]);

  for (const body of ['{', '[]', '{"source":"rain \\ud83d","events":[{}]}', '{"events":[{}]}', `{"source":"${'x'.repeat(1_000_001)}"}`])
    await post('/events', body);
  for (const body of ['{', '{}', `{"a":"${'x'.repeat(1_000_001)}"}`]) await post('/price', body);
  const half = await post('/events', '{"source":"rain \\ud83d","events":[{}]}');
  expect((await half.json()).errors).toEqual([{ pointer: '/source', detail: 'holds half a character' }]);
  await program.dispose();
});
