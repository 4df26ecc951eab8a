import { MOST_SEQ } from '../visit/event';
import { idOf } from '../visit/fixtures/story';
import { eventsFrom, idsIn } from './event-in';

const of = { householdId: idOf(1), personId: idOf(2), zone: 'Europe/Ljubljana', source: 'car log', deviceId: idOf(9) };
const event = (more: object = {}) => ({ id: idOf(10), visitId: idOf(3), kind: 'plugged', at: '2025-10-14T13:52+02:00', ...more });
const none = { seqs: new Map<string, number>(), last: new Map<string, number>() };
const read = (...list: unknown[]) => eventsFrom(list, of, none);
const one = (more: object = {}) => {
  const [found] = read(event(more));
  return found?.ok ? found.event : found;
};

describe('events as a program sends them', () => {
  it('are of their source where it says nothing else: a device of its own, without a clock that runs', () => {
    expect(one()).toEqual({
      id: idOf(10),
      householdId: idOf(1),
      personId: idOf(2),
      visitId: idOf(3),
      kind: 'plugged',
      v: 1,
      at: Date.UTC(2025, 9, 14, 11, 52),
      precision: 'min',
      zone: 'Europe/Ljubljana',
      deviceId: idOf(9),
      life: idOf(9),
      mono: 0,
      awake: false,
      seq: 1,
      origin: 'imported',
      role: 'recorder',
      payload: { source: 'car log' },
    });
  });
  it('keep what they say', () => {
    const said = {
      v: 2,
      precision: 's',
      zone: 'UTC',
      deviceId: idOf(20),
      life: idOf(21),
      mono: 5.5,
      awake: true,
      seq: 7,
      role: 'observer',
      payload: { connectorId: '1', source: 'van' },
    };
    expect(one(said)).toMatchObject({ ...said, origin: 'imported' });
    expect(one({ deviceId: idOf(20) })).toMatchObject({ deviceId: idOf(20), life: idOf(20) });
  });
  it.each([
    ['2025-10-14T13:52:10+02:00', 's', Date.UTC(2025, 9, 14, 11, 52, 10)],
    ['2025-10-14T11:52:10.5Z', 'ms', Date.UTC(2025, 9, 14, 11, 52, 10, 500)],
    [Date.UTC(2025, 9, 14), 'ms', Date.UTC(2025, 9, 14)],
    // A day is its noon at the place; the clocks went back that night.
    ['2025-10-14 13:52:10.123456+0200', 'ms', Date.UTC(2025, 9, 14, 11, 52, 10, 123)],
    ['2025-10-26', 'day', Date.UTC(2025, 9, 26, 11)],
    ['2025-07-01', 'day', Date.UTC(2025, 6, 1, 10)],
  ])('the time %s is known to the %s', (at, precision, ms) => {
    expect(one({ at })).toMatchObject({ at: ms, precision });
  });
  it('stand in the order of the request, visit by visit', () => {
    const [b, c] = [{ id: idOf(11) }, { id: idOf(12) }];
    const seqs = read(event(), event({ visitId: idOf(4) }), event({ ...b, seq: 90 }), event(c)).map((f) => (f.ok ? f.event.seq : null));
    expect(seqs).toEqual([1, 1, 90, 3]);
    // What is refused takes no place.
    expect(read(event({ at: 'x' }), event()).map((f) => (f.ok ? f.event.seq : null))).toEqual([null, 1]);
  });
  it('that stand there twice stand in one place, and those behind them in theirs', () => {
    const [b, c] = [{ id: idOf(11) }, { id: idOf(12) }];
    const seqs = read(event(), event(b), event(), event(b), event(c)).map((f) => (f.ok ? f.event.seq : null));
    expect(seqs).toEqual([1, 2, 1, 2, 3]);
  });
  it('stand behind what is here of their visit, and where they stood when they are sent again', () => {
    const [a, b] = [idOf(11), idOf(12)];
    const known = { seqs: new Map([[a, 2]]), last: new Map([[idOf(3), 7]]) };
    const seqs = eventsFrom([event({ id: a }), event({ id: b }), event({ id: b, visitId: idOf(4) }), event({ id: a, seq: 90 })], of, known);
    expect(seqs.map((f) => (f.ok ? f.event.seq : null))).toEqual([2, 9, 1, 90]);
    const full = eventsFrom([event(), event({ id: a })], of, { ...none, last: new Map([[idOf(3), MOST_SEQ - 1]]) });
    expect(full.map((f) => (f.ok ? f.event.seq : null))).toEqual([MOST_SEQ, MOST_SEQ]);
    expect(idsIn([event({ id: a }), event({ id: 'x' }), null, 7, 'id', event({ id: a, visitId: [] })])).toEqual({ events: [a], visits: [idOf(3)] });
  });
  it.each([
    [7, '', ''],
    [null, '', ''],
    [event({ id: 'x' }), 'x', 'id'],
    [event({ at: '2025-10-14T13:52' }), idOf(10), 'at'],
    [event({ at: '2025-13-14' }), idOf(10), 'at'],
    [event({ at: '2025-02-30' }), idOf(10), 'at'],
    [event({ at: '2025-02-30T10:00Z' }), idOf(10), 'at'],
    [event({ at: '2025-10-14T25:00Z' }), idOf(10), 'at'],
    [event({ zone: 'Mars' }), idOf(10), 'zone'],
    [event({ visitId: undefined }), idOf(10), 'visitId'],
    [event({ payload: [] }), idOf(10), 'payload'],
    [event({ personId: idOf(8) }), idOf(10), 'personId'],
    [event({ 'a/b.c~d': 1 }), idOf(10), 'a~1b.c~0d'],
    [event({ at: Date.UTC(2025, 9, 14) + 0.5 }), idOf(10), 'at'],
    [event({ origin: 'tap' }), idOf(10), 'origin'],
  ])('%j is refused at its place', (raw, id, path) => {
    expect(read(raw)[0]).toMatchObject({ ok: false, id, path });
  });
});
