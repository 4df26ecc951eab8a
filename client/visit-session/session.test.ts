import { memory } from '@/client/store/fixtures/memory-storage';
import { phoneWho } from '../store/fixtures/phone-who';
import 'fake-indexeddb/auto';
import type { RecordItem } from '@/core/records/record-schema';
import { deriveVisit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { IN, idOf, PHONE, SECOND_PHONE, SITE, STALL_A, story, T0, VISIT } from '@/core/visit/fixtures/story';
import type { OutboxStatus } from '../outbox/outbox-loop';
import { holdEvents } from '../store/held-events';
import { openPhoneStore } from '../store/phone-store';
import { visitSession } from './session';
import type { SessionWays } from './session-ways';
import { SILENT_S } from './visit-here';

/** A session without a browser: a clock that a test moves, a server that answers what a test says, nothing drawn. */
let person = 900;
let now = T0;
let onServer: StoredEvent[] | null = null;
const tidy: (() => void)[] = [];
function begin(more: Partial<SessionWays> = {}, id = idOf(++person), held = holdEvents()) {
  const who = phoneWho(id);
  const woken: number[] = [];
  const ways: SessionWays = {
    openStore: (w) => openPhoneStore(w.householdId, w.personId),
    startOutbox: () => ({ wake: async () => void woken.push(now), stop: () => {} }),
    changesSince: async () => null,
    visitEvents: async () => onServer,
    lastVisits: async () => null,
    sendRecords: async () => null,
    touchTime: (timeStamp) => ({ at: now, mono: timeStamp }),
    takeAwake: () => true,
    now: () => now,
    wallNow: () => now,
    zone: () => 'UTC',
    newId: () => VISIT,
    buzz: () => {},
    newVersion: async () => {},
    derivation: async () => deriveVisit,
    payloadCheck: async () => () => null,
    lastVisitsPart: () => Promise.reject(new Error('not asked for')),
    takePhoto: async () => ({ sha256: '1'.repeat(64), bytes: new Blob(['x']) }),
    writePhoto: async () => {},
    signedOut: () => {},
    ...more,
  };
  const session = visitSession(who, held, ways);
  tidy.push(() => session.close());
  return { session, woken, id, held };
}
const at = (s: number) => {
  now = T0 + s * 1000;
};
const kinds = (session: ReturnType<typeof begin>['session']) => session.state().visit?.line.map((e) => e.kind);

beforeEach(() => {
  memory.set('mile.device', PHONE);
  onServer = null;
  at(0);
  jest.spyOn(globalThis, 'fetch').mockRejectedValue(new Error('no network'));
});
afterEach(() => {
  for (const done of tidy.splice(0)) done();
  jest.restoreAllMocks();
});

describe('a version that waits', () => {
  it('takes over when the page is opened and when a visit is left, never under one that began while the server was slow', async () => {
    let taken = 0;
    const newVersion = async () => {
      taken += 1;
    };
    let answer: (why: Error) => void = () => {};
    jest.spyOn(globalThis, 'fetch').mockImplementationOnce(
      () =>
        new Promise((_, fail) => {
          answer = fail;
        }),
    );
    const { session } = begin({ newVersion });
    const opened = session.open();
    for (let i = 0; i < 1000 && !session.state().loaded; i++) await new Promise(setImmediate);
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    answer(new Error('no network'));
    await opened;
    expect(session.state().visitId).toBe(VISIT);
    expect(taken).toBe(0);
    await session.leaveVisit();
    expect(taken).toBe(1);
    await begin({ newVersion }).session.open();
    expect(taken).toBe(2);
  });

  it('waits for what lives in the page alone', async () => {
    let taken = 0;
    const held = holdEvents();
    held.addPhoto({ sha256: '1'.repeat(64), bytes: new Blob(['x']) });
    const newVersion = async () => {
      taken += 1;
    };
    await begin({ newVersion }, undefined, held).session.open();
    expect(taken).toBe(0);
  });
});

describe('a visit on one phone', () => {
  it('begins with the first touch, is told to whoever looks, and is there again after a reload', async () => {
    const { session, woken, id } = begin();
    let told = 0;
    session.subscribe(() => {
      told += 1;
    });
    expect(await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } })).toEqual([]);
    await session.open();
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    at(60);
    await session.act(60_001, { kind: 'plugged', payload: {} });
    expect(kinds(session)).toEqual(['pulled_in', 'plugged']);
    expect(session.state()).toMatchObject({ visitId: VISIT, observing: false, silent_s: null, touches: 2 });
    expect(told).toBeGreaterThan(2);
    expect(woken.length).toBeGreaterThan(1);
    session.close();
    const again = begin({}, id).session;
    await again.open();
    expect(kinds(again)).toEqual(['pulled_in', 'plugged']);
  });
  it('takes back all that one touch made, and with the pulling in the visit', async () => {
    const { session } = begin();
    await session.open();
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    at(10);
    await session.act(10_001, { kind: 'plugged', payload: {} }, { kind: 'means_shown', payload: { meansKind: 'autocharge' } });
    await session.undo(11_000);
    expect(kinds(session)).toEqual(['pulled_in']);
    await session.undo(12_000);
    expect(session.state()).toMatchObject({ visitId: null, visit: null });
  });
  it('goes on in memory where nothing can be kept, says why, and is written down by the page’s own memory of it', async () => {
    const { session, held } = begin({ openStore: () => Promise.reject(new DOMException('no', 'QuotaExceededError')) });
    await session.open();
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    expect(session.state()).toMatchObject({ loaded: true, cannotKeep: 'its storage is full', visitId: VISIT });
    expect(held.all().map((k) => k.event.kind)).toEqual(['pulled_in']);
    expect(session.state().outbox?.inMemory).toBe(1);
  });
  it('a new phone asks for the places, says when they cannot be had, and asks again', async () => {
    const told = { rev: 3, records: [], epoch: undefined };
    const rows = jest.fn();
    const { session, id } = begin({ lastVisitsPart: async () => ({ visitsAtHand: async () => [] }) as never });
    expect(session.state().places).toBe('asking');
    await session.open();
    expect(session.state()).toMatchObject({ loaded: true, places: 'unreached' });
    await session.lastVisits(rows);
    expect(session.state().places).toBe('unreached');
    const server = jest.spyOn(globalThis, 'fetch').mockImplementation(async () => Response.json(told));
    const known = new Promise<void>((resolve) => {
      session.subscribe(() => session.state().places === 'known' && resolve());
    });
    await session.lastVisits(rows);
    await known;
    // Known once, it is known without a network too, and not asked for at every look.
    server.mockClear();
    await session.lastVisits(rows);
    expect(server).not.toHaveBeenCalled();
    server.mockRejectedValue(new Error('no network'));
    session.close();
    const again = begin({}, id).session;
    await again.open();
    expect(again.state().places).toBe('known');
    // What it was told cannot be taken in: it waits for nothing any more.
    const unable = begin({ changesSince: async () => null }).session;
    server.mockImplementation(async () => Response.json({ rev: 3, records: 7 }));
    await unable.open();
    expect(unable.state()).toMatchObject({ places: 'unreached', cannotKeep: expect.any(String) });
    const nowhere = { openStore: () => Promise.reject(new Error('no')) };
    for (const [answer, places] of [[null, 'unreached'] as const, [told, 'known'] as const]) {
      const inMemory = begin({ ...nowhere, changesSince: async () => answer as never }).session;
      await inMemory.open();
      expect(inMemory.state().places).toBe(places);
    }
  });
  it('closed, it tells nobody anything more', async () => {
    const { session } = begin();
    await session.open();
    session.close();
    await session.linkNextVisit(null).catch(() => {});
    expect(session.state().goesOn).toBe(false);
  });
});

describe('a visit that another phone records', () => {
  const theirs = story(IN, [5, 'stall_chosen', { stallId: STALL_A }], [10, 'plugged']);
  it('is looked on at, and taken over when that phone was silent', async () => {
    memory.set('mile.device', SECOND_PHONE);
    onServer = theirs;
    const { session, id } = begin();
    await session.open();
    expect(await session.openVisit(VISIT)).toBeNull();
    at(30);
    await session.act(1, { kind: 'unplugged', payload: {} });
    expect(session.state()).toMatchObject({ observing: true, silent_s: 20 });
    expect(session.state().visit?.attempts[0]?.ended).toBeUndefined();
    at(10 + SILENT_S);
    await session.look();
    expect(session.state().silent_s).toBe(SILENT_S);
    await session.takeOver();
    expect(session.state()).toMatchObject({ observing: false, silent_s: null });
    // Also after a reload, before anything was recorded.
    session.close();
    const again = begin({}, id).session;
    await again.open();
    expect(again.state().observing).toBe(false);
    await again.act(2, { kind: 'unplugged', payload: {} });
    expect(again.state().visit?.attempts[0]?.ended?.by).toBe('unplugged');
    expect(again.state().observing).toBe(false);
  });
  it('opens at once as far as it is here; what was recorded of it elsewhere comes after', async () => {
    onServer = theirs.slice(0, 2);
    const { session } = begin();
    await session.open();
    await session.openVisit(VISIT);
    await session.leaveVisit();
    let answer: (events: StoredEvent[]) => void = () => {};
    const slow = new Promise<StoredEvent[]>((resolve) => {
      answer = resolve;
    });
    onServer = slow as never;
    const opened = session.openVisit(VISIT);
    const shown = new Promise<void>((resolve) => {
      session.subscribe(() => session.state().visitId === VISIT && resolve());
    });
    await shown;
    expect(kinds(session)).toEqual(['pulled_in', 'stall_chosen']);
    answer(theirs);
    expect(await opened).toBeNull();
    expect(kinds(session)).toEqual(['pulled_in', 'stall_chosen', 'plugged']);
  });
  it('takes nobody away from where they pulled in, or from another visit asked for, while the network was slow', async () => {
    const answers: ((events: StoredEvent[] | null) => void)[] = [];
    const { session } = begin({
      newId: () => idOf(77),
      visitEvents: () =>
        new Promise((resolve) => {
          answers.push(resolve);
        }),
    });
    await session.open();
    const joining = session.openVisit(VISIT);
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    answers[0]?.(theirs);
    expect(await joining).toBeNull();
    expect(session.state()).toMatchObject({ visitId: idOf(77), observing: false });
    await session.leaveVisit();
    // Of two asked for, the one asked for last opens, whichever comes first.
    const other = theirs.map((e) => ({ ...e, id: `${e.id.slice(0, -1)}f`, visitId: idOf(78) }));
    const [first, second] = [session.openVisit(idOf(79)), session.openVisit(idOf(78))];
    await Promise.resolve();
    while (answers.length < 3) await new Promise(setImmediate);
    answers[2]?.(other);
    answers[1]?.(theirs.map((e) => ({ ...e, id: `${e.id.slice(0, -1)}e`, visitId: idOf(79) })));
    expect([await first, await second]).toEqual([null, null]);
    expect(session.state().visitId).toBe(idOf(78));
  });
  it('does not open without its pulling in', async () => {
    onServer = theirs.slice(1);
    const { session } = begin();
    await session.open();
    expect(await session.openVisit(VISIT)).toContain('Only its line');
    expect(session.state().visitId).toBeNull();
  });
  it('brings what the server heard of this phone’s clock to what this phone kept', async () => {
    const { session } = begin();
    await session.open();
    await session.act(1, { kind: 'pulled_in', payload: { siteId: SITE } });
    const [mine] = session.state().kept;
    onServer = [{ ...(mine?.event as StoredEvent), heard_ms: 40 }];
    await session.openVisit(VISIT);
    expect(session.state().kept[0]).toMatchObject({ state: 'kept', event: { heard_ms: 40 } });
  });
});

describe('places and garage', () => {
  it('changed while what was sent before is read again are not drawn back in between', async () => {
    let tell: (status: OutboxStatus) => void = () => {};
    const turns = async (n: number) => {
      for (let i = 0; i < n; i++) await new Promise(setImmediate);
    };
    const { session } = begin({
      // A disk on which a single reading takes longer than a change.
      openStore: async (w) => {
        const store = await openPhoneStore(w.householdId, w.personId);
        const get = async (...asked: Parameters<typeof store.get>) => turns(40).then(() => store.get(...asked));
        return new Proxy(store, {
          get: (of, key) => {
            if (key === 'get') return get;
            const its = Reflect.get(of, key);
            return typeof its === 'function' ? its.bind(of) : its;
          },
        });
      },
      startOutbox: (_store, _held, onStatus) => {
        tell = onStatus;
        return { wake: async () => {}, stop: () => {} };
      },
    });
    await session.open();
    const network = (name: string) => ({ type: 'network', id: idOf(5), baseRev: 0, archived: false, fields: { name } }) as RecordItem;
    await session.addRecords([network('one')]);
    const drawn: string[] = [];
    session.subscribe(() => drawn.push(...session.state().records.network.map((n) => n.fields.name)));
    for (const name of ['two', 'three']) {
      tell({ waiting: 0, inMemory: 0, photos: 0, refused: 0, unsettled: 0, last: 'sent', records: true });
      await session.addRecords([network(name)]);
    }
    await turns(400);
    // Each once it is said, and never one before it again.
    expect(drawn.filter((name, i) => name !== drawn[i - 1])).toEqual(['one', 'two', 'three']);
  });
});
