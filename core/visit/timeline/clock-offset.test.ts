import { SITE, type Step, story } from '../fixtures/story';
import { aheadOfServer, clockOffset } from './clock-offset';
import { deviceLine } from './device-line';
import type { Corrected } from './placed';

const line = (...steps: Step[]) => deviceLine(story(...steps) as Corrected[]);
const KW = { screen: 'stall', mark: 'kW' };
const own = line([0, 'pulled_in', { siteId: SITE }], [10, 'plugged'], [20, 'means_shown', { meansKind: 'app' }], [50, 'power_seen', KW]);

describe('by how much a clock was ahead of the server’s', () => {
  it('is not told by what came in no batch that said so', () => {
    expect(aheadOfServer([])).toBeNull();
    expect(aheadOfServer(own)).toBeNull();
  });
  it('is what the quickest batch says, at the last event in it', () => {
    const heard = (heard_ms: number, more: object = {}) => ({ heard_ms, ...more }) as object;
    expect(aheadOfServer(line([0, 'plugged', {}, heard(300)]))).toBe(-300);
    expect(aheadOfServer(line([0, 'plugged', {}, heard(900)], [5, 'unplugged', {}, heard(300)]))).toBe(-300);
    // The clock jumped by a minute within the batch: what counts is where the line was when it was sent.
    const jumped = line([0, 'plugged', {}, heard(-60_000)], [65, 'unplugged', {}, heard(-60_000, { mono: 15_000 })]);
    expect(Math.abs(aheadOfServer(jumped) as number)).toBe(0);
  });
});

describe('by how much another phone’s line is ahead', () => {
  const offset = (told_ms: number | null, ...steps: Step[]) => clockOffset(line(...steps), own, told_ms);
  it('with nothing to tell by is nothing, ± what phones differ by', () => {
    expect(offset(null)).toEqual({ ms: 0, pm_s: 2 });
    expect(offset(null, [400, 'unlocked'])).toEqual({ ms: 0, pm_s: 2 });
  });
  it('told by batches is as they say, unless a batch may have been so long on its way: then they are level, ± that', () => {
    expect(offset(60_000)).toEqual({ ms: 60_000, pm_s: 2 });
    expect(offset(-60_000)).toEqual({ ms: -60_000, pm_s: 2 });
    expect([offset(2000), offset(5000), offset(-5000), offset(5001), offset(-5001)]).toEqual([
      { ms: 0, pm_s: 2 },
      { ms: 0, pm_s: 5 },
      { ms: 0, pm_s: 5 },
      { ms: 5001, pm_s: 2 },
      { ms: -5001, pm_s: 2 },
    ]);
  });
  it('is told by two acts that agree, and known by how well they do', () => {
    expect(offset(null, [40, 'plugged'], [50, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 30_000, pm_s: 1 });
    // The middle one of three, whatever order they were seen in; ± the spread of all.
    const three = offset(null, [44, 'plugged'], [50, 'means_shown', { meansKind: 'app' }], [81, 'power_seen', KW]);
    expect(three).toEqual({ ms: 31_000, pm_s: 5 });
    expect(offset(null, [10 - 3600, 'plugged'], [20 - 3600, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: -3_600_000, pm_s: 1 });
  });
  it('is not by one, nor by acts that agree on nothing within five seconds', () => {
    expect(offset(null, [40, 'plugged'])).toEqual({ ms: 0, pm_s: 2 });
    expect(offset(null, [40, 'plugged'], [55.001, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 0, pm_s: 2 });
    expect(offset(null, [40, 'plugged'], [55, 'means_shown', { meansKind: 'app' }])).toMatchObject({ pm_s: 6 });
  });
  it('is not by what a late look explains: up to ten seconds the clocks are level, ± the latest', () => {
    expect(offset(null, [20, 'plugged'], [30, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 0, pm_s: 10 });
    expect(offset(null, [20.001, 'plugged'], [30.001, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 10_001, pm_s: 1 });
    expect(offset(60_000, [80, 'plugged'], [90, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 60_000, pm_s: 2 });
    expect(offset(60_000, [80.001, 'plugged'], [90.001, 'means_shown', { meansKind: 'app' }])).toEqual({ ms: 70_001, pm_s: 1 });
  });
  it('by what both saw of one kind, not by what one did twice: what most acts agree on wins', () => {
    const twice = line([0, 'plugged'], [100, 'unplugged'], [200, 'plugged'], [260, 'power_seen', KW], [900, 'unplugged']);
    const seen = clockOffset(line([230, 'plugged'], [290, 'power_seen', KW], [930, 'unplugged']), twice, null);
    expect(seen).toEqual({ ms: 30_000, pm_s: 1 });
    // Each act explains one look at most.
    expect(clockOffset(line([30, 'plugged'], [31, 'plugged']), line([0, 'plugged']), null)).toEqual({ ms: 0, pm_s: 2 });
  });
  it('of two that explain as much, the one nearer to what the batches said', () => {
    const recorded = line([0, 'plugged'], [10, 'unplugged'], [1000, 'plugged'], [1010, 'unplugged']);
    const seen: Step[] = [
      [1100, 'plugged'],
      [1110, 'unplugged'],
    ];
    expect(clockOffset(line(...seen), recorded, null).ms).toBe(100_000);
    expect(clockOffset(line(...seen), recorded, 1_050_000).ms).toBe(1_100_000);
    // Told backwards, what lies behind is nearer.
    const early: Step[] = [
      [-100, 'plugged'],
      [-90, 'unplugged'],
    ];
    expect(clockOffset(line(...early), recorded, -1_050_000).ms).toBe(-1_100_000);
    expect(clockOffset(line(...early), recorded, null).ms).toBe(-100_000);
  });
  it('never by acts more than a day apart, by typed ones, or by those of which only the day is known', () => {
    const day_s = 24 * 3600;
    const two = (s: number, more: object = {}): Step[] => [
      [10 + s, 'plugged', {}, more],
      [20 + s, 'means_shown', { meansKind: 'app' }, more],
    ];
    expect(offset(null, ...two(day_s)).ms).toBe(day_s * 1000);
    expect(offset(null, ...two(day_s + 0.001)).ms).toBe(0);
    expect(offset(null, ...two(60, { origin: 'typed' })).ms).toBe(0);
    expect(offset(null, ...two(60, { precision: 'day' })).ms).toBe(0);
  });
  it('by no act that each phone has for itself', () => {
    const readings = line([10, 'reading', { screen: 'car', kW: 3 }], [20, 'reading', { screen: 'car', kW: 4 }]);
    const others = line([70, 'reading', { screen: 'car', kW: 3 }], [80, 'reading', { screen: 'car', kW: 4 }]);
    expect(clockOffset(others, readings, null).ms).toBe(0);
  });
});
