import { deriveVisit } from '../derive';
import type { StoredEvent } from '../event';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from '../fixtures/story';
import { payloadProblem } from '../payloads';

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const attemptsOf = (...steps: Step[]) => derive(story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps)).attempts;
const outcomes = (...steps: Step[]) => attemptsOf(...steps).map((a) => a.outcome.kind);

describe('power that stops and comes back', () => {
  const start: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [50, 'power_seen', KW],
    [400, 'power_gone', { why: 'unknown' }],
  ];
  it('without an act of the driver is the same attempt, paused', () => {
    const [a, ...more] = attemptsOf(...start, [490, 'power_seen', KW], [1050, 'stop_asked', { by: 'button' }]);
    expect(more).toEqual([]);
    expect(a?.times.charging).toMatchObject({ known: true, s: 1000 - 90 });
  });
  it('with an act is a new attempt', () => {
    expect(outcomes(...start, [430, 'means_shown', CARD], [490, 'power_seen', KW])).toEqual(['power', 'power']);
  });
  it('a figure that stays on the screen does not bring it back, kW above zero does', () => {
    expect(attemptsOf(...start, [450, 'reading', { screen: 'stall', kWh: '9.1' }])[0]?.pauses).toHaveLength(0);
    expect(attemptsOf(...start, [450, 'reading', { screen: 'stall', kW: 60 }])[0]?.pauses).toHaveLength(1);
  });
  it('and never comes back: the attempt ended when it went', () => {
    const [a] = attemptsOf(...start, [900, 'unplugged'], [960, 'pulled_out', { reason: 'enough' }]);
    expect(a?.ended).toMatchObject({ by: 'power_gone' });
    expect(a?.times.charging).toMatchObject({ s: 350 });
  });
});

describe('a pause', () => {
  const start: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [100, 'power_seen', KW],
  ];
  const words: [string, Step][] = [
    ['paused', [200, 'change', { what: 'paused' }]],
    ['power gone', [200, 'power_gone', {}]],
  ];
  const again: [string, Step][] = [
    ['resumed', [250, 'change', { what: 'resumed' }]],
    ['power seen', [250, 'power_seen', KW]],
    ['kW read', [250, 'reading', { screen: 'stall', kW: 30 }]],
    ['amps read', [250, 'reading', { screen: 'car', A: 30 }]],
  ];
  const ends: [string, Step[]][] = [
    [
      'a stop',
      [
        [500, 'stop_asked', {}],
        [510, 'power_gone', { why: 'asked' }],
      ],
    ],
    ['power gone, asked', [[500, 'power_gone', { why: 'asked' }]]],
    ['unplugging', [[500, 'unplugged']]],
    ['a move', [[500, 'stall_chosen', { stallId: STALL_B }]]],
    ['pulling out', [[500, 'pulled_out', { reason: 'enough' }]]],
    ['an ending fault', [[500, 'fault', { code: 'stopped_by_itself', side: 'network' }]]],
  ];
  const charging = (...steps: Step[]) => attemptsOf(...start, ...steps)[0]?.times.charging;
  for (const [w, word] of words) {
    it.each(again)(`told by ${w} ends with %s`, (_, back) => {
      expect(charging(word, back, [600, 'stop_asked', {}])).toMatchObject({ known: true, s: 450 });
    });
    it.each(ends)(`told by ${w} and not resumed by the time of %s: charging ended where it began`, (_, end) => {
      expect(charging(word, ...end)).toMatchObject({ known: true, s: 100 });
      // What is told of power after the stop comes too late.
      expect(charging(word, ...end, [560, 'change', { what: 'resumed' }])).toMatchObject({ known: true, s: 100 });
    });
  }
  it('kWh that still stand on the screen end none', () =>
    expect(charging(words[0]?.[1] as Step, [250, 'reading', { screen: 'stall', kWh: '3' }], [500, 'unplugged'])).toMatchObject({ s: 100 }));
  it('the first word of it counts, and the first word of its end', () => {
    expect(
      charging(
        [200, 'change', { what: 'paused' }],
        [210, 'power_gone', {}],
        [300, 'power_seen', KW],
        [310, 'change', { what: 'resumed' }],
        [600, 'stop_asked', {}],
      ),
    ).toMatchObject({ s: 400 });
  });
  it('before any power there is none', () =>
    expect(attemptsOf([10, 'plugged'], [50, 'change', { what: 'paused' }], [100, 'power_seen', KW], [600, 'stop_asked', {}])[0]?.times.charging).toMatchObject({
      s: 500,
    }));
});
