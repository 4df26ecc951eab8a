import type { StoredEvent, VisitEvent } from '../event';
import { idOf, PHONE, SECOND_PHONE, SITE, STALL_A, STALL_B, type Step, story, T0 } from '../fixtures/story';
import { markOf, noTiming, signedSpan, span, sumTimings, type Timing } from '../timing';
import { placeEvents } from './place-events';

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
  it('at one instant and with one seq, by device, then by id; nothing of nothing', () => {
    const at = (deviceId: string, n: number): Step => [10, 'note', { text: `${n}` }, { deviceId, seq: 7, id: idOf(n) }];
    const texts = (line: ReturnType<typeof place>) => line.map((e) => (e.payload as { text: string }).text);
    for (const order of [
      [at(SECOND_PHONE, 3), at(PHONE, 2), at(PHONE, 1)],
      [at(PHONE, 1), at(SECOND_PHONE, 3), at(PHONE, 2)],
      [at(PHONE, 2), at(PHONE, 1), at(SECOND_PHONE, 3)],
    ])
      expect(texts(place(...order))).toEqual(['1', '2', '3']);
    expect(place()).toEqual([]);
  });
  it('what another phone has keeps its own order too, and typed times in it move with no clock', () => {
    const by = (seq: number, more: object = {}) => ({ deviceId: SECOND_PHONE, role: 'observer' as const, seq, ...more });
    const told = { heard_ms: 0 };
    const line = place(
      [0, 'plugged', {}, told],
      [300, 'note', { text: 'typed' }, by(1, { origin: 'typed' })],
      [160, 'note', { text: 'second' }, by(3, { heard_ms: -60_000 })],
      [150, 'note', { text: 'first' }, by(2, { heard_ms: -60_000 })],
      // Its clock was set back by an hour between two page lives: a stretch of its own, told by its own batch.
      [-3500, 'note', { text: 'third' }, by(4, { heard_ms: 3_540_000, life: PHONE })],
    );
    expect(line.map((e) => [(e.payload as { text?: string }).text, seconds(e.t), e.clock_s, e.seam])).toEqual([
      [undefined, 0, 0, 0],
      ['first', 90, 2, 0],
      ['second', 100, 2, 0],
      // It stands behind what the phone recorded before it, whatever its clock says now.
      ['third', 40, 2, 1],
      ['typed', 300, 0, -1],
    ]);
  });
  it('a phone whose batches told nothing is level with one whose did', () => {
    const by = { deviceId: SECOND_PHONE, role: 'observer' as const, seq: 1 };
    expect(place([0, 'plugged'], [160, 'unlocked', {}, { ...by, heard_ms: -60_000 } as object]).map((e) => seconds(e.t))).toEqual([0, 160]);
    expect(place([0, 'plugged', {}, { heard_ms: -60_000 } as object], [160, 'unlocked', {}, by]).map((e) => seconds(e.t))).toEqual([0, 160]);
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
    expect(line.map((e) => [e.kind, e.looks?.[0]?.differs_s, e.place])).toEqual([
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

describe('who records', () => {
  const second = { deviceId: SECOND_PHONE, role: 'observer' as const };
  const kinds = (line: ReturnType<typeof place>) => line.map((e) => [e.kind, e.onlySeen === true]);
  it('a touch of the recorder before what was typed, and a joined recording before that', () => {
    const typed = { origin: 'typed' as const, precision: 'min' as const };
    const joined = { ...second, seq: 9 };
    expect(
      kinds(place([0, 'pulled_in', { siteId: SITE }, typed], [5, 'plugged', { joinedFrom: 'x' }, joined], [60, 'pulled_out', { reason: 'enough' }, typed])),
    ).toEqual([
      ['pulled_in', false],
      ['plugged', false],
      ['pulled_out', false],
    ]);
    expect(kinds(place([0, 'pulled_in', { siteId: SITE }], [5, 'plugged', { joinedFrom: 'x' }, joined], [60, 'pulled_out', { reason: 'enough' }]))[1]).toEqual([
      'plugged',
      true,
    ]);
  });
  it('of two who record, the one whose first touch was the earlier; what a third saw is compared with both', () => {
    const other = { deviceId: SECOND_PHONE, seq: 1 };
    expect(place([5, 'plugged'], [3, 'plugged', {}, other]).map((e) => [seconds(e.t), e.deviceId, e.looks?.length])).toEqual([[3, SECOND_PHONE, 1]]);
    expect(place([3, 'plugged'], [5, 'plugged', {}, other]).map((e) => [seconds(e.t), e.deviceId, e.looks?.length])).toEqual([[3, PHONE, 1]]);
    // Who only looks on comes after those who record, whatever the devices are called.
    const third = { deviceId: idOf(1), role: 'observer' as const, seq: 1 };
    const line = place([0, 'pulled_in', { siteId: SITE }], [40, 'plugged', {}, other], [60, 'plugged', {}, third]);
    expect(line.map((e) => [e.kind, seconds(e.t), e.onlySeen === true, e.looks?.length])).toEqual([
      ['pulled_in', 0, false, undefined],
      ['plugged', 40, false, 1],
    ]);
    // Of two who look on alike, by the name of the device.
    const fourth = { deviceId: idOf(2), role: 'observer' as const, seq: 1 };
    for (const steps of [
      [third, fourth],
      [fourth, third],
    ] as const) {
      const seen = place([0, 'pulled_in', { siteId: SITE }], [100, 'unplugged', {}, steps[0]], [104, 'unplugged', {}, steps[1]]);
      expect(seen.map((e) => [e.kind, e.deviceId])).toEqual([
        ['pulled_in', PHONE],
        ['unplugged', idOf(1)],
      ]);
    }
  });
  it('who recorded some of it records, also when the rest was only seen or typed', () => {
    const typed = { origin: 'typed' as const };
    const mixed = { deviceId: SECOND_PHONE, role: 'observer' as const };
    // Nobody touched as recorder: who typed as one goes before who looked on, however late.
    expect(kinds(place([500, 'plugged', {}, typed], [5, 'unplugged', {}, { ...mixed, seq: 1 }]))).toEqual([
      ['unplugged', true],
      ['plugged', false],
    ]);
    const took = place([0, 'plugged'], [4, 'claimed', { by: 'beep' }, { ...mixed, seq: 1 }], [900, 'unplugged', {}, { deviceId: SECOND_PHONE, seq: 2 }]);
    expect(kinds(took)).toEqual([
      ['plugged', false],
      ['claimed', true],
      ['unplugged', false],
    ]);
  });
  it('a joined recording that was typed is told from one that was touched', () => {
    const joined = (more: object) => ({ ...second, ...more });
    const line = place(
      [10, 'plugged', { joinedFrom: 'x' }, joined({ seq: 1, origin: 'typed' })],
      [20, 'unplugged', {}, { deviceId: idOf(77), role: 'recorder', seq: 1, origin: 'typed' }],
    );
    expect(kinds(line)).toEqual([
      ['plugged', true],
      ['unplugged', false],
    ]);
  });
  it('carries the time of the touch and the jump of its clock, and nothing where there is none', () => {
    const line = place([0, 'plugged'], [40, 'claimed', { by: 'beep' }, { touchedAt: T0 + 45_000 } as object], [3640, 'unplugged', {}, { mono: 50_000 }]);
    expect(
      line.map((e) => [
        e.touchedAt === undefined ? undefined : seconds(e.touchedAt),
        e.jumped_s,
        Object.keys(e).includes('touchedAt'),
        Object.keys(e).includes('jumped_s'),
      ]),
    ).toEqual([
      [undefined, undefined, false, false],
      [45, expect.anything(), true, true],
      [undefined, expect.anything(), false, true],
    ]);
  });
  it('a simulated touch is one like a tap', () => {
    const line = place([0, 'plugged', {}, { origin: 'simulated' }], [62.5, 'unplugged', {}, { origin: 'simulated', mono: 70_000 }]);
    expect(line.map((e) => [seconds(e.t), e.seam])).toEqual([
      [0, 0],
      [60, 0],
    ]);
  });
  it('without anybody who records nothing is only seen', () => {
    expect(kinds(place([0, 'plugged', {}, second], [5, 'unplugged', {}, { ...second, deviceId: PHONE, seq: 1 }]))).toEqual([
      ['plugged', false],
      ['unplugged', false],
    ]);
  });
  it('what comes long after the visit makes nobody silent later: a joined recording goes on where the last act was', () => {
    const line = place(
      [0, 'pulled_in', { siteId: SITE }],
      [10, 'plugged'],
      [900, 'note', { text: 'rain' }],
      [300, 'unplugged', { joinedFrom: 'x' }, { ...second, seq: 9 }],
    );
    expect(line.find((e) => e.kind === 'unplugged')?.onlySeen).toBeUndefined();
  });
});

describe('clocks of several phones', () => {
  const second = (seq: number, more: object = {}) => ({ deviceId: SECOND_PHONE, role: 'observer' as const, seq, ...more });
  const own: Step[] = [
    [0, 'pulled_in', { siteId: SITE }],
    [10, 'plugged'],
    [20, 'means_shown', { meansKind: 'app' }],
    [50, 'power_seen', { screen: 'stall', mark: 'kW' }],
  ];
  const at = (line: ReturnType<typeof place>, kind: string) =>
    line.filter((e) => e.kind === kind).map((e) => [seconds(e.t), e.clock_s, e.looks?.[0]?.differs_s]);
  it('are put level by two acts that agree, beyond what a late look explains', () => {
    const line = place(
      ...own,
      [51, 'plugged', {}, second(1)],
      [91.4, 'power_seen', { screen: 'stall', mark: 'kW' }, second(2)],
      [141, 'unlocked', {}, second(3)],
    );
    expect(at(line, 'plugged')).toEqual([[10, 0, expect.closeTo(0.4, 6)]]);
    // ± their spread and a second.
    expect(at(line, 'unlocked')).toEqual([[expect.closeTo(99.6, 6), expect.closeTo(1.4, 6), undefined]]);
  });
  it('are not by one act alone, nor by a look some seconds late', () => {
    const one = place(...own, [15, 'plugged', {}, second(1)], [141, 'unlocked', {}, second(2)]);
    expect(at(one, 'unlocked')).toEqual([[141, 5, undefined]]);
    const late = place(
      ...own,
      [14, 'plugged', {}, second(1)],
      [55, 'power_seen', { screen: 'stall', mark: 'kW' }, second(2)],
      [141, 'unlocked', {}, second(3)],
    );
    expect(at(late, 'unlocked')).toEqual([[141, 5, undefined]]);
    expect(at(late, 'plugged')).toEqual([[10, 0, 4]]);
  });
  it('are told by their batches, and by the acts where a clock was set since', () => {
    const heard = (heard_ms: number) => ({ heard_ms });
    const told = (...more: Step[]) => place(...own.map(([s, k, p]): Step => [s, k, p, heard(100)]), ...more);
    // The other phone is a minute ahead: it sent at 10:01 what was received at 10:00.
    expect(at(told([160, 'unlocked', {}, second(1, heard(-59_900))]), 'unlocked')).toEqual([[100, 2, undefined]]);
    // Within what is known of clocks they are level.
    expect(at(told([160, 'unlocked', {}, second(1, heard(-1_900))]), 'unlocked')).toEqual([[160, 2, undefined]]);
    const set = told(
      [70, 'plugged', {}, second(1, heard(100))],
      [110, 'power_seen', { screen: 'stall', mark: 'kW' }, second(2, heard(100))],
      [160, 'unlocked', {}, second(3, heard(100))],
    );
    expect(at(set, 'unlocked')).toEqual([[100, 1, undefined]]);
  });
  it('the batch that came quickest says it best; what the clock jumped by is taken off', () => {
    const slow = place(
      ...own.map(([s, k, p]): Step => [s, k, p, { heard_ms: 0 }]),
      [160, 'unlocked', {}, second(1, { heard_ms: -50_000 })],
      [170, 'stuck', { end: 'car' }, second(2, { heard_ms: -60_000 })],
    );
    expect(at(slow, 'stuck')).toEqual([[110, 2, undefined]]);
    const jumped = place(
      ...own.map(([s, k, p]): Step => [s, k, p, { heard_ms: 0 }]),
      [160, 'unlocked', {}, second(1)],
      [3770, 'stuck', { end: 'car' }, second(2, { mono: 10_000 + 170_000, heard_ms: -3_660_000 })],
    );
    expect(at(jumped, 'stuck')).toEqual([[110, 2, undefined]]);
  });
  it('three looks at one act are one act, ± half the greatest difference', () => {
    const line = place(...own, [14, 'plugged', {}, second(1)], [17, 'plugged', {}, { ...second(1), deviceId: STALL_A }], [18, 'plugged', {}, second(2)]);
    expect(line.filter((e) => e.kind === 'plugged').map((e) => [seconds(e.t), e.pm_s, e.looks?.length, e.onlySeen])).toEqual([
      [10, 3.5, 2, undefined],
      // The same phone once more is no third look.
      [18, 2, undefined, true],
    ]);
  });
  it('what two onlookers saw and the recorder did not is one act too', () => {
    const line = place(...own, [900, 'unplugged', {}, second(1)], [904, 'unplugged', {}, { ...second(1), deviceId: STALL_A }]);
    expect(line.filter((e) => e.kind === 'unplugged').map((e) => [seconds(e.t), e.pm_s, e.onlySeen])).toEqual([[900, 4, true]]);
  });
  it('beyond half a minute, or of another fault, stall or change, they are two', () => {
    const two = (step: Step, other: Step) => place(step, other).length;
    const by = second(1);
    expect(two([0, 'plugged'], [30, 'plugged', {}, by])).toBe(1);
    expect(two([0, 'plugged'], [30.1, 'plugged', {}, by])).toBe(2);
    expect(two([0, 'fault', { code: 'start_error', side: 'network' }], [1, 'fault', { code: 'timed_out', side: 'network' }, by])).toBe(2);
    expect(two([0, 'fault', { code: 'start_error', side: 'network' }], [1, 'fault', { code: 'start_error', side: 'car' }, by])).toBe(1);
    expect(two([0, 'stall_chosen', { stallId: STALL_A }], [1, 'stall_chosen', { stallId: STALL_B }, by])).toBe(2);
    expect(two([0, 'change', { what: 'rain' }], [1, 'change', { what: 'cold' }, by])).toBe(2);
    expect(two([0, 'change', { what: 'rain' }], [1, 'change', { what: 'rain' }, by])).toBe(1);
    expect(two([0, 'reading', { screen: 'car', kW: 3 }], [1, 'reading', { screen: 'car', kW: 3 }, by])).toBe(2);
  });
});

describe('corrected times', () => {
  /** As corrections leave an event: its time set, the touch kept beside. */
  const correctedTo = (at_s: number, e: object): Partial<StoredEvent> => ({ touchedAt: T0 + at_s * 1000, ...e }) as Partial<StoredEvent>;
  it('are the time as shown, and the touch still tells how the clock ran', () => {
    const line = place([0, 'plugged'], [40, 'claimed', { by: 'beep' }, correctedTo(3650, { mono: 60_000 })], [3660, 'unplugged', {}, { mono: 70_000 }]);
    expect(line.map((e) => [e.kind, seconds(e.t), e.precision, e.jumped_s])).toEqual([
      ['plugged', 0, 'ms', undefined],
      ['claimed', 40, 's', 3600],
      ['unplugged', 60, 'ms', undefined],
    ]);
  });
  it('moved by whole minutes from what was shown are known to the minute; not moved, as before', () => {
    const precision = (at_s: number) =>
      place([0, 'plugged'], [at_s, 'claimed', { by: 'beep' }, correctedTo(150, { mono: 160_000 })])[at_s < 0 ? 0 : 1]?.precision;
    expect([precision(30), precision(31), precision(150)]).toEqual(['min', 's', 'ms']);
  });
  it('of a day fill it in; what has no time keeps its place among the device’s own', () => {
    const day = { origin: 'typed' as const, precision: 'day' as const };
    const noon = (n: number) => ({ ...day, at: T0 + n });
    const line = place(
      [0, 'pulled_in', { siteId: SITE }, noon(0)],
      [3600, 'plugged', {}, correctedTo(0.001, day)],
      [0, 'claimed', { by: 'app' }, noon(2)],
      [7215, 'unplugged', {}, correctedTo(0.003, day)],
    );
    expect(line.map((e) => [e.kind, e.precision])).toEqual([
      ['pulled_in', 'day'],
      ['plugged', 'min'],
      ['claimed', 'day'],
      ['unplugged', 's'],
    ]);
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
