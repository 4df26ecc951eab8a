import { hoursText } from './opening-hours';
import { type JsonObject, readJson } from './strict-json';

const text = (of: object) => {
  const read = readJson(new TextEncoder().encode(JSON.stringify(of)));
  return read.ok ? hoursText(read.value as JsonObject) : 'unread';
};
const hours = (...of: [weekday: number, from: string, to: string][]) => ({
  twentyfourseven: false,
  regular_hours: of.map(([weekday, period_begin, period_end]) => ({ weekday, period_begin, period_end })),
});

describe('the hours of a place in a line', () => {
  it.each([
    ['always', { twentyfourseven: true }, '24 hours'],
    ['none told', { twentyfourseven: false }, null],
    [
      'days with the same hours together',
      hours([2, '07:00', '19:00'], [1, '07:00', '19:00'], [3, '07:00', '19:00'], [6, '08:00', '12:00']),
      'Mon–Wed 07:00–19:00, Sat 08:00–12:00',
    ],
    ['a day between that differs', hours([1, '07:00', '19:00'], [3, '07:00', '19:00']), 'Mon 07:00–19:00, Wed 07:00–19:00'],
    ['twice a day', hours([7, '13:00', '18:00'], [7, '08:00', '12:00']), 'Sun 08:00–12:00 and 13:00–18:00'],
    ['to the day’s end', hours([5, '07:00', '00:00']), 'Fri 07:00–24:00'],
    [
      'too much for a line',
      hours(
        ...[1, 2, 3, 4, 5, 6, 7].flatMap((d): [number, string, string][] => [
          [d, `0${d}:00`, '12:00'],
          [d, '13:00', `1${d}:30`],
        ]),
      ),
      null,
    ],
  ])('%s', (_what, of, expected) => {
    expect(text(of)).toBe(expected);
  });
  it('are nothing where the place tells none', () => {
    expect(hoursText(null)).toBeNull();
  });
});
