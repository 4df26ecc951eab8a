import '@/client/store/fixtures/memory-storage';
import 'fake-indexeddb/auto';

import { recordItem } from '@/core/records/record-schema';
import { idOf } from '@/core/visit/fixtures/story';
import { phoneWho } from '../store/fixtures/phone-who';
import { onlyTimersStand, until } from '../store/fixtures/turns';
import { openPhoneStore } from '../store/phone-store';
import { keepAndSend } from './keep-and-send';

const who = phoneWho();
const network = recordItem('network', idOf(30), { name: 'Otterbrook' });
/** A server that says who is there, and of anything else what it is told. */
const server = (others: (url: string) => Promise<Response>) => {
  const asked: string[] = [];
  globalThis.fetch = (async (url: string) => {
    asked.push(url.split('/')[3] ?? '');
    return url === '/api/v1/me' ? Response.json(who) : others(url);
  }) as never;
  return asked;
};
const waiting = async () => {
  const store = await openPhoneStore(who.householdId, who.personId);
  const there = { outbox: await store.count('outbox'), photos: await store.count('photo') };
  store.close();
  return there;
};
const withPhoto = async () => {
  const store = await openPhoneStore(who.householdId, who.personId);
  for (const type of ['outbox', 'photo', 'record', 'unsettled'] as const) await store.clear(type);
  await store.put('photo', { sha256: '1'.repeat(64), bytes: new Blob(['x']), state: 'kept' });
  store.close();
};
const taken = async () => Response.json({ results: [{ id: network.id, status: 'taken', rev: 4 }] });

beforeEach(async () => {
  await withPhoto();
  onlyTimersStand();
});
afterEach(() => jest.useRealTimers());

describe('a form that is kept', () => {
  it('is sent at once, its words before its pictures', async () => {
    const asked = server(async (url) => (url.includes('/photos/') ? Response.json({ already: false }, { status: 201 }) : taken()));
    expect(await keepAndSend([network], [])).toEqual({ is: 'sent' });
    expect(asked).toEqual(['me', 'outbox', 'photos']);
    expect(await waiting()).toEqual({ outbox: 0, photos: 0 });
    expect(jest.getTimerCount()).toBe(0);
  });
  it.each([
    ['words', { outbox: 1, photos: 1 }, () => false],
    ['pictures', { outbox: 0, photos: 1 }, (url: string) => !url.includes('/photos/')],
  ])('is kept here where its %s are never answered, and nobody waits for longer than a quarter of a minute', async (_, left, answers) => {
    let hangs = 0;
    server((url) => {
      if (answers(url)) return taken();
      hangs += 1;
      return new Promise(() => {});
    });
    const kept = keepAndSend([network], []);
    await until(() => hangs === 1);
    jest.advanceTimersByTime(14_999);
    expect(await Promise.race([kept, Promise.resolve('waits')])).toBe('waits');
    jest.advanceTimersByTime(1);
    expect(await kept).toEqual({ is: 'kept_here' });
    expect(await waiting()).toEqual(left);
  });
  it('answered late it is settled behind whoever waited, and nobody conflicts with himself', async () => {
    let late: (answer: Response) => void = () => {};
    let hangs = 0;
    server((url) => {
      hangs += 1;
      return url.includes('/photos/') ? Promise.resolve(Response.json({}, { status: 503 })) : new Promise((done) => (late = done));
    });
    const kept = keepAndSend([network], []);
    await until(() => hangs === 1);
    jest.advanceTimersByTime(15_000);
    expect(await kept).toEqual({ is: 'kept_here' });
    late(await taken());
    await until(async () => (await waiting()).outbox === 0);
    const store = await openPhoneStore(who.householdId, who.personId);
    expect(await store.get('record', ['network', network.id])).toMatchObject({ rev: 4 });
    store.close();
  });
  it('is kept here where the server says “later”', async () => {
    server(async () => Response.json({ code: 'later' }, { status: 503 }));
    expect(await keepAndSend([network], [])).toEqual({ is: 'kept_here' });
    expect(await waiting()).toEqual({ outbox: 1, photos: 1 });
  });
});
