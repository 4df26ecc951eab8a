import { leftOutWords } from './left-out-words';
import { type SeriesReading, seriesOf } from './series';

const words = (readings: SeriesReading[], end?: { t_s: number; kWh: number }) => leftOutWords(readings, seriesOf({ readings, end }));
const at = (t_s: number, from: 'stall' | 'car', socPct: number, kWh?: number): SeriesReading => ({ t_s, from, socPct, ...(kWh === undefined ? {} : { kWh }) });

describe('what entered no curve', () => {
  it('is nothing where all fits', () => expect(words([at(0, 'car', 20), at(600, 'car', 40)])).toEqual([]));
  it('a slip is told with its figure', () => {
    const slips = [at(0, 'stall', 20), at(200, 'stall', 30, 63), at(400, 'stall', 40, 12.4), at(500, 'stall', 14.5), at(700, 'stall', 55, 21)];
    expect(words(slips)).toEqual(['Left out, since they do not fit the figures around them: 14.5 %, 63.0 kWh.']);
    // One figure at the end against two before it.
    expect(words([at(0, 'stall', 20), at(200, 'stall', 30, 6), at(400, 'stall', 40, 12)], { t_s: 600, kWh: 1 })).toEqual([
      'Left out, since they do not fit the figures around them: the meter’s end.',
    ]);
  });
  it('the other screen is not mixed in, and said', () => {
    expect(words([at(0, 'car', 20), at(600, 'stall', 68)])).toEqual(['Not mixed in: 68 % on the stall’s screen; one screen is taken for the whole.']);
    expect(words([at(0, 'stall', 20), at(300, 'stall', 30), at(600, 'car', 41)])).toEqual([
      'Not mixed in: 41 % on the car’s screen; one screen is taken for the whole.',
    ]);
    const many = [1, 2, 3, 4, 5, 6, 7].flatMap((i) => [at(i * 60, 'stall', 20 + i), at(i * 60, 'car', 21 + i)]);
    expect(words([...many, at(480, 'car', 29)])).toEqual([
      'Not mixed in: 21, 22, 23, 24, 25, …, 27 % on the stall’s screen; one screen is taken for the whole.',
    ]);
    expect(words([])).toEqual([]);
  });
});
