import { beyondCurveWords } from './beyond-curve';

it.each([
  [20, 80, 20, 80, null],
  [20, 80, 15.1, 84.9, null],
  [20, 80, 15, 80, 'The car’s curve is known from 20 to 80 % alone: beyond it is taken as level.'],
  [20, 80, 20, 85, 'The car’s curve is known from 20 to 80 % alone: beyond it is taken as level.'],
  [2.5, 97.5, 0, 100, null],
  [50, 50, 20, 80, 'The car’s curve is known at 50 % alone: beyond it is taken as level.'],
  [null, null, 0, 100, null],
])('a curve from %d to %d and a stretch from %d to %d', (curveFrom, curveTo, from, to, want) =>
  expect(beyondCurveWords({ curveFrom, curveTo }, from, to)).toBe(want),
);
