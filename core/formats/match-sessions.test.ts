import fc from 'fast-check';
import { ROWS_A_STEP } from '../units/steps';
import { localDay } from '../units/zoned';
import { type BilledItem, fold, matchingSessions, matchSessions, type RecordedAttempt } from './match-sessions';

const MIN = 60_000;
const HOUR = 60 * MIN;
// The last hours of summer time, and a zone that is a day ahead of another.
const AT = Date.UTC(2025, 9, 25, 22);
const attempt = (n: number, more: Partial<RecordedAttempt> = {}): RecordedAttempt => ({
  visitId: `v${n}`,
  n: 1,
  site: 'Lipa Barn',
  stall: null,
  start: AT,
  kWh: '10',
  power: true,
  zone: 'Europe/Ljubljana',
  pulledIn: AT - 5 * MIN,
  pulledOut: AT + HOUR,
  ...more,
});
const item = (id: string, more: Partial<BilledItem> = {}): BilledItem => ({
  id,
  site: 'Lipa Barn',
  stall: null,
  start: AT,
  dayOnly: false,
  kWh: '10',
  credits: null,
  ...more,
});

const when = fc.integer({ min: -40, max: 40 }).map((quarters) => AT + quarters * 7.5 * MIN);
const sites = fc.constantFrom('Lipa Barn', 'LIPA  BARN', 'Zdravec', 'Straße', 'STRASSE');
const energies = fc.constantFrom(null, '0', '10', '10.05', '10.5', '10.6', '20', '21');
const attempts = fc
  .array(
    fc.record({
      site: sites,
      start: fc.option(when),
      pulledIn: when,
      stay: fc.option(fc.integer({ min: 1, max: 3000 })),
      kWh: energies,
      power: fc.boolean(),
      zone: fc.constantFrom('UTC', 'Europe/Ljubljana', 'Pacific/Kiritimati', 'America/New_York'),
    }),
    { maxLength: 8 },
  )
  .map((all) => all.map(({ stay, ...a }, n) => attempt(n, { ...a, pulledOut: stay === null ? null : a.pulledIn + stay * MIN })));
const items = fc
  .array(fc.record({ site: sites, start: when, dayOnly: fc.boolean(), kWh: energies }), { maxLength: 8 })
  .map((all) => all.map((i, n) => item(`i${n}`, i)));

/** Whether an attempt is at an item's place, within a quarter of an hour (or on its day), with its energy to half a kWh or 5 %. */
function isIts(i: BilledItem, a: RecordedAttempt): boolean {
  if (fold(i.site) !== fold(a.site)) return false;
  const kWh = a.kWh ?? (a.power ? null : '0');
  if (i.kWh !== null && kWh !== null && Math.abs(Number(i.kWh) - Number(kWh)) > Math.max(0.5, 0.05 * Math.max(Number(i.kWh), Number(kWh))) + 1e-9) return false;
  if (i.dayOnly) return localDay(i.start, a.zone) === localDay(a.start ?? a.pulledIn, a.zone);
  if (a.start !== null) return Math.abs(i.start - a.start) <= 15 * MIN;
  return i.start >= a.pulledIn - 15 * MIN && i.start <= (a.pulledOut ?? a.pulledIn + 12 * HOUR) + 15 * MIN;
}

describe('billed sessions and recorded attempts', () => {
  it('are held against each other where one is at the place and time of the other, and nowhere else', () => {
    fc.assert(
      fc.property(items, attempts, (billed, recorded) => {
        const { pairs, asks, unmatchedItems } = matchSessions(billed, recorded);
        const spoken = new Map<string, string[]>(billed.map((i) => [i.id, []]));
        for (const p of pairs) spoken.get(p.item)?.push(p.visitId);
        for (const a of asks) if (a.code === 'several' || a.code === 'already_paired') spoken.get(a.item)?.push(...a.candidates.map(([v]) => v));
        for (const i of billed) {
          const its = recorded.filter((a) => isIts(i, a)).map((a) => a.visitId);
          const told = spoken.get(i.id) as string[];
          for (const v of told) expect(its).toContain(v);
          expect(told.length > 0).toBe(its.length > 0);
          if (its.length === 0) expect(unmatchedItems.includes(i.id) || asks.some((a) => a.item === i.id)).toBe(true);
        }
      }),
      { seed: 14, numRuns: 1000 },
    );
  });
  it('are asked about where the clock is an hour or two off at the place, or the time is right at another', () => {
    fc.assert(
      fc.property(items, attempts, (billed, recorded) => {
        const near = (i: BilledItem, a: RecordedAttempt, hours: number) =>
          a.start !== null &&
          Math.abs(Math.abs(i.start - a.start) - hours * HOUR) <= 15 * MIN &&
          i.kWh !== null &&
          (a.kWh ?? (a.power ? null : '0')) !== null &&
          Math.abs(Number(i.kWh) - Number(a.kWh ?? 0)) <= 0.1 + 1e-9;
        const { asks } = matchSessions(billed, recorded);
        for (const i of billed) {
          if (recorded.some((a) => isIts(i, a))) continue;
          const off = i.dayOnly ? [] : recorded.filter((a) => fold(a.site) === fold(i.site) && (near(i, a, 1) || near(i, a, 2)));
          const elsewhere = i.dayOnly || off.length > 0 ? [] : recorded.filter((a) => fold(a.site) !== fold(i.site) && near(i, a, 0));
          const told = asks.find((a) => a.item === i.id);
          expect(told?.candidates.map(([v]) => v) ?? []).toEqual([...off, ...elsewhere].map((a) => a.visitId));
          if (told) expect(told.code).toBe(off.length > 0 ? 'hour_off' : 'site_differs');
        }
      }),
      { seed: 15, numRuns: 1000 },
    );
  });
  it('of ten thousand visits only those at the place and time are looked into', () => {
    let looked = 0;
    const recorded = Array.from({ length: 10_000 }, (_, n) => {
      const at = AT + n * 9 * HOUR;
      return Object.defineProperty(attempt(n, { site: `Site ${n % 60}`, start: at, pulledIn: at }), 'kWh', {
        get: () => {
          looked += 1;
          return '10';
        },
      });
    });
    const billed = Array.from({ length: 2_000 }, (_, n) => item(String(n), { site: `SITE ${n % 60}`, start: AT + n * 9 * HOUR + MIN / 2 }));
    expect(matchSessions(billed, recorded).pairs).toHaveLength(2_000);
    expect(looked).toBeLessThan(2_000 * 10);
  });
  it('of ten thousand rows that tell no time the day of each is told once, and others have their turn between', () => {
    const days = jest.spyOn(Intl.DateTimeFormat.prototype, 'formatToParts');
    const recorded = Array.from({ length: 2_000 }, (_, n) => attempt(n, { start: AT + n * 2 * HOUR, pulledIn: AT + n * 2 * HOUR }));
    const billed = Array.from({ length: 2_000 }, (_, n) => item(String(n), { start: AT + n * 2 * HOUR + MIN, dayOnly: true }));
    let turns = 0;
    for (const steps = matchingSessions(billed, recorded); !steps.next().done; ) turns += 1;
    expect(turns).toBe((3 * 2_000) / ROWS_A_STEP);
    expect(days.mock.calls.length).toBeLessThanOrEqual(2 * 2_000);
    days.mockRestore();
  });
  it('hang together over any number of steps; what hangs by nothing stands alone', () => {
    const at = (n: number) => AT + n * 10 * MIN;
    const recorded = [0, 1, 2, 9].map((n) => attempt(n, { start: at(n), pulledIn: at(n) }));
    // The third joins what the first two had hanging apart.
    const billed = [item('a', { start: at(-1) }), item('b', { start: at(3) }), item('c', { start: at(1) + 2 * MIN }), item('d', { start: at(9) + 5 * MIN })];
    const { pairs, asks } = matchSessions(billed, recorded);
    expect(pairs.map((p) => [p.item, p.visitId])).toEqual([['d', 'v9']]);
    expect(asks.map((a) => [a.item, a.code, a.candidates.map(([v]) => v).join(' ')])).toEqual([
      ['a', 'several', 'v0'],
      ['b', 'several', 'v2'],
      ['c', 'several', 'v0 v1 v2'],
    ]);
  });
  it('a credit follows what it credits, and a credit of a credit nothing', () => {
    const recorded = [attempt(1), attempt(2, { start: AT + 5 * HOUR, pulledIn: AT + 5 * HOUR })];
    const billed = [
      item('one'),
      item('asked', { start: AT + 5 * HOUR + 10 * MIN, kWh: '10.3' }),
      item('asked too', { start: AT + 5 * HOUR - 10 * MIN, kWh: '10.3' }),
      item('back', { credits: 'one' }),
      item('of none', { credits: 'nobody' }),
      item('of the asked', { credits: 'asked' }),
      item('of a credit', { credits: 'back' }),
    ];
    expect(matchSessions(billed, recorded).credits).toEqual([
      { item: 'back', of: 'one', visitId: 'v1', n: 1, state: 'paired' },
      { item: 'of none', of: 'nobody', visitId: null, n: null, state: 'unmatched' },
      { item: 'of the asked', of: 'asked', visitId: null, n: null, state: 'asked' },
      { item: 'of a credit', of: 'back', visitId: null, n: null, state: 'unmatched' },
    ]);
  });
});

describe('one at the same moment goes before what is merely near', () => {
  const pairs = (items: readonly BilledItem[], all: readonly RecordedAttempt[]) => {
    const { pairs, asks } = matchSessions(items, all);
    return [...pairs.map((p) => `${p.item} ${p.visitId}`), ...asks.map((a) => `${a.item} ${a.code}`)];
  };
  const near = attempt(2, { start: AT + 10 * MIN });
  it.each([
    [0, '10', ['i v1']],
    [MIN, '10', ['i v1']],
    [-MIN, '10.1', ['i v1']],
    [MIN + 1, '10', ['i several']],
    [0, '10.11', ['i several']],
  ])('%d ms and %s kWh', (off, kWh, want) => expect(pairs([item('i', { start: AT + off, kWh })], [attempt(1), near])).toEqual(want));
  it('unless it is known to the day alone', () => expect(pairs([item('i', { dayOnly: true })], [attempt(1), near])).toEqual(['i several']));
  it('or energy or start are not known', () => {
    expect(pairs([item('i', { kWh: null })], [attempt(1), near])).toEqual(['i several']);
    expect(pairs([item('i')], [attempt(1, { kWh: null }), near])).toEqual(['i several']);
    expect(pairs([item('i', { start: 0 })], [attempt(1, { start: null, pulledIn: 0, pulledOut: null }), attempt(2, { start: 10 * MIN })])).toEqual([
      'i several',
    ]);
  });
  it('unless two of the file are as close to it: neither is the one', () =>
    expect(pairs([item('i'), item('j', { start: AT + MIN / 2 })], [attempt(1)])).toEqual(['i several', 'j several']));
  it('and the stall tells which of two merely near it is, where both name one', () => {
    const bare = attempt(1, { start: AT + 5 * MIN });
    const named = attempt(3, { start: AT + 8 * MIN, stall: ' 4' });
    expect(pairs([item('i', { stall: '4' })], [bare, named])).toEqual(['i v3']);
    expect(pairs([item('i')], [bare, named])).toEqual(['i several']);
    expect(pairs([item('i', { stall: '5' })], [bare, named])).toEqual(['i several']);
  });
});

describe('a pair says how far the two are from each other', () => {
  const pairOf = (i: Partial<BilledItem>, a: Partial<RecordedAttempt>) => {
    const [{ offset_s, stallDiffers, kWhDiff } = {}] = matchSessions([item('i', i)], [attempt(1, a)]).pairs;
    return [offset_s, stallDiffers, kWhDiff];
  };
  it.each<[string, Partial<BilledItem>, Partial<RecordedAttempt>, unknown[]]>([
    ['in time and energy', { start: AT + 90_000, kWh: '10.25' }, {}, [90, null, '0.25']],
    ['in stall, where both name one', { stall: 'A 4' }, { stall: 'a  4' }, [0, false, '0']],
    ['other stalls', { stall: '4' }, { stall: '5' }, [0, true, '0']],
    ['a stall that only one names', { stall: '4' }, {}, [0, null, '0']],
    ['a stall that only the other names', {}, { stall: '4' }, [0, null, '0']],
    ['no time of a day', { dayOnly: true }, {}, [null, null, '0']],
    ['no time of one that has no start', {}, { start: null }, [null, null, '0']],
    ['no energy where one tells none', { kWh: null }, {}, [0, null, null]],
    ['nor of what was recorded without', {}, { kWh: null }, [0, null, null]],
    ['of one that never had power nought', { kWh: '0' }, { kWh: null, power: false }, [0, null, '0']],
  ])('%s', (_, i, a, want) => expect(pairOf(i, a)).toEqual(want));
});
