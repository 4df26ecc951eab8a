import { deriveVisit } from '../visit/derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from '../visit/fixtures/story';
import { payloadProblem } from '../visit/payloads';
import { aroundNow, type Condition, conditionsOf, matesOf, overlaps } from './charge-conditions';
import { chargeOf } from './charge-of';
import { seriesOf } from './series';
import { sessionLooks } from './session-looks';

/** Power at second 60; one per cent of battery in ten seconds, from 20 to 60 %, and the stop at its end. */
const look = (s: number): Step => [60 + s, 'reading', { screen: 'stall', socPct: 20 + s / 10, kW: 100 }];
const change = (s: number, what: string, more = {}): Step => [s, 'change', { what, ...more }];
function told(steps: readonly Step[], arrival = {}) {
  const all: Step[] = [
    ['pulled_in', 0, { ...IN[2], ...arrival }],
    ['stall_chosen', 10, { stallId: STALL_A }],
    ['plugged', 20, {}],
    ['means_shown', 30, CARD],
    ['power_seen', 60, KW],
  ].map(([kind, s, payload]) => [s, kind, payload] as Step);
  const line = [...all, look(0), look(100), look(200), look(300), look(400), [460, 'stop_asked', { by: 'button' }] as Step, ...steps];
  const v = deriveVisit(VISIT, story(...line.sort((a, b) => a[0] - b[0])), payloadProblem);
  return { v, a: v.attempts[0] as never };
}
function noted(steps: readonly Step[], { arrival = {}, mates = [STALL_B] as readonly string[] } = {}): Condition[] {
  const { v, a } = told(steps, arrival);
  return conditionsOf(v, a, seriesOf(chargeOf(a, v) as never), new Set(mates));
}
const one = (what: Condition['what'], from: number, to: number, more: Partial<Condition> = {}): Condition[] => [
  { what, from: expect.closeTo(from, 6), to: expect.closeTo(to, 6), noted: 'during', kW: null, ...more } as Condition,
];

describe('what was noted during a charge', () => {
  it('lies where the battery was then, until it was noted to end, else to the last look', () => {
    expect(noted([change(160, 'climate_on'), change(260, 'climate_off')])).toEqual(one('climate', 30, 40));
    expect(noted([change(160, 'climate_on')])).toEqual(one('climate', 30, 60));
    expect(noted([change(110, 'neighbour_in'), change(310, 'neighbour_out')])).toEqual(one('neighbour', 25, 45));
    // Only a derate is of so many kW.
    expect(noted([change(160, 'climate_on', { value: 7 })])).toEqual(one('climate', 30, 60));
    // The end of one is not the end of another.
    expect(noted([change(160, 'climate_on'), change(260, 'neighbour_out')])).toEqual(one('climate', 30, 60));
  });
  it('that began before power was there from the first look on', () => {
    expect(noted([change(40, 'neighbour_in')])).toEqual(one('neighbour', 20, 60, { noted: 'on arrival' }));
    expect(noted([change(40, 'neighbour_in'), change(260, 'neighbour_out')])).toEqual(one('neighbour', 20, 40, { noted: 'on arrival' }));
    expect(noted([change(40, 'climate_on'), change(50, 'climate_off')])).toEqual([]);
  });
  it('after the charge is none of it, and an end after it is not seen', () => {
    expect(noted([change(470, 'climate_on')])).toEqual([]);
    expect(noted([change(160, 'climate_on'), change(470, 'climate_off')])).toEqual(one('climate', 30, 60));
  });
  it('of a charge that goes on still it lies where it ended', () => {
    const steps: Step[] = [IN, [10, 'stall_chosen', { stallId: STALL_A }], [20, 'plugged'], [30, 'means_shown', CARD], [60, 'power_seen', KW]];
    const going = [...steps, look(0), look(100), change(165, 'climate_on'), look(200), change(261, 'climate_off'), look(300)];
    const v = deriveVisit(VISIT, story(...going), payloadProblem);
    const a = v.attempts[0] as never;
    expect(conditionsOf(v, a, seriesOf(chargeOf(a, v) as never), new Set())).toEqual(one('climate', 30.5, 40.1));
  });
  it('a derate with what it was seen to be, where it was', () => {
    expect(noted([change(260, 'derate', { value: 60 })])).toEqual(one('derate', 40, 60, { kW: 60 }));
    expect(noted([change(260, 'derate')])).toEqual(one('derate', 40, 60));
    // The next one takes its place.
    expect(noted([change(160, 'derate', { value: 60 }), change(310, 'derate', { value: 40 })])).toEqual([
      ...one('derate', 30, 45, { kW: 60 }),
      ...one('derate', 45, 60, { kW: 40 }),
    ]);
    expect(noted([change(15, 'derate', { value: 60 }), change(40, 'derate', { value: 40 })])).toEqual(one('derate', 20, 60, { noted: 'on arrival', kW: 40 }));
  });
  it('cold was so from the beginning, whenever it was noted', () => {
    expect(noted([change(260, 'cold')])).toEqual(one('cold', 20, 60));
    expect(noted([change(260, 'cold')], { arrival: { airC: -3 } })).toHaveLength(1);
  });
  const fault = (s: number, code: string): Step => [s, 'fault', { code, side: 'site' }];
  const asFault = (what: Condition['what'], from: number, to: number) => one(what, from, to, { noted: 'as a fault' });
  it.each([
    ['hot_connector', 'hot'],
    ['derated', 'derate'],
    ['shared_drop', 'neighbour'],
    ['fewer_phases', 'phases'],
  ] as const)('a fault that says why less came, for as long as the charge, whenever it was noted: %s', (code, what) => {
    expect(noted([fault(200, code)])).toEqual(asFault(what, 20, 60));
    expect(noted([fault(470, code)])).toEqual(asFault(what, 20, 60));
    expect(noted([fault(200, code), fault(300, code)])).toEqual(asFault(what, 20, 60));
    const { v, a } = told([fault(200, code)]);
    expect(sessionLooks(v, a)).toMatchObject({ hindered: true });
  });
  it('one that says nothing of it is none, and slow to ramp up is the beginning', () => {
    expect(noted([fault(200, 'price_not_shown')])).toEqual([]);
    expect(noted([fault(160, 'slow_ramp')])).toEqual(asFault('ramp', 20, 30));
    expect(noted([fault(470, 'slow_ramp')])).toEqual(asFault('ramp', 20, 60));
  });
  it('a note of the same says more than a fault', () => {
    expect(noted([change(160, 'derate', { value: 60 }), fault(200, 'derated')])).toEqual(one('derate', 30, 60, { kW: 60 }));
    expect(noted([change(160, 'neighbour_in'), change(260, 'neighbour_out'), fault(200, 'shared_drop')])).toEqual(one('neighbour', 30, 40));
    expect(noted([change(160, 'climate_on'), fault(200, 'derated')])).toEqual([...one('climate', 30, 60), ...asFault('derate', 20, 60)]);
  });
});

describe('what was noted of a stall tried before', () => {
  /** At the other stall from second 2 on, at this one from second 10 on. */
  const tried: Step = [2, 'stall_chosen', { stallId: STALL_B }];
  it('is left there; the car takes its climate and its cold along', () => {
    expect(noted([tried, change(5, 'derate', { value: 40 })])).toEqual([]);
    expect(noted([tried, change(5, 'neighbour_in')])).toEqual([]);
    expect(noted([tried, change(5, 'climate_on')])).toEqual(one('climate', 20, 60, { noted: 'on arrival' }));
    expect(noted([tried, change(5, 'cold')])).toEqual(one('cold', 20, 60, { noted: 'on arrival' }));
    const { v, a } = told([tried, change(5, 'derate', { value: 40 }), change(6, 'neighbour_in')]);
    expect(aroundNow(v, a, new Set(), null)).toEqual({ paired: false, deratedKW: null });
  });
  it('once this one was chosen it is noted of this one, and where it was tried before that, from the last time on', () => {
    expect(noted([tried, change(15, 'derate', { value: 40 })])).toEqual(one('derate', 20, 60, { noted: 'on arrival', kW: 40 }));
    const back: Step[] = [[1, 'stall_chosen', { stallId: STALL_A }], change(1.5, 'derate', { value: 40 }), tried];
    expect(noted(back)).toEqual([]);
    // Chosen twice, and before any was chosen: of the one there is.
    expect(noted([[1, 'stall_chosen', { stallId: STALL_A }], change(5, 'derate', { value: 40 })])).toEqual(
      one('derate', 20, 60, { noted: 'on arrival', kW: 40 }),
    );
    expect(noted([change(5, 'neighbour_in')])).toEqual(one('neighbour', 20, 60, { noted: 'on arrival' }));
  });
});

describe('what was seen on arrival', () => {
  it.each([
    [{ airC: 5 }, true],
    [{ airC: 5.1 }, false],
    [{ airC: -10, preconditioned: false }, true],
    [{ airC: -10, preconditioned: true }, false],
    [{}, false],
  ])('the air outside: %j', (arrival, cold) => {
    expect(noted([], { arrival })).toEqual(cold ? one('cold', 20, 60, { noted: 'on arrival' }) : []);
  });
  const survey = (s: number, state: string): Step => [s, 'survey', { stalls: [{ stallId: STALL_B, state }] }];
  it('stalls at which a car charged when it began, whatever cabinet they are on', () => {
    const beside = (...steps: Step[]) => {
      const { v, a } = told(steps);
      return sessionLooks(v, a)?.beside;
    };
    expect(beside(survey(5, 'charging'))).toEqual([STALL_B]);
    expect(beside(survey(5, 'charging'), change(260, 'neighbour_out'))).toEqual([STALL_B]);
    expect(beside(change(3, 'neighbour_out'), survey(5, 'charging'))).toEqual([STALL_B]);
    expect(beside(survey(5, 'charging'), [50, 'survey', { stalls: [{ stallId: STALL_A, state: 'charging' }] }])).toEqual([STALL_B]);
    for (const none of [
      [],
      [survey(5, 'free')],
      [survey(5, 'charging'), survey(50, 'idle_car')],
      [survey(5, 'charging'), change(40, 'neighbour_out')],
      [survey(200, 'charging')],
    ])
      expect(beside(...none)).toBeUndefined();
  });
  it('another car charging on the same cabinet, until it is seen to leave', () => {
    expect(noted([survey(5, 'charging')])).toEqual(one('neighbour', 20, 60, { noted: 'on arrival' }));
    expect(noted([survey(5, 'charging'), change(260, 'neighbour_out')])).toEqual(one('neighbour', 20, 40, { noted: 'on arrival' }));
    // It leaves, and another one comes: two stretches.
    expect(noted([survey(5, 'charging'), change(160, 'neighbour_out'), change(260, 'neighbour_in')])).toEqual([
      ...one('neighbour', 40, 60),
      ...one('neighbour', 20, 30, { noted: 'on arrival' }),
    ]);
    // Noted to come while it is there: the same car, seen and noted.
    expect(noted([survey(5, 'charging'), change(160, 'neighbour_in'), change(260, 'neighbour_out')])).toEqual(one('neighbour', 30, 40));
    expect(noted([survey(5, 'charging'), change(40, 'neighbour_in'), change(260, 'neighbour_out')])).toEqual(one('neighbour', 20, 40, { noted: 'on arrival' }));
    // One came and left before the bays were looked at.
    expect(noted([change(1, 'neighbour_in'), change(3, 'neighbour_out'), survey(5, 'charging'), change(260, 'neighbour_out')])).toEqual(
      one('neighbour', 20, 40, { noted: 'on arrival' }),
    );
    // It left before power came, and another one came while it flowed.
    expect(noted([survey(5, 'charging'), change(40, 'neighbour_out'), change(160, 'neighbour_in')])).toEqual(one('neighbour', 30, 60));
    // It was gone when power came.
    expect(noted([survey(5, 'charging'), change(40, 'neighbour_out')])).toEqual([]);
    expect(noted([change(3, 'neighbour_out'), survey(5, 'charging')])).toHaveLength(1);
    expect(noted([survey(5, 'charging')], { mates: [] })).toEqual([]);
    expect(noted([survey(5, 'free')])).toEqual([]);
    // Each bay as it was last looked at: one that was passed over the second time stays what it was.
    expect(noted([survey(5, 'charging'), survey(50, 'not_looked')])).toHaveLength(1);
    expect(noted([survey(5, 'charging'), [50, 'survey', { stalls: [{ stallId: STALL_A, state: 'free' }] }]])).toHaveLength(1);
    // Who left the stall tried before was another one.
    expect(noted([survey(1, 'charging'), [2, 'stall_chosen', { stallId: STALL_B }], change(5, 'neighbour_out')])).toHaveLength(1);
    // The last look before power counts.
    expect(noted([survey(5, 'charging'), survey(50, 'free')])).toEqual([]);
    expect(noted([survey(100, 'charging')])).toEqual([]);
  });
  it('is not said twice where one was noted to plug in', () => {
    expect(noted([survey(5, 'charging'), change(160, 'neighbour_in')])).toEqual(one('neighbour', 30, 60));
  });
});

describe('a stall seen derated when the bays were looked at', () => {
  const derated = (s: number, stallId = STALL_A, kW: number | undefined = 50): Step => [s, 'survey', { stalls: [{ stallId, state: 'derated', kW }] }];
  it('is so for the whole charge, or until another derate is noted', () => {
    expect(noted([derated(5)])).toEqual(one('derate', 20, 60, { noted: 'on arrival', kW: 50 }));
    expect(noted([derated(5), change(160, 'derate', { value: 60 })])).toEqual([
      ...one('derate', 30, 60, { kW: 60 }),
      ...one('derate', 20, 30, { noted: 'on arrival', kW: 50 }),
    ]);
    // Noted at the plug, it is as noted and not as it was seen before.
    expect(noted([derated(5), change(40, 'derate', { value: 60 })])).toEqual(one('derate', 20, 60, { noted: 'on arrival', kW: 60 }));
    // What else is noted leaves it as it is, before power and after.
    expect(noted([derated(5), change(40, 'climate_on')])).toEqual([
      ...one('climate', 20, 60, { noted: 'on arrival' }),
      ...one('derate', 20, 60, { noted: 'on arrival', kW: 50 }),
    ]);
    expect(noted([derated(5), change(160, 'climate_on')])).toEqual([...one('climate', 30, 60), ...one('derate', 20, 60, { noted: 'on arrival', kW: 50 })]);
    // One noted after the charge changes nothing of it.
    expect(noted([derated(5), change(470, 'derate', { value: 60 })])).toEqual(one('derate', 20, 60, { noted: 'on arrival', kW: 50 }));
    expect(noted([derated(5, STALL_B)])).toEqual([]);
    expect(noted([derated(100)])).toEqual([]);
  });
  it('and is no charge that shows what the car could do', () => {
    const { v, a } = told([derated(5)]);
    expect(sessionLooks(v, a)).toMatchObject({ hindered: true });
    expect(sessionLooks(told([]).v, told([]).a)).toMatchObject({ hindered: false });
  });
});

describe('what goes on around a charge now', () => {
  const now = (...steps: Step[]) => {
    const { v, a } = told(steps);
    return aroundNow(v, a, new Set([STALL_B]), kept);
  };
  let kept: Parameters<typeof aroundNow>[3] = null;
  afterEach(() => {
    kept = null;
  });
  const charging: Step = [5, 'survey', { stalls: [{ stallId: STALL_B, state: 'charging' }] }];
  it('is what was noted last, else what was seen on arrival and is not gone', () => {
    expect(now()).toEqual({ paired: false, deratedKW: null });
    expect(now(change(160, 'neighbour_in')).paired).toBe(true);
    expect(now(change(160, 'neighbour_in'), change(260, 'neighbour_out')).paired).toBe(false);
    expect(now(change(160, 'neighbour_in'), change(260, 'climate_on')).paired).toBe(true);
    expect(now(charging).paired).toBe(true);
    expect(now([160, 'fault', { code: 'shared_drop', side: 'site' }]).paired).toBe(true);
    expect(now([160, 'fault', { code: 'derated', side: 'site' }]).paired).toBe(false);
    expect(now([160, 'fault', { code: 'shared_drop', side: 'site' }], change(260, 'neighbour_out')).paired).toBe(false);
    expect(now(charging, change(260, 'neighbour_out')).paired).toBe(false);
    expect(now(charging, change(15, 'neighbour_out')).paired).toBe(false);
    expect(now(charging, change(260, 'neighbour_out'), change(300, 'neighbour_in')).paired).toBe(true);
  });
  it('and how far the stall is derated: the last that was noted, else as it was seen on arrival', () => {
    const seen: Step = [5, 'survey', { stalls: [{ stallId: STALL_A, state: 'derated', kW: 50 }] }];
    expect(now(seen).deratedKW).toBe(50);
    expect(now(seen, change(160, 'derate', { value: 60 }), change(260, 'derate', { value: 40 })).deratedKW).toBe(40);
    expect(now(seen, change(160, 'derate', { value: 60 }), change(260, 'climate_on')).deratedKW).toBe(60);
    expect(now(change(160, 'derate')).deratedKW).toBeNull();
  });
  it('and where nothing was seen today, as its record says, until more than that is read', () => {
    const seen: Step = [5, 'survey', { stalls: [{ stallId: STALL_A, state: 'derated', kW: 50 }] }];
    kept = { is: 'derated', kW: 120 };
    expect([now().deratedKW, now(seen).deratedKW, now(change(160, 'derate', { value: 60 })).deratedKW, now(change(160, 'derate')).deratedKW]).toEqual([
      120, 50, 60, 120,
    ]);
    const read = (kW: number): Step => [250, 'reading', { screen: 'stall', kW }];
    expect([now(read(120)).deratedKW, now(read(121)).deratedKW]).toEqual([120, null]);
    kept = { is: 'closed', kW: null };
    expect(now().deratedKW).toBeNull();
  });
  it('of one cabinet are the stalls of its letter, at a site that says so, without the stall itself', () => {
    const at = (id: string, cabinet: string | null) => ({ id, fields: { cabinet } });
    const all = [at('1', 'A'), at('2', 'A'), at('3', 'B'), at('4', null), at('5', null)];
    expect([...matesOf('1', 'A', all)]).toEqual(['2']);
    expect([...matesOf('4', null, all)]).toEqual([]);
  });
});

it('a stretch of the battery lies within what was noted, where only one end of that is known too', () => {
  const c = (from: number | null, to: number | null): Condition => ({ what: 'climate', from, to, noted: 'during', kW: null });
  expect([overlaps(c(30, 40), 20, 30), overlaps(c(30, 40), 20, 31), overlaps(c(30, 40), 39, 50), overlaps(c(30, 40), 40, 50)]).toEqual([
    false,
    true,
    true,
    false,
  ]);
  expect([overlaps(c(null, 40), 0, 1), overlaps(c(30, null), 99, 100), overlaps(c(null, null), 0, 100)]).toEqual([true, true, true]);
});
