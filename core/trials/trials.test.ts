import { csvParse } from 'd3-dsv';
import type { TrialPlan } from '../records/trial-schema';
import { deriveVisit, type Visit } from '../visit/derive';
import { CARD, IN, idOf, KW, SECOND_PHONE, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { plan } from './fixtures/trial-plan';
import { stepKey, trialOrder } from './trial-order';
import { trialResult } from './trial-result';
import { countingRounds, type RoundRun, roundsOfVisit, stepsDone, trialRounds } from './trial-rounds';
import { trialCsv, trialJson } from './trial-share';
import { doneWith } from './voided-rounds';

const TRIAL = idOf(70);
const round = (at: number, n: number, side: string, trialId = TRIAL): Step => [at, 'trial_round', { trialId, round: n, side }];
const wait = (at: number, stallId: string, s: number | null): Step[] => [
  [at, 'stall_chosen', { stallId }],
  [at + 10, 'plugged'],
  [at + 20, 'means_shown', CARD],
  ...(s === null ? ([[at + 90, 'fault', { code: 'start_error', side: 'network' }]] as Step[]) : ([[at + 20 + s, 'power_seen', KW]] as Step[])),
  [at + 200, 'stop_asked', {}],
  [at + 210, 'unplugged'],
];
const visit = (...steps: Step[]): Visit => deriveVisit(VISIT, story(IN, ...steps), payloadProblem);
const runs = (v: Visit, more: Partial<TrialPlan> = {}) =>
  roundsOfVisit(v, TRIAL, plan(more)).map(({ round: n, side, is, s, why, voided }) => ({ n, side, is, s, why, voided }));

describe('rounds of a visit', () => {
  it('each is the next attempt after the word of it', () => {
    const v = visit(round(1, 1, 'a'), ...wait(10, STALL_A, 11.2), round(300, 1, 'b'), ...wait(310, STALL_B, 33.9));
    expect(runs(v)).toEqual([
      { n: 1, side: 'a', is: 'power', s: 11.2, why: null, voided: null },
      { n: 1, side: 'b', is: 'power', s: 33.9, why: null, voided: null },
    ]);
  });
  it('told afterwards it is the attempt before', () => {
    expect(runs(visit(...wait(10, STALL_A, 12), round(290, 4, 'a')))).toMatchObject([{ n: 4, s: 12 }]);
  });
  it('a failure never came, what is not over or not timed so does not count yet', () => {
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_A, null)))).toMatchObject([{ is: 'never', s: null, why: 'Start error' }]);
    expect(runs(visit(round(1, 1, 'a')))).toMatchObject([{ is: 'open', why: 'no attempt yet' }]);
    expect(runs(visit(round(1, 1, 'a'), [10, 'plugged'], [20, 'means_shown', CARD]))).toMatchObject([{ is: 'open', why: 'no power was seen yet' }]);
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12)), { mark: 'A' })).toMatchObject([{ is: 'open', why: 'power was seen in kW, not in A' }]);
    const late = visit(round(1, 1, 'a'), [10, 'plugged'], [20, 'means_shown', CARD], [60, 'power_seen', { ...KW, late: true }]);
    expect(runs(late)).toMatchObject([{ is: 'open', why: 'power was there already when it was seen' }]);
    expect(runs(visit(round(1, 1, 'a'), [10, 'plugged'], [60, 'power_seen', KW]), { time: 'setUp' })).toMatchObject([{ is: 'open' }]);
  });
  it('rounds of another trial, and sides that the plan has not, are not its own', () => {
    expect(runs(visit(round(1, 1, 'a', idOf(71)), ...wait(10, STALL_A, 12)))).toEqual([]);
    expect(runs(visit(round(1, 1, 'c'), ...wait(10, STALL_A, 12)))).toEqual([]);
    expect(runs(visit(round(1, 1, 'x'), ...wait(10, STALL_A, 12)))).toEqual([]);
  });
  it('voided says why, of its own round', () => {
    const v = visit(
      round(1, 1, 'a'),
      ...wait(10, STALL_A, 12),
      [250, 'trial_voided', { trialId: TRIAL, reason: 'queue' }],
      round(300, 1, 'b'),
      ...wait(310, STALL_B, 30),
    );
    expect(runs(v).map((r) => r.voided)).toEqual(['queue', null]);
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12), [250, 'trial_voided', { trialId: idOf(71), reason: 'x' }])).map((r) => r.voided)).toEqual([
      null,
    ]);
  });
  it('voided by name is that round, whatever the clocks say of when', () => {
    const named = (n: number, side: string): Step => [5, 'trial_voided', { trialId: TRIAL, round: n, side, reason: 'queue' }];
    const v = (...more: Step[]) => visit(...more, round(6, 1, 'a'), ...wait(10, STALL_A, 12), round(300, 1, 'b'), ...wait(310, STALL_B, 30));
    expect(runs(v(named(1, 'b'))).map((r) => r.voided)).toEqual([null, 'queue']);
    expect(runs(v(named(1, 'a'))).map((r) => r.voided)).toEqual(['queue', null]);
    expect(runs(v(named(2, 'a'))).map((r) => r.voided)).toEqual([null, null]);
  });
  it('at another stall, or by another means, than its side it does not count; the next at its side does', () => {
    const elsewhere = { is: 'open', s: null, why: 'another stall was used' };
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_B, 12)))).toMatchObject([elsewhere]);
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_B, null)))).toMatchObject([elsewhere]);
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_B, null), ...wait(300, STALL_A, 12)))).toMatchObject([{ is: 'power', s: 12 }]);
    // Of which stall it was nobody noted; told afterwards it is no attempt of the other side.
    expect(runs(visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12).slice(1)))).toMatchObject([{ is: 'power', s: 12 }]);
    expect(runs(visit(...wait(10, STALL_B, 12), round(290, 4, 'a')))).toMatchObject([{ why: 'no attempt yet' }]);
    const means = (key: string) => ({ kind: 'means' as const, sides: [key, 'rfid'].map((k) => ({ key: k, label: k, siteId: null })) });
    const shown = visit(round(1, 1, 'a'), ...wait(10, STALL_B, 12));
    expect(runs(shown, means('contactless'))).toMatchObject([{ is: 'power', s: 12 }]);
    expect(runs(shown, means('app'))).toMatchObject([{ is: 'open', why: 'another means was used' }]);
    expect(runs(visit(round(1, 1, 'a'), [10, 'plugged'], [60, 'power_seen', KW]), { ...means('app'), time: 'plugToPower' })).toMatchObject([
      { is: 'power', s: 50 },
    ]);
    expect(runs(shown, { kind: 'network' })).toMatchObject([{ is: 'power', s: 12 }]);
  });
  it('run again at the same stop it counts, though its name was voided before', () => {
    const named = (at: number, more: object = {}): Step => [at, 'trial_voided', { trialId: TRIAL, round: 1, side: 'a', reason: `at ${at}`, ...more }];
    const twice = (between: Step[], ...after: Step[]) =>
      visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12), ...between, round(300, 1, 'a'), ...wait(310, STALL_A, 30), ...after);
    const why = (v: Visit) => roundsOfVisit(v, TRIAL, plan()).map((r) => r.voided);
    expect(why(twice([named(250)]))).toEqual(['at 250', null]);
    expect([...stepsDone(trialRounds([twice([named(250)])], TRIAL, plan()))]).toEqual(['1a']);
    // The later alone, both, and each by its id whenever it was said.
    expect(why(twice([], named(600)))).toEqual([null, 'at 600']);
    expect(why(twice([named(250)], named(600), named(610)))).toEqual(['at 250', 'at 600']);
    const [first, again] = roundsOfVisit(twice([named(250)]), TRIAL, plan()).map((r) => r.id);
    expect(why(twice([], named(600, { run: first })))).toEqual(['at 600', null]);
    expect(why(twice([named(250, { run: again })]))).toEqual([null, 'at 250']);
    // One that is another recording's goes by its name.
    expect(why(twice([named(250, { run: idOf(999) })]))).toEqual(['at 250', null]);
  });
  it('what was voided here is to be run again, though it was known as done; run again it is done', () => {
    const named: Step = [250, 'trial_voided', { trialId: TRIAL, round: 1, side: 'a', reason: 'queue' }];
    const done = (...steps: Step[]) => doneWith(visit(...steps), TRIAL, ['1a', '2b']);
    expect(done(round(1, 1, 'a'), ...wait(10, STALL_A, 12))).toEqual(['1a', '2b', '1a']);
    expect(done(round(1, 1, 'a'), ...wait(10, STALL_A, 12), named)).toEqual(['2b']);
    expect(done(round(1, 1, 'a'), ...wait(10, STALL_A, 12), named, round(300, 1, 'a'))).toEqual(['2b', '1a']);
    expect(doneWith(visit(round(1, 1, 'a'), named), idOf(71), ['1a'])).toEqual(['1a']);
  });
  it('told and not begun, it has nothing of the round before', () => {
    const v = visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12), round(300, 1, 'b'));
    expect(runs(v)).toMatchObject([
      { side: 'a', is: 'power', s: 12 },
      { side: 'b', is: 'open', s: null, why: 'no attempt yet' },
    ]);
    expect([...stepsDone(trialRounds([v], TRIAL, plan()))]).toEqual(['1a']);
    // Nor of the one after.
    expect(runs(visit(round(1, 1, 'a'), round(5, 1, 'b'), ...wait(10, STALL_B, 12)))).toMatchObject([
      { side: 'a', is: 'open', why: 'no attempt yet' },
      { side: 'b', is: 'power', s: 12 },
    ]);
  });
  it('by two phones both are counted as observers, with the ± of both', () => {
    const v = visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12), [42.6, 'power_seen', KW, { deviceId: SECOND_PHONE, role: 'observer', seq: 90, id: idOf(500) }]);
    const [r] = roundsOfVisit(v, TRIAL, plan());
    expect(r).toMatchObject({ observers: 2, s: 12 });
    expect(r?.pm_s).toBeGreaterThan(0);
  });
});

const run = (n: number, side: 'a' | 'b' | 'c' | 'd', s: number | null, more: Partial<RoundRun> = {}): RoundRun => ({
  id: `${n}${side}`,
  visitId: `${n}${side}`,
  round: n,
  side,
  is: s === null ? 'never' : 'power',
  s,
  pm_s: 0.4,
  why: s === null ? 'Start error' : null,
  at: n * 1000,
  observers: 2,
  voided: null,
  repeated: false,
  ...more,
});

describe('all rounds', () => {
  it('of one that was run twice the later counts, unless that is void', () => {
    const twice = (voided: boolean) =>
      trialRounds(
        [
          visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12)),
          visit(round(1001, 1, 'a'), ...wait(1010, STALL_A, 40), ...(voided ? ([[1250, 'trial_voided', { trialId: TRIAL, reason: 'queue' }]] as Step[]) : [])),
        ],
        TRIAL,
        plan(),
      );
    expect(twice(false).map((r) => [r.s, r.repeated])).toEqual([
      [12, true],
      [40, false],
    ]);
    expect(countingRounds(twice(false)).map((r) => r.s)).toEqual([40]);
    expect(countingRounds(twice(true)).map((r) => r.s)).toEqual([12]);
    expect([...stepsDone(twice(true))]).toEqual(['1a']);
    // Told once more and not begun, or run elsewhere, it takes nothing away.
    for (const again of [[], wait(1010, STALL_B, 40)]) {
      const both = trialRounds([visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12)), visit(round(1001, 1, 'a'), ...again)], TRIAL, plan());
      expect([countingRounds(both).map((r) => r.s), [...stepsDone(both)]]).toEqual([[12], ['1a']]);
    }
  });
  it('stand by round and side, of each the earlier first', () => {
    const run = (at: number, n: number, side: string, s: number) => visit(round(at, n, side), ...wait(at + 10, side === 'a' ? STALL_A : STALL_B, s));
    const all = [run(4001, 2, 'a', 14), run(3001, 1, 'b', 13), run(2001, 1, 'a', 12), run(1001, 1, 'b', 11), run(1, 2, 'b', 10)];
    for (const some of [all, [...all].reverse()])
      expect(trialRounds(some, TRIAL, plan()).map((r) => [`${r.round}${r.side}`, r.s, r.repeated])).toEqual([
        ['1a', 12, false],
        ['1b', 11, true],
        ['1b', 13, false],
        ['2a', 14, false],
        ['2b', 10, false],
      ]);
  });
  it('a visit that was withdrawn has none', () =>
    expect(trialRounds([{ ...visit(round(1, 1, 'a'), ...wait(10, STALL_A, 12)), withdrawn: true }], TRIAL, plan())).toEqual([]));
});

// The picture of the design: seven of seven rounds, 22.9 s in the middle, 19.4 to 26.8. Invented times.
const KAMEN = [11.2, 10.4, 12.9, 9.8, 11.6, 13.3, 10.9];
const VRBA = [33.9, 31.2, 36.4, 38.0, 32.8, 36.2, 34.5];
const rounds = KAMEN.flatMap((s, i) => [run(i + 1, 'a', s), run(i + 1, 'b', VRBA[i] as number)]);

describe('what a trial shows', () => {
  it('seven rounds all one way: clearly, by so many seconds, over ten stops so many minutes', () => {
    const got = trialResult(plan(), rounds);
    expect(got).toMatchObject({ degree: 'clearly', counted: 7, voided: 0, best: 'clearly' });
    expect(got.text).toMatch(
      /^Kamen Toll 1 clearly gave power sooner than Vrba Crossing 2: in 7 of 7 rounds, by 2[23]\.\d s in the middle \(95 %: \d\d\.\d s to \d\d\.\d s\)\. Over ten stops that is about 4 minutes\.$/,
    );
    expect(got.pairs[0]?.course.map((c) => Math.round(Math.exp(c.logEvidence) * 10) / 10)).toEqual([1, 1.5, 2.5, 4.4, 7.9, 14.4, 26.8]);
  });
  it('five say probably, four nothing yet, and fewer than six pairs no 95 % limits', () => {
    expect(trialResult(plan(), rounds.slice(0, 10)).text).toMatch(
      /^Kamen Toll 1 probably gave power sooner than Vrba Crossing 2: in 5 of 5 rounds, by \d\d\.\d s in the middle\. Over ten/,
    );
    expect(trialResult(plan(), rounds.slice(0, 8)).text).toBe('Cannot tell yet who gives power sooner: Kamen Toll 1 in 4 of 4 rounds.');
    expect(trialResult(plan(), rounds.slice(0, 2)).text).toBe('Cannot tell yet who gives power sooner: Kamen Toll 1 in 1 of 1 round.');
    expect(trialResult(plan(), []).text).toBe('Cannot tell yet: no round was run by both.');
    expect(trialResult(plan(), [run(1, 'a', 9)]).text).toBe('Cannot tell yet: no round was run by both.');
  });
  it('the quicker one is named first whichever side it is', () => {
    const turned = rounds.map((r) => ({ ...r, side: r.side === 'a' ? ('b' as const) : ('a' as const) }));
    expect(trialResult(plan(), turned).text).toMatch(/^Vrba Crossing 2 clearly gave power sooner than Kamen Toll 1: in 7 of 7/);
    expect(trialResult(plan(), turned).pairs[0]?.course.at(-1)?.logEvidence).toBeCloseTo(Math.log(26.8125), 3);
  });
  it('within their ± nothing is decided, never is longest, both never decide nothing', () => {
    const few = [
      run(1, 'a', 10),
      run(1, 'b', 10.8),
      run(2, 'a', 10),
      run(2, 'b', null),
      run(3, 'a', null),
      run(3, 'b', null),
      run(4, 'a', 10),
      run(4, 'b', 10.9),
    ];
    const [pair] = trialResult(plan(), few).pairs;
    expect(pair).toMatchObject({ quicker: 'a', won: 2, decided: 2, undecided: 2 });
    expect(trialResult(plan(), few).text).toMatch(/in 2 of 2 rounds, 2 within their ±\.$/);
  });
  it('evidence against the leading one is none for it', () => {
    const mixed = [run(1, 'a', 50), run(1, 'b', 10), ...[2, 3, 4].flatMap((n) => [run(n, 'a', 10), run(n, 'b', 50)])];
    const [pair] = trialResult(plan(), mixed).pairs;
    expect(pair).toMatchObject({ quicker: 'a', won: 3, decided: 4 });
    expect(pair?.course[0]?.logEvidence).toBeLessThanOrEqual(0);
    expect(pair?.degree).toBe('cannot_tell');
  });
  it('what is void, open or was run again counts for nothing', () => {
    const odd = rounds.map((r) =>
      r.round < 4 ? { ...r, ...(r.round === 1 ? { voided: 'queue' } : r.round === 2 ? { repeated: true } : { is: 'open' as const, s: null }) } : r,
    );
    expect(trialResult(plan(), odd)).toMatchObject({ degree: 'cannot_tell', counted: 4, voided: 2 });
  });
  it('of four sides each pair is held to six times as much', () => {
    const four = plan({ sides: ['w', 'x', 'y', 'z'].map((k) => ({ key: k, label: k, siteId: null })) });
    const all = (n: number) => Array.from({ length: n }, (_, i) => [run(i + 1, 'a', 10), run(i + 1, 'b', 20), run(i + 1, 'c', 30), run(i + 1, 'd', 40)]).flat();
    expect(trialResult(four, all(9)).degree).toBe('probably');
    const ten = trialResult(four, all(10));
    expect([ten.degree, ten.pairs.length, ten.text.match(/clearly/g)?.length]).toEqual(['clearly', 6, 6]);
  });
});

describe('a trial handed on', () => {
  const all = [
    ...rounds,
    run(8, 'a', 10, { voided: 'queue at Kamen Toll 1' }),
    run(8, 'b', null),
    run(8, 'b', 12, { repeated: true }),
    run(9, 'a', null, { is: 'open', why: 'no attempt yet' }),
  ];
  const shared = { id: TRIAL, plan: plan(), rounds: all, result: trialResult(plan(), all) };
  it('has every raw time', () => {
    const lines = csvParse(trialCsv(shared, true));
    expect(lines).toHaveLength(all.length);
    expect(lines[0]).toEqual({
      Round: '1',
      Side: 'Kamen Toll 1',
      Outcome: 'power',
      Seconds: '11.2',
      '± s': '0.4',
      Observers: '2',
      Counts: 'yes',
      'Why not': '',
      UTC: '1970-01-01T00:00:01.000Z',
    });
    expect(lines.slice(-4).map((l) => [l.Outcome, l.Seconds, l.Counts, l['Why not']])).toEqual([
      ['power', '10', 'no', 'queue at Kamen Toll 1'],
      ['never', '', 'yes', 'Start error'],
      ['power', '12', 'no', 'run again'],
      ['open', '', 'no', 'no attempt yet'],
    ]);
  });
  it('without places names nobody, nowhere and no time of day', () => {
    for (const text of [trialCsv(shared, false), trialJson(shared, false)]) {
      for (const told of ['Kamen', 'Vrba', STALL_A, TRIAL, '1970', 'Heron', 'queue at']) expect(text).not.toContain(told);
      expect(text).toContain('11.2');
      expect(text).toContain('Side A');
    }
  });
  it('is JSON with plan, order, rounds and what they show', () => {
    const got = JSON.parse(trialJson(shared, true));
    expect(got).toMatchObject({
      format: 'mile-ledger-trial',
      id: TRIAL,
      name: 'Kamen or Vrba',
      plan: { seed: 41, rounds: 8, order: trialOrder(plan()).map(stepKey) },
    });
    expect(got.rounds).toHaveLength(all.length);
    expect(got.result.pairs[0]).toMatchObject({ quicker: 'a', won: 7, decided: 7 });
    expect(got.told).toBe('These stalls, this day. The operators were not asked.');
  });
});
