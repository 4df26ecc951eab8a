import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { ATTEMPT_FIGURES, type AttemptFigure } from './attempt-figures';
import { GROUPINGS, groupOfAttempt, groupOfVisit } from './groupings';
import { attemptTest, POPULATIONS, visitTest } from './populations';
import { VISIT_FIGURES, yesNo } from './visit-figures';

const START: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [10, 'plugged'], [20, 'means_shown', CARD], [60, 'power_seen', KW]];
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...START, ...steps), payloadProblem);
const figure = (name: AttemptFigure, v: ReturnType<typeof visit>, n = 1) => {
  const attempt = v.attempts[n - 1];
  if (!attempt) throw new Error(`no attempt ${n}`);
  return ATTEMPT_FIGURES[name].value(
    { attempt, visit: v },
    { networkOfSite: () => undefined, stall: () => ({ siteId: 's', model: '', connectors: ['CCS2', 'CHAdeMO'] }) },
  );
};

describe('a stuck handle', () => {
  const again: Step[] = [
    [300, 'stall_chosen', { stallId: STALL_B }],
    [310, 'plugged'],
    [320, 'means_shown', CARD],
    [360, 'power_seen', KW],
    [500, 'unplugged'],
  ];
  it.each<[string, Step[], 'yes' | 'no' | null]>([
    ['unplugged without trouble', [[200, 'unplugged']], 'no'],
    [
      'said to be stuck',
      [
        [190, 'stuck', { end: 'car' }],
        [200, 'unplugged'],
      ],
      'yes',
    ],
    [
      'noted as a fault',
      [
        [190, 'fault', { code: 'handle_stuck', side: 'network' }],
        [200, 'unplugged'],
      ],
      'yes',
    ],
    [
      'locked in the post',
      [
        [190, 'fault', { code: 'cable_locked', side: 'network' }],
        [200, 'unplugged'],
      ],
      'yes',
    ],
    [
      'another fault',
      [
        [190, 'fault', { code: 'hot_connector', side: 'network' }],
        [200, 'unplugged'],
      ],
      'no',
    ],
    ['stuck, and never seen unplugged', [[190, 'stuck', { end: 'car' }]], 'yes'],
    ['not seen unplugged', [[190, 'stop_asked', {}]], null],
    ['at the next stall', [[200, 'unplugged'], ...again, [490, 'stuck', { end: 'car' }]], 'no'],
  ])('%s', (_, steps, stuck) => expect(figure('stuck', visit(...steps))).toBe(stuck));
  it('is of the attempt after which it was, and of none without power', () => {
    expect(figure('stuck', visit([200, 'unplugged'], ...again, [490, 'stuck', { end: 'car' }]), 2)).toBe('yes');
    const dead = deriveVisit(VISIT, story(...START.slice(0, 4), [90, 'stuck', { end: 'car' }], [100, 'unplugged']), payloadProblem);
    expect(figure('stuck', dead)).toBeNull();
    // What was noted before the power came is no stuck handle after the session.
    const before = deriveVisit(VISIT, story(...START.slice(0, 4), [40, 'stuck', { end: 'car' }], [60, 'power_seen', KW], [200, 'unplugged']), payloadProblem);
    expect(figure('stuck', before)).toBe('no');
  });
});

describe('how an attempt was let on and ended', () => {
  const of = (name: AttemptFigure, ...steps: Step[]) => figure(name, deriveVisit(VISIT, story(IN, [10, 'plugged'], ...steps), payloadProblem));
  const refused: Step = [30, 'means_refused', { ...CARD, fault: 'card_refused' }];
  it.each<[string, Step[], 'yes' | 'no' | null]>([
    [
      'accepted',
      [
        [20, 'means_shown', CARD],
        [30, 'means_accepted', CARD],
      ],
      'yes',
    ],
    [
      'power without a word of acceptance',
      [
        [20, 'means_shown', CARD],
        [60, 'power_seen', KW],
      ],
      'yes',
    ],
    ['refused', [[20, 'means_shown', CARD], refused], 'no'],
    ['refused, then accepted', [[20, 'means_shown', CARD], refused, [40, 'means_shown', CARD], [50, 'means_accepted', CARD]], 'no'],
    [
      'shown again before anything came of it',
      [
        [20, 'means_shown', CARD],
        [40, 'means_shown', CARD],
        [50, 'means_accepted', CARD],
      ],
      'no',
    ],
    [
      'accepted, then shown again',
      [
        [20, 'means_shown', CARD],
        [30, 'means_accepted', CARD],
        [40, 'means_shown', CARD],
      ],
      'yes',
    ],
    ['no answer yet', [[20, 'means_shown', CARD]], null],
    ['nothing shown', [[60, 'power_seen', KW]], null],
  ])('the first showing: %s', (_, steps, shown) => expect(of('firstShown', ...steps)).toBe(shown));
  it('whose refusal, whose side, and whether all was well', () => {
    expect(of('refusedBy', [20, 'means_shown', CARD], [30, 'means_refused', { ...CARD, fault: 'app_unreachable' }])).toBe('network');
    expect(of('refusedBy', [20, 'means_shown', CARD])).toBeNull();
    const by = (side: string): Step => [90, 'fault', { code: 'stopped_by_itself', side }];
    expect(of('side', [20, 'means_shown', CARD], [60, 'power_seen', KW], by('car'))).toBe('car');
    expect(of('side', [20, 'means_shown', CARD], by('site'))).toBe('site');
    expect(of('side', [20, 'means_shown', CARD], [60, 'power_seen', KW], [90, 'unplugged'])).toBeNull();
    expect(of('good', [20, 'means_shown', CARD], [60, 'power_seen', KW], by('car'))).toBe('no');
    expect(of('good', [20, 'means_shown', CARD], [60, 'power_seen', KW], [90, 'unplugged'])).toBe('yes');
    expect(of('good', [20, 'means_shown', CARD], [60, 'power_seen', KW])).toBeNull();
    expect(of('good', [20, 'means_shown', CARD], [60, 'pulled_out', { reason: 'gave_up' }])).toBe('no');
  });
  it('early, by the energy where the time is long: what is at least so much tells nothing', () => {
    const read = (kWh: string, at: number): Step => [at, 'reading', { screen: 'stall', kWh, kW: 50 }];
    const fault: Step = [2000, 'fault', { code: 'stopped_by_itself', side: 'network' }];
    expect(figure('early', visit(read('0.4', 1999), fault))).toBe('yes');
    expect(figure('early', visit(read('9', 1999), fault))).toBe('no');
    expect(figure('early', visit(read('0.4', 100), fault))).toBe('no');
  });
  it('charging and its ±, a stall of two connectors and no model', () => {
    const v = visit([1000, 'stop_asked', {}], [1100, 'unplugged']);
    expect([figure('charging', v), figure('pm', v), figure('connector', v), figure('model', v)]).toEqual([940, 0, null, null]);
    expect(figure('charging', visit())).toBeNull();
    expect(of('pm', [60, 'power_seen', KW])).toBe(0);
    expect(of('pm', [20, 'means_shown', CARD])).toBeNull();
    expect(yesNo(null)).toBeNull();
  });
});

describe('figures of a visit that comparisons read', () => {
  it('queue, helpline, price, bays, hour and trial', () => {
    const v = deriveVisit(
      VISIT,
      story(
        [0, 'pulled_in', { seen: { free: 0, total: 4, outOfOrder: 1 } }],
        [10, 'price_shown', { where: 'screen', text: '0.59' }],
        [60, 'stall_chosen', { stallId: STALL_A }],
        [70, 'help_called'],
        [100, 'help_answered'],
        [110, 'trial_round', { trialId: STALL_B, round: 1, side: 'a' }],
      ),
      payloadProblem,
    );
    const got = Object.fromEntries(
      (['queue_s', 'helpAnswered_s', 'priceBefore', 'baysSeen', 'baysOut', 'trialId', 'leftOut', 'noted', 'faultMarks'] as const).map((n) => [
        n,
        VISIT_FIGURES[n].value(v),
      ]),
    );
    expect(got).toEqual({
      queue_s: 60,
      helpAnswered_s: 30,
      priceBefore: 'yes',
      baysSeen: 4,
      baysOut: 1,
      trialId: STALL_B,
      leftOut: true,
      noted: false,
      faultMarks: '',
    });
    const day = deriveVisit(VISIT, story([0, 'pulled_in', {}, { precision: 'day' }]), payloadProblem);
    expect([VISIT_FIGURES.hour.value(day), VISIT_FIGURES.hour.value(v)]).toEqual([null, 13]);
    expect(VISIT_FIGURES.hour.value(deriveVisit(VISIT, story([5, 'note', { text: 'x' }]), payloadProblem))).toBeNull();
  });
});

describe('within a group', () => {
  const asked = { time: 'handshake', mark: 'kW', currency: 'EUR' } as const;
  const row = {
    leftOut: false,
    attemptCount: 2,
    firstTry: 'no',
    networkId: 'N',
    hour: 7,
    attempts: [
      { n: 1, outcome: 'failed', meansKind: 'app' },
      { n: 2, outcome: 'power', meansKind: 'rfid' },
    ],
  } as const;
  const holds = (name: 'first_no' | 'start_yes' | 'start_no', by: keyof typeof GROUPINGS, key: string) =>
    visitTest(POPULATIONS[name].who({ ...asked, groups: [{ by, key }] }))(row as never);
  it('a figure of whole visits is where the first attempt was, one of attempts where each was', () => {
    expect([holds('first_no', 'means', 'app'), holds('first_no', 'means', 'rfid')]).toEqual([true, false]);
    expect([holds('start_yes', 'means', 'app'), holds('start_yes', 'means', 'rfid')]).toEqual([false, true]);
    expect([holds('start_no', 'means', 'app'), holds('start_no', 'means', 'rfid')]).toEqual([true, false]);
  });
  it('by what stands with the visit, numbers as numbers', () => {
    expect([holds('first_no', 'network', 'N'), holds('first_no', 'network', 'M')]).toEqual([true, false]);
    expect([holds('start_yes', 'hour', '7'), holds('start_yes', 'hour', '8'), holds('first_no', 'hour', '7')]).toEqual([true, false, true]);
  });
  it('an attempt by one value, by several, by none of them', () => {
    expect(attemptTest([{ figure: 'side', isNot: ['car'] }])({ side: 'car' })).toBe(false);
    expect(attemptTest([{ figure: 'side', isNot: ['car'] }])({ side: null })).toBe(true);
    expect(attemptTest([{ figure: 'sessionEnd', is: ['limit', 'other'] }])({ sessionEnd: 'other' })).toBe(true);
    expect(attemptTest([{ figure: 'sessionEnd', is: ['limit', 'other'] }])({ sessionEnd: 'wished' })).toBe(false);
  });
  it('keys are what the figures say, as text; none where nobody noted it', () => {
    expect([groupOfVisit('hour', row), groupOfVisit('means', row), groupOfVisit('weather', row), groupOfVisit('means', { attempts: [] })]).toEqual([
      '7',
      'app',
      null,
      null,
    ]);
    expect([
      groupOfAttempt('means', row, row.attempts[1]),
      groupOfAttempt('network', row, row.attempts[1]),
      groupOfAttempt('adapter', row, row.attempts[1]),
    ]).toEqual(['rfid', 'N', null]);
  });
  it('words for keys that are no record', () => {
    const words = (by: 'hour' | 'weather' | 'model' | 'month' | 'means', key: string) => GROUPINGS[by].named(key);
    expect([words('hour', '7'), words('hour', '23'), words('model', 'Twin'), words('month', '2025-10'), words('means', 'rfid')]).toEqual([
      '07:00 to 08:00',
      '23:00 to 00:00',
      'Twin',
      'Oct 2025',
      'RFID card',
    ]);
    expect([words('month', '2025-13'), words('month', 'x'), words('hour', '0')]).toEqual(['2025-13', 'x', '00:00 to 01:00']);
    expect(['rain', 'cold', 'mild', 'hot', 'hail'].map((k) => words('weather', k))).toEqual(['Rain', 'Cold', 'Mild', 'Hot', 'hail']);
  });
});
