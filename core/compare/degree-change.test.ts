import { changeText, degreeChange } from './degree-change';
import { starts } from './fixtures/starts';
import type { Start } from './start';

/** So many of each in a month, at three sites, after a first visit of its own. */
const inMonth = (month: string, group: string, yes: number, no: number): Start[] =>
  starts(group, yes, no).map((s) => ({
    ...s,
    month,
    at: Date.parse(`${month}-01T00:00:00Z`) + s.at,
    driverId: `${group}${month}`,
    stallId: `${s.stallId} ${month}`,
  }));
const change = (all: Start[][], today: 'clearly' | 'probably' | 'cannot_tell') => degreeChange(all.flat(), 'A', 'B', today, 1);

describe('what was said before', () => {
  const even = [inMonth('2025-08', 'A', 9, 1), inMonth('2025-08', 'B', 9, 1)];
  const apart = [inMonth('2025-09', 'A', 24, 0), inMonth('2025-09', 'B', 3, 15)];
  it('a degree that came with the last month is new since the one before', () => {
    expect(change([...even, ...apart], 'clearly')).toEqual({ until: '2025-08', was: 'cannot_tell', otherLed: false });
  });
  it('one that has stood is not', () => {
    const same = [inMonth('2025-10', 'A', 24, 0), inMonth('2025-10', 'B', 3, 15)];
    expect(change([...apart, ...same], 'clearly')).toBeNull();
    expect(change([...even], 'cannot_tell')).toBeNull();
    expect(change([], 'cannot_tell')).toBeNull();
  });
  it('one that went again is said to have been', () => {
    const back = [inMonth('2025-10', 'A', 3, 40), inMonth('2025-10', 'B', 20, 10)];
    expect(change([...apart, ...back], 'cannot_tell')).toEqual({ until: '2025-09', was: 'clearly', otherLed: false });
  });
  it('and that the other one led', () => {
    const turned = [inMonth('2025-08', 'A', 3, 20), inMonth('2025-08', 'B', 24, 0)];
    const now = [inMonth('2025-09', 'A', 200, 0), inMonth('2025-09', 'B', 3, 200)];
    expect(change([...turned, ...now], 'clearly')).toEqual({ until: '2025-08', was: 'clearly', otherLed: true });
  });
  it('is looked for over half a year, no longer', () => {
    const month = (n: number) => `2025-${String(n).padStart(2, '0')}`;
    const standing = [2, 3, 4, 5, 6, 7, 8, 9].flatMap((n) => [inMonth(month(n), 'A', 24, 0), inMonth(month(n), 'B', 3, 15)]);
    expect(change([inMonth('2025-01', 'A', 9, 1), inMonth('2025-01', 'B', 9, 1), ...standing], 'clearly')).toBeNull();
    expect(change([inMonth('2025-01', 'A', 9, 1), inMonth('2025-01', 'B', 9, 1), ...standing.slice(0, 12)], 'clearly')).toMatchObject({ until: '2025-01' });
    // Half a year and a month.
    expect(change([inMonth('2025-01', 'A', 9, 1), inMonth('2025-01', 'B', 9, 1), ...standing.slice(0, 14)], 'clearly')).toBeNull();
  });
  it('the same in whatever order the visits are told, and whatever a third one did', () => {
    const all = [...even, ...apart];
    const said = { until: '2025-08', was: 'cannot_tell', otherLed: false };
    expect(change([...all].reverse(), 'clearly')).toEqual(said);
    expect(change([...all, inMonth('2025-07', 'C', 3, 30), inMonth('2025-10', 'C', 30, 3)], 'clearly')).toEqual(said);
  });
  it('one that led without being told apart did not lead', () => {
    const b = [inMonth('2025-08', 'A', 8, 2), inMonth('2025-08', 'B', 9, 1)];
    expect(change([...b, ...apart], 'clearly')).toEqual({ until: '2025-08', was: 'cannot_tell', otherLed: false });
  });
  it('before the other was visited at all it could not be told', () => {
    expect(change([inMonth('2025-08', 'A', 24, 0), inMonth('2025-09', 'A', 24, 0)], 'clearly')).toEqual({
      until: '2025-08',
      was: 'cannot_tell',
      otherLed: false,
    });
    expect(change([inMonth('2025-08', 'A', 24, 0), inMonth('2025-09', 'A', 24, 0)], 'cannot_tell')).toBeNull();
  });
  it('in words', () => {
    expect(changeText({ until: '2025-08', was: 'cannot_tell', otherLed: false }, 'B')).toBe('until the end of Aug 2025 it could not be told');
    expect(changeText({ until: '2025-08', was: 'probably', otherLed: true }, 'Network B')).toBe(
      'until the end of Aug 2025 it was probably so, with Network B ahead',
    );
  });
});
