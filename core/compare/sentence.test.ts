import fc from 'fast-check';
import { start, starts } from './fixtures/starts';
import { visitsToTell } from './more-visits';
import { pairDegrees } from './pair-degree';
import { compareSentences, LEAST_VISITS } from './sentence';
import type { Start } from './start';

const NAMES = { one: 'network', many: 'networks', group: (id: string) => `Network ${id}`, site: (id: string) => `Site ${id}` };
const say = (...all: Start[][]) => compareSentences(all.flat(), NAMES);

describe('the sentences above a comparison', () => {
  it('say nothing of nothing, of one network, of too few', () => {
    expect(say()).toEqual([{ kind: 'empty', text: 'No visit with an attempt yet: nothing to compare.', working: [] }]);
    expect(say(starts('A', 8, 1))).toEqual([
      { kind: 'one', text: 'Network A started at the first try at 9 of 10 visits. A comparison needs a second network.', working: [] },
    ]);
    expect(say(starts('A', 8, 1), starts('B', 3, 0))).toEqual([
      { kind: 'thin', text: 'Cannot tell yet: fewer than two networks have 5 counted visits.', working: [] },
    ]);
    expect(say(starts('A', 8, 1), starts('B', LEAST_VISITS - 1, 0))[0]?.kind).not.toBe('thin');
  });
  it('beside the difference stands that by the same means and car, where it says other', () => {
    const some = (group: string, stratum: string, yes: number, no: number) =>
      starts(group, yes, no)
        .slice(0, yes + no)
        .map((s) => ({ ...s, stratum }));
    const line = (...all: Start[][]) => say(...all)[0]?.working.find(([head]) => head === 'By the same means and car')?.[1];
    // By hand: 22 of 30 against 15 of 30 in all; by app 19 of 20 against 10 of 10, by card 3 of 10 against 5 of 20: −0.05 and 0.05, 1.96 × 0.0905.
    expect(line(some('A', 'app', 18, 2), some('A', 'rfid', 2, 8), some('B', 'app', 9, 1), some('B', 'rfid', 4, 16))).toBe(
      '0 points apart (95 %: -18 points to 18 points), from 60 visits; all together 23 points: part of it is what one paid with and drove',
    );
    expect(line(some('A', 'app', 18, 2), some('B', 'app', 9, 11))).toBeUndefined();
    expect(line(some('A', 'app', 18, 2), some('B', 'rfid', 9, 11))).toBeUndefined();
  });
  it('say clearly with both counts, and open how it was worked out', () => {
    const [one, ...more] = say(starts('A', 24, 0), starts('B', 3, 9));
    expect(more).toEqual([]);
    expect(one).toMatchObject({
      kind: 'clearly',
      text: 'Network A clearly started at the first try more often than Network B: 24 of 24 visits against 3 of 12 visits.',
    });
    expect(one?.working).toEqual([
      ['All visits', 'Network A 25 of 25 visits; Network B 4 of 13 visits'],
      ['First visits of a person, apart', 'Network A 1; Network B 1'],
      ['Failures of a stall before it worked again, beyond the first', 'Network A 0; Network B 0'],
      ['Months in which only one was visited', 'Network A 0; Network B 0'],
      ['Counted', 'Network A 24 of 24 visits, 3 sites; Network B 3 of 12 visits, 3 sites'],
      ['95 % intervals (Wilson)', 'Network A 86 % to 100 %; Network B 9 % to 53 %'],
      ['the same, exact (Clopper–Pearson)', 'Network A 86 % to 100 %; Network B 5 % to 57 %'],
      ['the same, Jeffreys', 'Network A 90 % to 100 %; Network B 8 % to 53 %'],
      ['Were every visit like every other', 'Network A starts more often with chance over 99 %'],
      [
        'Evidence',
        expect.stringMatching(
          /^each its own share is over 10,000 times as likely as one share for both; [\d,over ]+ times without Site [AB][123], and that counts$/,
        ),
      ],
      ['Held to', 'probably from 7, clearly from 24'],
    ]);
  });
  it('say with what chance one starts more often, and that nothing is left of one', () => {
    const working = (head: string, ...all: Start[][]) => say(...all)[0]?.working.find(([h]) => h === head)?.[1];
    // Beta(10, 2) against Beta(8, 4), the chance by numerical integration elsewhere: 0.8446.
    expect(working('Were every visit like every other', starts('A', 9, 1), starts('B', 7, 3))).toBe('Network A starts more often with chance 84 %');
    const apart = starts('B', 4, 2).map((s) => ({ ...s, month: '2024-01' }));
    expect(working('95 % intervals (Wilson)', starts('A', 9, 1), apart)).toBe('Network A none; Network B none');
    expect(working('the same, exact (Clopper–Pearson)', starts('A', 9, 1), apart)).toBe('Network A none; Network B none');
  });
  it('name the sites where there are too few to speak of a network, and say why', () => {
    const text = say(starts('A', 24, 0, 2), starts('B', 3, 9, 1))[0]?.text;
    expect(text).toBe(
      'Site A1 and Site A2 (Network A) clearly started at the first try more often than Site B1 (Network B): 24 of 24 visits against 3 of 12 visits. This is said of the sites named: of a network only with three or more, none of which has over half of the visits.',
    );
    const many = starts('A', 48, 0, 8).map((s, i) => (i % 2 === 0 ? s : { ...s, siteId: 'A1' }));
    expect(say(many, starts('B', 3, 20))[0]?.text).toMatch(/^Site A1, Site A\d and 2 more sites \(Network A\) clearly/);
  });
  it('of many networks hold the most visited against each other', () => {
    const many = Array.from({ length: 40 }, (_, i) => starts(`N${String(i).padStart(2, '0')}`, 6 + (i % 2), 2));
    const held = say(...many, starts('A', 60, 0), starts('B', 6, 54))[0];
    expect(held?.text).toMatch(/^Network A clearly started .* Network B/);
    expect(held?.working.at(-1)?.[1]).toBe('found among 66 pairs and figures: probably from 462, clearly from 1584');
  });
  it('of one side alone that has few sites, too', () => {
    const text = say(starts('A', 24, 0), starts('B', 3, 9, 1))[0]?.text;
    expect(text).toMatch(/^Network A clearly started .* Site B1 \(Network B\): .*This is said of the sites named/);
    expect(say(starts('A', 24, 0), starts('B', 3, 9))[0]?.text).not.toMatch(/sites named/);
    const three = starts('A', 24, 0, 4).map((s) => (s.siteId === 'A4' ? { ...s, siteId: 'A1' } : s));
    expect(say([...three, ...starts('A', 12, 0, 1).map((s) => ({ ...s, at: s.at + 100, stallId: `y${s.at}` }))], starts('B', 3, 9))[0]?.text).toMatch(
      /^Site A1, Site A2 and Site A3 \(Network A\) clearly/,
    );
  });
  it('give the evidence in words that a reader can hold', () => {
    const evidence = (...all: Start[][]) => say(...all)[0]?.working.find(([head]) => head === 'Evidence')?.[1];
    expect(evidence(starts('A', 9, 1, 1), starts('B', 7, 3, 1))).toMatch(/^each its own share is 0\.\d times as likely as one share for both$/);
    expect(evidence(starts('A', 12, 0, 1), starts('B', 6, 6, 1))).toMatch(/^each its own share is \d\d times as likely as one share for both$/);
    expect(evidence(starts('A', 60, 0, 1), starts('B', 6, 54, 1))).toBe('each its own share is over 10,000 times as likely as one share for both');
  });
  it('of several that cannot be told apart speak of the two with most to go by', () => {
    const rare = starts('C', 5, 0).map((s) => ({ ...s, month: '2024-01' }));
    expect(say(rare, starts('A', 12, 2), starts('B', 11, 3))[0]?.text).toMatch(/Network A at 12 of 14 visits, Network B at 11 of 14 visits/);
    expect(say(starts('A', 12, 2), rare, starts('B', 11, 3))[0]?.text).toMatch(/Network A at 12 of 14 visits, Network B at 11 of 14 visits/);
  });
  it('of several pairs give the surest three, held to their number', () => {
    const all = say(starts('A', 40, 0), starts('B', 2, 38), starts('C', 38, 2), starts('D', 4, 36));
    expect(all).toHaveLength(3);
    expect(all.every((s) => s.kind === 'clearly')).toBe(true);
    expect(all[0]?.working.at(-1)).toEqual(['Held to', 'found among 6 pairs and figures: probably from 42, clearly from 144']);
    // A network visited too rarely is in no pair.
    expect(say(starts('A', 24, 0), starts('B', 3, 9), starts('C', 1, 0))[0]?.working.at(-1)?.[1]).toBe('probably from 7, clearly from 24');
  });
  it('else that it cannot be told, and how many visits would probably tell', () => {
    expect(say(starts('A', 9, 1), starts('B', 7, 3))[0]).toMatchObject({
      kind: 'cannot_tell',
      text: expect.stringMatching(
        /^Cannot tell yet which network starts more often at the first try: Network A at 9 of 10 visits, Network B at 7 of 10 visits\. Going on like this, some \d+ more visits to each would probably tell\.$/,
      ),
    });
    expect(say(starts('A', 9, 1), starts('B', 9, 1))[0]?.text).toMatch(/even 100 more visits to each would probably not tell\.$/);
    const b = starts('B', 24, 0).map((s) => (s.siteId === 'B3' ? { ...s, yes: false } : s));
    expect(say(starts('A', 24, 0), b)[0]?.text).toMatch(/One site bears the difference alone: other sites of the same network would tell\.$/);
  });
  it('are never surer than their degree, whatever the ledger', () => {
    const any = fc.record({
      network: fc.constantFrom('A', 'B', 'C'),
      site: fc.nat(3),
      stall: fc.option(fc.nat(3), { nil: null }),
      driver: fc.constantFrom('p', 'q'),
      at: fc.nat(500),
      month: fc.constantFrom('2025-01', '2025-02'),
      yes: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 90 }), (rows) => {
        const all = rows.map((r) =>
          start(r.network, r.network === 'A' ? true : r.yes, {
            siteId: `${r.network}${r.site}`,
            stallId: r.stall === null ? null : `${r.network} ${r.stall}`,
            driverId: r.driver,
            at: r.at,
            month: r.month,
          }),
        );
        const sentences = compareSentences(all, NAMES);
        const { pairs } = pairDegrees(all.filter((s) => all.filter((x) => x.group === s.group).length >= LEAST_VISITS));
        expect(sentences.length).toBeGreaterThan(0);
        for (const s of sentences) {
          const word = / clearly /.test(s.text) ? 'clearly' : / probably started /.test(s.text) ? 'probably' : null;
          if (word === null) expect(['clearly', 'probably']).not.toContain(s.kind);
          else {
            expect(s.kind).toBe(word);
            expect(pairs.some((p) => p.degree === word && s.text.includes(`Network ${p.better.group}`) && s.text.includes(`Network ${p.worse.group}`))).toBe(
              true,
            );
          }
        }
        // The same ledger in another order says the same.
        expect(compareSentences([...all].reverse(), NAMES)).toEqual(sentences);
      }),
      { seed: 11, numRuns: 300 },
    );
  });
});

describe('how many more visits', () => {
  it('fewer the further apart, none where it is told already, and the same each time', () => {
    const far = visitsToTell({ yes: 9, n: 10 }, { yes: 4, n: 10 }, 1) as number;
    const near = visitsToTell({ yes: 9, n: 10 }, { yes: 7, n: 10 }, 1);
    expect(far).toBeLessThan(20);
    expect(near === null || near > far).toBe(true);
    expect(visitsToTell({ yes: 9, n: 10 }, { yes: 4, n: 10 }, 1)).toBe(far);
    expect(visitsToTell({ yes: 30, n: 30 }, { yes: 3, n: 30 }, 1)).toBe(0);
    expect(visitsToTell({ yes: 9, n: 10 }, { yes: 4, n: 10 }, 15) as number).toBeGreaterThan(far);
    expect(visitsToTell({ yes: 50, n: 60 }, { yes: 50, n: 60 }, 1)).toBeNull();
  });
  // Worked out by a second program from the definition alone: the same generator (D3’s linear one, its constants), log gamma of the C library.
  it.each([
    [9, 10, 4, 10, 1, 2],
    [9, 10, 4, 10, 15, 11],
    [9, 10, 7, 10, 1, 46],
    [2, 2, 0, 2, 1, 1],
    [5, 6, 3, 6, 3, 34],
    [20, 20, 17, 20, 1, 24],
  ])('%i of %i against %i of %i, found among %i: %i to each', (a, n, b, m, looked, more) => {
    expect(visitsToTell({ yes: a, n }, { yes: b, n: m }, looked)).toBe(more);
  });
});
