import { read, reasons, START } from './fixtures/read-rows';
import type { SheetAnswer } from './sheet-import';

// One row beside the plain one at a time: what a sheet of many years holds somewhere.
describe('durations', () => {
  const minutes = (heading: string, cells: readonly string[], answers: readonly SheetAnswer[] = []) =>
    read([`Start;Station;${heading}`, ...cells.map((c) => `${START};${c}`)], answers);
  it.each([
    ['1.234,5 min', 1234.5],
    ['1,234.5 min', 1234.5],
    ['1,25 h', 75],
    ['1.25 hours', 75],
    ['90,5 s', 1.508333],
    ['2 std', 120],
    ['0,5 mins', 0.5],
  ])('%s is so many minutes', (cell, want) => expect(minutes('Duration', [cell]).accepted.map((r) => r.minutes)).toEqual([want]));
  it('a figure with its unit is read by the mark of its column, and asks for it where none is proved', () => {
    const cells = ['1,250 h', '90 min'];
    expect(minutes('Duration', cells).asks).toEqual([{ code: 'decimal_mark', column: 3, options: [',', '.'], lines: [2] }]);
    const said = (answer: string) => minutes('Duration', cells, [{ code: 'decimal_mark', column: 3, answer }]);
    expect(said(',').accepted.map((r) => r.minutes)).toEqual([75, 90]);
    expect(reasons(said('.'))).toEqual([['3 out_of_bounds']]);
    expect(minutes('Duration', ['1,250 h', '1,5 h']).accepted.map((r) => r.minutes)).toEqual([75, 90]);
    expect(minutes('Duration', ['1,250 h', '1,5 h']).dialect.decimal).toBe(',');
  });
  it('below nothing it is out of bounds, with its unit as without', () =>
    expect(reasons(minutes('Duration (min)', ['-5', '-5 min']))).toEqual([['3 out_of_bounds'], ['3 out_of_bounds']]));
  it('what is written in another form than its column is not guessed', () => {
    expect(reasons(minutes('Duration', ['75', '3:49', '2000']))).toEqual([]);
    const said = (cells: readonly string[], answer: string) => reasons(minutes('Duration', cells, [{ code: 'duration_form', column: 3, answer }]));
    expect(said(['75', '3:49'], 'min')).toEqual([['3 bad_duration']]);
    expect(said(['3:49', '75'], 'h:mm')).toEqual([['3 bad_duration']]);
  });
  it('a figure whose mark is open rules no form out', () => {
    // 1,250 can be minutes or hours until its mark is known; 1500 can be no hours.
    const rows = ['Start;End;Station;Duration', '2025-10-14 13:00;2025-10-14 14:15;Vrba Crossing;1,250', '2025-10-13 08:00;;Vrba Crossing;75'];
    const forms = (answers: readonly SheetAnswer[]) => read(rows, answers).asks.map((a) => a.code);
    expect(forms([])).toEqual(['decimal_mark', 'duration_form']);
  });
  it('the unit that is written out in a heading says more than its word', () => {
    expect(minutes('Minutes (h:mm)', ['1:05']).accepted.map((r) => r.minutes)).toEqual([65]);
    expect(minutes('Minutes', ['1:05']).accepted[0]?.minutes).toBeCloseTo(1.083333, 6);
  });
});

it.each([
  ['Handshake', '1 min 5 s', 65],
  ['Handshake', '1:05', 65],
  ['Handshake', '12,5', 12.5],
  ['Handshake', '1,5 min', 90],
  ['Handshake (min)', '2', 120],
  ['Handshake (min)', '30 s', 30],
  ['Handshake', '0,5 h', 1800],
])('%s %s is %d s', (heading, cell, want) => expect(read([`Start;Station;${heading}`, `${START};${cell}`]).accepted.map((r) => r.handshake_s)).toEqual([want]));
it('a handshake that is none is refused, one of two marks is asked', () => {
  expect(reasons(read(['Start;Station;Handshake', `${START};soon`, `${START};-1`, `${START};=A1`]))).toEqual([
    ['3 bad_number'],
    ['3 out_of_bounds'],
    ['3 formula'],
  ]);
  expect(read(['Start;Station;Handshake', `${START};1,250`]).asks).toMatchObject([{ code: 'decimal_mark', column: 3, lines: [2] }]);
});

describe('times', () => {
  it('a start from the end is a whole millisecond', () =>
    expect(read(['End;Station;Duration', `${START};9 min 58 s`]).accepted.map((r) => r.start)).toEqual([Date.parse('2025-10-14T11:42:02Z')]));
  it('both that lie ahead are told', () => {
    expect(reasons(read(['Start;End;Station', '2025-12-01 10:00;2025-12-01 11:00;Vrba Crossing']))).toEqual([['1 in_future', '2 in_future']]);
    expect(reasons(read(['Start;End;Station', '2025-11-21 23:30;2025-11-22 01:30;Vrba Crossing']))).toEqual([['2 in_future']]);
    expect(reasons(read(['Start;End;Station', '1989-12-01 10:00;1989-12-01 11:00;Vrba Crossing']))).toEqual([['1 out_of_bounds']]);
  });
  it('an end by itself lacks its start, wherever the day stands', () => {
    expect(reasons(read(['Date;Start;End;Station', '2025-10-14;;14:00;Vrba Crossing']))).toEqual([['2 no_time']]);
    expect(reasons(read(['Date;End;Station', '2025-10-14;14:00;Vrba Crossing']))).toEqual([['1 no_time']]);
    expect(reasons(read(['End;Station', '14:00;Vrba Crossing']))).toEqual([['1 no_time']]);
  });
  it('what is wrong with one of them hides nothing of the others', () => {
    const rows = (...cells: string[]) => reasons(read(['Date;Start;End;Station', ...cells.map((c) => `${c};Vrba Crossing`)]));
    expect(rows(';10:00;31.02.2025 11:00')).toEqual([['2 bad_date', '3 bad_date']]);
    expect(rows('yesterday;10:00;2025-10-14 25:00')).toEqual([['1 bad_date', '3 bad_time']]);
    expect(rows('10:00;;2025-10-14 11:00')).toEqual([['1 bad_date']]);
    expect(rows(';2025-03-30 02:30;2025-12-01 03:00')).toEqual([['2 time_skipped', '3 in_future']]);
    expect(rows(';1989-05-01 10:00;2025-03-30 02:30')).toEqual([['2 out_of_bounds', '3 time_skipped']]);
    expect(rows(';1989-05-01 10:00;1989-04-30 10:00')).toEqual([['2 out_of_bounds', '3 end_before_start']]);
    expect(rows(';1989-05-01 10:00;soon')).toEqual([['2 out_of_bounds', '3 bad_date']]);
    expect(rows('1989-05-01;;soon')).toEqual([['3 bad_date']]);
    expect(rows(';2025-12-01;')).toEqual([['2 in_future']]);
    expect(rows('2025-10-14;;31.02.2025')).toEqual([['3 bad_date']]);
  });
  it('an end that the clocks skip is told before the form of the minutes is known', () =>
    expect(reasons(read(['End;Station;Duration', '2025-03-30 02:30;Vrba Crossing;0:20']))).toEqual([['1 time_skipped']]));
  it('a start that lies too far back by the end and the minutes is told at the end', () =>
    expect(reasons(read(['End;Station;Duration', '1990-01-01 00:30;Vrba Crossing;90 min', '2025-12-01 10:00;Vrba Crossing;90 min']))).toEqual([
      ['1 out_of_bounds'],
      ['1 in_future'],
    ]));
  it.each([
    ['Mon 10/27/2025', 'dmy', ['1 bad_date']],
    ['Mon 10/27/2025', 'mdy', '2025-10-27'],
    ['Tue, 10/27/2025', 'mdy', ['1 bad_date']],
    ['Mo. 3/2/2025', 'dmy', '2025-02-03'],
    ['Mo. 3/2/2025', 'mdy', ['1 bad_date']],
    ['Sun 3/2/2025', 'mdy', '2025-03-02'],
    ['Wed 3/2/2025', 'dmy', ['1 bad_date']],
    ['Wed 8/8/2025', 'dmy', ['1 bad_date']],
    ['Tue 27.10.2025', 'dmy', ['1 bad_date']],
  ])('%s, day and month in the order %s', (cell, order, want) => {
    const got = read(['Start;Station', `${cell} 12:00;Vrba Crossing`], [{ code: 'date_order', answer: order }]);
    const day = got.accepted.map((r) => new Date(r.start).toISOString().slice(0, 10))[0];
    expect(day ?? reasons(got)[0]).toEqual(want);
  });
  it('a weekday that fits neither order is no date, and no question', () => {
    const got = read(['Start;Station', 'Wed 3/2/2025 12:00;Vrba Crossing', '3/2/2025 12:00;Vrba Crossing']);
    expect([reasons(got), got.asks.map((a) => a.lines)]).toEqual([[['1 bad_date']], [[3]]]);
    expect(read(['Start;Station', 'Mon 3/2/2025 12:00;Vrba Crossing', '5/4/2025 12:00;Vrba Crossing']).dialect.dateOrder).toBe('dmy');
  });
  it('the form of durations is told by times as they were: over a change of the clocks, by an offset, in the zone of a heading or a site', () => {
    const form = (heading: string, cells: string, site = 'Vrba Crossing') => {
      const got = read([`${heading};Station;Duration`, `${cells.replace(/;([^;]*)$/, `;${site};$1`)}`]);
      return got.accepted.map((r) => r.minutes)[0] ?? got.asks.map((a) => a.code);
    };
    expect(form('Start;End', '2025-10-26 01:30;2025-10-26 04:00;3:30')).toBe(210);
    expect(form('Start;End', '2025-10-26 01:30;2025-10-26 04:00;2:30')).toEqual(['duration_form']);
    expect(form('Start;End', '2025-10-14T10:00Z;2025-10-14 12:41;0:41')).toBe(41);
    expect(form('Start (UTC);End', '2025-10-14 10:00;2025-10-14 12:41;0:41')).toBe(41);
    expect(form('Start (UTC);End', '2025-10-14 10:00;2025-10-14 12:41;2:41')).toEqual(['duration_form']);
    expect(form('Start (UTC);End', '2025-10-14 10:00;2025-10-14 11:41;0:41', 'Marram Point - 2')).toBe(41);
    expect(form('Start;End', '3/4/2025 23:50;3/5/2025 00:31;0:41')).toEqual(['duration_form', 'date_order']);
  });
  it('a row that asks one thing of two cells asks it once', () =>
    expect(read(['Start;End;Station', '3/4/2025 10:00;3/4/2025 11:00;Vrba Crossing', '4/5/2025 10:00;;Vrba Crossing']).asks).toEqual([
      { code: 'date_order', column: null, options: ['dmy', 'mdy'], lines: [2, 3] },
    ]));
});

describe('where the clocks are turned back', () => {
  const at = (start: string, end: string, minutes = '') => {
    const got = read(['Start;End;Station;Minutes', `${start};${end};Vrba Crossing;${minutes}`]);
    const told = got.accepted.map((r) =>
      `${new Date(r.start).toISOString().slice(8, 16)} ${new Date(r.end as number).toISOString().slice(8, 16)} ${r.warnings}`.trim(),
    );
    return told[0] ?? got.asks.map((a) => `${a.code} ${a.column}`)[0] ?? reasons(got)[0]?.[0];
  };
  it.each([
    // Ten past two comes again twenty minutes after ten to three.
    ['2025-10-26 02:50', '02:10', '20', '26T00:50 26T01:10'],
    ['2025-10-26 02:50', '02:10', '', 'time_twice 1'],
    ['2025-10-26T02:50+02:00', '02:10', '20', '26T00:50 26T01:10'],
    ['2025-10-26T02:50+02:00', '02:10', '', 'time_twice 2'],
    ['2025-10-26T02:50+01:00', '02:10', '', '26T01:50 27T01:10 end_next_day'],
    ['2025-10-26 01:50', '02:10', '80', '25T23:50 26T01:10'],
    ['2025-10-26 01:50', '01:50', '0', '25T23:50 25T23:50'],
    ['2025-10-14 10:00:30', '10:00:15', '', '14T08:00 15T08:00 end_next_day'],
    ['2025-10-14 10:00:00.5', '10:00:00.250', '', '14T08:00 15T08:00 end_next_day'],
    // Half past two is skipped in the night that follows.
    ['2025-03-29 23:00', '02:30', '', '2 time_skipped'],
    ['2025-10-14 10:00', '2025-10-16 10:00', '', '14T08:00 16T08:00'],
    ['2025-10-14 10:00', '2025-10-16 10:01', '', '2 out_of_bounds'],
    ['1990-01-01T00:00Z', '1990-01-01T01:00Z', '', '01T00:00 01T01:00'],
  ])('%s to %s, %s minutes', (start, end, minutes, want) => expect(at(start, end, minutes)).toBe(want));
});

describe('where a row was', () => {
  const place = (site: string, stall = '', network = '') => {
    const [r] = read(['Start;Station;Stall;Network', `2025-10-14 13:52;${site};${stall};${network}`]).accepted;
    return r && [r.site, r.stall, r.network].map((x) => x ?? '–').join(' | ');
  };
  it.each([
    ['vrba  CROSSING', ' # 4 ', '', 'Vrba Crossing | 4 | Saltmarsh Rapid'],
    ['Vrba Crossing', 'Säule:  Nr. 4', '', 'Vrba Crossing | 4 | Saltmarsh Rapid'],
    ['Vrba Crossing', '#', '', 'Vrba Crossing | # | Saltmarsh Rapid'],
    ['Vrba Crossing', 'the post 4', '', 'Vrba Crossing | the post 4 | Saltmarsh Rapid'],
    ['Vrba Crossing', 'post', '', 'Vrba Crossing | post | Saltmarsh Rapid'],
    ['Vrba Crossing', 'Bay 4 left', '', 'Vrba Crossing | 4 left | Saltmarsh Rapid'],
    ['Lipa Barn', 'NORTH', '', 'Lipa Barn | North | Bluebarn'],
    ['Lipa Barn', 'Nordwest', '', 'Lipa Barn | Nordwest | Bluebarn'],
    ['Lipa Barn - north', '', 'new   licht', 'Lipa Barn | North | new licht'],
    ['Lipa Barn #  7', '', '', 'Lipa Barn | 7 | Bluebarn'],
    ['Lipa Barn, South', '', 'bluebarn', 'Lipa Barn | South | Bluebarn'],
    ['Hrast Depo / B2', '', '', 'Hrast Depo | B2 | –'],
    ['Hrast Depo #12345', '', '', 'Hrast Depo #12345 | – | –'],
    ['Hrast Depo, 2', '', '', 'Hrast Depo, 2 | – | –'],
    ['Hrast  Depo', '', '', 'Hrast Depo | – | –'],
  ])('%s, %s, %s', (site, stall, network, want) => expect(place(site, stall, network)).toBe(want));
});

describe('a decimal mark that a column does not prove itself', () => {
  const kWh = (energy: string, cost: string, heading = 'Energy (kWh)') => {
    const got = read([`Start;Station;${heading};Cost`, `${START};${energy};1`, `${START.replace('14', '15')};;${cost}`]);
    return got.accepted.map((r) => r.kWh)[0] ?? got.asks.map((a) => `${a.code} ${a.column}`)[0] ?? reasons(got)[0]?.[0];
  };
  it.each([
    ['12,345', '1.50', 'Energy (kWh)', 'decimal_mark 3'],
    ['1,345', '1.50', 'Energy (kWh)', '1345'],
    ['12,345', '1,50', 'Energy (kWh)', '12.345'],
    ['12,345', '1.50', 'Energy (Wh)', '12.345'],
    ['12,345', '1', 'Energy (kWh)', 'decimal_mark 3'],
    ['12,345 Wh', '1.50', 'Energy (kWh)', '12.345'],
  ])('%s beside %s under %s', (energy, cost, heading, want) => expect(kWh(energy, cost, heading)).toBe(want));
  it.each([
    ['Cost', '120,345', 'Energy (kWh)', 'decimal_mark 3'],
    ['Cost', '20,345', 'Energy (kWh)', '20345'],
    ['Price per kWh', '1,345', 'Energy (kWh)', 'decimal_mark 3'],
    ['SoC from', '1,345', 'Energy (kWh)', '3 out_of_bounds'],
  ])('%s of %s', (heading, cell, other, want) => {
    const got = read([`Start;Station;${heading};${other}`, `${START};${cell};1.5`]);
    const said = got.accepted.map((r) => r.amount ?? r.perKWh)[0] ?? got.asks.map((a) => `${a.code} ${a.column}`)[0] ?? reasons(got)[0]?.[0];
    expect(said).toBe(want);
  });
  it.each([
    ['EUR', '100', '100000', ['100', '100000']],
    ['EUR', '100.01', '100000.01', ['4 out_of_bounds', '5 out_of_bounds']],
    // Of money without a smaller coin a kWh is tens and hundreds: 229 forint (common practice, no source).
    ['HUF', '229', '112345', ['229', '112345']],
    ['JPY', '999999', '100000000', ['999999', '100000000']],
    ['JPY', '1000000', '100000001', ['4 out_of_bounds', '5 out_of_bounds']],
    ['CZK', '101', '1', ['4 out_of_bounds']],
  ])('%s: %s a kWh, %s in all', (currency, perKWh, amount, want) => {
    const got = read(['Start;Station;Currency;Price per kWh;Cost', `${START};${currency};${perKWh};${amount}`]);
    expect(got.accepted.length > 0 ? [got.accepted[0]?.perKWh, got.accepted[0]?.amount] : reasons(got)[0]).toEqual(want);
  });
  it('is asked where the others do not agree, or its own cells do not', () => {
    const asks = (...rows: string[]) =>
      read(['Start;Station;Energy (kWh);Cost;SoC from', ...rows.map((r, i) => `2025-10-1${i} 10:00;Vrba Crossing;${r}`)]).asks;
    expect(asks('1,345;1.5;1,5')).toMatchObject([{ code: 'decimal_mark', column: 3, lines: [2] }]);
    expect(asks('1,345;1,5;', '1.5;;', '2,5;;')).toMatchObject([{ code: 'decimal_mark', column: 3, lines: [2] }]);
    expect(asks('1,345;1,5;', '2,5;;', ';1.5;')).toEqual([]);
  });
});

describe('columns', () => {
  it('while it is open what a column is of, a row waits, whatever else stands in it', () => {
    const rows = ['Start;Station;Price;Energy (kWh)', `${START};0,55;12,5`, `${START};0,55;lots`, `;;0,55;1`];
    const open = read(rows);
    expect([open.accepted, open.refused, open.waiting]).toEqual([[], [], [2, 3, 4]]);
    expect(open.asks).toEqual([{ code: 'column_meaning', column: 3, options: ['amount', 'perKWh'], lines: [2, 3, 4] }]);
    const said = read(rows, [{ code: 'column_meaning', column: 3, answer: 'perKWh' }]);
    expect([said.accepted.map((r) => r.perKWh), reasons(said)]).toEqual([['0.55'], [['4 bad_number'], ['1 no_time', '2 no_site']]]);
  });
  it.each([
    ['Price per kWh (EUR)', 'EUR'],
    ['Price per kWh, £', '£'],
    ['Preis pro kWh CHF', 'CHF'],
    ['EUR/kWh', 'EUR'],
    ['Price per kWh', null],
  ])('%s is a price for a kWh', (heading, currency) =>
    expect(read([`Start;Station;${heading}`, `${START};0,55`]).columns[2]).toEqual({ n: 3, heading, field: 'perKWh', unit: null, currency }),
  );
  it('a phrase with a currency is not of energy for its unit', () =>
    expect(read(['Start;Station;Cost kWh EUR', `${START};5`]).columns[2]).toMatchObject({ field: 'amount', unit: 'kWh', currency: 'EUR' }));
});
