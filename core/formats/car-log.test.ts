import fc from 'fast-check';
import { readCarLog } from './car-log';

const bytes = (text: string) => new TextEncoder().encode(text);
const lines = (head: string, row: (i: number) => string, n = 12, end = '\n') => bytes([head, ...Array.from({ length: n }, (_, i) => row(i))].join(end));
const ok = (b: Uint8Array) => {
  const read = readCarLog(b);
  if (!read.ok) throw new Error(read.code);
  return read;
};

describe('the log of a car', () => {
  it.each<[string, string, (i: number) => string]>([
    ['ISO 8601 with a zone', 'timestamp,power (kW),soc (%)', (i) => `2025-10-14T13:52:${String(10 + i * 2).padStart(2, '0')}+02:00,${50 + i},${20 + i}`],
    ['seconds from its start, decimal commas', 'Zeit (s);Leistung (kW);Ladestand', (i) => `${i * 2},0;${50 + i},0;${20 + i} %`],
    ['the epoch in milliseconds, watts', 'time\tPower [W]\tSOC', (i) => `${1_760_442_720_000 + i * 2000}\t${50_000 + i * 1000}\t${20 + i}`],
    ['names as programs write them', 'timestamp_utc,charging_power_kw,state_of_charge_percent', (i) => `2025-10-14T13:52:${10 + i * 2}Z,${50 + i},${20 + i}`],
    ['words run together', 'DateTime,ChargePower,BatteryLevel,MotorPower', (i) => `2025-10-14T13:52:${10 + i * 2}Z,${50 + i},${20 + i},7`],
    ['the letters of physics', 't [s],P [kW],SoC [%]', (i) => `${i * 2},${50 + i},${20 + i}`],
    ['a stopwatch', 'elapsed|kW|%', (i) => `0:${String(i * 2).padStart(2, '0')}|${50 + i}|${20 + i}`],
    ['day and time apart by a blank, in another order', 'battery level;power;date time', (i) => `${20 + i};${50 + i};14.10.2025 13:52:${String(10 + i * 2)}`],
  ])('by %s', (_, head, row) => {
    const { samples, skipped, turned } = ok(lines(head, row));
    expect(samples).toHaveLength(12);
    expect(samples[3]).toEqual({ s: 6, kW: 53, socPct: 23 });
    expect([skipped, turned]).toEqual([0, false]);
  });
  it.each<[string, string, (i: number) => string]>([
    ['day and time in two columns', 'Date,Time,kW,soc', (i) => `2025-10-14,13:52:${10 + i * 2},${50 + i},${20 + i}`],
    ['the time before the day', 'Time,Date,kW,soc', (i) => `13:52:${10 + i * 2},2025-10-14,${50 + i},${20 + i}`],
    [
      'a day past midnight in two columns',
      'Datum;Zeit;kW;soc',
      (i) => `${i < 3 ? '14' : '15'}.10.2025;${i < 3 ? `23:59:${54 + i * 2}` : `00:00:${`${i * 2 - 6}`.padStart(2, '0')}`};${50 + i};${20 + i}`,
    ],
    [
      'the time before the day, past the end of January',
      'Zeit;Datum;kW;soc',
      (i) => `${i < 3 ? `23:59:${54 + i * 2}` : `00:00:${`${i * 2 - 6}`.padStart(2, '0')}`};${i < 3 ? '31.01' : '01.02'}.2025;${50 + i};${20 + i}`,
    ],
    ['a clock past midnight', 'time,kW,soc', (i) => `${i < 3 ? `23:59:${54 + i * 2}` : `00:00:${`${i * 2 - 6}`.padStart(2, '0')}`},${50 + i},${20 + i}`],
    [
      'a clock of twelve hours past noon',
      'time,kW,soc',
      (i) => `${i < 3 ? `11:59:${54 + i * 2} AM` : `12:00:${`${i * 2 - 6}`.padStart(2, '0')} PM`},${50 + i},${20 + i}`,
    ],
    [
      'a clock of twelve hours past one',
      'time,kW,soc',
      (i) => `${i < 3 ? `12:59:${54 + i * 2} pm` : `1:00:${`${i * 2 - 6}`.padStart(2, '0')} pm`},${50 + i},${20 + i}`,
    ],
    ['a moment and a count beside it', 'timestamp,elapsed,kW,soc', (i) => `2025-10-14T13:52:${10 + i * 2}Z,${i * 7},${50 + i},${20 + i}`],
    ['a first column of time that is empty', 'timestamp,elapsed,kW,soc', (i) => `,${i * 2},${50 + i},${20 + i}`],
  ])('by %s', (_, head, row) => {
    const { samples, skipped } = ok(lines(head, row));
    expect(samples.map((s) => s.s)).toEqual(Array.from({ length: 12 }, (_, i) => i * 2));
    expect(samples[3]).toEqual({ s: 6, kW: 53, socPct: 23 });
    expect(skipped).toBe(0);
  });
  it('takes a letter for a quantity where its unit stands beside it', () => {
    const row = (i: number) => `${i},${i * 2},50,400,125`;
    expect(ok(lines('i,t,kW,U [V],I [A]', row)).columns).toEqual({ time: 't', kW: 'kW', V: 'U [V]', A: 'I [A]' });
    expect(ok(lines('i,t,P (kW),u,x', row)).columns).toEqual({ time: 't', kW: 'P (kW)' });
  });
  it('knows the volts and amps of a battery, not those of something else', () => {
    const row = (i: number) => `2025-10-14T13:52:${10 + i}Z,20.5,400,50.25,12,7`;
    expect(ok(lines('time,battery_temp,hv_battery_voltage_v,PackCurrent,aux voltage,Charging Time', row)).columns).toEqual({
      time: 'time',
      V: 'hv_battery_voltage_v',
      A: 'PackCurrent',
    });
  });
  it('names both columns of a day and its time', () =>
    expect(ok(lines('Date,Time,Date,kW', (i) => `2025-10-14,13:52:${10 + i * 2},x,50`)).columns).toEqual({ time: 'Date, Time', kW: 'kW' }));
  it('past midnight a line from before it goes back in time, and is no second day; two nights are two', () => {
    const clock = (...at: string[]) => ok(bytes(['time,kW', ...at.map((t) => `${t},50`), ...Array.from({ length: 9 }, (_, i) => `12:00:1${i},50`)].join('\n')));
    const late = clock('23:59:58', '00:00:02', '23:59:59', '00:00:04');
    expect(late.samples.slice(0, 3).map((s) => s.s)).toEqual([0, 4, 6]);
    expect(late.skipped).toBe(1);
    const nights = clock('20:00:00', '01:00:00', '21:00:00', '02:00:00');
    expect(nights.samples.slice(0, 4).map((s) => s.s / 3600)).toEqual([0, 5, 25, 30]);
    // A stopwatch that is set back a little goes back.
    expect(clock('01:00:00', '00:59:00').skipped).toBe(1);
  });
  it('tells power by volts times amps, and what counts charging as less than nothing is turned', () => {
    const read = ok(lines('t,Pack Voltage (V),Pack Current (A)', (i) => `${i},400,${-100 - i}`));
    expect(read.turned).toBe(true);
    expect(read.samples[2]).toEqual({ s: 2, V: 400, A: 102, kW: 40.8 });
    expect(read.columns).toEqual({ time: 't', V: 'Pack Voltage (V)', A: 'Pack Current (A)' });
  });
  it.each<[heading: string, field: string, by: number]>([
    ['Power_kW', 'kW', 1],
    ['DC power W', 'kW', 0.001],
    ['power [ w ]', 'kW', 0.001],
    ['W', 'kW', 0.001],
    ['Charging-power', 'kW', 1],
    ['elapsed (ms)', 'time', 0.001],
    ['time.ms', 'time', 0.001],
    ['Time s', 'time', 1],
    ['Battery_%', 'socPct', 1],
    ['(%)', 'socPct', 1],
    ['state  of\tcharge', 'socPct', 1],
    ['Voltage: V', 'V', 1],
    ['battery current (A)', 'A', 1],
    ['charger_power', 'kW', 1],
    ['Charge rate (kW)', 'kW', 1],
    ['usable_battery_level', 'socPct', 1],
    ['Recorded at', 'time', 1],
  ])('knows the heading %s', (heading, field, by) => {
    const [time, power] = [field === 'time' ? heading : 't', field === 'kW' ? heading : 'kW'];
    const more = ['time', 'kW'].includes(field) ? 'x' : heading;
    const count = field === 'time' ? 1 / by : 1;
    const watts = field === 'kW' ? 1 / by : 1;
    const read = ok(lines(`${time};${power};${more}`, (i) => `${i * count};${50 * watts};60`));
    expect(read.samples[3]).toEqual({ s: 3, kW: 50, ...(more === 'x' ? {} : { [field]: 60 }) });
    expect(read.columns[field as 'kW']).toBe(heading);
  });
  it.each(['kW gross', '(kW)', 'power kwh', 'V2L', 'timed', '% of trips', ''])('takes the heading %s for nothing', (heading) =>
    expect(ok(lines(`t;kW;V;A;soc;${heading}`, (i) => `${i};50;400;100;20;7`)).columns).toEqual({ time: 't', kW: 'kW', V: 'V', A: 'A', socPct: 'soc' }),
  );
  it.each<[cell: string, value: number | null]>([
    ['50.25', 50.25],
    ['50,25', 50.25],
    ['50.', 50],
    ['.5', 0.5],
    ['5e1', 50],
    ['5.25E+1', 52.5],
    ['500e-1', 50],
    ['50 kW', 50],
    ['5 0', 50],
    ['\u221250', -50],
    ['+50', 50],
    ['1000', 1000],
    ['1000.1', null],
    ['-1000', -1000],
    ['-1000.1', null],
    ['1.2.3', null],
    ['e5', null],
    ['5x5', null],
    ['--5', null],
    ['.', null],
  ])('reads the figure %s', (cell, value) => {
    const read = ok(bytes(['t;kW;soc', ...Array.from({ length: 12 }, (_, i) => `${i};${i === 5 ? cell : 50};100`)].join('\n')));
    expect(read.samples[5]).toEqual({ s: 5, ...(value === null ? {} : { kW: value }), socPct: 100 });
  });
  const utc = (at: number, hours = 0) => new Date(at + hours * 3_600_000).toISOString();
  const NOON = Date.UTC(2025, 9, 14, 12);
  // The night in which the clocks go back.
  const BACK = Date.UTC(2025, 9, 26, 0, 59, 50);
  const MIDNIGHT = Date.UTC(2025, 9, 13, 23, 59, 50);
  it.each<[what: string, moment: (s: number) => string]>([
    ['seconds with a comma and their unit', (s) => ` ${s.toFixed(1).replace('.', ',')} s`],
    ['seconds of the epoch', (s) => `${NOON / 1000 + s}`],
    ['milliseconds of the epoch', (s) => `${NOON + s * 1000}`],
    // Milliseconds since 1970 are more: so many are seconds still.
    ['very many seconds', (s) => `${99_999_999_000 + s}`],
    ['decimals of a second', (s) => utc(NOON + s * 1000)],
    ['two offsets', (s) => (s < 10 ? `${utc(BACK + s * 1000, 2).slice(0, -1)}+02:00` : `${utc(BACK + s * 1000, 1).slice(0, -1)}+01:00`)],
    ['an offset of half an hour, and the time that it is behind', (s) => (s < 10 ? `${utc(NOON + s * 1000, -3.5).slice(0, -1)}-03:30` : utc(NOON + s * 1000))],
    ['days before months', (s) => utc(MIDNIGHT + s * 1000).replace(/^(....)-(..)-(..)T(.*)Z/, '$3/$2/$1 $4')],
    ['days that may be months', (s) => utc(Date.UTC(2025, 2, 9, 12) + s * 1000).replace(/^(....)-(..)-(..)T(.*)Z/, '$3/$2/$1 $4')],
    ['minutes and seconds', (s) => `${Math.floor((600 + s) / 60)}:${((600 + s) % 60).toFixed(1).padStart(4, '0').replace('.', ',')}`],
    ['many minutes', (s) => `120:${s.toFixed(2).padStart(5, '0')}`],
    ['many hours', (s) => `100:00:${s.toFixed(1).padStart(4, '0')}`],
  ])('reads moments as %s', (_, moment) => {
    const read = ok(lines('time;kW', (i) => `${moment(i * 2.5)};${50 + i}`));
    expect(read.samples).toEqual(Array.from({ length: 12 }, (_, i) => ({ s: expect.closeTo(i * 2.5, 3), kW: 50 + i })));
  });
  it('tells no power of volts or amps alone; a count that falls back is no midnight', () => {
    const rows = (...some: string[]) => ok(bytes(['t;V;A', ...some, ...Array.from({ length: 10 }, (_, i) => `${100_000 + i};400;100`)].join('\n')));
    expect(rows('0;400;100', '1;400;', '2;;100').skipped).toBe(2);
    const back = rows('80000;400;100', '10;400;100');
    expect([back.skipped, back.samples.at(-1)?.s]).toEqual([1, 20_009]);
  });
  it('leaves out what goes back in time, what has nothing, and what cannot be, and says how many', () => {
    const rows = ['0,50,20', '2,51,21', '1,52,22', '4,,', 'x,53,23', '6,5000,24', '8,54,400', ...Array.from({ length: 9 }, (_, i) => `${10 + i},50,25`)];
    const read = ok(bytes(['time,kW,soc', ...rows].join('\r\n')));
    expect(read.skipped).toBe(3);
    expect(read.samples.slice(0, 4)).toEqual([
      { s: 0, kW: 50, socPct: 20 },
      { s: 2, kW: 51, socPct: 21 },
      { s: 6, socPct: 24 },
      { s: 8, kW: 54 },
    ]);
  });
  it.each(['(', '[a ', '1', 'a', ' '])('a cell of a hundred thousand letters is nothing: %s', (letter) => {
    const long = letter.repeat(100_000);
    const read = ok(bytes([`time;kW;${long}`, `${long};50;1`, `0;${long};1`, ...Array.from({ length: 10 }, (_, i) => `${i + 1};50;1`)].join('\n')));
    expect([read.samples.length, read.skipped]).toEqual([10, 2]);
  });
  it('finds its headings below a few lines of something else', () => {
    expect(ok(lines('Recorder 1.2\n\ntime;kW;soc', (i) => `${i};50;20`)).samples).toHaveLength(12);
  });
  it.each<[string, Uint8Array, string]>([
    ['without a time', lines('kW,soc', () => '50,20'), 'no_time'],
    ['without power', lines('time,soc,V', (i) => `${i},20,400`), 'no_power'],
    ['of nine lines', lines('time,kW', (i) => `${i},50`, 9), 'too_short'],
    ['of nothing', bytes(''), 'no_time'],
    ['with a NUL', bytes('time,kW\n0,\u00001'), 'nul_byte'],
    ['of years', lines('time,kW', (i) => `${i * 1e9},50`, 12), 'too_many_days'],
    ['of more than eight days', lines('time,kW', (i) => `${i === 11 ? 8 * 86_400 + 1 : i},50`, 12), 'too_many_days'],
    ['of too many lines', lines('t,kW', (i) => `${i},5`, 100_001), 'too_long'],
    ['of one endless line', bytes(`t,kW\n${'1'.repeat(1_200_000)}`), 'record_too_long'],
  ])('%s is refused', (_, file, code) => expect(readCarLog(file)).toMatchObject({ ok: false, code }));
  it('never throws, whatever the bytes, and its seconds rise', () => {
    const any = fc.oneof(
      fc.uint8Array({ maxLength: 300 }),
      fc.string({ maxLength: 300 }).map(bytes),
      fc
        .array(fc.tuple(fc.string({ maxLength: 8 }), fc.string({ maxLength: 8 })), { minLength: 12, maxLength: 30 })
        .map((r) => bytes(`time,kW\n${r.map((x) => x.join(',')).join('\n')}`)),
    );
    fc.assert(
      fc.property(any, (b) => {
        const read = readCarLog(b);
        return !read.ok || read.samples.every((s, i) => i === 0 || s.s > (read.samples[i - 1]?.s as number));
      }),
      { numRuns: 1000 },
    );
  });
});
