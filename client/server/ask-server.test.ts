import { askServer } from './ask-server';

const says = (answer: () => Response | Promise<Response>) => {
  globalThis.fetch = (async () => answer()) as never;
};

describe('asking the server', () => {
  it('tells its status and its answer, good or bad', async () => {
    says(() => Response.json({ rev: 3 }));
    expect(await askServer('/api/v1/changes')).toEqual({ status: 200, ok: true, body: { rev: 3 } });
    says(() => Response.json({ error: 'Nobody is signed in.' }, { status: 401 }));
    expect(await askServer('/api/v1/me')).toEqual({ status: 401, ok: false, body: { error: 'Nobody is signed in.' } });
  });
  it('does not take a hotspot’s page for an answer, whatever its status', async () => {
    for (const status of [200, 201, 400, 401, 422, 511]) {
      says(() => new Response('<html>Accept the terms</html>', { status, headers: { 'content-type': 'text/html' } }));
      expect(await askServer('/api/v1/outbox')).toBeNull();
    }
    says(() => new Response('<html>', { headers: { 'content-type': 'application/json' } }));
    expect(await askServer('/api/v1/outbox')).toBeNull();
  });
  it('takes “too large” from whoever says it', async () => {
    says(() => new Response('<html>', { status: 413 }));
    expect(await askServer('/api/v1/outbox')).toEqual({ status: 413, ok: false, body: null });
  });
  it('gives up what is never answered, and what begins and never ends', async () => {
    globalThis.fetch = ((_: string, { signal }: { signal: AbortSignal }) =>
      new Promise((_, fail) => signal.addEventListener('abort', () => fail(signal.reason)))) as never;
    expect(await askServer('/api/v1/outbox', {}, 1)).toBeNull();
    globalThis.fetch = (async (_: string, { signal }: { signal: AbortSignal }) => {
      const body = new ReadableStream({ start: (c) => signal.addEventListener('abort', () => c.error(signal.reason)) });
      return new Response(body, { headers: { 'content-type': 'application/json' } });
    }) as never;
    expect(await askServer('/api/v1/outbox', {}, 1)).toBeNull();
  });
  it('never takes an answer from the browser’s own store', async () => {
    let how: RequestInit | undefined;
    globalThis.fetch = (async (_: string, init: RequestInit) => {
      how = init;
      return Response.json(null);
    }) as never;
    await askServer('/api/v1/outbox', { method: 'POST', body: '{}' });
    expect(how).toMatchObject({ cache: 'no-store', method: 'POST', body: '{}' });
  });
});
