import type { VisitEvent } from './event';
import { PHONE, SECOND_PHONE, SITE, STALL_A, STALL_B, type Step, story, T0 } from './fixtures/story';
import { placeEvents } from './order';
import { markOf, noTiming, signedSpan, span, sumTimings, type Timing } from './timing';

const place = (...steps: Parameters<typeof story>) => placeEvents(story(...steps) as VisitEvent[]);
const seconds = (t: number) => (t - T0) / 1000;

describe('the order of events', () => {
  it('one device’s touches keep their seq, whatever order they come in', () => {
    const events = story([0, 'plugged'], [0, 'claimed', { by: 'beep' }], [0, 'unplugged']) as VisitEvent[];
    expect(placeEvents([...events].reverse()).map((e) => e.kind)).toEqual(['plugged', 'claimed', 'unplugged']);
  });
  it('devices interleave by time, then seq, then device', () => {
    const line = place(
      [0, 'plugged'],
      [10, 'unplugged'],
      [5, 'claimed', { by: 'beep' }, { deviceId: SECOND_PHONE, seq: 1 }],
      [10, 'stuck', { end: 'car' }, { deviceId: SECOND_PHONE, seq: 2 }],
    );
    expect(line.map((e) => [e.kind, e.deviceId])).toEqual([
      ['plugged', PHONE],
      ['claimed', SECOND_PHONE],
      ['unplugged', PHONE],
      ['stuck', SECOND_PHONE],
    ]);
  });
  it('a typed event stands where its time says, not where it was typed', () => {
    const line = place([0, 'plugged'], [600, 'unplugged'], [300, 'reading', { screen: 'car', socPct: 50 }, { origin: 'typed', precision: 'min' }]);
    expect(line.map((e) => e.kind)).toEqual(['plugged', 'reading', 'unplugged']);
    expect(line[1]?.pm_s).toBe(30);
  });
  it('a small drift between the clocks is left to the wall', () => {
    expect(place([0, 'plugged'], [100, 'unplugged', {}, { mono: 10_000 + 101_900 }]).map((e) => seconds(e.t))).toEqual([0, 100]);
  });
  it('a jump once seen stays taken out of what follows, also in the next page life', () => {
    const line = place(
      [0, 'plugged'],
      [3610, 'claimed', { by: 'beep' }, { mono: 20_000 }],
      [3620, 'unplugged', {}, { mono: 30_000 }],
      [3650, 'pulled_out', { reason: 'enough' }, { life: PHONE, mono: 100 }],
    );
    expect(line.map((e) => seconds(e.t))).toEqual([0, 10, 20, 50]);
    expect(line.map((e) => e.jumped_s)).toEqual([undefined, 3600, undefined, undefined]);
  });
});

describe('two phones on one visit', () => {
  const second = { deviceId: SECOND_PHONE, role: 'observer' as const };
  it('choosing the first stall, or the same one, ends nothing between two looks at one moment', () => {
    const line = place(
      [0, 'pulled_in', { siteId: SITE }],
      [1, 'stall_chosen', { stallId: STALL_A }],
      [5, 'pulled_in', { siteId: SITE }, { ...second, seq: 1 }],
      [6, 'stall_chosen', { stallId: STALL_A }, { ...second, seq: 2 }],
    );
    expect(line.map((e) => [e.kind, e.secondObservation?.differs_s, e.place])).toEqual([
      ['pulled_in', 5, 0],
      ['stall_chosen', 5, 1],
    ]);
  });
  it('a move to another stall and an ending fault do end it; a fault that ends nothing does not', () => {
    const between = (...step: [Step]) =>
      place([0, 'stall_chosen', { stallId: STALL_A }], [1, 'plugged'], ...step, [9, 'plugged', {}, { ...second, seq: 9 }]).filter((e) => e.kind === 'plugged');
    expect(between([4, 'stall_chosen', { stallId: STALL_B }])).toHaveLength(2);
    expect(between([4, 'fault', { code: 'start_error', side: 'network' }])).toHaveLength(2);
    expect(between([4, 'fault', { code: 'price_not_shown', side: 'network' }])).toHaveLength(1);
  });
});

describe('durations', () => {
  const [a, b, late] = place(
    [0, 'plugged', {}, { precision: 's', origin: 'typed' }],
    [30, 'unplugged'],
    [40, 'pulled_out', { reason: 'enough' }, { precision: 'min', origin: 'typed' }],
  ).map(markOf);
  it('carry the precision of both ends', () => {
    expect(span(a!, b!)).toMatchObject({ known: true, s: 30, pm_s: 0.5 });
    expect(span(b!, late!)).toMatchObject({ s: 10, pm_s: 30 });
  });
  it('backwards are unknown, never clamped; signed ones may be', () => {
    expect(span(b!, a!)).toEqual({ known: false, why: 'the times run backwards' });
    expect(signedSpan(b!, a!)).toMatchObject({ known: true, s: -30 });
  });
  it('add up with their bounds, and are unknown as soon as one is', () => {
    const exact = span(a!, b!) as Extract<Timing, { known: true }>;
    expect(sumTimings([exact, { ...exact, bound: 'at_most', low_s: 12 }], '')).toMatchObject({ s: 60, bound: 'at_most', low_s: 42 });
    expect(
      sumTimings(
        [
          { ...exact, bound: 'at_least' },
          { ...exact, bound: 'at_most' },
        ],
        '',
      ),
    ).toMatchObject({ known: false });
    expect(sumTimings([exact, noTiming('gone')], '')).toEqual({ known: false, why: 'gone' });
    expect(sumTimings([], 'none')).toEqual({ known: false, why: 'none' });
  });
});
