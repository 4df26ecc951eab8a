import '@/client/store/fixtures/memory-storage';
import { phoneWho } from './fixtures/phone-who';
import 'fake-indexeddb/auto';

import type { StoredEvent } from '@/core/visit/event';
import { CARD, IN, idOf, KW, STALL_A, story, VISIT } from '@/core/visit/fixtures/story';
import { waitingHere } from '../outbox/outbox-loop';
import { sendHeld } from '../outbox/send-outbox';
import { sendPhotos } from '../photos/photo-outbox';
import { holdEvents, refusedOf, waitingOf } from './held-events';
import { type EventDraft, eventsOfVisit, keepEvents, keepFromServer } from './keep-event';
import { bringAlong, pruneSent, visitsAtHand } from './last-visits';
import { openPhoneStore, type PhoneStore } from './phone-store';

const who = phoneWho();
const draft = (at: number, more: Partial<EventDraft> = {}): EventDraft => ({
  visitId: VISIT,
  kind: 'plugged',
  payload: {},
  zone: 'UTC',
  touch: { at, mono: at },
  ...more,
});
let store: PhoneStore;
let person = 500;
beforeEach(async () => {
  store = await openPhoneStore(who.householdId, idOf(++person));
});
afterEach(() => {
  store.close();
  jest.restoreAllMocks();
});
const full = () =>
  jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
    throw new DOMException('no room', 'QuotaExceededError');
  });

describe('a photo that cannot be written down', () => {
  const photo = { sha256: '1'.repeat(64), bytes: new Blob(['x']) };
  it('is held once, counted beside the events, and sent from memory', async () => {
    const held = holdEvents();
    held.addPhoto(photo);
    held.addPhoto(photo);
    held.add(who, true, [draft(1)], []);
    expect(await waitingHere(null, held)).toEqual({ waiting: 2, inMemory: 2, photos: 1 });
    const asked: string[] = [];
    jest.spyOn(globalThis, 'fetch').mockImplementation(async (url) => {
      asked.push(String(url));
      return Response.json({ already: false }, { status: asked.length === 1 ? 503 : 201 });
    });
    expect(await sendPhotos(null, held)).toBe(false);
    expect(held.photos()).toHaveLength(1);
    expect(await sendPhotos(null, held)).toBe(true);
    expect(asked).toEqual([`/api/v1/photos/${photo.sha256}`, `/api/v1/photos/${photo.sha256}`]);
    expect(await waitingHere(null, held)).toEqual({ waiting: 1, inMemory: 1, photos: 0 });
  });
  it('is written down as soon as there is room, and is lost by no failure to', async () => {
    const held = holdEvents();
    held.addPhoto(photo);
    const put = full();
    await expect(held.writeDown(store)).rejects.toThrow();
    expect(held.photos()).toHaveLength(1);
    put.mockRestore();
    await held.writeDown(store);
    expect(held.photos()).toEqual([]);
    expect((await store.getAll('photo')).map((p) => [p.sha256, p.state])).toEqual([[photo.sha256, 'kept']]);
    expect(await waitingHere(store, held)).toEqual({ waiting: 1, inMemory: 0, photos: 0 });
  });
});

describe('what cannot be written down', () => {
  it('leaves nothing of a touch in the store, and goes on with the seq of what is there', async () => {
    await keepEvents(store, who, [draft(1)]);
    const spy = full();
    await expect(keepEvents(store, who, [draft(2), draft(3)])).rejects.toThrow('no room');
    spy.mockRestore();
    expect([await store.count('event'), await store.count('outbox')]).toEqual([1, 1]);
    const held = holdEvents();
    held.add(who, true, [draft(2)], await eventsOfVisit(store, VISIT));
    held.add(who, true, [draft(3)], await eventsOfVisit(store, VISIT));
    expect(waitingOf(held).map((k) => k.event.seq)).toEqual([2, 3]);
  });
  it('is written down with its place in the outbox once there is room, and stays held while there is none', async () => {
    const held = holdEvents();
    held.add(who, true, [draft(1), draft(2)], []);
    const spy = full();
    await expect(held.writeDown(store)).rejects.toThrow('no room');
    expect(held.all()).toHaveLength(2);
    spy.mockRestore();
    await held.writeDown(store);
    expect([held.all().length, await store.count('event'), await store.count('outbox')]).toEqual([0, 2, 2]);
    expect((await keepEvents(store, who, [draft(3)]))[0]?.seq).toBe(3);
  });
  it('goes on with a visit as the server has it, where nothing else can keep it', () => {
    const held = holdEvents();
    held.take(story(IN, [60, 'plugged']));
    held.take(story(IN, [60, 'plugged']));
    expect([held.all().length, waitingOf(held).length]).toEqual([2, 0]);
    expect(held.add(who, true, [draft(1)], [])[0]?.seq).toBe(3);
  });
  it('is sent from memory: taken, refused with its reason, or kept for another try', async () => {
    const held = holdEvents();
    held.add(who, true, [draft(1), draft(2)], []);
    globalThis.fetch = (async () => {
      throw new TypeError('no network');
    }) as never;
    expect(await sendHeld(held)).toBe('unreachable');
    expect(waitingOf(held)).toHaveLength(2);
    let n = 0;
    globalThis.fetch = (async (_url: string, init: { body: string }) => {
      const { id } = JSON.parse(init.body).items[0].event;
      n += 1;
      return Response.json({ results: [n === 1 ? { id, status: 'taken' } : { id, status: 'refused', path: 'at', reason: 'too late' }] });
    }) as never;
    expect(await sendHeld(held)).toBe('sent');
    expect([waitingOf(held).length, refusedOf(held).map((k) => k.reason)]).toEqual([0, ['too late']]);
    expect(await sendHeld(held)).toBe('sent');
    expect(n).toBe(2);
  });
});

describe('the last visits at hand', () => {
  const now = Date.parse('2025-10-20T12:00:00Z');
  const events = story(
    IN,
    [5, 'stall_chosen', { stallId: STALL_A }],
    [60, 'plugged'],
    [75, 'means_shown', CARD],
    [100, 'power_seen', KW],
    [900, 'pulled_out', { reason: 'enough' }],
  );
  const rowOf = (id: string, at: number) =>
    ({ id, at, zone: 'UTC', siteName: 'Hollin Bridge', state: 'over', ended: 'charge', handshake_s: 99, kWh: '1', paid: null, currency: null }) as never;
  it('are the ledger’s where it knows them, and this phone’s own where something is not sent', async () => {
    await keepFromServer(store, events);
    const there = [rowOf(VISIT, events[0]?.at as number), rowOf(idOf(77), 1)];
    expect((await visitsAtHand(store, holdEvents(), there, now)).map((v) => [v.id, v.handshake_s])).toEqual([
      [VISIT, 99],
      [idOf(77), 99],
    ]);
    await keepEvents(store, who, [draft((events.at(-1)?.at as number) + 1000, { kind: 'note', payload: { text: 'rain' } })]);
    expect((await visitsAtHand(store, holdEvents(), there, now))[0]).toMatchObject({ id: VISIT, recordedHere: true, handshake_s: 25, state: 'over' });
  });
  it('without a correction’s visit, which is not here; withdrawn ones not at all', async () => {
    await keepEvents(store, who, [draft(now, { visitId: idOf(77), kind: 'correction', payload: { target: idOf(1), at: 5 } })]);
    expect((await visitsAtHand(store, holdEvents(), [rowOf(idOf(77), 1)], now)).map((v) => [v.id, v.recordedHere])).toEqual([[idOf(77), true]]);
    await keepFromServer(store, events);
    await keepEvents(store, who, [draft(now, { kind: 'withdrawal', payload: { target: VISIT } })]);
    expect((await visitsAtHand(store, holdEvents(), [], now)).map((v) => v.id)).not.toContain(VISIT);
  });
  it('old ones leave the phone once they are wholly sent', async () => {
    await keepFromServer(store, events);
    await pruneSent(store, [], (events[0]?.at as number) + 29 * 86_400_000);
    expect(await store.count('event')).toBe(events.length);
    await keepEvents(store, who, [draft(1)]);
    await pruneSent(store, [], (events[0]?.at as number) + 40 * 86_400_000);
    expect(await store.count('event')).toBe(events.length + 1);
    for (const k of await store.getAll('event')) await store.put('event', { event: k.event, state: 'sent' });
    await pruneSent(store, [rowOf(VISIT, 1)], (events[0]?.at as number) + 40 * 86_400_000);
    expect(await store.count('event')).toBe(events.length + 1);
    // One was made just now, though of a visit long ago: a ledger that is restored may yet ask for it.
    await pruneSent(store, [], Date.now() + 29 * 86_400_000);
    expect(await store.count('event')).toBe(events.length + 1);
    await pruneSent(store, [], Date.now() + 31 * 86_400_000);
    expect(await store.count('event')).toBe(0);
  });
  it('the newest of the ledger come along, once; one that the ledger no longer lists is asked after', async () => {
    const asked: string[] = [];
    const there = new Map([[VISIT, events]]);
    jest.spyOn(globalThis, 'fetch').mockImplementation(async (url) => {
      asked.push(String(url));
      const id = String(url).split('/')[4] as string;
      const list = there.get(id) ?? [];
      return Response.json({ events: String(url).endsWith(`have=${list.length}`) ? null : list });
    });
    const row = rowOf(VISIT, events[0]?.at as number);
    expect(await bringAlong(store, [row])).toBe(true);
    expect(await store.count('event')).toBe(events.length);
    expect(await bringAlong(store, [row])).toBe(false);
    expect(asked).toEqual([`/api/v1/visits/${VISIT}/events?have=0`]);

    const withdrawal = { ...(events.at(-1) as StoredEvent), id: idOf(990), kind: 'withdrawal', payload: { target: VISIT }, seq: 99 };
    there.set(VISIT, [...events, withdrawal]);
    const older = rowOf(idOf(77), (events[0]?.at as number) - 1000);
    there.set(idOf(77), [{ ...(events[0] as StoredEvent), id: idOf(991), visitId: idOf(77) }]);
    expect(await bringAlong(store, [older])).toBe(true);
    expect((await visitsAtHand(store, holdEvents(), [older], now)).map((v) => v.id)).toEqual([idOf(77)]);
    // Known to be withdrawn, it is not asked after again.
    expect(await bringAlong(store, [older])).toBe(false);
  });
  it('what the phone made itself is never put over by what the server says', async () => {
    const [mine] = await keepEvents(store, who, [draft(1)]);
    if (!mine) throw new Error('nothing kept');
    await keepFromServer(store, [{ ...mine, at: 5 }]);
    expect((await store.get('event', mine.id))?.event.at).toBe(1);
  });
});
