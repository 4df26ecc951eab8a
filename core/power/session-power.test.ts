import type { RecordFields } from '../records/record-schema';
import { recordItem } from '../records/record-schema';
import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { conditionsOf } from './charge-conditions';
import { chargeOf } from './charge-of';
import { classesOf, curveToJudgeBy, learntCurve, type PastSession } from './past-sessions';
import { chartOf } from './power-chart';
import { powerCsv } from './power-csv';
import { bandHeld, powerSentences } from './power-words';
import { seriesOf } from './series';
import { lossOf, sessionChecks } from './session-checks';
import { sessionLooks } from './session-looks';
import { type StandsAt, sessionPower } from './session-power';
import { outletOf, shareOf } from './setting-of';
import { outlooksOf } from './site-outlook';

const fields = <T extends 'car' | 'stall'>(type: T, f: object) =>
  recordItem(type, '01900000-0000-7000-8000-0000000000aa', f as never).fields as RecordFields<T>;
const car = fields('car', {
  name: 'Heron 62',
  usableKWh: 62,
  connectors: ['CCS2'],
  packV0: 318,
  packV100: 403,
  kWhPer100km: 18,
  maxACkW: 11,
  curve: [
    [0, 120],
    [50, 120],
    [80, 60],
    [100, 20],
  ],
});
const stall = fields('stall', {
  siteId: '01900000-0000-7000-8000-000000000007',
  name: '1',
  outlets: [{ connector: 'CCS2', ratedKW: 150 }],
  cabinet: 'A',
  sharing: 'shared',
  cabinetKW: 150,
});
const stands = (more: Partial<StandsAt> = {}): StandsAt => ({
  car,
  stall,
  outlet: stall.outlets[0] as never,
  adapter: null,
  mates: new Set([STALL_B]),
  ...more,
});
const range = { usableKWh: 62, kWhPer100km: 18 };
const typed = { points: car.curve, by: { from: 'typed' } as const };

const START: Step[] = [IN, [10, 'stall_chosen', { stallId: STALL_A }], [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]];
/** A look at the stall's screen, seconds after power. */
const look = (s: number, socPct: number, kW: number, more = {}): Step => [60 + s, 'reading', { screen: 'stall', socPct, kW, ...more }];
const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...START, ...steps), payloadProblem);
const power = (steps: Step[], at: StandsAt | null = stands(), curve: Parameters<typeof sessionPower>[3] = typed) => {
  const v = visit(...steps);
  const found = sessionPower(v, v.attempts[0] as never, at, curve, range);
  if (!found) throw new Error('no session');
  return found;
};
/** 120 kW until half full, then what the curve gives: a charge that nothing else held back. */
const HONEST: Step[] = [
  look(2, 20, 120),
  look(186, 30, 120, { kWh: '6.2' }),
  look(372, 40, 120, { kWh: '12.4' }),
  look(558, 50, 120, { kWh: '18.6' }),
  look(781, 60, 98, { kWh: '24.8' }),
  [900, 'stop_asked', { by: 'button' }],
];

describe('a session against what could be expected', () => {
  it('an honest stall: the word is kept, and the car itself sets the pace', () => {
    const s = power(HONEST);
    expect(s.pace?.session.took_min).toBeCloseTo(13.0, 1);
    expect(powerSentences(s)).toEqual(['The stall kept its word.']);
    expect(s.held.map((h) => [h.by, h.sure])).toEqual([['car_curve', 'fits']]);
    expect(bandHeld(s.held, 20, 30)).toBe('car');
    // 40 % of 62 kWh at 18 kWh/100 km.
    expect(s.whole?.covered !== 'none' && s.whole?.range_km).toBeCloseTo((0.4 * 62) / 0.18, 6);
  });
  it('a neighbour on a shared cabinet: half of it from where it was noted, and the word suffers for it', () => {
    const s = power([
      look(2, 20, 120),
      look(186, 30, 120),
      look(372, 40, 119),
      [60 + 380, 'change', { what: 'neighbour_in' }],
      look(670, 50, 75),
      look(968, 60, 74),
      [60 + 980, 'change', { what: 'neighbour_out' }],
      look(1190, 70, 96),
      [60 + 1250, 'stop_asked', { by: 'button' }],
    ]);
    expect(s.conditions).toEqual([expect.objectContaining({ what: 'neighbour', noted: 'during' })]);
    expect(s.held.map((h) => h.by)).toEqual(['car_curve', 'pair_share', 'car_curve']);
    expect(s.held[1]).toMatchObject({ kW: 75, sure: 'noted', evidence: 'a neighbour plugging in was noted' });
    expect(s.held[1]?.from).toBeCloseTo(40.3, 0);
    const said = powerSentences(s).join(' ');
    expect(said).toMatch(
      /^The stall kept its word for \d\d % of the minutes it took\. From 40 to 6\d % the neighbour probably took half the cabinet: about \d+ minutes\. Above 6\d % the car itself set the pace\.$/,
    );
    expect(bandHeld(s.held, 40, 50)).toMatch(/^pair/);
  });
  it('the same without a share on file: the neighbour is named, no figure is', () => {
    const s = power(
      [look(2, 20, 120), [70, 'change', { what: 'neighbour_in' }], look(400, 30, 60), look(800, 40, 60), [900, 'stop_asked']],
      stands({ stall: { ...stall, sharing: null, cabinetKW: null } }),
    );
    expect(s.held.at(-1)).toMatchObject({ by: 'neighbour', kW: null, sure: 'noted' });
  });
  it('and where the share on file would leave more than came, it is a guess, beside what it would leave', () => {
    const s = power([look(2, 80, 58), [70, 'change', { what: 'neighbour_in' }], look(500, 85, 25), look(1100, 90, 25), [1200, 'stop_asked']]);
    expect(s.held.at(-1)).toMatchObject({ by: 'neighbour', kW: 75, sure: 'guess', evidence: expect.stringContaining('would leave more') });
  });
  it('a mate seen charging on arrival counts until it is seen to leave', () => {
    const v = deriveVisit(
      VISIT,
      story(IN, [5, 'survey', { stalls: [{ stallId: STALL_B, state: 'charging' }] }], ...START.slice(1), look(2, 20, 75), look(400, 30, 75), [
        900,
        'stop_asked',
      ]),
      payloadProblem,
    );
    const a = v.attempts[0] as never;
    const series = seriesOf(chargeOf(a, v) as never);
    expect(conditionsOf(v, a, series, new Set([STALL_B]))).toEqual([expect.objectContaining({ what: 'neighbour', noted: 'on arrival' })]);
    expect(conditionsOf(v, a, series, new Set())).toEqual([]);
  });
  it('steady far below, with nothing noted: a derate is suspected, and not called one', () => {
    const steps = [look(2, 20, 61), look(372, 30, 60), look(744, 40, 60), look(1116, 50, 61), [60 + 1200, 'stop_asked'] as Step];
    const s = power(steps);
    expect(s.held).toEqual([expect.objectContaining({ by: 'derate_suspected', sure: 'guess' })]);
    expect(powerSentences(s)[1]).toMatch(/a derate is suspected/);
    // Cold explains it, and so does heating: then nothing is suspected.
    expect(power([[65, 'change', { what: 'cold' }], ...steps]).held.map((h) => h.by)).toEqual(['cold']);
    expect(power([[65, 'change', { what: 'climate_on' }], ...steps]).held.map((h) => h.by)).toContain('climate');
    // Not steady, or not for long enough: it is not told.
    expect(power([look(2, 20, 80), look(300, 30, 70), look(650, 40, 60), [800, 'stop_asked']]).held.at(-1)?.by).toBe('not_known');
  });
  it('without a stall or a curve nothing is judged, and nothing is blamed', () => {
    expect(powerSentences(power(HONEST, null))).toEqual(['Car or stall is not on file with what it takes or gives: the stall cannot be judged yet.']);
    expect(power(HONEST, stands(), { points: [], by: null }).pace).toBeNull();
    expect(powerSentences(power([look(2, 20, 120)]))).toEqual(['The battery was read fewer than twice: what the stall kept of its word cannot be told.']);
    const v = visit([60, 'reading', { screen: 'stall', kW: 5 }]);
    expect(sessionPower(v, { ...(v.attempts[0] as never as object), proof: undefined } as never, stands(), typed, range)).toBeNull();
  });
  it('a derate that was noted is what held it back, from where it was noted on, and what explains nothing is not', () => {
    const s = power([
      look(2, 20, 120),
      look(186, 30, 120),
      [60 + 187, 'change', { what: 'climate_on' }],
      [60 + 188, 'change', { what: 'derate', value: 60 }],
      look(560, 40, 60),
      [60 + 570, 'stop_asked'],
    ]);
    expect(s.held.map((h) => [h.by, h.kW, h.sure])).toEqual([
      ['car_curve', 120, 'fits'],
      ['derated', 60, 'noted'],
    ]);
    expect(s.curveBy).toEqual({ from: 'typed' });
  });
  it('of one level alone, or none, there is no stretch', () => {
    for (const steps of [[look(2, 20, 120)], [look(2, 20, 120), look(300, 20, 120)], [[70, 'reading', { screen: 'stall', kW: 120 }] as Step]]) {
      const s = power(steps);
      expect([s.whole, s.bands, s.held]).toEqual([null, [], []]);
    }
    // One who read nothing has a session all the same.
    const v = visit();
    expect(sessionPower(v, v.attempts[0] as never, stands(), typed, range)?.readings ?? []).toEqual([]);
  });
  it('an adapter that binds excuses the stall, beside the figure as defined', () => {
    const s = power([look(2, 20, 45), look(500, 30, 45), look(990, 40, 45), [60 + 1000, 'stop_asked']], stands({ adapter: { maxA: 130, maxV: 500 } }));
    expect(powerSentences(s)[0]).toMatch(/^The adapter set the power for part of it/);
  });
  it('AC: the onboard charger sets the limit, whatever the outlet says', () => {
    const outlet = { ...(stall.outlets[0] as object), connector: 'Type 2', ratedKW: 43, phases: 3, maxA: 63 } as never;
    const s = power([look(2, 20, 11), look(2 * 3600, 52, 11), [60 + 2 * 3600 + 10, 'stop_asked']], stands({ outlet }), { points: [], by: null });
    expect(s.held.map((h) => h.by)).toEqual(['onboard']);
    // The curve of direct current is none of it.
    const both = power([look(2, 20, 11), look(2 * 3600, 52, 11), [60 + 2 * 3600 + 10, 'stop_asked']], stands({ outlet }));
    expect([both.curveBy, both.pace?.session]).toEqual([null, s.pace?.session]);
  });
  it('AC: what the car takes unknown, the stall is not blamed for it', () => {
    const outlet = { ...(stall.outlets[0] as object), connector: 'Type 2', ratedKW: 22, phases: 3, maxA: 32 } as never;
    const steps: Step[] = [look(2, 20, 11), look(2 * 3600, 52, 11), [60 + 2 * 3600 + 10, 'stop_asked']];
    const s = power(steps, stands({ outlet, car: { ...car, maxACkW: null } }));
    expect([s.limits, s.pace, s.held]).toEqual([null, null, []]);
    expect(powerSentences(s)).toEqual(['Car or stall is not on file with what it takes or gives: the stall cannot be judged yet.']);
  });
});

describe('checks of a session', () => {
  it('each says its arithmetic, and what does not fit is told', () => {
    const v = visit(...HONEST.slice(0, 5), [60 + 790, 'reading', { screen: 'stall', kWh: '248', V: 400, A: 100, kW: 90 }], [60 + 795, 'stop_asked']);
    const a = v.attempts[0] as never;
    const s = sessionPower(v, a, stands(), typed, range);
    const checks = s ? sessionChecks(s, a, 150, 62, 'dc') : [];
    expect(checks.map((c) => [c.name, c.fine])).toEqual(
      expect.arrayContaining([
        ['kWh against time', false],
        ['A digit', false],
        ['V × A against kW', false],
      ]),
    );
    expect(checks.find((c) => c.name === 'A digit')?.arithmetic).toContain('24.8');
  });
  it('an honest session passes', () => {
    const v = visit(...HONEST);
    const s = sessionPower(v, v.attempts[0] as never, stands(), typed, range);
    expect(s && sessionChecks(s, v.attempts[0] as never, 150, 62, 'dc').filter((c) => c.fine === false)).toEqual([]);
  });
  it('its kWh are held against those of the car before, and what was charged against the tariff', () => {
    const v = visit(...HONEST.slice(0, 5), [60 + 790, 'reading', { screen: 'stall', kWh: '24.8' }], [60 + 795, 'stop_asked']);
    const a = v.attempts[0] as never;
    const s = sessionPower(v, a, stands(), typed, range);
    if (!s) throw new Error();
    const kWh = s.series.delivered_kWh as number;
    const said = (earlierKWh: number[], cost: Parameters<typeof sessionChecks>[5] extends infer A ? (A extends { cost: infer C } ? C : never) : never = null) =>
      sessionChecks(s, a, 150, 62, 'dc', { earlierKWh, cost }).filter((c) => /earlier|tariff/.test(c.name));
    expect(said([kWh / 10, kWh / 10])).toEqual([]);
    expect(said([kWh / 10, kWh / 10, kWh / 10])).toMatchObject([
      { name: 'kWh against earlier sessions', fine: false, arithmetic: expect.stringMatching(/10\.00 times that, is the point right\?$/) },
    ]);
    expect(said([kWh, kWh, kWh])).toMatchObject([{ fine: true, arithmetic: expect.stringMatching(/1\.00 times that$/) }]);
    expect(said([], { charged: '12.50', expected: '12.00', currency: 'EUR' })).toEqual([
      {
        name: 'Cost against tariff',
        fine: false,
        arithmetic: '€12.50 charged for the visit, €12.00 by the price on file: €0.50 more, up to €0.24 is rounding',
      },
    ]);
    expect(said([], { charged: '11.80', expected: '12.00', currency: 'EUR' })).toMatchObject([
      { fine: true, arithmetic: expect.stringContaining('€0.20 less') },
    ]);
  });
  it('what did not reach the battery has a ±, and is not told under 20 %', () => {
    // 26 kWh metered, 40 % of 62 kWh are 24.8.
    expect(lossOf(26, 40, 62)?.share).toBeCloseTo(1 - 24.8 / 26, 9);
    expect(lossOf(26, 40, 62)?.pm).toBeCloseTo(0.62 / 26, 9);
    expect(lossOf(26, 19, 62)).toBeNull();
  });
});

describe('what is drawn', () => {
  it('nothing beyond the readings, a gap where nobody looked, and the same as CSV', () => {
    const s = power(HONEST);
    const chart = chartOf(s, 'This visit', []);
    const line = chart.lines[0];
    expect(line?.points[0]).toMatchObject({ min: 0, kWh: 0, how: 'meter' });
    expect(line?.points.find((p) => p.min > 1 && p.how === 'between')).toBeDefined();
    expect(line?.looks).toHaveLength(5);
    expect(chart.expected[0]).toEqual([0, 120]);
    const csv = powerCsv(chart).split('\n');
    expect(csv[0]).toBe('series,minutes,battery (%),power (kW),energy (kWh),known by');
    expect(csv).toHaveLength((line?.points.length ?? 0) + 2);
  });
});

const past = (id: string, looks: [number, number, number][], more: Partial<PastSession> = {}, own: object = {}): PastSession => ({
  visitId: id,
  n: 1,
  day: '2025-10-01',
  at: Number(id),
  networkId: 'n1',
  siteId: 's1',
  stallId: 'st',
  model: null,
  carId: 'c',
  looks: { from: 20, to: 60, took_min: 13, kWh: 25, charging_s: 800, peak_kW: 120, klass: 'usual', hindered: false, connector: null, looks, ...own },
  stands: stands(),
  ...more,
});
const LOOKS: [number, number, number][] = [
  [70, 22, 118],
  [300, 37, 117],
  [600, 52, 112],
  [780, 62, 95],
];

describe('what past sessions teach', () => {
  it('a second rapid charge of the day is a class of its own', () => {
    const all = [past('1', LOOKS), past('2', LOOKS), past('3', LOOKS, { day: '2025-10-02' }, { klass: 'cold' })];
    expect([...classesOf(all)].map(([p, c]) => [p.visitId, c])).toEqual([
      ['1', 'usual'],
      ['2', 'second'],
      ['3', 'cold'],
    ]);
  });
  it('a curve is learnt from unhindered sessions, at other networks when a stall is to be judged', () => {
    const all = ['1', '2', '3', '4'].map((id, i) => past(id, LOOKS, { day: `2025-10-0${id}`, networkId: i === 3 ? 'n2' : 'n1' }));
    expect(learntCurve(all, 'usual').curve.map(([pct]) => pct)).toEqual([22.5, 37.5, 52.5, 62.5]);
    expect(learntCurve(all, 'usual', 'n1').curve).toEqual([]);
    expect(
      learntCurve(
        all.map((p) => ({ ...p, looks: { ...p.looks, hindered: true } })),
        'usual',
      ).curve,
    ).toEqual([]);
    const learnt = learntCurve(all, 'usual');
    expect(curveToJudgeBy(learnt, car.curve, [20, 60]).by).toEqual({ from: 'learnt', sessions: 4 });
    // Beyond what sessions have shown, what was typed.
    expect(curveToJudgeBy(learnt, car.curve, [20, 60]).points.map(([pct]) => pct)).toEqual([0, 22.5, 37.5, 52.5, 62.5, 80, 100]);
    expect(curveToJudgeBy(learnt, [], [20, 60]).points).toEqual(learnt.curve);
    expect(curveToJudgeBy(learnt, car.curve, [5, 60]).by).toEqual({ from: 'typed' });
    expect(curveToJudgeBy(learnt, [], [5, 60])).toEqual({ points: [], by: null });
  });
  it('a session in short says what comparisons need', () => {
    const v = visit(...HONEST);
    const looks = sessionLooks(v, v.attempts[0] as never);
    expect(looks).toMatchObject({ from: 20, to: 60, klass: 'usual', hindered: false, peak_kW: 120 });
    expect(looks?.looks.map(([, pct]) => pct)).toEqual([20, 30, 40, 50, 60]);
    expect(sessionLooks(visit(), visit().attempts[0] as never)).toBeNull();
  });
  it('a site’s outlook is shrunk towards its network’s, and never seen is said', () => {
    const start = (siteId: string, good: boolean, day = '2025-10-01') => ({ siteId, networkId: 'n1', good, handshake_s: 60, lost_s: good ? null : 600, day });
    const starts = [...Array.from({ length: 8 }, () => start('a', true)), start('b', false, '2025-10-05')];
    const { sites, cars } = outlooksOf(
      starts,
      ['1', '2', '3'].map((id) => past(id, LOOKS, { siteId: 'a', day: `2025-10-0${id}` })),
      new Map([
        ['a', 'n1'],
        ['b', 'n1'],
        ['c', 'n1'],
        ['d', 'n9'],
      ]),
    );
    expect(sites.a?.startShare).toBeGreaterThan(sites.c?.startShare as number);
    expect(sites.b?.startShare).toBeLessThan(sites.c?.startShare as number);
    expect(sites.b).toMatchObject({ n: 1, lastSeen: '2025-10-05', paced: 0 });
    expect(sites.d).toMatchObject({ n: 0, startShare: 0.9, pace: null, lastSeen: null });
    expect(sites.a?.pace).toBeCloseTo(1, 1);
    expect(cars.c?.sessions).toBe(3);
  });
});

describe('car and stall as on file', () => {
  it('the outlet plugged in: as noted, else what the adapter fits, else what the car takes', () => {
    const twin = { ...stall, outlets: [{ ...(stall.outlets[0] as object), connector: 'CHAdeMO', ratedKW: 50 }, stall.outlets[0]] } as never;
    expect(outletOf(twin, car, 'CHAdeMO', null).ratedKW).toBe(50);
    expect(outletOf(twin, car, null, 'CHAdeMO').ratedKW).toBe(50);
    expect(outletOf(twin, car, null, null).ratedKW).toBe(150);
  });
  it('a share only where stalls share their cabinet', () => {
    expect(shareOf({ sharing: 'shared', cabinetKW: 150 }, 150)).toBe(75);
    expect(shareOf({ sharing: 'shared', cabinetKW: null }, 300)).toBe(150);
    expect(shareOf({ sharing: 'own', cabinetKW: 150 }, 150)).toBeNull();
  });
});
