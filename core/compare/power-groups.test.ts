import type { PastSession } from '../power/past-sessions';
import { recordItem } from '../records/record-schema';
import { judgedSessions, medianLimits, powerGroups, powerGroupsCsv, powerSentence } from './power-groups';

const ID = '01900000-0000-7000-8000-0000000000aa';
const stands = (ratedKW: number): PastSession['stands'] => {
  const car = recordItem('car', ID, {
    name: 'Heron 62',
    usableKWh: 60,
    connectors: ['CCS2'],
    curve: [
      [0, 120],
      [100, 120],
    ],
  }).fields;
  const stall = recordItem('stall', ID, { siteId: ID, name: '1', outlets: [{ connector: 'CCS2', ratedKW }] }).fields;
  return { car, stall, outlet: stall.outlets[0] as never, adapter: null };
};
let id = 0;
/** 20 to 60 % of 60 kWh: 24 kWh, 12 min at 120 kW. */
const session = (siteId: string | null, took_min: number, more: Partial<PastSession> = {}, ratedKW = 150): PastSession => {
  id += 1;
  return {
    visitId: String(id),
    n: 1,
    day: `2025-10-${String(id).padStart(2, '0')}`,
    at: id,
    networkId: 'n',
    siteId,
    stallId: `stall ${siteId} ${ratedKW}`,
    model: '',
    carId: 'c',
    looks: { from: 20, to: 60, took_min, kWh: 24, charging_s: took_min * 60, peak_kW: 120, klass: 'usual', hindered: false, connector: null, looks: [] },
    stands: stands(ratedKW),
    ...more,
  };
};
const name = (key: string) => key.toUpperCase();

describe('how stalls kept their word', () => {
  it('a stall is judged only by what the car is known to take: its curve for direct current, its onboard charger for alternating', () => {
    const at = (connector: string, more: object) => {
      const s = stands(connector === 'CCS2' ? 150 : 22) as NonNullable<PastSession['stands']>;
      return { ...s, car: { ...s.car, ...more }, outlet: { ...s.outlet, connector, phases: null, maxA: null } } as PastSession['stands'];
    };
    const word = (connector: string, more: object) => judgedSessions([session('a', 120, { stands: at(connector, more) })])[0]?.word_min ?? null;
    expect(word('CCS2', {})).toBeCloseTo(12, 9);
    expect(word('CCS2', { curve: [], maxACkW: 11 })).toBeNull();
    expect(word('Type 2', { maxACkW: null })).toBeNull();
    // 24 kWh in the battery, 26.7 by the meter, at 11 kW.
    expect(word('Type 2', { maxACkW: 11 })).toBeCloseTo((24 / 0.9 / 11) * 60, 9);
    expect(word('Type 2', { maxACkW: 11, curve: [] })).toBeCloseTo((24 / 0.9 / 11) * 60, 9);
  });
  it('is minutes by the word over minutes taken, all together, so that a long session counts more', () => {
    const { rows } = powerGroups(judgedSessions([session('a', 12), session('a', 36)]), 'site');
    expect(rows[0]).toMatchObject({ key: 'a', sessions: 2, judged: 2, least: 12 / 36 });
    expect(rows[0]?.keepsItsWord).toBeCloseTo(24 / 48, 9);
    expect(rows[0]?.median).toBeCloseTo((1 + 1 / 3) / 2, 9);
    expect(rows[0]?.pace).toBeCloseTo(0.5, 9);
    expect(rows[0]?.mean_kW).toBeCloseTo(48 / (48 / 60), 9);
  });
  it('an honest slow post keeps its word, though it is not quick', () => {
    const { rows } = powerGroups(judgedSessions([session('slow', (24 * 60) / 50, {}, 50)]), 'site');
    expect(rows[0]?.keepsItsWord).toBeCloseTo(1, 9);
    expect(rows[0]?.pace).toBeCloseTo(50 / 120, 9);
  });
  it('what is not on file is counted and not judged; what says nothing is left out', () => {
    const { rows, ungrouped } = powerGroups(
      judgedSessions([
        session('a', 12, { stands: null }),
        session(null, 12),
        session('a', 12, { looks: { ...session('a', 12).looks, to: 24 } }),
        session('a', 12, { looks: { ...session('a', 12).looks, from: null } }),
        session('a', 0),
      ]),
      'site',
    );
    expect(ungrouped).toBe(1);
    expect(rows).toEqual([expect.objectContaining({ key: 'a', sessions: 1, judged: 0, keepsItsWord: null, median: null })]);
  });
  it('by network, stall, model and car; a model without a name is none', () => {
    const judged = judgedSessions([session('a', 12), session('b', 12, { model: 'Twin 300' })]);
    expect(powerGroups(judged, 'network').rows).toHaveLength(1);
    expect(powerGroups(judged, 'stall').rows).toHaveLength(2);
    expect(powerGroups(judged, 'model')).toMatchObject({ rows: [{ key: 'Twin 300' }], ungrouped: 1 });
    expect(powerGroups(judged, 'car').rows[0]?.key).toBe('c');
  });
  it('the sentence is no surer than the figures', () => {
    const of = (...sessions: PastSession[]) => powerSentence(powerGroups(judgedSessions(sessions), 'site').rows, name, 'site');
    expect(of()).toMatch(/^No session with two readings/);
    expect(of(session('a', 12))).toBe('No site has 3 sessions yet by which its word could be told.');
    const a = [12, 12, 13].map((m) => session('a', m));
    expect(of(...a)).toBe('A kept its word for 97 % of the minutes it took, by 3 sessions.');
    const b = [24, 24, 25].map((m) => session('b', m));
    expect(of(...a, ...b)).toMatch(/cannot be told from so few yet\.$/);
    const many = (site: string, m: number) => Array.from({ length: 8 }, (_, i) => session(site, m + i / 10));
    expect(of(...many('a', 12), ...many('b', 24))).toMatch(/lie apart, which is a hint where 2 were looked at\.$/);
  });
  it('those that charged longest first, of as long by name; the greatest peak, and the average of what was metered', () => {
    const looks = (more: object) => ({ looks: { ...session('a', 12).looks, ...more } });
    const { rows } = powerGroups(
      judgedSessions([
        session('b', 12, looks({ took_min: 12, peak_kW: 90 })),
        session('b', 12, looks({ took_min: 12, peak_kW: 140, kWh: null })),
        session('b', 12, looks({ took_min: 12, peak_kW: null, charging_s: null })),
        session('d', 12, looks({ took_min: 12, peak_kW: null, kWh: null })),
        session('c', 12),
      ]),
      'site',
    );
    expect(rows.map((r) => [r.key, r.minutes, r.peak_kW, r.mean_kW])).toEqual([
      ['b', 36, 140, 120],
      ['c', 12, 120, 120],
      ['d', 12, null, null],
    ]);
  });
  it('a stretch of five per cent is long enough, and one without an end is none', () => {
    const of = (more: object) => judgedSessions([session('a', 2, { looks: { ...session('a', 2).looks, ...more } })]).length;
    expect([of({ to: 25 }), of({ to: 24.9 }), of({ to: null }), of({ took_min: null })]).toEqual([1, 0, 0, 0]);
  });
  it('each car is judged by what its own sessions elsewhere taught, else by the curve that was typed', () => {
    // What the other network gave the same car is what it can take: 60 kW, twice as long for as much.
    const looks = Array.from({ length: 9 }, (_, k) => [k * 180, 20 + k * 5, 60] as const);
    const slow = Array.from({ length: 6 }, (_, i) => session(`x${i}`, 24, { networkId: 'other', looks: { ...session('x', 24).looks, looks } }));
    const [judged] = judgedSessions([session('a', 24)], [...slow]);
    const [typed] = judgedSessions([session('a', 24)], []);
    const [strange] = judgedSessions([session('a', 24, { carId: null })], [...slow]);
    expect([typed?.car_min, strange?.car_min]).toEqual([12, 12]);
    expect(judged?.car_min).toBeGreaterThan(20);
  });
  it('CSV says what each column is', () => {
    const rows = powerGroups(judgedSessions([...Array.from({ length: 6 }, () => session('a', 12)), session('=b', 36)]), 'site').rows;
    expect(powerGroupsCsv(rows, (key) => key, 'site')).toBe(
      'site,sessions,judged,keeps its word,median,95 % from,95 % to,least,pace,average (kW),peak (kW),charging (min)\n' +
        "a,6,6,1.00,1.00,1.00,1.00,1.00,1.00,120.00,120.00,72.0\n'=b,1,1,0.33,0.33,,,0.33,0.33,40.00,120.00,36.0\n",
    );
  });
  it('CSV has a row each, empty where nothing is known', () => {
    const rows = powerGroups(judgedSessions([session('a', 12, { stands: null })]), 'site').rows;
    expect(powerGroupsCsv(rows, name, 'site').split('\n')[1]).toBe('A,1,0,,,,,,,120.00,120.00,12.0');
    expect(powerGroupsCsv(rows, name, 'site', 'with faults').split('\n').slice(0, 2)).toEqual([
      expect.stringMatching(/,charging \(min\),Only visits$/),
      'A,1,0,,,,,,,120.00,120.00,12.0,with faults',
    ]);
  });
});

describe('limits of the middle', () => {
  // Order statistics of the sign test, tables of 95 % limits: n = 6 (1, 6), 9 (2, 8), 15 (4, 12), 20 (6, 15), 25 (8, 18). From memory.
  it.each([
    [6, 1, 6],
    [9, 2, 8],
    [15, 4, 12],
    [20, 6, 15],
    [25, 8, 18],
  ])('of %i', (n, lo, hi) => {
    expect(medianLimits(Array.from({ length: n }, (_, i) => i + 1))).toEqual([lo, hi]);
  });
  it.each([100, 1074, 1075, 1500, 20_000])('of %i, as counted in whole numbers', (n) => {
    // So many of the 2^n throws of a coin leave k - 1 or fewer on one side: no more than a fortieth.
    let [ways, below, k] = [1n, 0n, 0];
    while ((below + ways) * 40n <= 1n << BigInt(n)) {
      below += ways;
      k += 1;
      ways = (ways * BigInt(n - k + 1)) / BigInt(k);
    }
    expect(medianLimits(Array.from({ length: n }, (_, i) => i + 1))).toEqual([k, n - k + 1]);
  });
  it('fewer than six have none', () => {
    expect(medianLimits([1, 2, 3, 4, 5])).toBeNull();
  });
});
