import { endsOf } from './ends-of';

it.each([
  [3, 4, [1, 2, 3], 0, []],
  [4, 4, [1, 2, 3, 4], 0, []],
  [5, 4, [1, 2], 1, [4, 5]],
  [9, 5, [1, 2], 5, [8, 9]],
  [0, 4, [], 0, []],
])('of %i, at most %i', (n, most, first, between, last) =>
  expect(
    endsOf(
      Array.from({ length: n }, (_, i) => i + 1),
      most,
    ),
  ).toEqual({ first, between, last }),
);
