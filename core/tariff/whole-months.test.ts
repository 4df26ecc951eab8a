import { wholeMonths } from './plan-months';

describe('months of which every visit is looked at', () => {
  const months = ['2025-08', '2025-09', '2025-10'];
  it.each<[string, string | null, number, string[]]>([
    ['all, where none is beyond', '2025-09', 0, months],
    ['all, where there is none', null, 0, months],
    ['those after that of the oldest', '2025-09', 1, ['2025-10']],
    ['the newest, where not even that is whole', '2025-10', 1, ['2025-10']],
  ])('are %s', (_, oldest, beyond, want) => expect(wholeMonths(months, oldest, beyond)).toEqual(want));
});
