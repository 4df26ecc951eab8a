import { cabinetsFor, stallSeries } from './stall-series';

const names = (text: string) => {
  const s = stallSeries(text);
  return s.ok ? s.names : s.reason;
};
describe('a series of stalls from the sign', () => {
  it.each([
    ['1-4', ['1', '2', '3', '4']],
    ['01–03', ['01', '02', '03']],
    ['A-D', ['A', 'B', 'C', 'D']],
    ['North, South', ['North', 'South']],
    ['1-2, 7; X', ['1', '2', '7', 'X']],
    ['', []],
    ['lift-side bay', ['lift-side bay']],
  ])('%s', (text, expected) => expect(names(text)).toEqual(expected));
  it.each([
    ['4-1', /not a series/],
    ['1-D', /not a series/],
    ['1-3, 2', /comes twice/],
    ['1-9999', /not a series/],
    ['1-50, 60-90', /At most 60/],
  ])('%s is told why not', (text, why) => expect(names(text)).toMatch(why));
  it('cabinets in the order of the stalls', () => {
    expect(cabinetsFor(4, 2)).toEqual(['1', '1', '2', '2']);
    expect(cabinetsFor(3, 2)).toEqual(['1', '1', '2']);
    expect(cabinetsFor(2, 0)).toEqual([null, null]);
  });
});
