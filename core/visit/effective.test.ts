import { deriveVisit } from './derive';
import { effectiveEvents } from './effective';
import type { StoredEvent } from './event';
import { CARD, IN, idOf, KW, SECOND_PHONE, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const base: Step[] = [
  IN,
  [5, 'stall_chosen', { stallId: STALL_A }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [50, 'power_seen', KW],
  [400, 'reading', { screen: 'stall', kWh: '9.0', kW: 80 }],
];
// Ids as story() gives them: event n of the list is idOf(100 + n).
const [PLUG, POWER, READING] = [idOf(102), idOf(104), idOf(105)];
const handshake = (v: ReturnType<typeof derive>) => (v.attempts[0]?.times.handshake.known ? v.attempts[0].times.handshake.s : null);

describe('corrections', () => {
  it('move a time and keep the history', () => {
    const v = derive(story(...base, [500, 'correction', { target: POWER, at: T0 + 40_000 }]));
    expect(handshake(v)).toBe(20);
    expect(v.history.get(POWER)).toEqual([{ id: idOf(106), personId: expect.any(String), madeAt: T0 + 500_000, field: 'at', value: T0 + 40_000 }]);
  });
  it('per field the greatest seq wins, whatever arrives last', () => {
    const v = story(
      ...base,
      [500, 'correction', { target: READING, set: { kWh: '9.5' } }],
      [510, 'correction', { target: READING, set: { kWh: '9.7', kW: 85 } }],
      [520, 'correction', { target: READING, set: { kW: 90 } }],
    );
    for (const events of [v, [...v].reverse()]) expect(derive(events).attempts[0]?.readings[0]).toMatchObject({ kWh: '9.7', kW: 90 });
  });
  it('null takes a figure back: not read, never zero', () => {
    const v = derive(story(...base, [500, 'correction', { target: READING, set: { kWh: null } }]));
    expect(v.delivered).toMatchObject({ known: false });
  });
  it('out of bounds is left unapplied', () => {
    const v = derive(
      story(...base, [500, 'correction', { target: READING, set: { kWh: '-4' } }], [510, 'correction', { target: READING, set: { socPct: 140 } }]),
    );
    expect(v.attempts[0]?.readings[0]).toMatchObject({ kWh: '9.0' });
    expect(v.attempts[0]?.readings[0]?.socPct).toBeUndefined();
  });
  it('a time set back by whole minutes is known to the minute, any other to the second', () => {
    const pm = (shift: number) => derive(story(...base, [500, 'correction', { target: PLUG, at: T0 + 10_000 + shift }])).line.find((e) => e.id === PLUG)?.pm_s;
    expect([pm(-120_000), pm(-10_000)]).toEqual([30, 0.5]);
  });
  it('of a correction are not a thing', () => {
    const v = derive(story(...base, [500, 'correction', { target: POWER, at: T0 + 40_000 }], [510, 'correction', { target: idOf(106), at: T0 }]));
    expect(handshake(v)).toBe(20);
  });
});

describe('withdrawals', () => {
  it('take an event back and keep it', () => {
    const v = derive(story(...base, [500, 'withdrawal', { target: READING }]));
    expect(v.delivered.known).toBe(false);
    expect(v.takenBack.map((e) => e.id)).toEqual([READING]);
  });
  it('withdrawing a withdrawal restores', () => {
    const v = derive(story(...base, [500, 'withdrawal', { target: READING }], [510, 'withdrawal', { target: idOf(106) }]));
    expect(v.delivered).toMatchObject({ known: true, value: '9' });
  });
  it('of the visit take it out; restored likewise', () => {
    const once = story(...base, [500, 'withdrawal', { target: VISIT }]);
    expect(derive(once).withdrawn).toBe(true);
    expect(derive(once).visitWithdrawals).toEqual([idOf(106)]);
    expect(derive(story(...base, [500, 'withdrawal', { target: VISIT }], [510, 'withdrawal', { target: idOf(106) }])).withdrawn).toBe(false);
  });
  it('of a correction undo it', () => {
    const v = derive(story(...base, [500, 'correction', { target: POWER, at: T0 + 40_000 }], [510, 'withdrawal', { target: idOf(106) }]));
    expect(handshake(v)).toBe(30);
  });
  it('in a ring have one reading in every order of arrival', () => {
    const ring = story(...base, [500, 'withdrawal', { target: idOf(107) }], [510, 'withdrawal', { target: idOf(106) }]);
    expect(JSON.stringify(derive([...ring].reverse()))).toBe(JSON.stringify(derive(ring)));
  });
});

describe('what stands of a visit', () => {
  const LOW = idOf(1000);
  const HIGH = idOf(1001);
  const of = (events: readonly StoredEvent[]) => effectiveEvents(events, VISIT, payloadProblem);
  const shortIds = (events: readonly { id: string }[]) => events.map((e) => Number.parseInt(e.id.slice(-4), 16));
  /** A withdrawal or a correction with its place in the record's own order. */
  const act = (
    n: number,
    kind: 'withdrawal' | 'correction',
    payload: object,
    seq: number,
    deviceId = idOf(4),
    more: Partial<StoredEvent> = {},
  ): StoredEvent => ({
    ...(story([600, kind, payload as never])[0] as StoredEvent),
    id: idOf(n),
    seq,
    deviceId,
    ...more,
  });
  it('bookkeeping is none of its events; nothing is newer, aside or taken back', () => {
    const all = of(story(...base, [500, 'correction', { target: READING, set: { kW: 1 } }], [510, 'withdrawal', { target: PLUG }]));
    expect(all.events.map((e) => e.kind)).toEqual(['pulled_in', 'stall_chosen', 'means_shown', 'power_seen', 'reading']);
    expect(all).toMatchObject({ newer: false, aside: [], visitWithdrawn: false, visitWithdrawals: [] });
    expect(shortIds(all.withdrawn)).toEqual([Number.parseInt(PLUG.slice(-4), 16)]);
    expect(of(story(IN)).history.size).toBe(0);
    // One that comes twice counts as it came first.
    const twice = of([...story(IN), { ...(story(IN)[0] as StoredEvent), payload: { siteId: STALL_A } }]);
    expect(twice.events).toHaveLength(1);
    expect(twice.events[0]?.payload).toEqual(IN[2]);
  });
  it('a withdrawal takes back only what stands before it: by seq, then device, then id', () => {
    const took = (target: StoredEvent, by: StoredEvent) => of([...story(...base), target, by]).gone.has(target.id);
    const note = (n: number, seq: number, deviceId = LOW) => ({ ...(story([550, 'note', { text: 'x' }])[0] as StoredEvent), id: idOf(n), seq, deviceId });
    const back = (n: number, target: number, seq: number, deviceId = LOW) => act(n, 'withdrawal', { target: idOf(target) }, seq, deviceId);
    expect(took(note(2000, 20), back(2001, 2000, 21))).toBe(true);
    expect(took(note(2000, 21), back(2001, 2000, 20))).toBe(false);
    expect(took(note(2000, 20, LOW), back(2001, 2000, 20, HIGH))).toBe(true);
    expect(took(note(2000, 20, HIGH), back(2001, 2000, 20, LOW))).toBe(false);
    expect(took(note(2000, 20), back(2001, 2000, 20))).toBe(true);
    expect(took(note(2001, 20), back(2000, 2001, 20))).toBe(false);
    expect(of([...story(...base), act(2000, 'withdrawal', { target: idOf(2000) }, 20)]).gone.size).toBe(0);
  });
  it('the first event of all can take the visit back', () =>
    expect(of([act(2000, 'withdrawal', { target: VISIT }, 1)]).visitWithdrawals).toEqual([idOf(2000)]));
  it('of two corrections of a field at one seq the greater device wins, then the greater id', () => {
    const kW = (...acts: StoredEvent[]) => (of([...story(...base), ...acts]).events.find((e) => e.id === READING)?.payload as { kW?: number } | undefined)?.kW;
    const set = (n: number, value: number, deviceId: string) => act(n, 'correction', { target: READING, set: { kW: value } }, 30, deviceId);
    expect(kW(set(2000, 11, HIGH), set(2001, 12, LOW))).toBe(11);
    expect(kW(set(2001, 12, LOW), set(2000, 11, HIGH))).toBe(11);
    expect(kW(set(2001, 12, LOW), set(2000, 11, LOW))).toBe(12);
    expect(kW(set(2000, 11, LOW), set(2001, 12, LOW))).toBe(12);
  });
  it('a correction that was taken back is none; one without time or figure leaves no history', () => {
    const all = of([...story(...base), act(2000, 'correction', { target: READING, set: { kW: 11 } }, 30), act(2001, 'withdrawal', { target: idOf(2000) }, 31)]);
    expect(all.events.find((e) => e.id === READING)?.payload).toMatchObject({ kW: 80 });
    expect(all.history.size).toBe(0);
    const empty = of([...story(...base), act(2000, 'correction', { target: READING }, 30)]);
    expect(empty.history.size).toBe(0);
    expect(empty.events.find((e) => e.id === READING)).not.toHaveProperty('touchedAt');
  });
  it('a time as corrected is the time; what was touched stays beside it', () => {
    const moved = of([...story(...base), act(2000, 'correction', { target: READING, at: T0 + 390_000, set: { kW: 81 } }, 30)]);
    expect(moved.events.find((e) => e.id === READING)).toMatchObject({ at: T0 + 390_000, touchedAt: T0 + 400_000, payload: { kW: 81 } });
    expect(moved.history.get(READING)?.map((n) => [n.field, n.value])).toEqual([
      ['at', T0 + 390_000],
      ['kW', 81],
    ]);
  });
  it('history names only what can be a field', () => {
    const lax = effectiveEvents([...story(...base), act(2000, 'correction', { target: READING, set: { 'a.b.c.d': 1, kW: 82 } }, 30)], VISIT, () => null);
    expect(lax.history.get(READING)?.map((n) => n.field)).toEqual(['kW']);
  });
  it('aside stands what is not known here and what waits for its target, oldest first', () => {
    const all = of([
      ...story(...base),
      act(2002, 'correction', { target: idOf(9999), at: T0 }, 33),
      act(2001, 'withdrawal', { target: idOf(9998) }, 32),
      act(2000, 'withdrawal', { target: VISIT }, 31),
      act(2003, 'correction', { target: READING, at: T0 }, 34),
      { ...(story([1, 'note', { text: 'x' }])[0] as StoredEvent), id: idOf(2004), kind: 'hologram', seq: 35 },
      { ...(story([1, 'note', { text: 'x' }])[0] as StoredEvent), id: idOf(2005), v: 2, seq: 30 },
    ]);
    expect(shortIds(all.aside)).toEqual([2005, 2001, 2002, 2004]);
    expect(all.newer).toBe(true);
  });
});

describe('a newer version', () => {
  it('marks the visit and is ignored', () => {
    const events = story(...base);
    const newer: StoredEvent = { ...(events[5] as StoredEvent), id: idOf(900), kind: 'hologram', seq: 7, payload: {} };
    const v = derive([...events, newer]);
    expect(v.newer).toBe(true);
    expect(v.line).toHaveLength(6);
  });
  it('of a known kind likewise', () => {
    const events = story(...base);
    expect(derive([...events, { ...(events[4] as StoredEvent), id: idOf(901), v: 2, seq: 7 }]).newer).toBe(true);
  });
});

describe('clocks', () => {
  const at = (v: ReturnType<typeof derive>, n: number) => ((v.line[n]?.t ?? 0) - T0) / 1000;
  it('a wall clock that jumps ahead on a waking page is not believed', () => {
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [20 + 3600, 'means_shown', CARD, { mono: 30_000 }],
        [50 + 3600, 'power_seen', KW, { mono: 60_000 }],
      ),
    );
    expect([at(v, 3), at(v, 4)]).toEqual([20, 50]);
    expect(v.jumps_s).toEqual([3600]);
    expect(handshake(v)).toBe(30);
  });
  it('on a page that slept it is', () => {
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [1000, 'means_shown', CARD, { mono: 25_000, awake: false }],
        [1030, 'power_seen', KW, { mono: 55_000 }],
      ),
    );
    expect(at(v, 3)).toBe(1000);
    expect(v.jumps_s).toEqual([]);
  });
  it('one that runs back on one page follows the page’s clock', () => {
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [-80, 'means_shown', CARD, { mono: 30_000 }],
        [-50, 'power_seen', KW, { mono: 60_000 }],
      ),
    );
    expect([at(v, 3), at(v, 4)]).toEqual([20, 50]);
  });
  it('one that runs back between page lives keeps the order and makes durations across unknown', () => {
    const life = idOf(77);
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [-30, 'means_shown', CARD, { life, mono: 500 }],
        [0, 'power_seen', KW, { life, mono: 30_500 }],
      ),
    );
    expect(v.line.map((e) => e.kind)).toEqual(['pulled_in', 'stall_chosen', 'plugged', 'means_shown', 'power_seen']);
    expect(v.attempts[0]?.times.plugToPower).toMatchObject({ known: false, why: 'the phone’s clock ran back in between' });
    expect(v.attempts[0]?.times.meansToPower).toMatchObject({ s: 30 });
  });
  it('a reload in mid-visit loses nothing', () => {
    const life = idOf(78);
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [20, 'means_shown', CARD],
        [50, 'power_seen', KW, { life, mono: 2000, deviceId: SECOND_PHONE, seq: 5 }],
      ),
    );
    expect(handshake(v)).toBe(30);
  });
});
