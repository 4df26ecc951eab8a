import { chargeOf } from '../power/charge-of';
import { seriesOf } from '../power/series';
import { deriveVisit } from './derive';
import { describeEnd, describeStart } from './describe-visit';
import { CARD, IN, KW, SECOND_PHONE, STALL_A, STALL_B, type Step, story, T0, VISIT } from './fixtures/story';
import { nextAct } from './next-act';
import { payloadProblem } from './payloads';
import { powerProfile } from './power-profile';
import { thinTape } from './tape';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(IN, ...steps), payloadProblem);
const kinds = (...steps: Step[]) => visit(...steps).tape.map((s) => [s.kind, (s.from - T0) / 1000, (s.to - T0) / 1000]);
const START: Step[] = [
  [30, 'stall_chosen', { stallId: STALL_A }],
  [40, 'plugged'],
  [50, 'means_shown', CARD],
];

describe('the tape', () => {
  it('of a clean visit', () => {
    expect(
      kinds(...START, [80, 'power_seen', KW], [880, 'stop_asked', { by: 'button' }], [1000, 'unplugged'], [1060, 'pulled_out', { reason: 'enough' }]),
    ).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 80],
      ['energy', 80, 880],
      ['idle', 880, 1000],
      ['bare', 1000, 1060],
    ]);
  });
  it('of a failure, then another stall', () => {
    expect(kinds(...START, [90, 'fault', { code: 'start_error', side: 'network' }], [300, 'stall_chosen', { stallId: STALL_B }], [320, 'plugged'])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 90],
      ['fault', 90, 300],
      ['bare', 300, 320],
    ]);
  });
  it('of a queue given up', () => {
    expect(kinds([20, 'queue_joined'], [600, 'stall_free'], [620, 'pulled_out', { reason: 'queue' }])).toEqual([
      ['bare', 0, 20],
      ['queue', 20, 600],
      ['bare', 600, 620],
    ]);
  });
  const labelled = (...steps: Step[]) => visit(...steps).tape.map((s) => [s.kind, (s.from - T0) / 1000, (s.to - T0) / 1000, s.attempt, s.label]);
  const FULL: Step[] = [...START, [80, 'power_seen', KW]];
  it('names the attempt and the reason', () => {
    expect(labelled(...START, [90, 'fault', { code: 'start_error', side: 'network' }], [120, 'pulled_out', { reason: 'gave_up' }])).toEqual([
      ['bare', 0, 40, undefined, undefined],
      ['handshake', 40, 90, 1, undefined],
      ['fault', 90, 120, 1, 'Start error'],
    ]);
  });
  it('of one given up: lost from its first act, or from the last refusal', () => {
    expect(labelled(...START, [200, 'pulled_out', { reason: 'gave_up' }])).toEqual([
      ['bare', 0, 40, undefined, undefined],
      ['fault', 40, 200, 1, expect.any(String)],
    ]);
    expect(
      kinds(...START, [70, 'means_refused', CARD], [90, 'means_shown', CARD], [110, 'means_refused', CARD], [200, 'pulled_out', { reason: 'gave_up' }]),
    ).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 110],
      ['fault', 110, 200],
    ]);
  });
  it('of one whose power nobody saw, ended and going on', () => {
    expect(kinds(...START, [70, 'claimed', { by: 'app' }], [600, 'unplugged'], [700, 'pulled_out', { reason: 'enough' }])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 600],
      ['bare', 600, 700],
    ]);
    expect(kinds(...START, [70, 'note', { text: 'x' }], [300, 'change', { what: 'rain' }])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 300],
    ]);
  });
  it('of a charge with pauses, and one that is still paused', () => {
    const paused: Step[] = [...FULL, [200, 'change', { what: 'paused' }], [260, 'change', { what: 'resumed' }]];
    expect(labelled(...paused, [500, 'stop_asked', {}], [520, 'unplugged'])).toEqual([
      ['bare', 0, 40, undefined, undefined],
      ['handshake', 40, 80, 1, undefined],
      ['energy', 80, 200, 1, undefined],
      ['bare', 200, 260, 1, 'paused'],
      ['energy', 260, 500, 1, undefined],
      ['idle', 500, 520, 1, undefined],
    ]);
    expect(kinds(...FULL, [200, 'change', { what: 'paused' }], [600, 'unplugged'], [620, 'pulled_out', { reason: 'enough' }])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 80],
      ['energy', 80, 200],
      ['idle', 200, 600],
      ['bare', 600, 620],
    ]);
  });
  it('of a charge that a fault ended, to the next act', () => {
    expect(
      labelled(
        ...FULL,
        [500, 'fault', { code: 'stopped_by_itself', side: 'network' }],
        [530, 'note', { text: 'x' }],
        [560, 'unplugged'],
        [600, 'first_act', { what: 'again' }],
        [640, 'plugged'],
      ),
    ).toEqual([
      ['bare', 0, 40, undefined, undefined],
      ['handshake', 40, 80, 1, undefined],
      ['energy', 80, 500, 1, undefined],
      ['fault', 500, 600, 1, 'Stopped by itself'],
      ['handshake', 600, 640, 2, undefined],
    ]);
    // What somebody looking on did is no act of the driver.
    const seen = { role: 'observer' as const, deviceId: SECOND_PHONE };
    expect(
      kinds(
        ...START,
        [90, 'fault', { code: 'start_error', side: 'network' }],
        [300, 'means_shown', CARD, seen],
        [400, 'stall_chosen', { stallId: STALL_B }],
      ).at(-1),
    ).toEqual(['fault', 90, 400]);
  });
  it('of a charge that was left running, or not unplugged', () => {
    expect(kinds(...FULL, [500, 'reading', { screen: 'stall', kW: 50 }])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 80],
      ['energy', 80, 500],
    ]);
    expect(kinds(...FULL, [500, 'stop_asked', {}], [520, 'power_gone', { why: 'asked' }], [700, 'pulled_out', { reason: 'enough' }])).toEqual([
      ['bare', 0, 40],
      ['handshake', 40, 80],
      ['energy', 80, 520],
      ['idle', 520, 700],
    ]);
  });
  it('draws the energy from the stall’s kW, else from the car’s', () => {
    const kW = (...steps: Step[]) =>
      visit(...FULL, ...steps)
        .tape.find((s) => s.kind === 'energy')
        ?.kW?.map((p) => [(p.t - T0) / 1000, p.kW]);
    const read = (at: number, screen: string, more: object): Step => [at, 'reading', { screen, ...more }];
    expect(kW(read(100, 'car', { kW: 70 }), read(200, 'stall', { kW: 60 }), read(300, 'stall', { socPct: 50 }))).toEqual([[200, 60]]);
    expect(kW(read(100, 'car', { kW: 70 }), read(200, 'stall', { socPct: 50 }))).toEqual([[100, 70]]);
    expect(kW(read(100, 'car', { socPct: 70 }))).toEqual([]);
  });
  it('of nothing is nothing', () => expect(deriveVisit(VISIT, [], payloadProblem).tape).toEqual([]));
  it('of a queue within the wait for a stall: bare before and after it', () => {
    expect(
      kinds(
        [20, 'queue_joined'],
        [600, 'stall_free'],
        [630, 'stall_chosen', { stallId: STALL_A }],
        [640, 'plugged'],
        [700, 'note', { text: 'x' }],
        [710, 'change', { what: 'rain' }],
      ),
    ).toEqual([
      ['bare', 0, 20],
      ['queue', 20, 600],
      ['bare', 600, 640],
      ['handshake', 640, 710],
    ]);
  });
  it('a bill days later does not lengthen it', () => {
    const v = visit(
      ...START,
      [60, 'pulled_out', { reason: 'called_away' }],
      [90_000, 'bill', { sessions: [], amount: '1', currency: 'EUR', state: 'charged' }],
    );
    expect(v.tape.at(-1)?.to).toBe(T0 + 60_000);
  });
  it('thins to kinds and whole seconds', () => {
    expect(thinTape(visit(...START, [80.4, 'power_seen', KW], [880, 'stop_asked', { by: 'button' }]).tape)).toEqual([
      ['bare', 40],
      ['handshake', 40],
      ['energy', 800],
    ]);
  });
});

it('the paint is made of the looks that the curve is made of: the screen read more often, else the stall’s, volts × amps too', () => {
  const car = (s: number, more: object): Step => [s, 'reading', { screen: 'car', ...more }];
  const stall = (s: number, more: object): Step => [s, 'reading', { screen: 'stall', ...more }];
  const painted = (...steps: Step[]) => {
    const v = visit(...START, [80, 'power_seen', KW], ...steps, [880, 'stop_asked', { by: 'button' }]);
    const charge = chargeOf(v.attempts[0] as never, v);
    const points = v.tape.find((s) => s.kind === 'energy')?.kW?.map((p) => p.kW);
    expect(points).toEqual(charge ? seriesOf(charge).power.map((k) => k.kW) : []);
    return [points, v.peak];
  };
  expect(painted(stall(100, { kW: 90 }), car(200, { kW: 85 }))).toEqual([[90], { known: true, value: { kW: 90, screen: 'stall' } }]);
  expect(painted(stall(100, { kW: 90 }), car(200, { kW: 85 }), car(300, { kW: 88 }))).toEqual([[85, 88], { known: true, value: { kW: 88, screen: 'car' } }]);
  expect(painted(stall(100, { V: 400, A: 200 }), stall(200, { V: 400 }))).toEqual([[80], { known: true, value: { kW: 80, screen: 'stall' } }]);
  expect(painted()).toEqual([[], { known: false, why: 'no kW was read' }]);
});

describe('the outline of the energy', () => {
  const segment = { kind: 'energy' as const, from: 0, to: 100 };
  it('is held level before the first reading and after the last', () => {
    expect(
      powerProfile({
        ...segment,
        kW: [
          { t: 20, kW: 90 },
          { t: 60, kW: 70 },
        ],
      }),
    ).toEqual([
      { t: 0, kW: 90 },
      { t: 20, kW: 90 },
      { t: 60, kW: 70 },
      { t: 100, kW: 70 },
    ]);
  });
  it('is nothing where no kW was read', () => expect(powerProfile(segment)).toEqual([]));
  it('after a pause goes on from the reading before', () =>
    expect(powerProfile({ ...segment, from: 50, kW: [{ t: 20, kW: 90 }] })).toEqual([
      { t: 50, kW: 90 },
      { t: 100, kW: 90 },
    ]));
});

describe('the yellow pad proposes', () => {
  const USUAL = { carIsMeans: false, payFirst: false, adapter: false };
  const proposed = (...steps: Step[]) => nextAct(visit(...steps), USUAL);
  it('one act after the other through a clean visit', () => {
    const clean: Step[] = [
      ...START,
      [80, 'power_seen', KW],
      [880, 'stop_asked', { by: 'button' }],
      [1000, 'unplugged'],
      [1060, 'pulled_out', { reason: 'enough' }],
      [1100, 'bill', { sessions: [], amount: '9', currency: 'EUR', state: 'charged' }],
    ];
    expect(clean.map((_, i) => proposed(...clean.slice(0, i)))).toEqual([
      'choose_stall',
      'plugged',
      'means_shown',
      'power_seen',
      'reading',
      'unplugged',
      'pulled_out',
      'bill',
    ]);
    expect(proposed(...clean)).toBe('done');
  });
  it('the card first where that is the order that works, then the plug, then power', () => {
    const first = (...steps: Step[]) => nextAct(visit(...steps), { ...USUAL, payFirst: true });
    const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
    expect(first(IN, chosen)).toBe('means_shown');
    expect(first(IN, chosen, [20, 'means_shown', CARD])).toBe('plugged');
    expect(first(IN, chosen, [20, 'means_shown', CARD], [30, 'plugged'])).toBe('power_seen');
    expect(first(IN, chosen, [20, 'means_shown', CARD], [25, 'means_refused', CARD])).toBe('means_shown');
  });
  it('the adapter before all else, once', () => {
    const with_ = (...steps: Step[]) => nextAct(visit(...steps), { ...USUAL, adapter: true });
    const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
    expect(with_(IN, chosen)).toBe('adapter_fitted');
    expect(with_(IN, chosen, [12, 'adapter_fitted', {}])).toBe('plugged');
  });
  it('a start, not the leaving, once a stall was chosen or an act begun after a charge or a failure', () => {
    const charged: Step[] = [...START, [80, 'power_seen', KW], [880, 'stop_asked'], [890, 'power_gone', { why: 'asked' }]];
    const out: Step[] = [...charged, [900, 'unplugged']];
    expect(proposed(...charged)).toBe('unplugged');
    expect(proposed(...out)).toBe('pulled_out');
    expect(proposed(...out, [950, 'stall_chosen', { stallId: STALL_B }])).toBe('plugged');
    expect(proposed(...out, [950, 'stall_chosen', { stallId: STALL_A }])).toBe('plugged');
    expect(proposed(...out, [950, 'first_act', { what: 'again' }])).toBe('plugged');
    expect(proposed(...out, [950, 'first_act', { what: 'again' }, { role: 'observer', deviceId: SECOND_PHONE, seq: 1 }])).toBe('pulled_out');
    const failed: Step[] = [...START, [90, 'fault', { code: 'start_error', side: 'network' }]];
    expect(proposed(...failed)).toBe('unplugged');
    expect(proposed(...failed, [95, 'first_act', { what: 'again' }])).toBe('means_shown');
    expect(nextAct(visit(...failed, [95, 'first_act', { what: 'again' }]), { ...USUAL, carIsMeans: true })).toBe('means_shown');
    expect(proposed(...failed, [95, 'first_act', { what: 'again' }], [99, 'means_shown', CARD])).toBe('power_seen');
    expect(proposed(...failed, [95, 'unplugged'])).toBe('plugged');
  });
  it('the plug, not a stall to choose, at a place that has no name yet', () => {
    const somewhere = (...steps: Step[]) => nextAct(deriveVisit(VISIT, story([0, 'pulled_in', {}], ...steps), payloadProblem), USUAL);
    expect(somewhere()).toBe('plugged');
    expect(somewhere([10, 'plugged'])).toBe('means_shown');
    expect(proposed()).toBe('choose_stall');
  });
  it('power, once the helpline started it, until the next failure', () => {
    const failed: Step[] = [...START, [90, 'fault', { code: 'start_error', side: 'network' }]];
    const helped = (result: string): Step[] => [
      [100, 'help_called'],
      [200, 'help_ended', { result }],
    ];
    expect(proposed(...failed, ...helped('remote_start'))).toBe('power_seen');
    expect(proposed(...failed, ...helped('reset'))).toBe('unplugged');
    expect(proposed(...failed, ...helped('remote_start'), [210, 'power_seen', KW])).toBe('reading');
    expect(proposed(...failed, ...helped('remote_start'), [210, 'claimed', { by: 'screen' }], [260, 'fault', { code: 'start_error', side: 'network' }])).toBe(
      'unplugged',
    );
    // Not plugged yet: first the plug, then power.
    expect(proposed(START[0] as Step, ...helped('remote_start'))).toBe('plugged');
    expect(proposed(START[0] as Step, ...helped('remote_start'), [220, 'plugged'])).toBe('power_seen');
  });
  it('a call, never the plug, after a fault that can hurt, until somebody was called or the stall was left', () => {
    const danger: Step[] = [...START, [70, 'fault', { code: 'danger', side: 'site' }]];
    expect(proposed(...danger)).toBe('call_help');
    expect(proposed(...danger, [80, 'help_called'], [200, 'help_ended', { result: 'none' }])).not.toBe('call_help');
    expect(proposed(...danger, [90, 'stall_chosen', { stallId: STALL_B }])).toBe('plugged');
  });
  it('power at once when the car is the means', () => expect(nextAct(visit(...START.slice(0, 2)), { ...USUAL, carIsMeans: true })).toBe('power_seen'));
  it('the card again after a refusal', () => expect(proposed(...START, [60, 'means_refused', CARD])).toBe('means_shown'));
  it('the plug at the next stall', () =>
    expect(proposed(...START, [90, 'fault', { code: 'start_error', side: 'network' }], [120, 'stall_chosen', { stallId: STALL_B }])).toBe('plugged'));
  it('no bill for a visit without a charge', () => expect(proposed([60, 'pulled_out', { reason: 'queue' }])).toBe('done'));
});

describe('what a list row says', () => {
  it.each([
    [{ attempts: 0, failed: 0, ended: 'none' as const, handshake_s: null, handshakeBound: null }, 'no attempt'],
    [{ attempts: 1, failed: 0, ended: 'charge' as const, handshake_s: 12.04, handshakeBound: 'exact' }, 'first try, 12.0 s handshake'],
    [{ attempts: 1, failed: 0, ended: 'charge' as const, handshake_s: 240, handshakeBound: 'at_most' }, 'first try, at most 4:00 handshake'],
    [{ attempts: 3, failed: 2, ended: 'charge' as const, handshake_s: 33.4, handshakeBound: 'exact' }, '3 attempts, 33.4 s handshake'],
    [{ attempts: 1, failed: 1, ended: 'none' as const, handshake_s: null, handshakeBound: null }, '1 attempt failed'],
    [{ attempts: 1, failed: 0, ended: 'open' as const, handshake_s: null, handshakeBound: null }, '1 attempt'],
  ])('%j: %s', (v, text) => expect(describeStart(v)).toBe(text));
  it('of the end', () => {
    expect(describeEnd({ state: 'over', ended: 'none', leftReason: 'gave_up' })).toBe('gave up');
    expect(describeEnd({ state: 'left_open', ended: 'open', leftReason: null })).toBe('left open');
    expect(describeEnd({ state: 'over', ended: 'charge', leftReason: 'enough' })).toBe('');
  });
});
