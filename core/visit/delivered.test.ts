import { averageKW, deliveredKWh, peakKW, stallKWhSoFar, wholeEnergy } from './delivered';
import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const attempts = (...steps: Step[]) => deriveVisit(VISIT, story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps), payloadProblem).attempts;
const ONE: Step[] = [
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [50, 'power_seen', KW],
];
const two = (first: Record<string, unknown>, second: Record<string, unknown>) =>
  attempts(
    ...ONE,
    [400, 'reading', { screen: 'stall', ...first }],
    [410, 'fault', { code: 'stopped_by_itself', side: 'network' }],
    [450, 'means_shown', CARD],
    [480, 'power_seen', KW],
    [900, 'reading', { screen: 'stall', ...second }],
    [910, 'stop_asked', { by: 'button' }],
  );

describe('energy delivered', () => {
  it('is the sum of the sessions, each its stall’s last figure', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kWh: '12.25' }), [], true)).toEqual({ known: true, value: '20.35' });
  });
  it('is the bill’s where one session was not read, else unknown', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [{ attempts: [], kWh: '20.4' }], true)).toEqual({ known: true, value: '20.4' });
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [], true)).toMatchObject({ known: false });
  });
  it('takes a session that was not read from the bill for it alone, and never a bill that leaves one out', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kW: 60 }), [{ attempts: [2], kWh: '12.3' }], true)).toEqual({ known: true, value: '20.4' });
    expect(deliveredKWh(two({ kW: 40 }, { kW: 60 }), [{ attempts: [2], kWh: '12.3' }], true)).toMatchObject({ known: false });
    expect(deliveredKWh(two({ kW: 40 }, { kW: 60 }), [{ attempts: [1, 2], kWh: '20.5' }], true)).toEqual({ known: true, value: '20.5' });
  });
  it('is a known zero only when the visit is over and nothing was left open', () => {
    const failed = attempts([10, 'plugged'], [60, 'fault', { code: 'start_error', side: 'network' }]);
    expect(deliveredKWh(failed, [], true)).toEqual({ known: true, value: '0' });
    expect(deliveredKWh(failed, [], false)).toMatchObject({ known: false, why: 'the visit is still open' });
    expect(deliveredKWh(attempts([10, 'plugged'], [20, 'claimed', { by: 'app' }]), [], true)).toMatchObject({
      known: false,
      why: 'power was not recorded',
    });
  });
  it('is read from the meter’s ends where the screen shows those', () => {
    expect(stallKWhSoFar(attempts(...ONE, [900, 'reading', { screen: 'stall', meterStart: '10250', meterEnd: '10281' }])[0]!)).toBe('31');
  });
});

describe('a reading before the end of the charge', () => {
  // 50 kW is 0.83 kWh a minute: common practice, no source.
  const read = (at: number, more: Record<string, unknown>, ...steps: Step[]) =>
    deliveredKWh(attempts(...ONE, [at, 'reading', { screen: 'stall', ...more }], ...steps, [1000, 'stop_asked', {}], [1100, 'unplugged']), [], true);
  it.each([
    ['15 s before it, with no power known', 985, { kWh: '9.1' }, true],
    ['16 s before it', 984, { kWh: '9.1' }, false],
    ['so near that the power read adds no more than a tenth', 964, { kWh: '9.1', kW: 10 }, true],
    ['so near that it adds more', 960, { kWh: '9.1', kW: 10 }, false],
    ['a display in whole kWh, to one of them', 940, { kWh: '9', kW: 60 }, true],
    ['a display in whole kWh, beyond one', 930, { kWh: '9', kW: 60 }, false],
    ['a display finer than a tenth, to a tenth', 964, { kWh: '9.125', kW: 10 }, true],
  ])('%s', (_, at, more, whole) => expect(read(at, more)).toEqual({ known: true, value: more.kWh, ...(whole ? {} : { atLeast: true }) }));
  it('by the car’s power where the stall shows none', () => {
    expect(read(940, { kWh: '9.1' }, [941, 'reading', { screen: 'car', kW: 5 }])).toEqual({ known: true, value: '9.1' });
    expect(read(940, { kWh: '9.1' }, [941, 'reading', { screen: 'car', kW: 50 }])).toMatchObject({ atLeast: true });
  });
  it('after it, or of which only the day is known, is the total', () => {
    expect(deliveredKWh(attempts(...ONE, [1000, 'stop_asked', {}], [1005, 'reading', { screen: 'stall', kWh: '9.1' }], [1100, 'unplugged']), [], true)).toEqual(
      {
        known: true,
        value: '9.1',
      },
    );
    const day = { precision: 'day' as const };
    expect(
      deliveredKWh(attempts(...ONE, [500, 'reading', { screen: 'stall', kWh: '9.1' }, day], [1000, 'stop_asked', {}], [1100, 'unplugged']), [], true),
    ).not.toHaveProperty('atLeast');
    expect(
      deliveredKWh(attempts(...ONE, [500, 'reading', { screen: 'stall', kWh: '9.1' }], [1000, 'stop_asked', {}, day], [1100, 'unplugged']), [], true),
    ).not.toHaveProperty('atLeast');
    expect(
      deliveredKWh(attempts(...ONE, [500, 'reading', { screen: 'stall', kWh: '9.1' }], [1000, 'stop_asked', {}], [1100, 'unplugged']), [], true),
    ).toHaveProperty('atLeast');
  });
  it('within the ± of both times it was at the end', () => {
    const min = { precision: 'min' as const };
    const of = (read: object, end: object) =>
      deliveredKWh(attempts(...ONE, [940, 'reading', { screen: 'stall', kWh: '9.1' }, read], [1000, 'stop_asked', {}, end], [1100, 'unplugged']), [], true);
    expect(of({}, {})).toHaveProperty('atLeast');
    expect(of(min, min)).not.toHaveProperty('atLeast');
    expect(of(min, {})).toHaveProperty('atLeast');
  });
  it('by the stall’s own last power before the car’s; a reading without power tells none', () => {
    const of = (...more: Step[]) => read(940, { kWh: '9.1' }, ...more);
    expect(of([930, 'reading', { screen: 'stall', kW: 5 }], [941, 'reading', { screen: 'car', kW: 50 }])).not.toHaveProperty('atLeast');
    expect(of([930, 'reading', { screen: 'stall', kW: 50 }], [941, 'reading', { screen: 'car', kW: 5 }])).toHaveProperty('atLeast');
    expect(of([930, 'reading', { screen: 'stall', kW: 5 }], [942, 'reading', { screen: 'stall', socPct: 70 }])).not.toHaveProperty('atLeast');
    expect(of([930, 'reading', { screen: 'stall', kW: 50 }], [931, 'reading', { screen: 'stall', kW: 5 }])).not.toHaveProperty('atLeast');
  });
  it('gives way to the last that is the total, whatever was read after it; else the last of all', () => {
    const of = (...more: Step[]) => stallKWhSoFar(attempts(...ONE, ...more)[0]!);
    expect(of([100, 'reading', { screen: 'stall', kWh: '1' }], [990, 'reading', { screen: 'stall', kWh: '9' }], [1000, 'stop_asked', {}])).toBe('9');
    expect(of([100, 'reading', { screen: 'stall', kWh: '1' }], [200, 'reading', { screen: 'stall', kWh: '2' }])).toBe('2');
    expect(of([100, 'reading', { screen: 'car', kWh: '7' }])).toBeUndefined();
    expect(of()).toBeUndefined();
  });
  it('while it charges is at least, the meter’s too', () => {
    const running = attempts(...ONE, [70, 'reading', { screen: 'stall', kWh: '0.5' }], [80, 'reading', { screen: 'stall', meterStart: '5', meterEnd: '5.75' }]);
    expect(deliveredKWh(running, [], false)).toEqual({ known: true, value: '0.75', atLeast: true });
    expect(stallKWhSoFar(running[0]!)).toBe('0.75');
  });
  it('gives way to a bill that is not less, for the session or for all; never to one that is', () => {
    const early = attempts(...ONE, [70, 'reading', { screen: 'stall', kWh: '0.5' }], [1000, 'stop_asked', {}]);
    for (const named of [[], [1]]) {
      expect(deliveredKWh(early, [{ attempts: named, kWh: '14' }], true)).toEqual({ known: true, value: '14' });
      expect(deliveredKWh(early, [{ attempts: named, kWh: '0.5' }], true)).toEqual({ known: true, value: '0.5' });
      expect(deliveredKWh(early, [{ attempts: named, kWh: '0.4' }], true)).toEqual({ known: true, value: '0.5', atLeast: true });
    }
    // One that was read at the end stands against any bill.
    const late = attempts(...ONE, [999, 'reading', { screen: 'stall', kWh: '12' }], [1000, 'stop_asked', {}]);
    expect(deliveredKWh(late, [{ attempts: [], kWh: '14' }], true)).toEqual({ known: true, value: '12' });
  });
  it('makes the sum of several sessions at least so much', () => {
    expect(deliveredKWh(two({ kWh: '8.1' }, { kWh: '2' }), [], true)).toEqual({ known: true, value: '10.1' });
    const second = attempts(
      ...ONE,
      [400, 'reading', { screen: 'stall', kWh: '8.1' }],
      [405, 'fault', { code: 'stopped_by_itself', side: 'network' }],
      [450, 'means_shown', CARD],
      [480, 'power_seen', KW],
      [500, 'reading', { screen: 'stall', kWh: '0.2' }],
      [900, 'stop_asked', {}],
    );
    expect(deliveredKWh(second, [], true)).toEqual({ known: true, value: '8.3', atLeast: true });
    expect(deliveredKWh(second, [{ attempts: [], kWh: '20' }], true)).toEqual({ known: true, value: '20' });
    expect(deliveredKWh(second, [{ attempts: [], kWh: '8.2' }], true)).toMatchObject({ atLeast: true });
  });
  it('bears no average, no price per kWh', () => {
    expect(wholeEnergy({ known: true, value: '3', atLeast: true })).toMatchObject({ known: false });
    expect(wholeEnergy({ known: true, value: '3' })).toEqual({ known: true, value: '3' });
    expect(wholeEnergy({ known: false, why: 'x' })).toEqual({ known: false, why: 'x' });
  });
});

describe('the meter', () => {
  const metered = (...readings: Record<string, unknown>[]) =>
    deliveredKWh(attempts(...ONE, ...readings.map((r, i): Step => [900 + i, 'reading', { screen: 'stall', ...r }]), [950, 'stop_asked', {}]), [], true);
  it('runs from its start to its end, in one reading or two, as decimals', () => {
    expect(metered({ meterStart: '10222.111', meterEnd: '10234.567' })).toEqual({ known: true, value: '12.456' });
    expect(metered({ meterStart: '0.1' }, { meterEnd: '0.3' })).toEqual({ known: true, value: '0.2' });
    expect(metered({ meterEnd: '112.5' }, { meterStart: '100' })).toEqual({ known: true, value: '12.5' });
  });
  it('backwards, or without its start, tells nothing, and a counter beside it counts', () => {
    expect(metered({ meterStart: '105', meterEnd: '100' })).toEqual({ known: false, why: 'the meter ran backwards, or its start was not read' });
    expect(metered({ meterEnd: '100' }).known).toBe(false);
    expect(metered({ meterStart: '105', meterEnd: '100', kWh: '7' })).toMatchObject({ value: '7' });
    expect(metered({ meterStart: '100', meterEnd: '100' })).toEqual({ known: true, value: '0' });
  });
  it('of the car is never mixed in', () => {
    expect(metered({ screen: 'car', meterStart: '1', meterEnd: '5', kWh: '4' }).known).toBe(false);
  });
});

describe('power', () => {
  // Common practice, no source: 50 kW is 0.83 kWh a minute, 150 kW 2.5 kWh a minute.
  it.each([
    ['0.8333333', 60, 50],
    ['2.5', 60, 150],
    ['5.8', 420, 49.7],
  ])('%s kWh in %i s is %d kW on average', (kWh, s, kW) => expect(averageKW(kWh, s)).toBeCloseTo(kW, 1));
  it('peaks on the stall’s screen, on the car’s only where the stall shows none', () => {
    const both = attempts(...ONE, [100, 'reading', { screen: 'car', kW: 118 }], [110, 'reading', { screen: 'stall', kW: 112 }]);
    expect(peakKW(both)).toEqual({ known: true, value: { kW: 112, screen: 'stall' } });
    expect(peakKW(attempts(...ONE, [100, 'reading', { screen: 'car', kW: 118 }]))).toEqual({ known: true, value: { kW: 118, screen: 'car' } });
    expect(peakKW(attempts(...ONE))).toEqual({ known: false, why: 'no kW was read' });
  });
});

describe('why there is no figure', () => {
  it('the meter, the screen, the bill', () => {
    const of = (...more: Step[]) => deliveredKWh(attempts(...ONE, ...more, [1000, 'stop_asked', {}]), [], true);
    expect(of([900, 'reading', { screen: 'stall', meterStart: '10', meterEnd: '9' }])).toEqual({
      known: false,
      why: 'the meter ran backwards, or its start was not read',
    });
    expect(of([900, 'reading', { screen: 'stall', meterEnd: '9' }], [950, 'reading', { screen: 'stall', kW: 5 }])).toEqual({
      known: false,
      why: 'the meter ran backwards, or its start was not read',
    });
    expect(of([900, 'reading', { screen: 'stall', kW: 9 }])).toEqual({ known: false, why: 'no kWh was read from the stall or the bill' });
    // One session read by its meter and another not at all: the meter is not what is missing.
    const [first, second] = [
      [400, 'reading', { screen: 'stall', meterStart: '10', meterEnd: '12' }],
      [900, 'reading', { screen: 'stall', kW: 9 }],
    ] as [Step, Step];
    const both = attempts(
      ...ONE,
      first,
      [410, 'fault', { code: 'stopped_by_itself', side: 'network' }],
      [450, 'means_shown', CARD],
      [480, 'power_seen', KW],
      second,
      [910, 'stop_asked', {}],
    );
    expect(deliveredKWh(both, [], true)).toEqual({ known: false, why: 'no kWh was read from the stall or the bill' });
  });
  it('one attempt of several left open is enough not to know', () => {
    const several = attempts(
      [10, 'plugged'],
      [60, 'fault', { code: 'start_error', side: 'network' }],
      [70, 'means_shown', CARD],
      [80, 'claimed', { by: 'app' }],
    );
    expect(deliveredKWh(several, [], true)).toEqual({ known: false, why: 'power was not recorded' });
  });
  it('of an early reading neither average nor price', () =>
    expect(wholeEnergy({ known: true, value: '9', atLeast: true })).toEqual({ known: false, why: 'the kWh were read before the charge was over' }));
  it('the peak is of readings with power', () => {
    expect(peakKW(attempts(...ONE, [100, 'reading', { screen: 'stall', socPct: 50 }], [200, 'reading', { screen: 'stall', kW: 60 }]))).toEqual({
      known: true,
      value: { kW: 60, screen: 'stall' },
    });
    expect(peakKW(attempts(...ONE, [100, 'reading', { screen: 'stall', socPct: 50 }]))).toEqual({ known: false, why: 'no kW was read' });
  });
});
