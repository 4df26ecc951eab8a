import { STEADY, session, standsAt } from './fixtures/past-session';
import { outlooksOf, projectionRatios, type StartThere } from './site-outlook';

const start = (siteId: string, good: boolean, more: Partial<StartThere> = {}): StartThere => ({
  siteId,
  networkId: 'n1',
  good,
  handshake_s: 60,
  lost_s: good ? null : 600,
  day: '2025-10-01',
  ...more,
});
const SITES = new Map([
  ['a', 'n1'],
  ['b', 'n1'],
  ['c', 'n1'],
  ['d', 'n9'],
]);
const sitesOf = (starts: readonly StartThere[], past: Parameters<typeof outlooksOf>[1] = []) => outlooksOf(starts, past, SITES).sites;

describe('what the ledger knows of a site', () => {
  // By hand: a network of 9 starts, 8 good, a minute each, one loss of ten minutes, each weighed against eight of the starting guess
  // (9 of 10, a minute and a half, a quarter of an hour); then each site's own against eight of that.
  it('is its own starts against eight of its network’s, and these against eight that nobody has seen', () => {
    const sites = sitesOf([...Array.from({ length: 8 }, () => start('a', true)), start('b', false)]);
    const network = { startShare: (8 + 7.2) / 17, handshake_min: (9 + 12) / 17, loss_min: (10 + 120) / 9 };
    const three = (x: number) => Math.round(x * 1000) / 1000;
    expect(sites.a).toEqual({
      n: 8,
      startShare: three((8 + 8 * network.startShare) / 16),
      handshake_min: three((8 + 8 * network.handshake_min) / 16),
      loss_min: three(network.loss_min),
      pace: null,
      paced: 0,
      lastSeen: '2025-10-01',
    });
    expect(sites.b).toMatchObject({
      n: 1,
      startShare: three((8 * network.startShare) / 9),
      handshake_min: three((1 + 8 * network.handshake_min) / 9),
      loss_min: three((10 + 8 * network.loss_min) / 9),
    });
    expect(sites.c).toMatchObject({ n: 0, startShare: 0.894, handshake_min: 1.235, loss_min: 14.444, lastSeen: null });
    expect(sites.d).toEqual({ n: 0, startShare: 0.9, handshake_min: 1.5, loss_min: 15, pace: null, paced: 0, lastSeen: null });
  });
  it('was last seen on its latest day, in whatever order the starts are told', () => {
    const days = ['2025-10-02', '2025-10-09', '2025-10-05'].map((day) => start('a', true, { day }));
    expect(sitesOf(days).a?.lastSeen).toBe('2025-10-09');
    expect(sitesOf([...days].reverse()).a?.lastSeen).toBe('2025-10-09');
  });
  it('what was lost counts where it did not start, what is not known nowhere, and a start of no network for its site alone', () => {
    const sites = sitesOf([start('a', true, { lost_s: 6000 }), start('a', false, { lost_s: null, handshake_s: null }), start('b', false, { networkId: null })]);
    // The network: two starts, one good, one handshake, no loss known.
    const share = (1 + 7.2) / 10;
    expect(sites.c).toMatchObject({ startShare: share, handshake_min: Math.round(((1 + 12) / 9) * 1000) / 1000, loss_min: 15 });
    expect(sites.a).toMatchObject({ n: 2, startShare: Math.round(((1 + 8 * share) / 10) * 1000) / 1000, loss_min: 15 });
    expect(sites.b).toMatchObject({ n: 1, loss_min: Math.round(((10 + 120) / 9) * 1000) / 1000 });
  });
});

describe('how a site keeps its word', () => {
  // 20 to 60 % at 100 kW are 14.4 minutes.
  it('is minutes expected over minutes taken, at most a tenth beyond, against eight of its network’s mean', () => {
    const sites = sitesOf([], [session(18), session(10, { siteId: 'b' })]);
    const network = (0.8 + 1.1) / 2;
    expect(sites.a).toMatchObject({ pace: Math.round(((0.8 + 8 * network) / 9) * 1000) / 1000, paced: 1 });
    expect(sites.b).toMatchObject({ pace: Math.round(((1.1 + 8 * network) / 9) * 1000) / 1000, paced: 1 });
    expect(sites.c).toMatchObject({ pace: 0.95, paced: 0 });
    expect(sites.d).toMatchObject({ pace: null, paced: 0 });
    expect(sitesOf([], [session(13.5)]).a?.pace).toBe(1.067);
  });
  it.each([
    ['of what stood there nothing is on file', session(18, { stands: null })],
    ['its time is not known', session(null)],
    ['it took none', session(0)],
    ['no level was read', session(18, {}, { from: null })],
    ['no last level was read', session(18, {}, { to: null })],
    ['less than ten per cent were charged', session(2, {}, { to: 29.9 })],
    ['the car’s curve is not known', session(18, { stands: standsAt('dc', { ...STEADY, curve: [] }) })],
  ])('says nothing where %s', (_why, one) => {
    expect(sitesOf([], [one]).a).toMatchObject({ pace: null, paced: 0 });
  });
  it('by AC without a curve, of ten per cent and more, and by the curve on file where the car is not said', () => {
    const ac = standsAt('ac', { ...STEADY, curve: [], maxACkW: 11, acPhases: 3 });
    expect(sitesOf([], [session(60, { stands: ac }, { to: 30 })]).a?.paced).toBe(1);
    expect(sitesOf([], [session(4, {}, { to: 30 })]).a?.pace).toBe(0.9);
    expect(sitesOf([], [session(18, { carId: null })]).a?.pace).toBe(0.8);
  });
  it('each car by itself', () => {
    const other = standsAt('dc', {
      ...STEADY,
      curve: [
        [0, 50],
        [100, 50],
      ],
    });
    // 24 kWh at 50 kW are 28.8 minutes.
    const { sites, cars } = outlooksOf([], [session(36, { carId: 'slow', stands: other }), session(18, { siteId: 'b' })], SITES);
    expect([sites.a?.pace, sites.b?.pace]).toEqual([0.8, 0.8]);
    expect(Object.keys(cars).sort()).toEqual(['c', 'slow']);
    expect(outlooksOf([], [session(18, { carId: null })], SITES).cars).toEqual({});
  });
  it('by what the car has shown, where three sessions tell', () => {
    const shown = (visitId: string) =>
      session(18, { visitId, day: `2025-10-0${visitId}` }, { looks: [20, 40, 55].map((pct, i) => [100 + i * 300, pct, 80] as const) });
    const { sites, cars } = outlooksOf([], ['1', '2', '3'].map(shown), SITES);
    // 18 minutes at the 80 kW that were learnt, less what the typed 100 gives below 22.5 and above 57.5 %.
    expect(sites.a?.pace).toBeGreaterThan(0.98);
    expect(sites.a?.pace).toBeLessThan(1);
    expect(cars.c).toEqual({
      sessions: 3,
      spread: null,
      acSpread: null,
      curve: [
        [0, 100],
        [22.5, 80],
        [42.5, 80],
        [57.5, 80],
        [100, 100],
      ],
    });
    expect(outlooksOf([], [shown('1')], SITES).cars.c).toEqual({ sessions: 1, spread: null, acSpread: null, curve: [] });
  });
  it('the band of direct current is that of its own charges: alternating hardly changes, and would make it look surer', () => {
    // Ten per cent every so many seconds; the second half of a charge at direct current takes twice as long as the first.
    const read = (half_s: number, later_s: number, kW: number) =>
      [0, 1, 2, 3, 4].map((i) => [i < 3 ? i * half_s : 2 * half_s + (i - 2) * later_s, 20 + i * 10, kW] as const);
    const ac = standsAt('ac', { ...STEADY, curve: [], maxACkW: 11, acPhases: 3 });
    const many = (visitId: string, looks: ReturnType<typeof read>, more = {}) =>
      [1, 2, 3, 4, 5, 6].map((n) => session(18, { visitId: `${visitId}${n}`, at: n, ...more }, { looks }));
    const dc = many('d', read(216, 432, 100));
    const both = outlooksOf([], [...dc, ...many('a', read(2000, 2000, 12), { stands: ac })], SITES).cars.c;
    expect(both?.spread).toMatchObject({ n: 6, high: expect.closeTo(2, 6) });
    expect(both?.acSpread).toMatchObject({ n: 6, low: expect.closeTo(1, 6), high: expect.closeTo(1, 6) });
    expect(both?.spread).toEqual(outlooksOf([], dc, SITES).cars.c?.spread);
    // What was shown in the middle is what was projected with: half of it, and the rest took as long as that.
    expect(outlooksOf([], many('h', read(216, 432, 50)), SITES).cars.c?.spread).toMatchObject({ low: expect.closeTo(1, 6), high: expect.closeTo(1, 6) });
  });
});

describe('how projections of past sessions held', () => {
  // Ten per cent in 216 s are what the curve gives; the later half took so many times as long.
  const held = (at: number, later: number, more = {}) =>
    session(
      18,
      { visitId: `v${at}`, at, ...more },
      { looks: [0, 1, 2, 3, 4].map((i) => [i < 3 ? i * 216 : 432 + (i - 2) * 216 * later, 20 + i * 10, 100] as const) },
    );
  const curve = [
    [0, 100],
    [100, 100],
  ] as const;
  it('each by itself, in the order in which they came, of one kind of current', () => {
    const ac = standsAt('ac', { ...STEADY, curve: [], maxACkW: 11, acPhases: 3 });
    const past = [held(3, 3), held(1, 1), held(4, 2, { stands: ac }), held(2, 2), held(5, 2, { stands: null })];
    expect(projectionRatios(past, curve, 'dc')).toEqual([1, 2, 3].map((r) => expect.closeTo(r, 6)));
    expect(projectionRatios(past, curve, 'ac')).toHaveLength(1);
    expect(past.map((p) => p.at)).toEqual([3, 1, 4, 2, 5]);
  });
  it('at direct current none where the car has no curve; of too little read none', () => {
    expect(projectionRatios([held(1, 1)], [], 'dc')).toEqual([]);
    expect(projectionRatios([session(18, {}, { looks: [[0, 20, 100]] })], curve, 'dc')).toEqual([]);
  });
});
