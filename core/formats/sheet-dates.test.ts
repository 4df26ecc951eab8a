import { whenOf, type Ymd } from './sheet-dates';

const iso = (d: Ymd | null) => (d ? d.map((n) => String(n).padStart(2, '0')).join('-') : '–');
const said = (cell: string): string => {
  const w = whenOf(cell);
  if ('code' in w) return w.code;
  const day = w.date && ('plain' in w.date ? iso(w.date.plain) : `${iso(w.date.dmy)} or ${iso(w.date.mdy)}`);
  const t = w.time;
  const two = (n: number) => String(n).padStart(2, '0');
  const time = t && `${two(t.h)}:${two(t.min)}:${two(t.s)}${t.ms ? `.${t.ms}` : ''} ${t.precision}${t.offset_min === null ? '' : ` ${t.offset_min}`}`;
  return [day, time].filter(Boolean).join(' ');
};

describe('a cell as another language writes it', () => {
  // By the Unicode CLDR as this Node has it: what a spreadsheet of that language shows.
  const LOCALES = 'en-GB en-US de de-AT fr es it pt pt-BR nl sv da nb fi pl hr cs sk sl hu ro'.split(' ');
  // Months of both Polish and Croatian that are not the same one.
  const EITHER = /\b(lip|lis|srp|listopada)\b/;
  const at = (month: number) => Date.UTC(2025, month, 14, 13, 52);
  const styles = (['medium', 'long', 'full'] as const).flatMap((dateStyle) => [{ dateStyle }, { dateStyle, timeStyle: 'short' as const }]);
  it.each(LOCALES)('%s', (locale) => {
    for (const style of styles)
      for (let month = 0; month < 12; month++) {
        const text = new Intl.DateTimeFormat(locale, { ...style, timeZone: 'UTC' }).format(at(month));
        const day = `2025-${String(month + 1).padStart(2, '0')}-14`;
        const want = EITHER.test(text) ? 'bad_date' : 'timeStyle' in style ? `${day} 13:52:00 min` : day;
        expect([text, said(text)]).toEqual([text, want]);
      }
  });
  it.each([
    ['1st October 2025', '2025-10-01'],
    ['October 22nd, 2025 9:05', '2025-10-22 09:05:00 min'],
    ['1er octobre 2025', '2025-10-01'],
    ['1 set 20', 'bad_date'],
    ['1 set. 2020', '2020-09-01'],
    ['5 márc 25', '2025-03-05'],
    ['5 sep 25', '2025-09-05'],
    ['set 5 25', 'bad_date'],
    ['1º de octubre del 2025', '2025-10-01'],
    ['mar. 14 oct. 2025', '2025-10-14'],
    ['mar. 15 oct. 2025', 'bad_date'],
    ['Mar. 15, 2025', '2025-03-15'],
    ['Tue 14. 10. 2025.', '2025-10-14'],
    ['2025. 10. 14. 9:05', '2025-10-14 09:05:00 min'],
    ['2025.10.14.', '2025-10-14'],
    ['2025. okt. 14., szerda', 'bad_date'],
    ['14/10/2025 kedd', '2025-10-14 or –'],
    ['11/10/2025 szombat', '2025-10-11 or –'],
    ['14.10.2025 kl. 9.05', '2025-10-14 09:05:00 min'],
    ['14.10.2025 9.05.30', '2025-10-14 09:05:30 s'],
    ['14.10.2025 25.05', 'bad_time'],
    ['9.05', 'bad_date'],
    ['14.10.2025 9:05 CEST', '2025-10-14 09:05:00 min 120'],
    ['14.10.2025 9:05 MEZ', '2025-10-14 09:05:00 min 60'],
    ['14.10.2025 9:05 GMT+2', '2025-10-14 09:05:00 min 120'],
    ['14.10.2025 9:05 UTC-03:30', '2025-10-14 09:05:00 min -210'],
    ['14.10.2025 9:05 +2', 'bad_time'],
    ['14.10.2025 9:05 XYZ', 'bad_time'],
  ])('%s', (cell, want) => expect(said(cell)).toBe(want));
});

describe('a cell of a date, a time or both', () => {
  it.each([
    // Days counted by a spreadsheet.
    [' 45950 ', '2025-10-20'],
    ['45950,5', '2025-10-20 12:00:00 min'],
    ['45950.50001', '2025-10-20 12:00:01 s'],
    ['45950,999999', '2025-10-21 00:00:00 min'],
    ['20000', '1954-10-03'],
    ['79999', '2119-01-10'],
    ['19999', 'bad_date'],
    ['80000', 'bad_date'],
    ['45950.5x', 'bad_date'],
    // Days as they are written.
    ['2025-10-20', '2025-10-20'],
    ['2025/1/2', '2025-01-02'],
    ['2025-10/20', 'bad_date'],
    ['on 2025-10-20', 'bad_date'],
    ['2025-10-201', 'bad_date'],
    ['2025-02-29', 'bad_date'],
    ['2024-02-29', '2024-02-29'],
    ['31.4.2025', 'bad_date'],
    ['1.13.2025', 'bad_date'],
    ['0.1.2025', 'bad_date'],
    ['1. 2. 25', '2025-02-01'],
    ['5.  Okt.  2025', '2025-10-05'],
    ['5-okt-25', '2025-10-05'],
    ['5 okt 2', 'bad_date'],
    ['on 5 okt 2025', 'bad_date'],
    ['5 Foo 2025', 'bad_date'],
    ['Okt.  5,  2025', '2025-10-05'],
    ['okt 5 25', '2025-10-05'],
    ['okt 5, 2', 'bad_date'],
    ['Foo 5, 2025', 'bad_date'],
    ['3/4/25', '2025-04-03 or 2025-03-04'],
    ['13/4/2025', '2025-04-13 or –'],
    ['3-14-2025', '– or 2025-03-14'],
    ['3/4-2025', 'bad_date'],
    ['3/4/2', 'bad_date'],
    ['13/13/2025', 'bad_date'],
    // A weekday before it.
    ['Mon,  2025-10-20', '2025-10-20'],
    ['mo. 20.10.2025', '2025-10-20'],
    ['Tue 20.10.2025', 'bad_date'],
    ['x Mon 2025-10-20', 'bad_date'],
    ['Mon 12:00', 'bad_date'],
    ['Tue 3/4/25', '– or 2025-03-04'],
    ['Mon 3/4/25', 'bad_date'],
    // Between the two.
    ['2025-10-20   12:00', '2025-10-20 12:00:00 min'],
    ['2025-10-20T12:00Z', '2025-10-20 12:00:00 min 0'],
    ['2025-10-20 , 12:00', '2025-10-20 12:00:00 min'],
    ['20.10.2025 um  12:00 Uhr', '2025-10-20 12:00:00 min'],
    ['20.10.2025 ob 12:00', '2025-10-20 12:00:00 min'],
    ['2025-10-20x12:00', 'bad_date'],
    ['2025-10-20 x12:00', 'bad_time'],
    ['2025-10-20 25:00', 'bad_time'],
    // Times.
    ['12:59', '12:59:00 min'],
    ['9h05', '09:05:00 min'],
    ['12:60', 'bad_time'],
    ['12:00:59', '12:00:59 s'],
    ['12:00:60', 'bad_time'],
    ['12:00:00,5', '12:00:00.500 ms'],
    ['24:00', '24:00:00 min'],
    ['24:01', 'bad_time'],
    ['24:00:01', 'bad_time'],
    ['25:00', 'bad_time'],
    ['12 :00', 'bad_time'],
    ['at 12:00', 'bad_date'],
    ['x12:00', 'bad_date'],
    ['0,25', '06:00:00 min'],
    ['0.57775', '13:51:58 s'],
    ['0,5x', 'bad_date'],
    ['x0,5', 'bad_date'],
    ['10,5', 'bad_date'],
    ['12:00 am', '00:00:00 min'],
    ['12:30 pm', '12:30:00 min'],
    ['1:05 P.M.', '13:05:00 min'],
    ['13:00 pm', 'bad_time'],
    ['0:10 am', 'bad_time'],
    ['1 pm', '13:00:00 min'],
    ['12a.m.', '00:00:00 min'],
    ['11  p.m', '23:00:00 min'],
    ['13 pm', 'bad_date'],
    ['1 pmx', 'bad_date'],
    ['x1 pm', 'bad_date'],
    ['12:00 GMT', '12:00:00 min 0'],
    ['12:00+02:00', '12:00:00 min 120'],
    ['12:00 -0530', '12:00:00 min -330'],
    ['12:00+2', 'bad_time'],
    ['=NOW()', 'formula'],
    ['1=', 'bad_date'],
    ['', 'bad_date'],
  ])('%s', (cell, want) => expect(said(cell)).toBe(want));
});
