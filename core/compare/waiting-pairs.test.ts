import { randomLcg } from 'd3-random';
import fc from 'fast-check';
import { logPairEvidence } from '../evidence/share-evidence';
import { attempt, failed, visit } from './fixtures/rows';
import { type Waited, waitedStarts, waitingPair, waitingPairs } from './waiting-pairs';
import { waitingSentences, watchedWaiting } from './waiting-sentence';

const DAY = 86_400_000;
let arisen = 0;
const start = (group: string, s: number | null, more: Partial<Waited> = {}): Waited => {
  arisen += 1;
  return {
    n: arisen,
    group,
    siteId: `${group}${1 + (arisen % 3)}`,
    arose: String(arisen).padStart(9, '0'),
    at: arisen * 1000,
    carId: 'c',
    means: 'app',
    mark: s === null ? null : 'kW',
    s,
    pm_s: 0.5,
    ...more,
  };
};
const pairOf = (...starts: Waited[]) => waitingPair(starts, 'A', 'B', 1);
/** So many rounds in turn, the first quicker in so many of them. */
const rounds = (n: number, won: number, more: Partial<Waited> = {}) =>
  Array.from({ length: n }, (_, i) => [start('A', 20, more), start('B', i < won ? 40 : 10, more)]).flat();

describe('pairs of starts', () => {
  it('count which was quicker, and the evidence of it', () => {
    expect(pairOf(...rounds(7, 7, { siteId: 'x' }))).toMatchObject({ quicker: 'A', slower: 'B', won: 7, decided: 7, undecided: 0, degree: 'clearly' });
    expect(pairOf(...rounds(5, 5, { siteId: 'x' }))).toMatchObject({ degree: 'probably', logFactor: logPairEvidence(5, 5) });
    expect(pairOf(...rounds(4, 4, { siteId: 'x' })).degree).toBe('cannot_tell');
    expect(pairOf(...rounds(7, 0, { siteId: 'x' }))).toMatchObject({ quicker: 'B', slower: 'A', won: 7 });
    expect(waitingPair(rounds(7, 7, { siteId: 'x' }), 'A', 'B', 2).degree).toBe('probably');
    expect(pairOf(...rounds(8, 4, { siteId: 'x' }))).toMatchObject({ quicker: 'A', won: 4, decided: 8, degree: 'cannot_tell' });
  });
  it('of two that won as often the first by name stands first, however they are asked for', () => {
    const even = rounds(8, 4, { siteId: 'x' });
    expect(waitingPair(even, 'B', 'A', 1)).toMatchObject({ quicker: 'A', slower: 'B', won: 4, decided: 8 });
    expect(waitingPair([], 'B', 'A', 1)).toMatchObject({ quicker: 'A', slower: 'B', decided: 0, quickerSites: [] });
  });
  it('where there are more groups than can be held, those with most starts are, then by name', () => {
    const some = ['D', 'C', 'B', 'A'].flatMap((g) => [start(g, 20), start(g, 40)]);
    const held = (most: number, ...all: Waited[]) => waitingPairs(all, 1, most).pairs.map((p) => [p.quicker, p.slower].sort().join(''));
    expect(held(2, ...some)).toEqual(['AB']);
    expect(held(2, ...some, start('D', 5))).toEqual(['AD']);
    expect(held(3, ...some).sort()).toEqual(['AB', 'AC', 'BC']);
  });
  it('only like is held against like, and not over two months apart', () => {
    for (const more of [{ carId: 'other' }, { means: 'rfid' }, { mark: 'A' }, { at: 61 * DAY }, { carId: null }])
      expect(pairOf(start('A', 20, { at: 0 }), start('B', 40, { at: 0, ...more }))).toMatchObject({ decided: 0, undecided: 0 });
    expect(pairOf(start('A', 20, { at: 0 }), start('B', 40, { at: 60 * DAY }))).toMatchObject({ decided: 1 });
    // What never came has no end mark of its own.
    expect(pairOf(start('A', 20, { mark: 'A' }), start('B', null))).toMatchObject({ won: 1, quicker: 'A', decided: 1 });
  });
  it('never is longer than every time, and both never decide nothing', () => {
    expect(pairOf(start('A', null), start('B', 9999))).toMatchObject({ quicker: 'B', won: 1, decided: 1 });
    expect(pairOf(start('A', null), start('B', null))).toMatchObject({ decided: 0, undecided: 1 });
  });
  it('within their ± nothing is decided', () => {
    expect(pairOf(start('A', 20, { pm_s: 2 }), start('B', 23, { pm_s: 1 }))).toMatchObject({ decided: 0, undecided: 1 });
    expect(pairOf(start('A', 20, { pm_s: 2 }), start('B', 23.1, { pm_s: 1 }))).toMatchObject({ decided: 1 });
  });
  it('each start takes the latest of the other that is free, for good: what comes later changes no pair', () => {
    const [a1, a2, b1] = [start('A', 50), start('A', 10), start('B', 30)];
    expect(pairOf(a1, a2, b1)).toMatchObject({ quicker: 'A', won: 1, decided: 1 });
    const b2 = start('B', 70);
    // The second B takes the first A, which was left.
    expect(pairOf(a1, a2, b1, b2)).toMatchObject({ quicker: 'A', won: 2, decided: 2 });
    fc.assert(
      fc.property(fc.array(fc.record({ a: fc.boolean(), s: fc.integer({ min: 5, max: 90 }) }), { maxLength: 40 }), (list) => {
        const all = list.map(({ a, s }) => start(a ? 'A' : 'B', s));
        const pairs = all.map((_, i) => pairOf(...all.slice(0, i + 1))).map((p) => p.decided + p.undecided);
        for (const [i, n] of pairs.entries()) expect(n - (pairs[i - 1] ?? 0)).toBeLessThanOrEqual(1);
      }),
      { seed: 7, numRuns: 50 },
    );
  });
  it('are those that a plain search back finds, whatever the cars, means, marks and days, and in whatever order they arose', () => {
    const one = fc.record({
      group: fc.constantFrom('A', 'A', 'A', 'B', 'B', 'C'),
      s: fc.option(fc.integer({ min: 5, max: 40 })),
      siteId: fc.constantFrom('x', 'y', 'z'),
      carId: fc.constantFrom('c', 'c', 'c', 'd', null),
      means: fc.constantFrom('app', 'app', 'app', 'rfid', null),
      mark: fc.constantFrom('kW', 'A'),
      day: fc.integer({ min: 0, max: 200 }),
    });
    fc.assert(
      fc.property(fc.array(one, { minLength: 20, maxLength: 90 }), fc.boolean(), (list, inTime) => {
        const days = inTime ? [...list].sort((a, b) => a.day - b.day) : list;
        const all = days.map(({ group, s, day, mark, ...more }) => start(group, s, { ...more, at: day * DAY, mark: s === null ? null : mark }));
        const free: Record<string, Waited[]> = { A: [], B: [] };
        const found: [Waited, Waited][] = [];
        for (const x of all) {
          const [own, others] = [free[x.group], free[x.group === 'A' ? 'B' : 'A']];
          if (!own || !others) continue;
          const at = others.findLastIndex(
            (y) => x.carId === y.carId && x.means === y.means && (!x.mark || !y.mark || x.mark === y.mark) && Math.abs(x.at - y.at) <= 60 * DAY,
          );
          const [y] = at < 0 ? [] : others.splice(at, 1);
          if (!y) own.push(x);
          else found.push(x.group === 'A' ? [x, y] : [y, x]);
        }
        const wait = (w: Waited) => w.s ?? 1e9;
        const decided = found.filter(([a, b]) => Math.abs(wait(a) - wait(b)) > 1);
        const won = decided.filter(([a, b]) => wait(a) < wait(b)).length;
        const sitesOf = (side: 0 | 1) => {
          const counts = new Map<string, number>();
          for (const pair of decided) counts.set(pair[side].siteId, (counts.get(pair[side].siteId) ?? 0) + 1);
          return [...counts].sort(([x, m], [y, n]) => n - m || (x < y ? -1 : 1)).map(([site]) => site);
        };
        const pair = waitingPair(all, 'A', 'B', 1);
        const [sitesA, sitesB] = pair.quicker === 'A' ? [pair.quickerSites, pair.slowerSites] : [pair.slowerSites, pair.quickerSites];
        expect([pair.decided, pair.undecided, pair.quicker === 'A' ? pair.won : pair.decided - pair.won]).toEqual([
          decided.length,
          found.length - decided.length,
          won,
        ]);
        expect([sitesA, sitesB]).toEqual([sitesOf(0), sitesOf(1)]);
        expect(waitingPairs(all, 1, 3).pairs.find((p) => [p.quicker, p.slower].sort().join('') === 'AB') ?? pair).toMatchObject({ decided: pair.decided });
      }),
      { seed: 11, numRuns: 300 },
    );
  });
  it('the evidence is the least over leaving out each site', () => {
    const far = pairOf(...rounds(12, 12).map((s, i) => ({ ...s, siteId: `${s.group}${i < 2 ? 1 : 2}` })));
    expect(far).toMatchObject({ leastWithout: 'A2', logWhole: logPairEvidence(12, 12), logFactor: logPairEvidence(1, 1), degree: 'cannot_tell' });
    expect(far.quickerSites).toEqual(['A2', 'A1']);
    expect(pairOf(...rounds(12, 12, { siteId: 'x' }))).toMatchObject({ leastWithout: null });
    // Without the site at which it was the quicker, the other is: no evidence for it then, however much for the other.
    const mixed = [...rounds(40, 40, { siteId: 'A1' }), ...rounds(12, 0, { siteId: 'A2' })];
    expect(pairOf(...mixed)).toMatchObject({ quicker: 'A', won: 40, decided: 52, logFactor: 0, leastWithout: 'A1', degree: 'cannot_tell' });
    expect(pairOf(...rounds(12, 0))).toMatchObject({ quicker: 'B', won: 12, decided: 12 });
  });
  it('between equals it is ever said clearly in at most one ledger of twenty', () => {
    const random = randomLcg(0.11);
    let [clearly, probably] = [0, 0];
    const RUNS = 300;
    for (let run = 0; run < RUNS; run++) {
      const all: Waited[] = [];
      let worst = 0;
      for (let i = 0; i < 30; i++) {
        all.push(start('A', 10 + 60 * random(), { siteId: 'x' }), start('B', 10 + 60 * random(), { siteId: 'y' }));
        worst = Math.max(worst, pairOf(...all).logWhole);
      }
      if (worst >= Math.log(24)) clearly += 1;
      if (worst >= Math.log(7)) probably += 1;
    }
    expect(clearly / RUNS).toBeLessThanOrEqual(0.05);
    expect(probably / RUNS).toBeLessThanOrEqual(0.2);
  });
});

it('the starts of visits: timed ones and those that never came, as their visits arose', () => {
  const visits = [
    visit({ arose: 'b', at: 1, networkId: 'N', carId: 'c', attempts: [{ ...failed, meansKind: 'rfid' }, attempt(30, { meansKind: 'app', pm: 3 })] }),
    visit({ arose: 'a', at: 2, networkId: 'N', attempts: [attempt(10), attempt(null), { ...failed, outcome: 'open' }, attempt(9, { late: true })] }),
    visit({ arose: 'c', leftOut: true }),
  ];
  expect(waitedStarts(visits, { time: 'handshake', mark: 'kW' }, 'network')).toEqual([
    { n: 0, group: 'N', siteId: 's', arose: 'a', at: 2, carId: null, means: null, mark: 'kW', s: 10, pm_s: 0.5 },
    { n: 1, group: 'N', siteId: 's', arose: 'b', at: 1, carId: 'c', means: 'rfid', mark: null, s: null, pm_s: 0.5 },
    { n: 2, group: 'N', siteId: 's', arose: 'b', at: 1, carId: 'c', means: 'app', mark: 'kW', s: 30, pm_s: 3 },
  ]);
  expect(waitedStarts(visits, { time: 'handshake', mark: 'kW' }, 'means').map((s) => s.group)).toEqual(['rfid', 'app']);
});

it('the starts of visits come in the order in which these arose, else of their arrival, in whatever order they are told', () => {
  const order = (visits: Parameters<typeof waitedStarts>[0]) => waitedStarts(visits, { time: 'handshake', mark: 'kW' }, 'network').map((s) => [s.arose, s.at]);
  const arose = ['d', 'a', 'f', 'c', 'b', 'e'].map((id, i) => visit({ arose: id, at: 10 - i }));
  expect(order(arose).map(([id]) => id)).toEqual(['a', 'b', 'c', 'd', 'e', 'f']);
  const told = [4, 1, 3, 5, 2].map((at) => visit({ at }));
  expect(order(told)).toEqual([1, 2, 3, 4, 5].map((at) => ['', at]));
  // One of which it is not known when it arose comes before all.
  expect(order([visit({ arose: 'b', at: 1 }), visit({ at: 9 }), visit({ arose: 'a', at: 5 })])).toEqual([
    ['', 9],
    ['a', 5],
    ['b', 1],
  ]);
});

describe('sentences about waiting', () => {
  const NAMES = { one: 'network', many: 'networks', group: (id: string) => `Network ${id}`, site: (id: string) => `Site ${id}` };
  it('say who gives power sooner, never surer than its degree, and open how it was worked out', () => {
    const [said, ...more] = waitingSentences(rounds(60, 60), NAMES, 2);
    expect(more).toEqual([]);
    expect(said).toMatchObject({ kind: 'clearly', text: 'Network A clearly gave power sooner than Network B: in 60 of 60 pairs of starts.' });
    const line = (head: string) => said?.working.find(([h]) => h.startsWith(head))?.[1];
    expect(line('Starts')).toBe('Network A 60, of them 0 never; Network B 60, of them 0 never');
    expect(line('In pairs')).toBe('60 of 60 decided; 0 within their ±');
    expect(line('Held to')).toBe('found among 2 pairs and figures: probably from 14, clearly from 48');
    expect(line('Mean up to')).toMatch(/^20\.0 s ± 0\.0 s against 40\.0 s/);
    expect(line('Sooner in the middle')).toMatch(/^20\.0 s, 95 % 20\.0 s to 20\.0 s$/);
    expect(line('For those who want')).toBe('log-rank under 0.001, rank sum under 0.001');
  });
  it('name the sites where there are few, and are silent where nothing is told', () => {
    expect(waitingSentences(rounds(30, 30, { siteId: 'x' }), NAMES)[0]?.text).toMatch(
      /^Site x \(Network A\) clearly gave power sooner than Site x \(Network B\)/,
    );
    expect(waitingSentences(rounds(4, 2), NAMES)).toEqual([]);
    expect(waitingSentences([], NAMES)).toEqual([]);
  });
  it('of few sites on either side it is said of sites; of places themselves nothing is added', () => {
    const few = rounds(30, 30).map((s) => (s.group === 'A' ? s : { ...s, siteId: 'x' }));
    expect(waitingSentences(few, NAMES)[0]?.text).toContain(
      'in 30 of 30 pairs of starts. This is said of the sites named: of a network only with three or more',
    );
    expect(waitingSentences(rounds(30, 30), NAMES)[0]?.text).toMatch(/pairs of starts\.$/);
    expect(waitingSentences(few, { ...NAMES, place: true })[0]?.text).toBe('Network A clearly gave power sooner than Network B: in 30 of 30 pairs of starts.');
  });
  it('opens the evidence, with and without the site that bears it, and those that never came', () => {
    const line = (said: { working: [string, string][] } | undefined, head: string) => said?.working.find(([h]) => h === head)?.[1];
    expect(line(waitingSentences(rounds(7, 7, { siteId: 'x' }), NAMES)[0], 'Evidence')).toBe('27 times as likely as by a fair coin');
    const borne = rounds(12, 12).map((s, i) => ({ ...s, siteId: `${s.group}${i < 2 ? 1 : 2}` }));
    expect(line(watchedWaiting(borne, 'A', 'B', NAMES), 'Evidence')).toBe('660 times as likely as by a fair coin; 1.0 times without Site A2, and that counts');
    const never = rounds(12, 12).map((s) => (s.group === 'A' ? s : { ...s, s: null, mark: null }));
    expect(line(waitingSentences(never, NAMES)[0], 'Starts')).toBe('Network A 12, of them 0 never; Network B 12, of them 12 never');
    // Half of them never came: the mean goes on to three minutes for those.
    const half = rounds(12, 12).map((s, i) => (s.group === 'A' || i % 4 === 1 ? s : { ...s, s: null, mark: null }));
    expect(line(waitingSentences(half, NAMES)[0], 'Mean up to 3 min')).toMatch(/^20\.0 s ± 0\.0 s against 1:50 ± \d+\.\d s$/);
  });
  it('p-values are said to three places, or not defined', () => {
    const p = (starts: Waited[]) => watchedWaiting(starts, 'A', 'B', NAMES).working.find(([h]) => h.startsWith('For those'))?.[1];
    expect(p(rounds(6, 3, { siteId: 'x' }))).toBe('log-rank 0.636, rank sum 1.000');
  });
  it('a shift that has no end is left out', () => {
    const never = Array.from({ length: 12 }, () => [start('A', 20, { siteId: 'x' }), start('B', null, { siteId: 'x' })]).flat();
    expect(
      waitingSentences(never, NAMES)[0]
        ?.working.map(([h]) => h)
        .join(),
    ).not.toMatch(/Hodges/);
  });
  it('of a pair on watch, as little as there is', () => {
    expect(watchedWaiting([], 'A', 'B', NAMES)).toEqual({
      kind: 'cannot_tell',
      text: 'Cannot tell yet whether Network A or Network B gives power sooner: no pair of starts yet.',
      working: [],
    });
    expect(watchedWaiting(rounds(6, 3, { siteId: 'x' }), 'A', 'B', NAMES)).toMatchObject({
      kind: 'cannot_tell',
      text: expect.stringContaining('Network A in 3 of 6 pairs of starts.'),
    });
    const sure = watchedWaiting(rounds(7, 7, { siteId: 'x' }), 'A', 'B', NAMES);
    expect([sure.kind, sure.working.find(([h]) => h === 'Held to')?.[1]]).toEqual(['clearly', 'probably from 7, clearly from 24']);
  });
  it('of many groups those with most starts are held against each other', () => {
    const many = Array.from({ length: 5 }, (_, g) => Array.from({ length: 3 + g }, () => start(`G${g}`, 20))).flat();
    const { pairs, looked } = waitingPairs(many, 1, 3);
    expect(looked).toBe(3);
    expect([...new Set(pairs.flatMap((p) => [p.quicker, p.slower]))].sort()).toEqual(['G2', 'G3', 'G4']);
    // Of as many starts those that come first by name.
    const even = ['C', 'A', 'B'].flatMap((g) => [start(g, 20), start(g, 30)]);
    expect(waitingPairs(even, 1, 2).pairs.map((p) => [p.quicker, p.slower].sort())).toEqual([['A', 'B']]);
    // The surest first.
    const three = Array.from({ length: 20 }, (_, i) => [start('A', 20), start('B', i % 3 === 0 ? 10 : 40), start('C', 90)]).flat();
    const factors = waitingPairs(three, 1, 3).pairs.map((p) => p.logFactor);
    expect(factors).toEqual([...factors].sort((x, y) => y - x));
    expect(new Set(factors).size).toBeGreaterThan(1);
  });
});
