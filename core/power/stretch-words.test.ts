import { type SeriesReading, seriesOf } from './series';
import { deliveredWords, stretchWords } from './stretch-words';

/** From 20 % on, ten per cent in six minutes, 62 kW; power at 12:00 UTC. */
const looks = (more: Partial<SeriesReading> = {}): SeriesReading[] =>
  [0, 1, 2, 3, 4].map((i) => ({ t_s: i * 360, from: 'stall', socPct: 20 + 10 * i, kWh: 6.2 * i, ...more }));
const range = { usableKWh: 62, kWhPer100km: 18 };
const at = Date.parse('2025-10-14T12:00:00Z');
const words = (
  readings: SeriesReading[],
  from: number,
  to: number,
  by: Parameters<typeof stretchWords>[3] = range,
  distance: 'km' | 'mi' = 'km',
  pauses: [number, number][] = [],
) => stretchWords({ series: seriesOf({ readings, pauses }), at }, from, to, by, { distance, zone: 'Europe/Ljubljana' });

describe('any stretch of the battery', () => {
  // 22 % of 62 kWh are 13.6 kWh, 75.8 km at 18 kWh for 100 km, and 13.2 min.
  it('is told with its minutes, energy, average and range, and when its end was reached', () => {
    expect(words(looks(), 24, 46)).toEqual(['24 to 46 %: 13.2 min, 13.6 kWh, 62 kW by the meter, 76 km.', '46 % after 15.6 min of charging, at 14:15.']);
    expect(words(looks(), 24, 46, range, 'mi')[0]).toContain('47 mi');
    expect(words(looks(), 24.5, 46.25, { usableKWh: 62, kWhPer100km: null })[0]).toBe('24.5 to 46.3 %: 13.1 min, 13.5 kWh, 62 kW by the meter.');
  });
  it('as far as it was read', () => {
    expect(words(looks(), 10, 40)).toEqual([
      'Of 10 to 40 % only 20 to 40 % was read: 12.0 min, 12.4 kWh, 62 kW by the meter, 69 km.',
      '40 % after 12.0 min of charging, at 14:12.',
    ]);
    // When its end was reached nobody saw.
    expect(words(looks(), 50, 90)).toEqual(['Of 50 to 90 % only 50 to 60 % was read: 6.0 min, 6.2 kWh, 62 kW by the meter, 34 km.']);
    expect(words(looks(), 70, 90)).toEqual(['Of 70 to 90 % nothing was read.']);
    expect(words(looks().slice(0, 1), 20, 30)).toEqual(['Of 20 to 30 % nothing was read.']);
    expect(words([], 20, 30)).toEqual(['Of 20 to 30 % nothing was read.']);
  });
  it('without the meter no energy', () =>
    expect(
      words(
        looks().map(({ kWh: _, ...r }) => r),
        20,
        30,
      )[0],
    ).toBe('20 to 30 %: 6.0 min, the meter was not read, 34 km.'));
  it('a pause takes no time of charging, and the clock goes on in it', () => {
    const later = looks().map((r) => (r.t_s < 720 ? r : { ...r, t_s: r.t_s + 600 }));
    expect(words(later, 20, 50, range, 'km', [[400, 1000]])).toEqual([
      '20 to 50 %: 18.0 min, 18.6 kWh, 62 kW by the meter, 103 km.',
      '50 % after 18.0 min of charging, at 14:28.',
    ]);
  });
});

describe('what was delivered', () => {
  it('by the meter, in its minutes of charging', () => {
    expect(deliveredWords({ delivered_kWh: 24.83, charging_s: 1470 })).toBe('Delivered 24.8 kWh in 24.5 min of charging.');
    expect(deliveredWords({ delivered_kWh: 24.83, charging_s: null })).toBe('Delivered 24.8 kWh.');
    expect(deliveredWords({ delivered_kWh: null, charging_s: 1470 })).toBeNull();
  });
});
