import { deriveVisit } from './derive';
import { APP, CARD, IN, KW, SECOND_PHONE, STALL_A, STALL_B, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const of = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem).firstTry;
const tried = (...steps: Step[]) => of(IN, chosen, [10, 'plugged'], ...steps);
const out = (reason: string, at = 300): Step => [at, 'pulled_out', { reason }];
const looked = (...states: string[]): Step => [20, 'survey', { stalls: states.map((state, i) => ({ stallId: i === 0 ? STALL_A : STALL_B, state })) }];

// The rules under test are those of docs/definitions.md, "Counting".
describe('a start at the first try', () => {
  it('is the first attempt and the first showing', () => {
    expect(tried([20, 'means_shown', CARD], [50, 'power_seen', KW])).toEqual({ answer: 'yes', why: 'power on attempt 1', side: null });
    expect(tried([50, 'power_seen', KW]).answer).toBe('yes');
    expect(tried([20, 'means_shown', CARD], [50, 'reading', { screen: 'car', kW: 9 }]).answer).toBe('yes');
  });
  it('is none after a second showing or a refusal: five swipes must not look like one', () => {
    const swipes = Array.from({ length: 5 }, (_, i): Step => [20 + i, 'means_shown', CARD]);
    expect(tried(...swipes, [50, 'power_seen', KW])).toEqual({ answer: 'no', why: 'started after 5 shows', side: 'payment' });
    expect(tried([20, 'means_shown', APP], [25, 'means_shown', CARD], [50, 'power_seen', KW]).why).toBe('started after 2 shows');
    expect(tried([20, 'means_shown', CARD], [25, 'means_refused', { ...CARD, fault: 'app_unreachable' }], [50, 'power_seen', KW])).toEqual({
      answer: 'no',
      why: 'started after a refusal',
      side: 'network',
    });
  });
  it('asks nothing of what was shown once there was power: a card stops a charge too', () => {
    expect(tried([20, 'means_shown', CARD], [50, 'power_seen', KW], [900, 'means_shown', CARD], [905, 'means_refused', CARD]).answer).toBe('yes');
  });
  it('counts what an onlooker alone saw of the means for nothing', () => {
    const other = { deviceId: SECOND_PHONE, role: 'observer' as const, seq: 1 };
    expect(tried([20, 'means_shown', CARD], [60, 'means_shown', CARD, other], [90, 'power_seen', KW]).answer).toBe('yes');
  });
  it('is none where the first attempt failed, whatever came of the second', () => {
    expect(tried([60, 'fault', { code: 'start_error', side: 'network' }], [90, 'plugged'], [120, 'power_seen', KW])).toEqual({
      answer: 'no',
      why: 'Start error',
      side: 'network',
    });
  });
});

describe('no usable stall is no start, however it was noted', () => {
  it.each([
    ['left as closed', [out('closed')], 'closed'],
    ['every bay dark or closed', [looked('dark', 'closed'), out('gave_up')], 'no usable stall'],
    ['every bay dark, left as a queue', [looked('dark'), out('queue')], 'no usable stall'],
    ['a fault before any stall was chosen', [[20, 'fault', { code: 'stall_dark', side: 'network' }], out('gave_up')], 'Stall dark or out of order'],
    ['the stall chosen, then found dead', [chosen, [20, 'fault', { code: 'stall_dark', side: 'network' }], out('gave_up')], 'Stall dark or out of order'],
  ] as [string, Step[], string][])('%s', (_, steps, why) => expect(of(IN, ...steps)).toMatchObject({ answer: 'no', why }));
  it('all counted as out of order on arrival', () => {
    const seen = (total: number, outOfOrder: number): Step => [0, 'pulled_in', { ...IN[2], seen: { total, outOfOrder } }];
    expect(of(seen(4, 4), out('gave_up')).answer).toBe('no');
    expect(of(seen(4, 3), out('gave_up')).answer).toBe('left_out');
    expect(of(seen(0, 0), out('gave_up')).answer).toBe('left_out');
  });
  it('one free bay among the dark is a usable one', () => expect(of(IN, looked('dark', 'free'), out('gave_up')).answer).toBe('left_out'));
  it('bays that nobody looked at say nothing', () => expect(of(IN, looked('not_looked', 'not_looked'), out('gave_up')).answer).toBe('left_out'));
});

describe('left out and counted beside', () => {
  it.each([
    ['left for the queue', of(IN, out('queue'))],
    ['left for the price', of(IN, out('price'))],
    ['left for the price', tried([20, 'means_shown', CARD], out('price'))],
    ['left for the queue', tried(out('queue'))],
    ['only claimed', tried([20, 'means_shown', CARD], [40, 'claimed', { by: 'screen' }], out('enough'))],
    ['still open', tried([20, 'means_shown', CARD])],
    ['no attempt yet', of(IN)],
    ['no attempt', of(IN, out('called_away'))],
  ])('%s', (why, said) => expect(said).toEqual({ answer: 'left_out', why, side: null }));
  it('but not where a card was refused before the driver left for the price', () => {
    expect(tried([20, 'means_shown', CARD], [25, 'means_refused', CARD], out('price'))).toMatchObject({ answer: 'no', side: 'payment' });
  });
  it('a queue beside one dark stall is a queue', () => {
    expect(of(IN, [20, 'fault', { code: 'stall_dark', side: 'network' }], looked('charging', 'charging'), out('queue')).answer).toBe('left_out');
  });
});

describe('starts at the first try', () => {
  const visit = (...steps: Step[]) => deriveVisit(VISIT, story(IN, chosen, ...steps), payloadProblem);
  const answer = (...steps: Step[]) => visit(...steps).firstTry.answer;
  const start: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
  ];
  it('yes with power, even when it dies later', () =>
    expect(answer(...start, [50, 'power_seen', KW], [90, 'fault', { code: 'stopped_by_itself', side: 'network' }])).toBe('yes'));
  it('no when attempt 1 failed: attempt 2 is never promoted', () =>
    expect(
      answer(
        ...start,
        [60, 'fault', { code: 'timed_out', side: 'network' }],
        [70, 'unplugged'],
        [80, 'plugged'],
        [85, 'means_shown', CARD],
        [100, 'power_seen', KW],
      ),
    ).toBe('no'));
  it('no when given up', () => expect(answer(...start, [300, 'pulled_out', { reason: 'gave_up' }])).toBe('no'));
  it('left out when only claimed or still open', () => {
    expect(answer(...start, [40, 'claimed', { by: 'screen' }], [300, 'pulled_out', { reason: 'called_away' }])).toBe('left_out');
    expect(answer(...start)).toBe('left_out');
  });
  it('yes when its bill has energy though nobody saw power', () => {
    expect(
      answer(
        ...start,
        [40, 'claimed', { by: 'screen' }],
        [900, 'pulled_out', { reason: 'enough' }],
        [990, 'bill', { sessions: [], amount: '8.00', currency: 'EUR', kWh: '14.2', state: 'charged' }],
      ),
    ).toBe('yes');
  });
  it('left out without an attempt', () => expect(answer([300, 'pulled_out', { reason: 'queue' }])).toBe('left_out'));
});
