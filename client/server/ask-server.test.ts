import { onlyTimersStand, until } from '../store/fixtures/turns';
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
  describe('with a clock of its own', () => {
    beforeEach(() => {
      onlyTimersStand();
    });
    afterEach(() => jest.useRealTimers());
    const settled = async () => {
      for (let i = 0; i < 5; i++) await new Promise((done) => setImmediate(done));
    };
    /** Whether it is still waited for after so long. */
    const waits = async (answer: Promise<unknown>, ms: number) => {
      jest.advanceTimersByTime(ms);
      await settled();
      return (await Promise.race([answer, Promise.resolve('waits')])) === 'waits';
    };

    it('gives up what is never answered', async () => {
      globalThis.fetch = ((_: string, { signal }: { signal: AbortSignal }) =>
        new Promise((_, fail) => signal.addEventListener('abort', () => fail(signal.reason)))) as never;
      const answer = askServer('/api/v1/outbox');
      expect([await waits(answer, 59_999), await waits(answer, 1)]).toEqual([true, false]);
      expect(await answer).toBeNull();
      const sooner = askServer('/api/v1/zone', {}, 5_000);
      expect([await waits(sooner, 4_999), await waits(sooner, 1)]).toEqual([true, false]);
    });
    it('reads what comes slowly to its end, and gives up what falls silent', async () => {
      const streams: ReadableStreamDefaultController<Uint8Array>[] = [];
      globalThis.fetch = (async (_: string, { signal }: { signal: AbortSignal }) => {
        const start = (c: ReadableStreamDefaultController<Uint8Array>) => {
          streams.push(c);
          signal.addEventListener('abort', () => c.error(signal.reason));
        };
        return new Response(new ReadableStream({ start }), { headers: { 'content-type': 'application/json' } });
      }) as never;
      const say = (text: string) => {
        streams.at(-1)?.enqueue(new TextEncoder().encode(text));
        return settled();
      };
      const slow = askServer('/api/v1/changes');
      await until(() => streams.length === 1);
      for (const piece of ['{"name":', '"Šmar', 'je"', '}']) {
        expect(await waits(slow, 29_999)).toBe(true);
        await say(piece);
      }
      streams[0]?.close();
      expect(await slow).toEqual({ status: 200, ok: true, body: { name: 'Šmarje' } });
      expect(jest.getTimerCount()).toBe(0);
      const silent = askServer('/api/v1/changes');
      await until(() => streams.length === 2);
      await say('{');
      expect([await waits(silent, 29_999), await waits(silent, 1)]).toEqual([true, false]);
      expect(await silent).toBeNull();
    });
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
