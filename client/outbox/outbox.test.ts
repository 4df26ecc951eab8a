import '@/client/store/fixtures/memory-storage';
import { phoneWho } from '../store/fixtures/phone-who';
import 'fake-indexeddb/auto';

import { openDB } from 'idb';
import { recordItem } from '@/core/records/record-schema';
import { idOf, VISIT } from '@/core/visit/fixtures/story';
import { sendPhotos, waitingPhotos } from '../photos/photo-outbox';
import { holdEvents } from '../store/held-events';
import { type EventDraft, eventsOfVisit, keepEvents } from '../store/keep-event';
import { keepRecords, pullChanges } from '../store/keep-record';
import { clearSentData, openPhoneStore, type PhoneStore } from '../store/phone-store';
import { backOffSeconds } from './outbox-loop';
import { refusedEvents, sendRefusedAgain } from './refused-events';
import { sendHeld, sendOutbox } from './send-outbox';

const who = phoneWho();
const touch = (at: number) => ({ at, mono: at });
const draft = (at: number, more: Partial<EventDraft> = {}): EventDraft => ({
  visitId: VISIT,
  kind: 'plugged',
  payload: {},
  zone: 'UTC',
  touch: touch(at),
  ...more,
});

/** A server in a function: answers each item, and remembers what it was sent. */
function server(answer: (item: { type: string; event?: { id: string; personId: string }; record?: { id: string } }) => object = () => ({ status: 'taken' })) {
  const sent: string[][] = [];
  globalThis.fetch = (async (_url: string, init: { body: string }) => {
    const { items } = JSON.parse(init.body);
    sent.push(items.map((i: { event?: { id: string }; record?: { id: string } }) => (i.event ?? i.record)?.id));
    return Response.json({
      results: items.map((i: never) => ({ id: ((i as { event?: { id: string } }).event ?? (i as { record: { id: string } }).record).id, ...answer(i) })),
    });
  }) as never;
  return sent;
}
const away = () => {
  globalThis.fetch = (async () => {
    throw new TypeError('no network');
  }) as never;
};

let store: PhoneStore;
let person = 100;
beforeEach(async () => {
  store = await openPhoneStore(who.householdId, idOf(++person));
});
afterEach(() => store.close());

describe('keeping on the phone', () => {
  it('gives each event the next seq of its visit, inside the store', async () => {
    const made = (await Promise.all([keepEvents(store, who, [draft(1), draft(2)]), keepEvents(store, who, [draft(3)])])).flat();
    expect(made.map((e) => e.seq).sort()).toEqual([1, 2, 3]);
    expect(await store.count('outbox')).toBe(3);
  });
  it('goes on at the greatest place there is: one event with that place hinders no other', async () => {
    const [a, b] = await keepEvents(store, who, [draft(1, { knownSeq: 1_000_000 }), draft(2)]);
    expect([a?.seq, b?.seq]).toEqual([1_000_000, 1_000_000]);
    expect((a as { id: string }).id < (b as { id: string }).id).toBe(true);
  });
  it('goes on from the seq known from elsewhere', async () => {
    const [e] = await keepEvents(store, who, [draft(1, { knownSeq: 17 })]);
    expect(e?.seq).toBe(18);
  });
});

describe('the outbox', () => {
  it('sends in order, records before the events that name them, and empties', async () => {
    await keepRecords(store, [recordItem('network', idOf(30), { name: 'Otterbrook' })]);
    const [a, b] = await keepEvents(store, who, [draft(1), draft(2)]);
    const sent = server();
    expect(await sendOutbox(store)).toBe('sent');
    expect(sent).toEqual([[idOf(30), a?.id, b?.id]]);
    expect(await store.count('outbox')).toBe(0);
    expect((await eventsOfVisit(store, VISIT)).map((k) => k.state)).toEqual(['sent', 'sent']);
  });
  it('keeps everything while the server is away, and sends it once it is back', async () => {
    await keepEvents(store, who, [draft(1)]);
    away();
    expect(await sendOutbox(store)).toBe('unreachable');
    expect(await store.count('outbox')).toBe(1);
    server(() => ({ status: 'already' }));
    expect(await sendOutbox(store)).toBe('sent');
    expect(await store.count('outbox')).toBe(0);
  });
  it('pauses at 401 and keeps everything', async () => {
    await keepEvents(store, who, [draft(1)]);
    globalThis.fetch = (async () => Response.json({ error: 'Nobody is signed in.' }, { status: 401 })) as never;
    expect(await sendOutbox(store)).toBe('signed_out');
    expect(await store.count('outbox')).toBe(1);
  });
  it('a refused event stays on the phone with its reason, and holds nothing up', async () => {
    const [bad, good] = await keepEvents(store, who, [draft(1), draft(2)]);
    server((i) => (i.event?.id === bad?.id ? { status: 'refused', path: 'payload.kWh', reason: 'must not be negative' } : { status: 'taken' }));
    expect(await sendOutbox(store)).toBe('sent');
    const kept = new Map((await eventsOfVisit(store, VISIT)).map((k) => [k.event.id, k]));
    expect(kept.get(bad!.id)).toMatchObject({ state: 'refused', path: 'payload.kWh', reason: 'must not be negative' });
    expect(kept.get(good!.id)?.state).toBe('sent');
  });
  it('refused ones can be sent again as they are', async () => {
    const [e] = await keepEvents(store, who, [draft(1)]);
    server(() => ({ status: 'refused', path: 'at', reason: 'is more than 48 hours in the future' }));
    await sendOutbox(store);
    expect((await refusedEvents(store)).map((k) => [k.event.id, k.path])).toEqual([[e?.id, 'at']]);
    await sendRefusedAgain(store);
    const sent = server();
    await sendOutbox(store);
    expect(sent).toEqual([[e?.id]]);
    expect(await refusedEvents(store)).toEqual([]);
  });
  it('what another person recorded waits for them', async () => {
    await keepEvents(store, who, [draft(1)]);
    const sent = server(() => ({ status: 'refused', code: 'other_person' }));
    expect(await sendOutbox(store)).toBe('sent');
    expect(sent).toHaveLength(1);
    expect(await store.count('outbox')).toBe(1);
  });
  it('sends long outboxes in batches', async () => {
    await keepEvents(
      store,
      who,
      Array.from({ length: 230 }, (_, i) => draft(i)),
    );
    const sent = server();
    await sendOutbox(store);
    expect(sent.map((s) => s.length)).toEqual([100, 100, 30]);
  });
  it('a batch that is not understood is halved until the culprit stands alone, and that one is set aside', async () => {
    const made = await keepEvents(
      store,
      who,
      Array.from({ length: 9 }, (_, i) => draft(i)),
    );
    const culprit = made[5]?.id;
    globalThis.fetch = (async (_url: string, init: { body: string }) => {
      const { items } = JSON.parse(init.body) as { items: { event: { id: string } }[] };
      // As a proxy says it.
      if (items.some((i) => i.event.id === culprit)) return new Response('<html>', { status: 413 });
      return Response.json({ results: items.map((i) => ({ id: i.event.id, status: 'taken' })) });
    }) as never;
    expect(await sendOutbox(store)).toBe('sent');
    expect((await eventsOfVisit(store, VISIT)).filter((k) => k.state === 'refused').map((k) => k.event.id)).toEqual([culprit]);
    expect(await store.count('outbox')).toBe(0);
  });
  it('waits twice as long after each failure, a minute at most', () => expect([1, 2, 3, 7, 20].map(backOffSeconds)).toEqual([1, 2, 4, 60, 60]));
});

describe('a server that fails', () => {
  /** Answers 500 to every batch that holds one of these. */
  const failsAt = (bad: (id: string) => boolean) => {
    const sent: string[][] = [];
    globalThis.fetch = (async (_url: string, init: { body: string }) => {
      const ids = JSON.parse(init.body).items.map((i: { event: { id: string } }) => i.event.id) as string[];
      sent.push(ids);
      return Response.json({ results: ids.map((id) => ({ id, status: 'taken' })) }, { status: ids.some(bad) ? 500 : 200 });
    }) as never;
    return sent;
  };
  const states = async () => new Map((await eventsOfVisit(store, VISIT)).map((k) => [k.event.id, k.state]));
  const some = (n: number) => Array.from({ length: n }, (_, i) => draft(i));

  it('at one item: the others go, that one waits, and is set aside with its reason once others got through twice', async () => {
    const made = await keepEvents(store, who, some(15));
    const bad = made[7]?.id as string;
    failsAt((id) => id === bad);
    expect(await sendOutbox(store)).toBe('unreachable');
    expect([...(await states())].filter(([, state]) => state !== 'sent')).toEqual([[bad, 'kept']]);
    // Alone it only waits: the server may be at fault for everybody.
    for (let i = 0; i < 5; i++) expect(await sendOutbox(store)).toBe('unreachable');
    expect((await states()).get(bad)).toBe('kept');
    await keepEvents(store, who, [draft(99)]);
    expect(await sendOutbox(store)).toBe('sent');
    expect(await refusedEvents(store)).toMatchObject([
      { state: 'refused', event: { id: bad }, reason: expect.stringContaining('the server fails at this one') },
    ]);
    expect(await store.count('outbox')).toBe(0);
    await sendRefusedAgain(store);
    failsAt(() => false);
    expect(await sendOutbox(store)).toBe('sent');
    expect((await states()).get(bad)).toBe('sent');
  });
  it('at ten alone, one after the other, with nothing through: no more are tried', async () => {
    const made = await keepEvents(store, who, some(11));
    const sent = failsAt(() => true);
    await sendOutbox(store);
    // The halves of eleven, then one by one: the tenth is the last that is asked about.
    expect(sent.flatMap((ids) => (ids.length === 1 ? ids : []))).toEqual(made.slice(0, 10).map((e) => e.id));
  });
  it('to answer for an item: that one stays, the others leave', async () => {
    const [silent, told] = await keepEvents(store, who, some(2));
    globalThis.fetch = (async () => Response.json({ results: [{ id: told?.id, status: 'already' }] })) as never;
    expect(await sendOutbox(store)).toBe('sent');
    expect(await states()).toEqual(
      new Map([
        [silent?.id, 'kept'],
        [told?.id, 'sent'],
      ]),
    );
    expect(await store.count('outbox')).toBe(1);
  });
  it('at everything: it is asked a bounded number of times, and everything waits', async () => {
    await keepEvents(store, who, some(120));
    const sent = failsAt(() => true);
    for (let i = 0; i < 3; i++) expect(await sendOutbox(store)).toBe('unreachable');
    expect(sent.length).toBeLessThan(300);
    expect(await store.count('outbox')).toBe(120);
    expect(await refusedEvents(store)).toEqual([]);
  });
  it('with 503 is away: nothing is halved', async () => {
    await keepEvents(store, who, some(8));
    let asked = 0;
    globalThis.fetch = (async () => {
      asked += 1;
      return Response.json({ code: 'later' }, { status: 503 });
    }) as never;
    expect(await sendOutbox(store)).toBe('unreachable');
    expect(asked).toBe(1);
  });
  it('at an event held in memory: it waits there, and the next one goes', async () => {
    const held = holdEvents();
    const [bad, good] = held.add(who, true, some(2), []);
    failsAt((id) => id === bad?.id);
    expect(await sendHeld(held)).toBe('unreachable');
    expect(held.all().map((k) => [k.event.id, k.state])).toEqual([
      [bad?.id, 'kept'],
      [good?.id, 'sent'],
    ]);
  });
});

describe('a record changed here', () => {
  const network = (name: string, baseRev = 0) => recordItem('network', idOf(30), { name }, baseRev);
  const nameOf = (r: { fields: object } | undefined) => (r?.fields as { name: string } | undefined)?.name;
  const theirs = { type: 'network', id: idOf(30), rev: 9, archived: false, fields: network('theirs').fields };

  it('twice before it is sent is sent once, as it is now, from where it began', async () => {
    await keepRecords(store, [network('first', 4)]);
    await keepRecords(store, [network('second', 4)]);
    const waiting = await store.getAll('outbox');
    expect(waiting).toHaveLength(1);
    expect(waiting[0]).toMatchObject({ item: { baseRev: 4, fields: { name: 'second' } } });
  });
  it('changed again from what was shown before its answer was: it conflicts with nobody; shown before somebody else changed it, it does', async () => {
    const shown = { type: 'network', id: idOf(30), rev: 4, archived: false, fields: network('first').fields } as never;
    await keepRecords(store, [network('first', 4)]);
    server(() => ({ status: 'taken', rev: 6 }));
    await sendOutbox(store);
    await keepRecords(store, [network('second', 4)], [shown]);
    expect((await store.getAll('outbox'))[0]).toMatchObject({ item: { baseRev: 6, fields: { name: 'second' } } });
    await sendOutbox(store);
    // Theirs came in meanwhile: what was shown is not what stands here.
    await store.put('record', { ...theirs, rev: 9 } as never);
    await keepRecords(store, [network('third', 4)], [shown]);
    expect((await store.getAll('outbox'))[0]).toMatchObject({ item: { baseRev: 4, fields: { name: 'third' } } });
  });
  it('knows its new rev once it is taken, so that its next change conflicts with nobody', async () => {
    await keepRecords(store, [network('first')]);
    server(() => ({ status: 'taken', rev: 12 }));
    await sendOutbox(store);
    expect(await store.get('record', ['network', idOf(30)])).toMatchObject({ rev: 12, fields: { name: 'first' } });
  });
  it('again while it is on its way stays, as a change of what was taken', async () => {
    await keepRecords(store, [network('first')]);
    server(() => ({ status: 'taken', rev: 12 }));
    const answered = globalThis.fetch;
    globalThis.fetch = (async (...args: Parameters<typeof fetch>) => {
      await keepRecords(store, [network('second')]);
      return answered(...args);
    }) as never;
    await sendOutbox(store);
    expect((await store.getAll('outbox')).map((e) => e.type === 'record' && [e.item.baseRev, nameOf(e.item)])).toEqual([[12, 'second']]);
    expect(nameOf(await store.get('record', ['network', idOf(30)]))).toBe('second');
  });
  it('and elsewhere too: shows theirs, keeps mine and what both began from until somebody chooses', async () => {
    await store.put('record', { ...theirs, rev: 3, fields: network('base').fields } as never);
    await keepRecords(store, [network('mine', 3)]);
    server(() => ({ status: 'conflict', reason: 'was changed elsewhere since', theirs }));
    await sendOutbox(store);
    expect(await store.count('outbox')).toBe(0);
    expect(nameOf(await store.get('record', ['network', idOf(30)]))).toBe('theirs');
    expect(await store.get('unsettled', ['network', idOf(30)])).toMatchObject({
      mine: { fields: { name: 'mine' } },
      base: { name: 'base' },
      theirs: { rev: 9 },
    });
    await clearSentData(store);
    expect(await store.count('unsettled')).toBe(1);
    await keepRecords(store, [network('chosen', 9)]);
    expect(await store.count('unsettled')).toBe(0);
    expect(await store.count('outbox')).toBe(1);
  });
  it('and refused is kept with its reason', async () => {
    await keepRecords(store, [network('mine')]);
    server(() => ({ status: 'refused', path: 'fields.name', reason: 'too long' }));
    await sendOutbox(store);
    expect(await store.get('unsettled', ['network', idOf(30)])).toMatchObject({ path: 'fields.name', reason: 'too long', mine: { fields: { name: 'mine' } } });
  });
  it('of an earlier version is brought to today’s shape when the store is opened', async () => {
    const old = await openDB(`mile-${who.householdId}-${idOf(999)}`, 1, {
      upgrade(db) {
        db.createObjectStore('event', { keyPath: 'event.id' }).createIndex('byVisit', 'event.visitId');
        db.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true });
        db.createObjectStore('record', { keyPath: ['type', 'id'] });
        db.createObjectStore('meta');
      },
    });
    await old.put('record', { type: 'stall', id: idOf(31), rev: 2, archived: false, fields: { siteId: idOf(32), name: '4', connector: 'CCS2', ratedKW: 150 } });
    await old.put('outbox', { type: 'event', id: idOf(33) });
    old.close();
    const now = await openPhoneStore(who.householdId, idOf(999));
    expect(await now.get('record', ['stall', idOf(31)])).toMatchObject({ fields: { name: '4', outlets: [{ connector: 'CCS2', ratedKW: 150 }] } });
    expect(await now.count('outbox')).toBe(1);
    now.close();
  });
});

describe('photos on the phone', () => {
  it('are sent until the server has them or says that it never will, and wait while it is away', async () => {
    const photo = (n: number) => ({ sha256: String(n).repeat(64), bytes: new Blob(['x']), state: 'kept' as const });
    for (const n of [1, 2]) await store.put('photo', photo(n));
    await store.put('photo', { ...photo(3), state: 'sent' });
    expect(await waitingPhotos(store)).toBe(2);
    away();
    expect(await sendPhotos(store)).toBe(false);
    const asked: string[] = [];
    globalThis.fetch = (async (url: string) => {
      asked.push(url.slice(-1));
      return asked.length === 1 ? Response.json({ already: false }, { status: 201 }) : Response.json({ error: 'no picture' }, { status: 422 });
    }) as never;
    expect(await sendPhotos(store)).toBe(true);
    expect(await sendPhotos(store)).toBe(true);
    expect(asked).toEqual(['1', '2']);
    // What the server has leaves the phone; what it refuses stays.
    expect((await store.getAll('photo')).map((p) => [p.sha256[0], p.state])).toEqual([['2', 'refused']]);
  });
});

describe('the phone’s copy', () => {
  it('takes changes, but not over what is still to be sent', async () => {
    await keepRecords(store, [recordItem('network', idOf(30), { name: 'mine' })]);
    globalThis.fetch = (async () =>
      Response.json({
        rev: 9,
        records: [30, 31].map((n) => ({ type: 'network', id: idOf(n), rev: 9, archived: false, fields: { name: 'theirs' } })),
      })) as never;
    expect(await pullChanges(store)).toBe(true);
    expect((await store.getAll('record')).map((r) => (r.fields as { name: string }).name)).toEqual(['mine', 'theirs']);
    expect(await store.get('meta', 'rev')).toBe(9);
  });
  it('signing out clears what is sent and read, never what waits', async () => {
    await keepEvents(store, who, [draft(1)]);
    server();
    await sendOutbox(store);
    await keepEvents(store, who, [draft(2)]);
    await clearSentData(store);
    expect((await eventsOfVisit(store, VISIT)).map((k) => k.state)).toEqual(['kept']);
    expect(await store.count('outbox')).toBe(1);
  });
});
