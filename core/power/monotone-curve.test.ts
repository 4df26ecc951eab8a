import { monotoneCurve } from './monotone-curve';

it('a curve needs points that rise', () => {
  const wrong = 'a curve needs as many y as x, at least one';
  expect(() => monotoneCurve([], [])).toThrow(new RangeError(wrong));
  expect(() => monotoneCurve([1, 2], [1])).toThrow(new RangeError(wrong));
  expect(() => monotoneCurve([1, 1], [1, 2])).toThrow(new RangeError('x must rise'));
  expect(() => monotoneCurve([2, 1], [1, 2])).toThrow(new RangeError('x must rise'));
  expect(monotoneCurve([3], [7])).toMatchObject({ slopes: [0], onePassIsEnough: true });
});
