import { powerProfile } from './power-profile';
import type { Segment } from './tape';

const profile = (from: number, to: number, kW?: [t: number, kW: number][]) =>
  powerProfile({ kind: 'energy', from, to, ...(kW ? { kW: kW.map(([t, v]) => ({ t, kW: v })) } : {}) } as unknown as Segment).map((p) => [p.t, p.kW]);

describe('the outline of the energy paint', () => {
  it.each<[string, [t: number, kW: number][] | undefined, number[][]]>([
    [
      'level before the first and after the last',
      [
        [20, 50],
        [30, 40],
      ],
      [
        [10, 50],
        [20, 50],
        [30, 40],
        [40, 40],
      ],
    ],
    [
      'readings at both ends are the ends',
      [
        [10, 50],
        [25, 45],
        [40, 40],
      ],
      [
        [10, 50],
        [25, 45],
        [40, 40],
      ],
    ],
    [
      'what was read before the stretch holds until the next',
      [
        [5, 60],
        [20, 50],
      ],
      [
        [10, 60],
        [20, 50],
        [40, 50],
      ],
    ],
    [
      'of several before it the last',
      [
        [2, 90],
        [5, 60],
      ],
      [
        [10, 60],
        [40, 60],
      ],
    ],
    [
      'what comes after it draws nothing',
      [
        [20, 50],
        [41, 9],
      ],
      [
        [10, 50],
        [20, 50],
        [40, 50],
      ],
    ],
    ['only what comes after', [[41, 9]], []],
    ['nothing was read', undefined, []],
    [
      'one before and one at its end',
      [
        [5, 60],
        [40, 20],
      ],
      [
        [10, 60],
        [40, 20],
      ],
    ],
    [
      'one before and one at its beginning',
      [
        [5, 60],
        [10, 20],
      ],
      [
        [10, 60],
        [40, 20],
      ],
    ],
  ])('%s', (_, kW, points) => expect(profile(10, 40, kW)).toEqual(points));
});
