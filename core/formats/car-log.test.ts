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
    ['a stopwatch', 'elapsed|kW|%', (i) => `0:${String(i * 2).padStart(2, '0')}|${50 + i}|${20 + i}`],
    ['day and time apart by a blank, in another order', 'battery level;power;date time', (i) => `${20 + i};${50 + i};14.10.2025 13:52:${String(10 + i * 2)}`],
  ])('by %s', (_, head, row) => {
    const { samples, skipped, turned } = ok(lines(head, row));
    expect(samples).toHaveLength(12);
    expect(samples[3]).toEqual({ s: 6, kW: 53, socPct: 23 });
    expect([skipped, turned]).toEqual([0, false]);
  });
  it('tells power by volts times amps, and what counts charging as less than nothing is turned', () => {
    const read = ok(lines('t,Pack Voltage (V),Pack Current (A)', (i) => `${i},400,${-100 - i}`));
    expect(read.turned).toBe(true);
    expect(read.samples[2]).toEqual({ s: 2, V: 400, A: 102, kW: 40.8 });
    expect(read.columns).toEqual({ time: 't', V: 'Pack Voltage (V)', A: 'Pack Current (A)' });
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
