import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { EARLY_S, endedEarly, interruptions, sessionEnd } from './session-end';

const START: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [10, 'plugged'], [20, 'means_shown', CARD], [60, 'power_seen', KW]];
const first = (...steps: Step[]) => {
  const [a] = deriveVisit(VISIT, story(...START, ...steps), payloadProblem).attempts;
  if (!a) throw new Error('no attempt');
  return a;
};
const gone = (why?: string): Step[] => [
  [2000, 'power_gone', why ? { why } : {}],
  [2100, 'unplugged'],
];

describe('how a session ended', () => {
  it.each<[string, Step[], ReturnType<typeof sessionEnd>]>([
    [
      'stop pressed',
      [
        [2000, 'stop_asked', {}],
        [2100, 'unplugged'],
      ],
      'wished',
    ],
    ['stop pressed, then power went', [[2000, 'stop_asked', {}], ...gone()], 'wished'],
    [
      'stop pressed, then a fault',
      [
        [2000, 'stop_asked', {}],
        [2010, 'fault', { code: 'stopped_by_itself', side: 'network' }],
      ],
      'wished',
    ],
    ['power went, as asked', gone('asked'), 'wished'],
    ['at the level the car was told', gone('car_target'), 'wished'],
    ['a limit of the site', gone('site_cap'), 'limit'],
    ['a limit of time', gone('time_limit'), 'limit'],
    ['the hold used up', gone('hold_used_up'), 'limit'],
    ['managed load', gone('load_management'), 'limit'],
    ['somebody else unplugged', gone('unplugged_by_other'), 'other'],
    ['the emergency stop', gone('emergency'), 'other'],
    ['a power cut', gone('power_cut'), 'itself'],
    ['a fault, it says', gone('fault'), 'itself'],
    ['nobody knows why', gone('unknown'), 'itself'],
    ['nobody said why', gone(), 'itself'],
    ['a fault', [[2000, 'fault', { code: 'stopped_by_itself', side: 'network' }]], 'itself'],
    ['a fault of a limit', [[2000, 'fault', { code: 'site_limit', side: 'site' }]], 'limit'],
    ['a fault that is an emergency stop', [[2000, 'fault', { code: 'emergency_stop', side: 'site' }]], 'other'],
    [
      'paused, and unplugged',
      [
        [2000, 'change', { what: 'paused' }],
        [2100, 'unplugged'],
      ],
      'itself',
    ],
    [
      'paused, then stop pressed',
      [
        [2000, 'change', { what: 'paused' }],
        [2050, 'stop_asked', {}],
        [2100, 'unplugged'],
      ],
      'itself',
    ],
    ['unplugged', [[2100, 'unplugged']], 'wished'],
    ['left with enough', [[2100, 'pulled_out', { reason: 'enough' }]], 'wished'],
    ['moved to another stall', [[2100, 'stall_chosen', { stallId: STALL_B }]], 'wished'],
    ['still charging', [], null],
    ['paused just now', [[2000, 'change', { what: 'paused' }]], null],
  ])('%s', (_, steps, end) => expect(sessionEnd(first(...steps))).toBe(end));
  it('without power there is no session to end', () => {
    const [a] = deriveVisit(VISIT, story(...START.slice(0, 4), [100, 'unplugged']), payloadProblem).attempts;
    expect(a && [sessionEnd(a), endedEarly(a, null), interruptions(a)]).toEqual([null, null, 0]);
  });
});

describe('an early end', () => {
  const fault = (at: number): Step => [at, 'fault', { code: 'stopped_by_itself', side: 'network' }];
  it.each<[string, Step[], string | null, boolean | null]>([
    ['within five minutes', [fault(60 + EARLY_S - 1)], '9', true],
    ['after five minutes', [fault(60 + EARLY_S)], '9', false],
    ['under one kWh, however long', [fault(2000)], '0.9', true],
    ['one kWh', [fault(2000)], '1', false],
    ['within five minutes, kWh unknown', [fault(100)], null, true],
    ['later, kWh unknown', [fault(2000)], null, false],
    ['by the driver', [[100, 'stop_asked', {}]], '0.2', false],
    ['not yet', [], '0.2', null],
  ])('%s', (_, steps, kWh, early) => expect(endedEarly(first(...steps), kWh)).toBe(early));
  it('cannot be told where neither the time nor the energy is known', () => {
    const day = first([2000, 'fault', { code: 'stopped_by_itself', side: 'network' }, { precision: 'day' }]);
    expect([endedEarly(day, null), endedEarly(day, '5'), endedEarly(day, '0.5')]).toEqual([null, false, true]);
  });
});

it('interruptions are the pauses and an end nobody asked for', () => {
  const pause: Step[] = [
    [500, 'change', { what: 'paused' }],
    [600, 'change', { what: 'resumed' }],
  ];
  expect(interruptions(first())).toBe(0);
  expect(interruptions(first(...pause))).toBe(1);
  expect(interruptions(first(...pause, [2000, 'stop_asked', {}]))).toBe(1);
  expect(interruptions(first(...pause, [2000, 'fault', { code: 'stopped_by_itself', side: 'network' }]))).toBe(2);
  expect(interruptions(first([2000, 'change', { what: 'paused' }], [2100, 'unplugged']))).toBe(1);
});
