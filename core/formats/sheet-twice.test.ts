import fc from 'fast-check';
import { localDay } from '../units/zoned';
import { fold } from './match-sessions';
import { readingSheet, readSheet } from './sheet-import';

const world = {
  sites: [
    { name: 'Lipa Barn', network: 'Bluebarn', zone: 'Europe/Ljubljana', stalls: [] },
    { name: 'Zdravec', network: 'Otter', zone: 'Asia/Tokyo', stalls: [] },
  ],
  networks: ['Bluebarn', 'Otter'],
};
const settings = { zone: 'UTC', now: Date.UTC(2025, 11, 1), currency: 'EUR' };
const read = (lines: readonly string[]) => {
  const got = readSheet(new TextEncoder().encode(['Start;Station;Energy (kWh)', ...lines].join('\n')), world, settings);
  if (!got.ok) throw new Error(got.code);
  return got;
};

const cell = fc
  .record({
    minute: fc.option(fc.integer({ min: 0, max: 60 }), { freq: 4 }),
    day: fc.constantFrom('2025-10-14', '2025-10-15'),
    hour: fc.constantFrom('00', '12', '23'),
    site: fc.constantFrom('Lipa Barn', 'LIPA BARN', 'Zdravec', 'Elsewhere'),
    kWh: fc.constantFrom('10,5', '20,5', '0,0'),
  })
  .map(({ minute, day, hour, site, kWh }) => `${day}${minute === null ? '' : ` ${hour}:${String(minute % 60).padStart(2, '0')}`};${site};${kWh}`);

describe('rows that tell of one session twice', () => {
  it('are those of a place and energy within ten minutes of the first of them, or on its day where only that is told', () => {
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 14 }), (lines) => {
        const { accepted, asks } = read(lines);
        const zoneOf = (site: string) => world.sites.find((s) => s.name === site)?.zone ?? 'UTC';
        const groups: (typeof accepted)[] = [];
        for (const r of accepted) {
          if (Number(r.kWh) <= 0) continue;
          const its = groups.find(([first]) => {
            if (!first || fold(first.site) !== fold(r.site) || first.kWh !== r.kWh) return false;
            if (first.startPrecision === 'day' || r.startPrecision === 'day')
              return localDay(first.start, zoneOf(first.site)) === localDay(r.start, zoneOf(r.site));
            return Math.abs(first.start - r.start) <= 10 * 60_000;
          });
          if (its) its.push(r);
          else groups.push([r]);
        }
        expect(asks.filter((a) => a.code === 'duplicate').map((a) => a.lines)).toEqual(groups.filter((g) => g.length > 1).map((g) => g.map((r) => r.line)));
      }),
      { seed: 16, numRuns: 1000 },
    );
  });
});

it('between two that are no session told twice, a row goes with the one that came first, whichever was earlier', () => {
  const at = (time: string) => `2025-10-14 ${time};Lipa Barn;10,5`;
  const twice = (...times: string[]) =>
    read(times.map(at))
      .asks.filter((a) => a.code === 'duplicate')
      .map((a) => a.lines);
  expect(twice('12:12', '12:00', '12:06')).toEqual([[2, 4]]);
  expect(twice('12:00', '12:12', '12:06')).toEqual([[2, 4]]);
  // Ten minutes are near, eleven are not.
  expect(twice('12:09', '12:19', '12:30')).toEqual([[2, 3]]);
});

describe('a long sheet', () => {
  // Of one place and one energy, as a driver has who always charges the same at the same stall.
  const lines = Array.from(
    { length: 5000 },
    (_, i) => `${new Date(Date.UTC(2015, 0, 1) + i * 3_600_000).toISOString().slice(0, 16).replace('T', ' ')};Zdravec;20,5`,
  );
  it('is read in steps, with others having their turn between them, to what it is at once', () => {
    const bytes = new TextEncoder().encode(['Start;Station;Energy (kWh)', ...lines].join('\n'));
    const steps = readingSheet(bytes, world, settings);
    let turns = 0;
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) {
        expect(step.value).toEqual(readSheet(bytes, world, settings));
        break;
      }
      turns += 1;
    }
    // Records are cut, told apart, looked at for decimals and dates, read and held against each other.
    expect(turns).toBeGreaterThanOrEqual(6 * (5000 / 200));
  });
  it('asks once what all its rows ask', () => {
    const got = readSheet(new TextEncoder().encode(['Start;Station;Energy', ...lines].join('\n')), world, settings);
    expect(got.ok && got.asks.map((a) => [a.code, a.lines.length])).toEqual([['energy_unit', 5000]]);
  });
});
