import { addressOf, FRONT_HEADER, isHttps } from './front';
import { guardWrite, MAX_BODY_BYTES, readQuestion } from './write-guard';

const write = (body: BodyInit | null, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1:4100/api/v1/outbox', {
    method: 'POST',
    body,
    headers: { host: '127.0.0.1:4100', origin: 'http://127.0.0.1:4100', 'content-type': 'application/json', ...headers },
  });
const status = async (request: Request) => {
  const r = await guardWrite(request);
  return r.ok ? 200 : r.response.status;
};

describe('a write', () => {
  it('from the own pages, as JSON, is let in', async () => expect(await guardWrite(write('{"items":[]}'))).toEqual({ ok: true, json: { items: [] } }));
  it('from elsewhere or from nowhere is not', async () => {
    expect(await status(write('{}', { origin: 'https://evil.invalid' }))).toBe(403);
    expect(await status(write('{}', { origin: 'null' }))).toBe(403);
    expect(await status(write('{}', { origin: 'http://127.0.0.1:4101' }))).toBe(403);
  });
  it('is measured by the host that was asked for, whatever it says was forwarded', async () => {
    expect(await status(write('{}', { host: '10.0.0.5:4143', origin: 'https://10.0.0.5:4143' }))).toBe(200);
    expect(await status(write('{}', { 'x-forwarded-host': 'evil.invalid', origin: 'https://evil.invalid' }))).toBe(403);
  });
  it('of another type, as a form would send, is not', async () => {
    expect(await status(write('a=1', { 'content-type': 'application/x-www-form-urlencoded' }))).toBe(415);
  });
  it('larger than the limit is not, whatever its length claims', async () => {
    const large = `"${'x'.repeat(MAX_BODY_BYTES)}"`;
    expect(await status(write(large))).toBe(413);
    expect(await status(write(large, { 'content-length': '10' }))).toBe(413);
  });
  it('of which the end did not arrive is not', async () => {
    expect(await status(write('{}', { 'content-length': '2' }))).toBe(200);
    expect(await status(write('{}', { 'content-length': '3' }))).toBe(400);
    const cut = await guardWrite(write('{}', { 'content-length': '3' }));
    expect(cut.ok ? null : await cut.response.json()).toEqual({ error: 'Only a part of this arrived. Send it again.' });
  });
  it('that is no JSON or no UTF-8 is not', async () => {
    expect(await status(write('{'))).toBe(400);
    expect(await status(write(null))).toBe(400);
    expect(await status(write(new Uint8Array([0x22, 0xff, 0x22])))).toBe(400);
  });
});

describe('a question', () => {
  const asked = async (headers: Record<string, string>, body = '{}') => {
    const r = await readQuestion(new Request('http://127.0.0.1:4100/api/v1/price', { method: 'POST', body, headers: { host: '127.0.0.1:4100', ...headers } }));
    return r.ok ? 200 : r.response.status;
  };
  const json = { 'content-type': 'application/json' };
  it('comes from the own pages or from a program, never from a page elsewhere', async () => {
    expect(await asked({ ...json, origin: 'http://127.0.0.1:4100' })).toBe(200);
    expect(await asked(json)).toBe(200);
    expect(await asked({ ...json, origin: 'https://evil.invalid' })).toBe(403);
    expect(await asked({ ...json, origin: 'null' })).toBe(403);
    expect(await asked({ 'content-type': 'application/x-www-form-urlencoded' })).toBe(403);
    expect(await asked(json, `"${'x'.repeat(MAX_BODY_BYTES)}"`)).toBe(413);
  });
});

describe('what the front says of a request', () => {
  const headers = (more: Record<string, string>) => new Headers({ 'x-forwarded-for': '10.0.0.7, 1.2.3.4', 'x-forwarded-proto': 'https', ...more });
  beforeEach(() => {
    process.env.MILE_FRONT_SECRET = 'known to the front';
  });
  afterEach(() => {
    delete process.env.MILE_FRONT_SECRET;
  });
  it('is believed from our own front', () => {
    expect(addressOf(headers({ [FRONT_HEADER]: 'known to the front' }))).toBe('10.0.0.7');
    expect(isHttps(headers({ [FRONT_HEADER]: 'known to the front' }))).toBe(true);
    expect(isHttps(headers({ [FRONT_HEADER]: 'known to the front', 'x-forwarded-proto': 'http' }))).toBe(false);
  });
  it.each<Record<string, string>>([{}, { [FRONT_HEADER]: '' }, { [FRONT_HEADER]: 'guessed' }])('is not believed otherwise: %j', (more) => {
    expect(addressOf(headers(more))).toBe('127.0.0.1');
    expect(isHttps(headers(more))).toBe(false);
  });
  it('is not believed where there is no front', () => {
    delete process.env.MILE_FRONT_SECRET;
    expect(addressOf(headers({ [FRONT_HEADER]: '' }))).toBe('127.0.0.1');
    expect(addressOf(headers({ [FRONT_HEADER]: 'undefined' }))).toBe('127.0.0.1');
  });
  it('is kept short and plain', () =>
    expect(addressOf(headers({ [FRONT_HEADER]: 'known to the front', 'x-forwarded-for': `<script>${'9'.repeat(200)}` }))).toMatch(/^script9{58}$/));
});
