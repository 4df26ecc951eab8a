import { durationOf, inForm } from './sheet-durations';

const minutes = (cell: string) => {
  const d = durationOf(cell);
  return d && 'minutes' in d ? d.minutes : d && ('colon' in d ? 'by its colon' : 'a figure');
};

describe('a duration as it is written', () => {
  // ISO 8601-1:2019, 5.5.2.4: hours, minutes and seconds after PT, each may be left out, the last may have a fraction by comma or point.
  it.each([
    ['PT1H5M30S', 65.5],
    ['pt41m', 41],
    ['PT12H', 720],
    ['PT12H45S', 720.75],
    ['PT90S', 1.5],
    ['PT1M7.50S', 1.125],
    ['PT1M7,50S', 1.125],
    [' PT0S ', 0],
    ['ＰＴ４１Ｍ', 41],
  ])('%s is %s min', (cell, min) => expect(minutes(cell)).toBe(min));
  it.each(['PT', 'PTH', 'PT1', 'PT1H5', 'PT5M1H', 'xPT41M', 'PT41Mx', 'PT1x5S', 'P1D', 'PTxM', ''])('“%s” is none', (cell) =>
    expect(durationOf(cell)).toBeNull(),
  );
  it.each([
    ['1:02:03', 62.05],
    ['12:00:00', 720],
    ['1h 05', 65],
    ['1 hr. 5 min.', 65],
    ['10 std 30', 630],
    ['2 ur 15 m', 135],
    ['12 min 30 s', 12.5],
    ['1 min. 5 sec.', 1 + 5 / 60],
    ['0:41 h', 41],
    ['41m 12s', 41.2],
    ['0h 41m 12s', 41.2],
    ['1 hour, 5 minutes and 30 seconds', 65.5],
    ['1 Stunde 5 Minuten', 65],
    ['1 ora e 5 minuti', 65],
    ['1 timer 5 min', 65],
    ['2 h 30 s', 120.5],
    ['90 min 30 sek', 90.5],
    ['12 perc 6,6 mp', 12.11],
    ['00:41:12.3000000', 41.205],
    ['1.00:41:12', 1481.2],
    ['0 days 00:41:12', 41.2],
    ['P1DT0H41M', 1481],
    ['41:30 min', 41.5],
  ])('%s is %s min', (cell, min) => expect(minutes(cell)).toBeCloseTo(min, 12));
  it('a colon alone, a figure with its unit and one without are not settled by themselves', () => {
    expect(durationOf('1:05')).toEqual({ colon: [1, 5] });
    expect([durationOf('1:60'), durationOf('1:5'), durationOf('1:60:00'), durationOf('1h 60')]).toEqual([null, null, null, null]);
    const unit = (cell: string) => {
      const d = durationOf(cell);
      return d && 'figure' in d ? d.unit : d;
    };
    expect(['41', '41 min', '41 Minuten', '1,5 h', '1.5 hours', '90 s', '90 sec.', '2 u'].map(unit)).toEqual([null, 'min', 'min', 'h', 'h', 's', 's', 'h']);
    expect([unit('x min'), unit('min')]).toEqual([null, null]);
  });
  it('in the form of its column', () => {
    expect([inForm({ colon: [1, 5] }, 'h:mm', null), inForm({ colon: [1, 30] }, 'm:ss', null), inForm({ minutes: 7 }, 's', 3)]).toEqual([65, 1.5, 7]);
    const figure = durationOf('90') as Exclude<ReturnType<typeof durationOf>, null>;
    expect([inForm(figure, 'h', 1.5), inForm(figure, 's', 90), inForm(figure, 'min', 90), inForm(figure, 'min', null)]).toEqual([90, 1.5, 90, 0]);
  });
});
