import { idOf, PHONE, SECOND_PHONE, type Step, story, T0 } from '../fixtures/story';
import { deviceLine } from './device-line';
import type { Corrected } from './placed';

const line = (...steps: Step[]) => deviceLine(story(...steps) as Corrected[]);
const times = (...steps: Step[]) => line(...steps).map((x) => (x.t - T0) / 1000);
/** Two touches of one page life, by the wall and by the page's own clock, seconds apart. */
const step = (wall_s: number, page_s: number, awake = true) =>
  line([0, 'plugged'], [wall_s, 'unplugged', {}, { mono: 10_000 + page_s * 1000, awake }])[1] as ReturnType<typeof line>[number];

describe('one device’s line', () => {
  it('goes by seq, then by id, whatever order the events come in and whatever their clocks say', () => {
    const events = story(
      [9, 'plugged'],
      [0, 'claimed', { by: 'beep' }],
      [30, 'unplugged'],
      [20, 'stuck', { end: 'car' }, { seq: 3, id: idOf(1) }],
    ) as Corrected[];
    for (const order of [
      [0, 1, 2, 3],
      [3, 2, 1, 0],
      [2, 0, 3, 1],
    ])
      expect(deviceLine(order.map((i) => events[i] as Corrected)).map((x) => x.e.kind)).toEqual(['plugged', 'claimed', 'stuck', 'unplugged']);
  });
  it('believes the wall up to two seconds from the page’s clock, and the page beyond', () => {
    expect([step(62, 60).t, step(58, 60).t].map((t) => t - T0)).toEqual([62_000, 58_000]);
    expect([step(62.001, 60).t, step(57.999, 60).t].map((t) => t - T0)).toEqual([60_000, 60_000]);
    expect([step(62, 60).jumped_s, step(62.001, 60).jumped_s, step(57.999, 60).jumped_s]).toEqual([undefined, 2.001, -2.001]);
  });
  it('of a page that slept the wall is believed when it is ahead, never when it is behind', () => {
    expect([step(600, 60, false).t - T0, step(600, 60, false).jumped_s]).toEqual([600_000, undefined]);
    expect([step(600, 60, true).t - T0, step(600, 60, true).jumped_s]).toEqual([60_000, 540]);
    expect([step(20, 60, false).t - T0, step(20, 60, false).jumped_s]).toEqual([60_000, -40]);
  });
  it('a jump stays out of the next page life, and one that runs back begins a stretch of its own', () => {
    const other = { life: PHONE, mono: 5 };
    const jumped = line([0, 'plugged'], [100, 'claimed', { by: 'beep' }, { mono: 11_000 }], [130, 'unplugged', {}, other]);
    expect(jumped.map((x) => [(x.t - T0) / 1000, x.ahead / 1000, x.seam])).toEqual([
      [0, 0, 0],
      [1, 99, 0],
      [31, 99, 0],
    ]);
    const back = line([100, 'plugged'], [40, 'claimed', { by: 'beep' }, other], [70, 'unplugged', {}, { life: PHONE, mono: 30_005 }]);
    expect(back.map((x) => [(x.t - T0) / 1000, (x.key - T0) / 1000, x.seam])).toEqual([
      [100, 100, 0],
      [40, 100, 1],
      [70, 100, 1],
    ]);
    // At one and the same instant nothing ran back.
    expect(line([5, 'plugged'], [5, 'unplugged', {}, other]).map((x) => x.seam)).toEqual([0, 0]);
  });
  it('clocks that lead out of every calendar are none', () => {
    const far = line([0, 'plugged'], [10, 'unplugged', {}, { mono: 9e15 }]);
    expect(far[1]?.t).toBe(T0 + 10_000);
  });
  it('typed and imported times are as they say, belong to no stretch, and move nothing that was touched', () => {
    for (const origin of ['typed', 'imported'] as const) {
      const mixed = line([0, 'plugged'], [5000, 'claimed', { by: 'beep' }, { origin, mono: 0, life: SECOND_PHONE }], [30, 'unplugged']);
      expect(mixed.map((x) => [(x.t - T0) / 1000, x.seam, x.ahead])).toEqual([
        [0, 0, 0],
        [5000, -1, 0],
        [30, 0, 0],
      ]);
    }
  });
  it('a corrected touch stands where it was put; how the clock ran is told by the touch', () => {
    const touched = { touchedAt: T0 + 100_000, mono: 11_000 } as object;
    const corrected = line([0, 'plugged'], [200, 'claimed', { by: 'beep' }, touched], [130, 'unplugged', {}, { mono: 41_000 }]);
    expect(corrected.map((x) => [(x.t - T0) / 1000, x.ahead / 1000, x.seam, x.jumped_s])).toEqual([
      [0, 0, 0, undefined],
      [200, 99, -1, 99],
      [31, 99, 0, undefined],
    ]);
    expect(corrected.map((x) => x.e.precision)).toEqual(['ms', 's', 'ms']);
  });
  it('a typed time that was corrected is known as its correction is: by the minute, by the second, or as before', () => {
    const put = (at_s: number) => line([at_s, 'plugged', {}, { origin: 'typed', precision: 'ms', touchedAt: T0 } as object])[0]?.e.precision;
    expect([put(120), put(121), put(0)]).toEqual(['min', 's', 'ms']);
  });
  it('what has only a day stands behind what the device noted before it, or with what follows', () => {
    const day = { precision: 'day' as const, origin: 'typed' as const };
    const keys = line(
      [500, 'note', { text: 'a' }, day],
      [10, 'plugged', {}, { origin: 'typed' }],
      [400, 'note', { text: 'b' }, day],
      [20, 'unplugged', {}, { origin: 'typed' }],
    ).map((x) => (x.key - T0) / 1000);
    expect(keys).toEqual([10, 10, 10, 20]);
    const onlyDays = line([500, 'note', { text: 'a' }, day], [400, 'note', { text: 'b' }, day]).map((x) => (x.key - T0) / 1000);
    expect(onlyDays).toEqual([500, 400]);
  });
  it('of nothing is nothing', () => expect(times()).toEqual([]));
});
