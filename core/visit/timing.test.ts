import type { Placed } from './timeline/placed';
import { type Mark, markOf, noTiming, signedSpan, span, sumTimings, type Timing } from './timing';

const mark = (t_s: number, more: Partial<Mark> = {}): Mark => ({
  id: 'x',
  kind: 'note',
  place: 0,
  t: t_s * 1000,
  pm_s: 0.1,
  clock_s: 0,
  seam: 0,
  precision: 'ms',
  deviceId: 'phone',
  ...more,
});
const why = (t: Timing) => (t.known ? null : t.why);

describe('marks', () => {
  const placed = {
    id: 'a',
    kind: 'plugged',
    place: 3,
    t: 5,
    pm_s: 0.2,
    clock_s: 1,
    seam: 2,
    precision: 's',
    deviceId: 'p',
    payload: {},
    seq: 9,
  } as unknown as Placed;
  it('hold what a duration needs, and no more', () => {
    const { payload: _, seq: __, ...kept } = placed as unknown as Record<string, unknown>;
    expect(markOf(placed)).toEqual(kept);
  });
  it('say that only an onlooker saw it', () => expect(markOf({ ...placed, onlySeen: true })).toMatchObject({ onlySeen: true }));
});

describe('a difference', () => {
  it('of one device has the ± of both ends', () => {
    expect(signedSpan(mark(10, { clock_s: 9 }), mark(4))).toMatchObject({ known: true, s: -6, pm_s: 0.2, bound: 'exact' });
  });
  it('between two devices that of their clocks too, never under half a second', () => {
    expect(signedSpan(mark(0), mark(4, { deviceId: 'other' }))).toMatchObject({ s: 4, pm_s: 0.5 });
    expect(signedSpan(mark(0, { clock_s: 2 }), mark(4, { deviceId: 'other', clock_s: 1 }))).toMatchObject({ pm_s: expect.closeTo(3.2, 9) });
  });
  it('is not known where either end has but a day', () => {
    for (const [a, b] of [
      [{ precision: 'day' }, {}],
      [{}, { precision: 'day' }],
    ] as const)
      expect(why(signedSpan(mark(0, a), mark(4, b)))).toBe('only the day is known');
  });
  it('nor across a clock that ran back, save where one end is typed or another phone’s', () => {
    expect(why(signedSpan(mark(0), mark(4, { seam: 1 })))).toBe('the phone’s clock ran back in between');
    expect(why(signedSpan(mark(0, { seam: 1 }), mark(4)))).toBe('the phone’s clock ran back in between');
    for (const [a, b] of [
      [{ seam: -1 }, { seam: 1 }],
      [{ seam: 0 }, { seam: -1 }],
      [{ seam: 0 }, { seam: 1, deviceId: 'other' }],
      [{ seam: 2 }, { seam: 2 }],
    ] as const)
      expect(signedSpan(mark(0, a), mark(4, b)).known).toBe(true);
  });
  it('that cannot be negative is not known when it is', () => {
    expect(why(span(mark(4), mark(3.9)))).toBe('the times run backwards');
    expect(span(mark(4), mark(4))).toMatchObject({ known: true, s: 0 });
    expect(why(span(mark(4, { precision: 'day' }), mark(9)))).toBe('only the day is known');
  });
});

describe('a sum', () => {
  const of = (s: number, more: object = {}): Timing => ({
    known: true,
    s,
    pm_s: 0.5,
    bound: 'exact',
    from: mark(s, { id: `from ${s}` }),
    to: mark(s, { id: `to ${s}` }),
    ...more,
  });
  it('adds seconds and ±, from the first to the last', () => {
    expect(sumTimings([of(1), of(2), of(4)], '')).toEqual({
      known: true,
      s: 7,
      pm_s: 1.5,
      bound: 'exact',
      from: mark(1, { id: 'from 1' }),
      to: mark(4, { id: 'to 4' }),
    });
    expect(sumTimings([of(3)], '')).toEqual(of(3));
  });
  it('of none says why, with one unknown is unknown with its reason', () => {
    expect(why(sumTimings([], 'none recorded'))).toBe('none recorded');
    expect(why(sumTimings([of(1), noTiming('lost'), noTiming('later')], ''))).toBe('lost');
  });
  it.each([
    ['exact', 'exact', 'exact'],
    ['exact', 'at_most', 'at_most'],
    ['at_most', 'exact', 'at_most'],
    ['at_least', 'exact', 'at_least'],
    ['exact', 'at_least', 'at_least'],
    ['at_most', 'at_most', 'at_most'],
    ['at_least', 'at_least', 'at_least'],
  ] as const)('%s and %s is %s', (a, b, both) => expect(sumTimings([of(1, { bound: a }), of(2, { bound: b })], '')).toMatchObject({ bound: both }));
  it('of a bound below and one above is no figure', () => {
    expect(why(sumTimings([of(1, { bound: 'at_least' }), of(2, { bound: 'at_most' })], ''))).toBe('one part is at least, another at most');
    expect(why(sumTimings([of(1, { bound: 'at_most' }), of(2, { bound: 'at_least' })], ''))).toBe('one part is at least, another at most');
  });
  it('has a lowest value where one of its parts has', () => {
    expect(sumTimings([of(10, { low_s: 7 }), of(5)], '')).toMatchObject({ s: 15, low_s: 12 });
    expect(sumTimings([of(10), of(5, { low_s: 0 })], '')).toMatchObject({ s: 15, low_s: 10 });
    expect(sumTimings([of(10, { low_s: 0 }), of(5, { low_s: 4 })], '')).toMatchObject({ low_s: 4 });
    expect(sumTimings([of(10), of(5)], '')).not.toHaveProperty('low_s');
  });
});
