import fc from 'fast-check';
import { type CsvColumn, type CsvValue, csvBack, csvOut } from './csv-out';
import sheets from './fixtures/sheets.json';
import { type BilledItem, fold, matchSessions, type RecordedAttempt } from './match-sessions';

// biome-ignore lint/suspicious/noExplicitAny: a case is read as it stands in the file.
type Any = any;
const titled = (cases: readonly Any[]) => cases.map((c) => [c.id, c.title, c] as const);
const valueOf = (v: Any): CsvValue => (v !== null && typeof v === 'object' && 'at' in v ? { ...v, at: Date.parse(v.at) } : v);

describe('CSV out', () => {
  it.each(titled(sheets.export))('%s: %s', (_id, _title, { input, file, back }) => {
    const text = csvOut(
      input.columns as CsvColumn[],
      input.rows.map((r: Any[]) => r.map(valueOf)),
    );
    expect(text).toBe(file);
    expect(csvBack(text)).toEqual(back);
  });
  it('what is read back is what was written, whatever the cell', () => {
    // Whole texts, and pieces of what is hostile in a sheet.
    const hostile = fc
      .array(fc.constantFrom('=', '+', '-', '@', '＝', "'", '"', ',', ';', '\t', '\r', '\n', ' ', 'a', '\u00a0', '🔌'), { maxLength: 8 })
      .map((parts) => parts.join(''));
    const columns: CsvColumn[] = [
      { heading: 'a', type: 'text', reason: false },
      { heading: '=b', type: 'text', reason: true },
    ];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.oneof(hostile, fc.string({ unit: 'binary' })), hostile), { maxLength: 5 }), (rows) => {
        const clean = (s: string) => s.replaceAll('\0', '\uFFFD');
        expect(csvBack(csvOut(columns, rows))).toEqual([['a', '=b', '=b: unknown because'], ...rows.map(([a, b]) => [clean(a), b, ''])]);
      }),
      { seed: 31, numRuns: 1000 },
    );
  });
  it('figures without an exponent, minus nothing as nothing, half a pair as no character', () => {
    const column = (type: CsvColumn['type']): CsvColumn[] => [{ heading: 'x', type, reason: false }];
    expect(csvOut(column('number'), [[-0], [1e-7], [1e21]])).toBe('x\r\n0\r\n0.0000001\r\n1000000000000000000000\r\n');
    expect(csvOut(column('text'), [['a\ud800b']])).toBe('x\r\na\ufffdb\r\n');
    expect(csvOut(column('instant'), [[{ at: Date.parse('2025-10-14T11:52:08Z'), zone: 'UTC', precision: 's' }]])).toBe('x\r\n2025-10-14T11:52:08+00:00\r\n');
  });
});

describe('billed sessions and recorded ones', () => {
  const zones = new Map(sheets.world.sites.map((s) => [s.name, s.zone]));
  const itemsOf = (input: Any) =>
    input.items.map((i: Any) => ({
      id: i.id,
      site: i.site,
      stall: i.stall,
      start: Date.parse(i.start),
      dayOnly: i.start_precision === 'day',
      kWh: i.kWh,
      credits: i.credits,
    }));
  const attemptsOf = (input: Any) =>
    input.visits.flatMap((v: Any) =>
      v.attempts.map((a: Any) => ({
        visitId: v.id,
        n: a.n,
        site: v.site,
        stall: a.stall,
        start: a.start ? Date.parse(a.start) : null,
        kWh: a.kWh,
        power: a.power,
        zone: zones.get(v.site) ?? 'UTC',
        pulledIn: Date.parse(v.pulled_in),
        pulledOut: v.pulled_out ? Date.parse(v.pulled_out) : null,
      })),
    );
  const by = (list: readonly Any[]) => [...list].sort((a, b) => (a.item < b.item ? -1 : 1));
  it.each(titled(sheets.match))('%s: %s', (_id, _title, { input, expected }) => {
    const got = matchSessions(itemsOf(input), attemptsOf(input));
    expect(
      by(got.pairs).map((p) => ({
        item: p.item,
        visit: p.visitId,
        attempt: p.n,
        offset_s: p.offset_s,
        stall_differs: p.stallDiffers,
        kWh_diff: p.kWhDiff === null ? null : Number(p.kWhDiff),
      })),
    ).toEqual(by(expected.pairs).map((p) => ({ ...p, kWh_diff: p.kWh_diff === null ? null : Number(p.kWh_diff) })));
    expect(by(got.asks)).toEqual(by(expected.asks));
    expect([...got.unmatchedItems].sort()).toEqual([...expected.unmatched_items].sort());
    expect(got.unmatchedAttempts).toEqual(expected.unmatched_attempts);
    expect(by(got.credits).map((c) => ({ item: c.item, of: c.of, visit: c.visitId, attempt: c.n, state: c.state }))).toEqual(by(expected.credits));
  });
  it.each(titled(sheets.match))('%s in any order gives the same', (_id, _title, { input }) => {
    const [items, attempts] = [itemsOf(input), attemptsOf(input)];
    const [one, two] = [matchSessions(items, attempts), matchSessions([...items].reverse(), [...attempts].reverse())];
    expect(by(two.pairs)).toEqual(by(one.pairs));
    expect(by(two.asks).map((a) => a.item)).toEqual(by(one.asks).map((a) => a.item));
  });
});

it.each([
  ['Gail  Straße 3', 'GAIL STRASSE 3'],
  ['Vrba–Crossing', 'vrba\u2011crossing'],
  ['Vrba－Crossing', 'vrba﹣crossing'],
  ['Café\u00a0Nord', ' CAFE\u0301 NORD '],
  ['ΟΔΟΣ', 'οδος'],
])('%s and %s are one name', (a, b) => expect(fold(a)).toBe(fold(b)));

it('energies apart by five per cent of the greater to the last figure are near, by a trace more not', () => {
  const start = Date.parse('2025-10-14T11:52:00Z');
  const attempt: RecordedAttempt = {
    visitId: 'v',
    n: 1,
    site: 'A',
    stall: null,
    start,
    kWh: '57.00',
    power: true,
    zone: 'UTC',
    pulledIn: start,
    pulledOut: null,
  };
  const paired = (kWh: string, recorded = attempt) => {
    const item: BilledItem = { id: 'i', site: 'a', stall: null, start: start + 120_000, dayOnly: false, kWh, credits: null };
    return matchSessions([item], [recorded]).pairs.length;
  };
  expect([paired('60'), paired('60.001'), paired('54.15'), paired('54.149')]).toEqual([1, 0, 1, 0]);
  expect([paired('5.5', { ...attempt, kWh: '5' }), paired('5.501', { ...attempt, kWh: '5' })]).toEqual([1, 0]);
});
