import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { chargeOf } from './charge-of';
import { sessionLooks } from './session-looks';

const START: Step[] = [
  [10, 'stall_chosen', { stallId: STALL_A }],
  [20, 'plugged'],
  [30, 'means_shown', CARD],
  [60, 'power_seen', KW],
];
const END: Step = [660, 'stop_asked', { by: 'button' }];
const reading = (s: number, more: object, screen = 'stall'): Step => [60 + s, 'reading', { screen, ...more }];
const visitOf = (arrival: object, ...steps: Step[]) => {
  const all: Step[] = [[0, 'pulled_in', { ...IN[2], ...arrival }], ...START, ...steps];
  return deriveVisit(VISIT, story(...all.sort((a, b) => a[0] - b[0])), payloadProblem);
};
const charge = (arrival: object, ...steps: Step[]) => {
  const v = visitOf(arrival, ...steps);
  return chargeOf(v.attempts.at(-1) as never, v);
};
const looks = (arrival: object, ...steps: Step[]) => {
  const v = visitOf(arrival, ...steps);
  return sessionLooks(v, v.attempts.at(-1) as never);
};

describe('a session as a series is made of it', () => {
  it('is counted in seconds from the proof of power, with what each screen showed', () => {
    expect(charge({}, reading(60, { kW: 50, socPct: 21, kWh: '0.8' }), reading(120, { kW: 49, V: 380, A: 129 }, 'car'), END)).toEqual({
      readings: [
        { t_s: 60, from: 'stall', kW: 50, socPct: 21, kWh: 0.8 },
        { t_s: 120, from: 'car', kW: 49, V: 380, A: 129 },
      ],
      pauses: [],
      end: { t_s: 600 },
    });
  });
  it('ends with the meter where it was read then, and with nothing where it was not', () => {
    expect(charge({}, reading(300, { kWh: '10' }), END, [662, 'reading', { screen: 'stall', kWh: '20.5' }])?.end).toEqual({ t_s: 600, kWh: 20.5 });
    expect(charge({}, reading(300, { kWh: '10' }), END)?.end).toEqual({ t_s: 600 });
    expect(charge({}, reading(300, { kWh: '10' }))?.end).toBeNull();
  });
  it('pauses are off its clock', () => {
    expect(charge({}, [160, 'change', { what: 'paused' }], [260, 'change', { what: 'resumed' }], END)?.pauses).toEqual([[100, 200]]);
  });
  it('the battery on arrival is the level at its start, on the screen that it was read from', () => {
    const at = (arrival: object, ...steps: Step[]) => charge(arrival, ...steps)?.readings[0];
    expect(at({ socPct: 19 }, reading(60, { socPct: 21 }))).toEqual({ t_s: -1, from: 'stall', socPct: 19 });
    expect(at({ socPct: 19 }, reading(60, { socPct: 21 }, 'car'))).toMatchObject({ from: 'car', socPct: 19 });
    // As often on both, or on neither: the car’s, which it was read from on arrival.
    expect(at({ socPct: 19 }, reading(60, { socPct: 21 }), reading(61, { socPct: 21 }, 'car'))).toMatchObject({ from: 'car' });
    expect(at({ socPct: 19 }, reading(60, { kW: 50 }))).toMatchObject({ from: 'car', socPct: 19 });
    // Read before power came it is known better.
    expect(at({ socPct: 19 }, reading(-10, { socPct: 20 }), reading(60, { socPct: 21 }))).toMatchObject({ t_s: -10, socPct: 20 });
    expect(at({}, reading(60, { socPct: 21 }))).toMatchObject({ t_s: 60 });
  });
  it('of a second session it is not, which begins where the first ended', () => {
    const again: Step[] = [
      [700, 'unplugged'],
      [720, 'plugged'],
      [730, 'means_shown', CARD],
      [760, 'power_seen', KW],
      [800, 'reading', { screen: 'stall', socPct: 30 }],
    ];
    expect(charge({ socPct: 19 }, reading(60, { socPct: 21 }), END, ...again)?.readings).toEqual([{ t_s: 40, from: 'stall', socPct: 30 }]);
  });
  it('an end and a reading of which only the day is known are no moment of it', () => {
    const day = (s: number, kind: Step[1], payload: object): Step => [s, kind, payload as never, { precision: 'day', origin: 'typed' }];
    const found = charge({}, reading(60, { socPct: 21 }), day(400, 'reading', { screen: 'stall', socPct: 25 }), day(660, 'stop_asked', { by: 'button' }));
    expect(found?.readings.map((r) => r.socPct)).toEqual([21]);
    expect(found?.end).toBeNull();
  });
  it('is none without power, and none of which only the day is known', () => {
    const v = deriveVisit(VISIT, story(IN, ...START.slice(0, 3), [90, 'fault', { code: 'start_error', side: 'network' }]), payloadProblem);
    expect(chargeOf(v.attempts[0] as never, v)).toBeNull();
    const typed = deriveVisit(
      VISIT,
      story(...[IN, ...START].map(([s, kind, payload]): Step => [s, kind, payload, { precision: 'day', origin: 'typed' }])),
      payloadProblem,
    );
    expect(typed.attempts[0] && chargeOf(typed.attempts[0], typed)).toBeNull();
  });
});

describe('a session in short', () => {
  const READ: Step[] = [
    reading(10, { socPct: 20, kW: 61.26, kWh: '0.2' }),
    reading(300, { socPct: 28.04, kW: 60, kWh: '5' }),
    reading(590, { socPct: 36, kW: 59, kWh: '10' }),
    END,
  ];
  it('has first and last level, the minutes between, and what each look showed', () => {
    expect(looks({}, ...READ)).toMatchObject({ from: 20, to: 36, charging_s: 600, peak_kW: 61.26, klass: 'usual', hindered: false, connector: null });
    expect(looks({}, ...READ)?.took_min).toBeCloseTo(580 / 60, 9);
    expect(looks({}, ...READ)?.looks).toEqual([
      [10, 20, 61.3],
      [300, 28, 60],
      [590, 36, 59],
    ]);
  });
  it.each([
    [{}, [], 'usual'],
    [{ airC: 5 }, [], 'cold'],
    [{ airC: 5.5 }, [], 'usual'],
    [{}, [[100, 'change', { what: 'cold' }] as Step], 'cold'],
    [{ airC: -5, preconditioned: true }, [[100, 'change', { what: 'cold' }] as Step], 'preconditioned'],
    [{ preconditioned: false }, [], 'usual'],
  ])('%j and %j: %s', (arrival, more, klass) => {
    expect(looks(arrival, ...more, ...READ)?.klass).toBe(klass);
  });
  it.each([
    ['neighbour_in', true],
    ['derate', true],
    ['climate_on', false],
    ['cold', false],
    ['rain', false],
  ])('%s noted: it shows not what the car could do: %s', (what, hindered) => {
    expect(looks({}, [100, 'change', { what }], ...READ)?.hindered).toBe(hindered);
  });
  it('a hot connector was there: neither', () => {
    expect(looks({}, [100, 'fault', { code: 'hot_connector', side: 'site' }], ...READ)?.hindered).toBe(true);
  });
  it('is none where nothing of its power or battery was read, and has no minutes of one level', () => {
    expect(looks({}, END)).toBeNull();
    expect(looks({ socPct: 20 }, END)).toBeNull();
    expect(looks({}, reading(10, { socPct: 20, kW: 60 }), END)).toMatchObject({ from: 20, to: 20, took_min: null, looks: [[10, 20, 60]] });
    expect(looks({}, reading(10, { kW: 60 }), END)).toMatchObject({ from: null, to: null, took_min: null, looks: [] });
  });
});
