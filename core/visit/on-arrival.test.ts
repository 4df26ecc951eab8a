import { deriveVisit } from './derive';
import { CARD, idOf, KW, SITE, type Step, story, VISIT } from './fixtures/story';
import { baysOnArrival, priceBeforeStart, weatherNoted } from './on-arrival';
import { payloadProblem } from './payloads';

const visit = (arrival: object, ...steps: Step[]) => deriveVisit(VISIT, story([0, 'pulled_in', { siteId: SITE, ...arrival }], ...steps), payloadProblem);

describe('the weather that was noted', () => {
  it.each<[string, object, Step[], string | null]>([
    [
      'rain',
      { airC: 30 },
      [
        [5, 'change', { what: 'cold' }],
        [9, 'change', { what: 'rain' }],
      ],
      'rain',
    ],
    ['cold, noted', { airC: 30 }, [[5, 'change', { what: 'cold' }]], 'cold'],
    ['cold air', { airC: 4.9 }, [], 'cold'],
    ['mild from 5', { airC: 5 }, [], 'mild'],
    ['mild', { airC: 27.9 }, [], 'mild'],
    ['hot from 28', { airC: 28 }, [], 'hot'],
    ['nobody noted any', {}, [[5, 'change', { what: 'fans' }]], null],
  ])('%s', (_, arrival, steps, weather) => expect(weatherNoted(visit(arrival, ...steps))).toBe(weather));
});

describe('bays on arrival', () => {
  const survey = (...states: string[]): Step => [5, 'survey', { stalls: states.map((state, i) => ({ stallId: idOf(60 + i), state })) }];
  it.each<[string, object, Step[], ReturnType<typeof baysOnArrival>]>([
    ['by the count', { seen: { free: 1, total: 4, outOfOrder: 2 } }, [survey('dark')], { seen: 4, outOfOrder: 2 }],
    ['all of them free', { seen: { free: 4, total: 4 } }, [], { seen: 4, outOfOrder: 0 }],
    ['more out of order than there are', { seen: { total: 4, outOfOrder: 9 } }, [], { seen: 4, outOfOrder: 4 }],
    ['a count without those out of order', { seen: { free: 3, total: 4 } }, [survey('dark', 'free')], { seen: 2, outOfOrder: 1 }],
    ['a count of none', { seen: { total: 0, outOfOrder: 0 } }, [], null],
    ['by the first survey', {}, [survey('dark', 'closed', 'free', 'charging', 'not_looked'), survey('dark')], { seen: 4, outOfOrder: 2 }],
    ['none was looked at', {}, [survey('not_looked')], null],
    ['nobody looked', {}, [], null],
  ])('%s', (_, arrival, steps, bays) => expect(baysOnArrival(visit(arrival, ...steps))).toEqual(bays));
});

describe('the price before the start', () => {
  const START: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [60, 'power_seen', KW],
  ];
  const shown = (at: number): Step => [at, 'price_shown', { where: 'screen', text: '0.59' }];
  const missing: Step = [5, 'fault', { code: 'price_not_shown', side: 'network' }];
  it.each<[string, Step[], boolean | null]>([
    ['noted before', [shown(5), ...START], true],
    ['noted while charging', [...START, shown(90)], null],
    ['noted, and no power came', [...START.slice(0, 2), shown(90)], true],
    ['noted to be missing', [missing, ...START], false],
    ['found after all', [missing, shown(6), ...START], true],
    ['another fault', [[5, 'fault', { code: 'hot_connector', side: 'network' }], ...START], null],
    ['nothing noted', START, null],
  ])('%s', (_, steps, seen) => expect(priceBeforeStart(visit({}, ...steps))).toBe(seen));
});
