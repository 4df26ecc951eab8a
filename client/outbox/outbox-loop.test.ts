import '@/client/store/fixtures/memory-storage';
import 'fake-indexeddb/auto';

import { idOf, VISIT } from '@/core/visit/fixtures/story';
import { phoneWho } from '../store/fixtures/phone-who';
import { onlyTimersStand, until } from '../store/fixtures/turns';
import { holdEvents } from '../store/held-events';
import { keepEvents } from '../store/keep-event';
import { keepRecords } from '../store/keep-record';
import { openPhoneStore, type PhoneStore } from '../store/phone-store';
import { type OutboxStatus, startOutbox } from './outbox-loop';

const who = phoneWho();
const plugged = (at: number) => ({ visitId: VISIT, kind: 'plugged' as const, payload: {}, zone: 'UTC', touch: { at, mono: at } });
const photo = (n: number) => ({ sha256: String(n).repeat(64), bytes: new Blob(['x']), state: 'kept' as const });

let store: PhoneStore;
let loop: ReturnType<typeof startOutbox> | undefined;
let told: OutboxStatus[];
let person = 700;
beforeEach(async () => {
  onlyTimersStand();
  Object.assign(globalThis, {
    addEventListener: () => {},
    removeEventListener: () => {},
    document: { addEventListener: () => {}, removeEventListener: () => {} },
  });
  store = await openPhoneStore(who.householdId, idOf(++person));
  told = [];
});
afterEach(() => {
  loop?.stop();
  jest.useRealTimers();
  store.close();
});

/** A server that answers words at once and a picture when it is let. */
function slowForPictures() {
  const asked: string[] = [];
  const open: ((answer: Response) => void)[] = [];
  globalThis.fetch = (async (url: string, init: { body: string }) => {
    asked.push(url.replace('/api/v1/', '').slice(0, 8));
    if (url.includes('/photos/')) return new Promise<Response>((done) => open.push(done));
    const { items } = JSON.parse(init.body) as { items: { event: { id: string } }[] };
    return Response.json({ results: items.map((i) => ({ id: i.event.id, status: 'taken' })) });
  }) as never;
  return { asked, open, has: () => open.shift()?.(Response.json({ already: false }, { status: 201 })) };
}
const start = () => {
  loop = startOutbox(store, holdEvents(), (s) => told.push(s));
  return loop;
};

describe('the loop that sends', () => {
  it('lets no word wait for a picture on its way', async () => {
    const { asked, open, has } = slowForPictures();
    await store.put('photo', photo(1));
    await start().wake();
    await until(() => open.length === 1);
    await keepEvents(store, who, [plugged(1)]);
    await loop?.wake();
    expect(asked).toEqual(['photos/1', 'outbox']);
    expect(told.at(-1)).toMatchObject({ waiting: 1, last: 'sent' });
    has();
    await until(() => told.at(-1)?.waiting === 0);
    expect(await store.count('photo')).toBe(0);
  });
  it('tells that records were answered, also those that came while others were being sent, and not of events', async () => {
    const network = { type: 'network', id: idOf(5), baseRev: 0, archived: false, fields: { name: 'Ferrywell', helpline: null, note: null } } as const;
    globalThis.fetch = (async (_url: string, init: { body: string }) => {
      const { items } = JSON.parse(init.body) as { items: ({ type: 'event'; event: { id: string } } | { type: 'record'; record: { id: string } })[] };
      if (items[0]?.type === 'event' && (await store.count('record')) === 0) await keepRecords(store, [network]);
      return Response.json({ results: items.map((i) => ({ id: i.type === 'event' ? i.event.id : i.record.id, status: 'taken', rev: 4 })) });
    }) as never;
    await keepEvents(store, who, [plugged(1)]);
    await start().wake();
    expect(told.filter((s) => s.last === 'sent')[0]).toMatchObject({ waiting: 0, records: true });
    expect(await store.getAll('record')).toMatchObject([{ rev: 4 }]);
    await keepEvents(store, who, [plugged(2)]);
    told.length = 0;
    await loop?.wake();
    expect(told.filter((s) => s.last === 'sent').map((s) => s.records)).toEqual([false]);
  });
  it('sends what lives in memory though the disk is full and cannot note what was answered, and tries that again', async () => {
    const sent: string[] = [];
    globalThis.fetch = (async (_url: string, init: { body: string }) => {
      const { items } = JSON.parse(init.body) as { items: { event: { id: string } }[] };
      sent.push(...items.map((i) => i.event.id));
      return Response.json({ epoch: 'e', results: items.map((i) => ({ id: i.event.id, status: 'taken' })) });
    }) as never;
    const [onDisk] = await keepEvents(store, who, [plugged(1)]);
    const held = holdEvents();
    const [inMemory] = held.add(who, true, [plugged(2)], []);
    const full = new Proxy(store, {
      get: (of, key) => {
        if (key === 'put') return () => Promise.reject(new DOMException('no', 'QuotaExceededError'));
        const its = Reflect.get(of, key);
        return typeof its === 'function' ? its.bind(of) : its;
      },
    });
    loop = startOutbox(full, held, (s) => told.push(s));
    await loop.wake();
    expect(sent).toEqual(expect.arrayContaining([onDisk?.id, inMemory?.id]));
    expect(told.at(-1)).toMatchObject({ waiting: 1, inMemory: 0, last: 'unreachable' });
    sent.length = 0;
    await jest.advanceTimersByTimeAsync(2000);
    await until(() => sent.length > 0);
    expect(sent).toContain(onDisk?.id);
  });
  it('sends a picture that was kept while another was on its way, and none twice', async () => {
    const { asked, open, has } = slowForPictures();
    await store.put('photo', photo(1));
    await start().wake();
    await until(() => open.length === 1);
    await store.put('photo', photo(2));
    await loop?.wake();
    await loop?.wake();
    has();
    await until(() => open.length === 1);
    has();
    await until(() => told.at(-1)?.waiting === 0);
    expect(asked).toEqual(['photos/1', 'photos/2']);
  });
  it('asks again with back-off while a picture cannot be sent, and at once when woken', async () => {
    const { asked, open } = slowForPictures();
    await store.put('photo', photo(1));
    await start().wake();
    for (const wait of [1, 2, 4]) {
      await until(() => open.length === 1);
      const [before, said] = [asked.length, told.length];
      open.shift()?.(Response.json({}, { status: 503 }));
      await until(() => told.length > said);
      jest.advanceTimersByTime(wait * 1000 - 1);
      expect(asked).toHaveLength(before);
      jest.advanceTimersByTime(1);
    }
    await until(() => open.length === 1);
  });
});
