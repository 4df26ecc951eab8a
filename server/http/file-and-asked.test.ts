import * as z from 'zod';
import { fileAndAsked, guardFile } from './file-and-asked';

const TAKEN = { types: ['application/json'], mostBytes: 100, tooLarge: 'Send it in parts.' };
const asked = z.object({ picks: z.array(z.string().max(3)).default([]) });
const HEADERS = { host: '127.0.0.1:4100', origin: 'http://127.0.0.1:4100' };
const sent = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1:4100/api/v1/import/cdrs', { method: 'POST', body, headers: { ...HEADERS, ...headers } });
const form = (file: string | null, said?: string) => {
  const made = new FormData();
  if (said !== undefined) made.set('asked', said);
  if (file !== null) made.set('file', new Blob([file]), 'x.json');
  return sent(made);
};
const alone = (text: string, type = 'application/json') => sent(text, { 'content-type': type });
async function told(request: Request) {
  const body = await guardFile(request, TAKEN);
  if (!body.ok) return body.response.status;
  const read = await fileAndAsked(request, body.bytes, TAKEN, asked);
  return read.ok ? [Buffer.from(read.file).toString(), read.asked.picks] : [read.response.status, (await read.response.json()).error];
}

describe('a file that is sent', () => {
  it('comes with what is asked of it, in a form', async () => expect(await told(form('[1]', '{"picks":["a"]}'))).toEqual(['[1]', ['a']]));
  it('comes alone, and nothing is asked', async () => {
    expect(await told(alone('[1]'))).toEqual(['[1]', []]);
    expect(await told(alone('[1]', ' Application/JSON; charset=utf-8'))).toEqual(['[1]', []]);
    expect(await told(form('[1]'))).toEqual(['[1]', []]);
  });
  it('keeps every byte, whatever they are', async () => {
    const bytes = Uint8Array.from({ length: 100 }, (_, i) => (i * 37) % 256);
    const made = new FormData();
    made.set('file', new Blob([bytes]));
    const request = sent(made);
    const body = await guardFile(request, TAKEN);
    const read = body.ok ? await fileAndAsked(request, body.bytes, TAKEN, asked) : null;
    expect(read?.ok && [...read.file]).toEqual([...bytes]);
  });
  it('is refused where it is none, is too long, or is asked what cannot be asked', async () => {
    expect(await told(form(null, '{}'))).toEqual([422, 'file: is missing']);
    expect(await told(sent('no form', { 'content-type': 'multipart/form-data; boundary=x' }))).toEqual([422, 'file: is missing']);
    expect(await told(form('x'.repeat(101)))).toEqual([413, 'Send it in parts.']);
    expect(await told(alone('x'.repeat(101)))).toEqual([413, 'Send it in parts.']);
    expect(await told(alone('x'.repeat(100)))).toEqual(['x'.repeat(100), []]);
    expect(await told(form('[1]', '{'))).toEqual([422, 'asked: is not JSON']);
    expect(await told(form('[1]', '{"picks":["a","long"]}'))).toEqual([422, expect.stringMatching(/^asked\.picks\.1: /)]);
    expect(await told(form('[1]', 'null'))).toEqual([422, expect.stringMatching(/^asked: /)]);
  });
  it('is let in from the own pages only, in the types that are taken', async () => {
    expect(await told(alone('[1]', 'text/csv'))).toBe(415);
    expect(await told(sent('[1]', { 'content-type': 'application/json', origin: 'https://evil.invalid' }))).toBe(403);
  });
});
