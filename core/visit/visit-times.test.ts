import { deriveVisit } from './derive';
import type { StoredEvent } from './event';
import { APP, CARD, IN, KW, SECOND_PHONE, SITE, STALL_A, STALL_B, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import type { Timing } from './timing';
import { VISIT_TIME_RULES } from './visit-times';

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const visit = (...steps: Step[]) => derive(story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps));
const s = (t: { known: boolean }) => (t.known ? (t as unknown as { s: number }).s : (t as unknown as { why: string }).why);

// The rules under test are those of docs/definitions.md, "Times".
describe('handshake', () => {
  it('runs from the later of plug and means', () => {
    expect(s(visit([10, 'plugged'], [20, 'means_shown', CARD], [53.4, 'power_seen', KW]).attempts[0]!.times.handshake)).toBeCloseTo(33.4, 9);
    expect(s(visit([10, 'means_shown', CARD], [30, 'plugged'], [50, 'power_seen', KW]).attempts[0]!.times.handshake)).toBe(20);
  });
  it('from the last showing before acceptance: five swipes do not look quick, means to power counts from the first', () => {
    const [a] = visit(
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [26, 'means_refused', CARD],
      [30, 'means_shown', CARD],
      [36, 'means_accepted', CARD],
      [40, 'means_shown', CARD],
      [60, 'power_seen', KW],
    ).attempts;
    expect(s(a!.times.handshake)).toBe(30);
    expect(s(a!.times.meansToPower)).toBe(40);
    expect(a!.shows).toHaveLength(3);
  });
  it('from the plug alone when the car is the means', () => {
    const [a] = visit([10, 'plugged'], [20, 'means_accepted', { meansKind: 'autocharge' }], [42, 'power_seen', KW]).attempts;
    expect(s(a!.times.handshake)).toBe(32);
  });
  it('from the press of start in the app', () => {
    expect(s(visit([10, 'plugged'], [40, 'means_shown', APP], [70, 'power_seen', KW]).attempts[0]!.times.handshake)).toBe(30);
  });
  it('is unknown, with the reason, when an end is missing', () => {
    expect(s(visit([20, 'means_shown', CARD], [50, 'power_seen', KW]).attempts[0]!.times.handshake)).toBe('plugging in was not recorded');
    expect(s(visit([10, 'plugged'], [20, 'means_shown', CARD]).attempts[0]!.times.handshake)).toBe('no power was seen');
  });
  it('is at most when power was seen late', () => {
    expect(visit([10, 'plugged'], [20, 'means_shown', CARD], [260, 'power_seen', { ...KW, late: true }]).attempts[0]!.times.handshake).toMatchObject({
      s: 240,
      bound: 'at_most',
    });
  });
  it('is at most plug to power where no means was noted, or only its refusal', () => {
    expect(visit([20, 'plugged'], [50, 'power_seen', KW]).attempts[0]!.times.handshake).toMatchObject({ s: 30, bound: 'at_most' });
    expect(visit([20, 'plugged'], [25, 'means_refused', CARD], [50, 'power_seen', KW]).attempts[0]!.times.handshake).toMatchObject({ s: 30, bound: 'at_most' });
  });
  it('keeps the precision of both ends', () => {
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged', {}, { precision: 's', origin: 'typed' }],
        [20, 'means_shown', CARD, { precision: 's', origin: 'typed' }],
        [50, 'power_seen', KW, { precision: 's', origin: 'typed' }],
      ),
    );
    expect(v.attempts[0]!.times.handshake).toMatchObject({ s: 30, pm_s: 1 });
  });
  it('is unknown when only the day is known', () => {
    const v = derive(
      story(
        IN,
        [5, 'stall_chosen', { stallId: STALL_A }],
        [10, 'plugged'],
        [20, 'means_shown', CARD, { precision: 'day', origin: 'typed' }],
        [50, 'power_seen', KW],
      ),
    );
    expect(s(v.attempts[0]!.times.handshake)).toBe('only the day is known');
  });
});

describe('the other times of an attempt', () => {
  const [a] = visit(
    [8, 'first_act', { what: 'handle' }],
    [10, 'plugged'],
    [16, 'means_shown', CARD],
    [24, 'means_accepted', CARD],
    [50, 'power_seen', KW],
  ).attempts;
  it.each([
    ['authorisation', 8],
    ['setUp', 26],
    ['plugToPower', 40],
    ['meansToPower', 34],
    ['handsOn', 42],
    ['plugCardGap', 6],
  ] as const)('%s', (name, seconds) => expect(s(a!.times[name])).toBe(seconds));
  it('the plug–card gap is negative when the card came first', () => {
    expect(s(visit([10, 'means_shown', CARD], [30, 'plugged'], [50, 'power_seen', KW]).attempts[0]!.times.plugCardGap)).toBe(-20);
  });
});

describe('times of the visit', () => {
  const whole: Step[] = [
    [60, 'plugged'],
    [70, 'means_shown', CARD],
    [100, 'power_seen', KW],
    [1300, 'stop_asked', { by: 'button' }],
    [1310, 'power_gone', {}],
    [1500, 'unplugged'],
    [1560, 'pulled_out', { reason: 'enough' }],
  ];
  it('adds up: visit = overhead + charging', () => {
    const t = visit(...whole).times;
    expect([s(t.visit), s(t.charging), s(t.overhead), s(t.idle), s(t.arrivalToPower), s(t.lost)]).toEqual([1560, 1210, 350, 190, 100, 0]);
  });
  it('what needs the pulling out is unknown while it is missing', () => {
    const t = visit(...whole.slice(0, -1)).times;
    expect([s(t.visit), s(t.overhead)]).toEqual(Array(2).fill('still there, or pulling out was not recorded'));
    expect(s(t.idle)).toBe(190);
  });
  it('charging is a range when the end was noticed late', () => {
    const t = visit(
      [60, 'plugged'],
      [70, 'means_shown', CARD],
      [100, 'power_seen', KW],
      [1900, 'power_gone', { why: 'unknown', notBefore: T0 + 1_600_000 }],
      [1950, 'unplugged'],
    ).attempts[0]!.times.charging;
    expect(t).toMatchObject({ s: 1800, low_s: 1500, bound: 'at_most' });
  });
  it('idle ends at the unplugging, also when a further try failed in between', () => {
    const v = visit(
      ...whole.slice(0, 5),
      [1330, 'means_shown', CARD],
      [1400, 'fault', { code: 'start_error', side: 'network' }],
      [1500, 'unplugged'],
      [1560, 'pulled_out', { reason: 'enough' }],
    );
    expect(s(v.times.idle)).toBe(190);
    expect(v.attempts).toHaveLength(2);
  });
  it('unplugging alone does not say when power ended', () => {
    expect(s(visit([60, 'plugged'], [70, 'means_shown', CARD], [100, 'power_seen', KW], [900, 'unplugged']).times.charging)).toBe(
      'the end of the charge was not recorded',
    );
  });
});

describe('the queue', () => {
  const queue = (...steps: Step[]) => s(derive(story(...steps)).times.queue);
  it('runs from joining to a free stall', () => expect(queue(IN, [30, 'queue_joined'], [630, 'stall_free'])).toBe(600));
  it('or from pulling in when none was free', () =>
    expect(queue([0, 'pulled_in', { siteId: STALL_A, seen: { free: 0 } }], [420, 'stall_chosen', { stallId: STALL_A }])).toBe(420));
  it('looking for a bay is not queueing', () => expect(queue(IN, [300, 'stall_chosen', { stallId: STALL_A }])).toBe('none recorded'));
});

describe('lost to faults', () => {
  const fails = (at: number): Step[] => [
    [at, 'plugged'],
    [at + 5, 'means_shown', CARD],
    [at + 50, 'fault', { code: 'start_error', side: 'network' }],
  ];
  it('runs from the first act of the first failed attempt to the first act of the one that gets power', () => {
    const v = visit(
      ...fails(20),
      [200, 'stall_chosen', { stallId: STALL_B }],
      ...fails(240),
      [400, 'unplugged'],
      [440, 'plugged'],
      [446, 'means_shown', CARD],
      [470, 'power_seen', KW],
    );
    expect(s(v.times.lost)).toBe(420);
    expect(v.attempts.map((a) => a.outcome.kind)).toEqual(['failed', 'failed', 'power']);
  });
  it('to pulling out when none does', () => {
    expect(s(visit(...fails(20), [500, 'pulled_out', { reason: 'gave_up' }]).times.lost)).toBe(480);
  });
  it('is unknown while neither is recorded', () => {
    expect(s(visit(...fails(20)).times.lost)).toBe('the end of the lost time was not recorded');
  });
  it('a fault in the charge counts from the fault', () => {
    const v = visit(
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [50, 'power_seen', KW],
      [500, 'fault', { code: 'stopped_by_itself', side: 'network' }],
      [590, 'unplugged'],
      [600, 'plugged'],
      [610, 'means_shown', CARD],
      [640, 'power_seen', KW],
    );
    expect(s(v.times.lost)).toBe(100);
  });
  it('faults that end nothing add nothing', () => {
    expect(
      s(visit([10, 'plugged'], [20, 'means_shown', CARD], [30, 'fault', { code: 'price_not_shown', side: 'network' }], [50, 'power_seen', KW]).times.lost),
    ).toBe(0);
  });
  it('takes the queue inside it out', () => {
    const v = visit(
      ...fails(20),
      [100, 'queue_joined'],
      [300, 'stall_free'],
      [310, 'stall_chosen', { stallId: STALL_B }],
      [320, 'plugged'],
      [330, 'means_shown', CARD],
      [350, 'power_seen', KW],
    );
    expect(s(v.times.lost)).toBe(300 - 200);
  });
});

describe('the helpline', () => {
  const help = (...steps: Step[]) => {
    const { helpAnswered, helpline } = visit(...steps).times;
    return [s(helpAnswered), s(helpline)];
  };
  it('from the call to the answer and to the end, calls added up', () => {
    expect(help([60, 'help_called'], [108, 'help_answered'], [300, 'help_ended', { result: 'reset' }])).toEqual([48, 240]);
    expect(help([60, 'help_called'], [108, 'help_answered'], [300, 'help_ended'], [400, 'help_called'], [420, 'help_answered'], [450, 'help_ended'])).toEqual([
      68, 290,
    ]);
  });
  it('a call never answered counts to its end alone, one that goes on to neither', () => {
    expect(help([60, 'help_called'], [160, 'help_ended', { result: 'none' }])).toEqual(['none recorded', 100]);
    expect(help([60, 'help_called'], [90, 'help_answered'])).toEqual([30, 'none recorded']);
    expect(help([90, 'help_answered'], [120, 'help_ended'])).toEqual(['none recorded', 'none recorded']);
    expect(help()).toEqual(['none recorded', 'none recorded']);
  });
  it('what another phone saw of it starts and ends nothing', () => {
    const seen = { deviceId: SECOND_PHONE, role: 'observer', seq: 1 } as const;
    expect(help([60, 'help_called'], [200, 'help_ended', {}, seen], [300, 'help_ended'])).toEqual(['none recorded', 240]);
  });
});

describe('the times of a whole visit', () => {
  const at = (n: number, kind: Step[1], payload: Step[2] = {}, more: Step[3] = {}): Step => [n, kind, payload, more];
  const times = (...steps: Step[]) => derive(story(...steps)).times;
  const why = (t: Timing) => (t.known ? t.s : t.why);
  const charged: Step[] = [IN, at(10, 'plugged'), at(20, 'means_shown', CARD), at(50, 'power_seen', KW)];
  const SEEN = { role: 'observer' as const, deviceId: SECOND_PHONE };
  it('each with its rule, in words', () =>
    expect(VISIT_TIME_RULES).toEqual({
      arrivalToPower: { label: 'Arrival to power', rule: 'pulled in to the visit’s first proof of power' },
      queue: {
        label: 'Queue',
        rule: 'queue joined, or pulled in when no free stall was seen, to stall free or stall chosen; looking for a bay is not queueing',
      },
      lost: {
        label: 'Lost to faults',
        rule: 'first act of each run of failed or given-up attempts to the first act of the next attempt that gets power, else pulled out; a fault in the charge counts from the fault; queue taken out',
      },
      charging: {
        label: 'Charging',
        rule: 'sum over the sessions of proof of power to power gone, else stop pressed, else the ending fault; pauses taken out',
      },
      idle: { label: 'Idle', rule: 'end of the last session’s charging to unplugged, else pulled out' },
      visit: { label: 'Visit', rule: 'pulled in to pulled out' },
      overhead: { label: 'Overhead', rule: 'the visit less the charging' },
      helpAnswered: { label: 'Helpline answers', rule: 'called to answered, calls added up' },
      helpline: { label: 'Helpline', rule: 'called to the end of the call, calls added up' },
    }));
  it('without an arrival, a leaving or power say so', () => {
    const none = times(at(10, 'plugged'));
    expect([why(none.visit), why(none.arrivalToPower), why(none.overhead)]).toEqual([
      'pulling in was not recorded',
      'pulling in was not recorded',
      'pulling in was not recorded',
    ]);
    const open = times(IN, at(10, 'plugged'));
    expect([why(open.visit), why(open.arrivalToPower), why(open.charging), why(open.idle)]).toEqual([
      'still there, or pulling out was not recorded',
      'no power was seen',
      'no power was seen',
      'no power was seen',
    ]);
    expect([why(open.queue), why(open.helpline), why(open.helpAnswered)]).toEqual(['none recorded', 'none recorded', 'none recorded']);
    expect(why(times(...charged).arrivalToPower)).toBe(50);
  });
  it('an arrival that only another phone saw stands in; its leaving does not', () => {
    expect(
      why(times(at(0, 'pulled_in', { siteId: SITE }, SEEN), at(10, 'plugged'), at(20, 'means_shown', CARD), at(50, 'power_seen', KW)).arrivalToPower),
    ).toBe(50);
    expect(why(times(...charged, at(400, 'pulled_out', { reason: 'enough' }, SEEN)).visit)).toBe('still there, or pulling out was not recorded');
  });
  it('power that was seen late bounds the way to it', () => {
    const late = times(
      IN,
      at(10, 'plugged'),
      at(20, 'means_shown', CARD),
      at(50, 'power_seen', { ...KW, late: true }),
      at(650, 'stop_asked'),
      at(700, 'pulled_out', { reason: 'enough' }),
    );
    expect(late.arrivalToPower).toMatchObject({ s: 50, bound: 'at_most' });
    expect(late.charging).toMatchObject({ bound: 'at_least' });
    expect(late.overhead).toMatchObject({ s: 100, bound: 'at_most' });
    expect(times(...charged).arrivalToPower).toMatchObject({ bound: 'exact' });
  });
  it('overhead: the whole visit where nothing charged; unknown where something may have', () => {
    const out = at(400, 'pulled_out', { reason: 'gave_up' });
    expect(times(IN, out).overhead).toMatchObject({ s: 400 });
    expect(times(IN, at(10, 'plugged'), at(60, 'fault', { code: 'start_error', side: 'network' }), out).overhead).toMatchObject({ s: 400 });
    expect(why(times(IN, at(10, 'plugged'), at(20, 'means_shown', CARD), at(400, 'pulled_out', { reason: 'enough' })).overhead)).toBe('no power was seen');
    const ended = times(...charged, at(350, 'stop_asked', {}, { precision: 's' }), out);
    expect(ended.overhead).toMatchObject({ s: 100, bound: 'exact' });
    const [visit_, charging] = [ended.visit, ended.charging];
    expect(ended.overhead.known && visit_.known && charging.known && ended.overhead.pm_s).toBeCloseTo(
      (visit_.known ? visit_.pm_s : 0) + (charging.known ? charging.pm_s : 0),
      9,
    );
    const noticed = times(...charged, at(350, 'power_gone', { why: 'asked', notBefore: T0 + 300_000 }), out);
    expect(noticed.overhead).toMatchObject({ s: 100, bound: 'at_least' });
  });
  it('idle: from the end of the last session to the unplugging, else the leaving', () => {
    const out = at(900, 'pulled_out', { reason: 'enough' });
    expect(why(times(...charged, out).idle)).toBe('the end of the charge was not recorded');
    expect(why(times(...charged, at(500, 'stop_asked')).idle)).toBe('unplugging was not recorded');
    expect(why(times(...charged, at(500, 'stop_asked'), out).idle)).toBe(400);
    expect(why(times(...charged, at(500, 'stop_asked'), at(560, 'unplugged'), out).idle)).toBe(60);
    expect(why(times(...charged, at(500, 'stop_asked'), at(560, 'unplugged', {}, SEEN), out).idle)).toBe(400);
  });
  it('a queue without its end, and what only another phone saw of it', () => {
    expect(why(times(IN, at(30, 'queue_joined')).queue)).toBe('the end of the queue was not recorded');
    expect(why(times(IN, at(30, 'queue_joined'), at(60, 'stall_free', {}, SEEN), at(90, 'stall_chosen', { stallId: STALL_A })).queue)).toBe(60);
    expect(why(times(IN, at(30, 'queue_joined', {}, SEEN), at(60, 'stall_free')).queue)).toBe('none recorded');
  });
  it('lost: several runs are added up, from the first on, each end with its ±', () => {
    const fails: Step[] = [at(10, 'plugged', {}, { precision: 's' }), at(60, 'fault', { code: 'start_error', side: 'network' })];
    const two = times(
      IN,
      ...fails,
      at(100, 'means_shown', CARD, { precision: 's' }),
      at(130, 'power_seen', KW),
      at(600, 'fault', { code: 'stopped_by_itself', side: 'network' }, { precision: 's' }),
      at(700, 'pulled_out', { reason: 'gave_up' }),
    ).lost;
    expect(two).toMatchObject({ known: true, s: 190, from: { kind: 'plugged' }, to: { kind: 'pulled_out' } });
    expect(two.known && two.pm_s).toBeGreaterThan(1);
    expect(times(...charged, at(700, 'pulled_out', { reason: 'enough' })).lost).toMatchObject({ s: 0, pm_s: 0, from: { kind: 'pulled_in' } });
    const day = { precision: 'day' as const };
    expect(
      why(times(IN, at(10, 'plugged', {}, day), at(60, 'fault', { code: 'start_error', side: 'network' }), at(700, 'pulled_out', { reason: 'gave_up' })).lost),
    ).toBe('only the day is known');
    expect(why(times().lost)).toBe('nothing was recorded');
    expect(why(times(IN, at(100, 'pulled_out', { reason: 'closed' })).lost)).toBe('no attempt was noted');
    for (const reason of ['queue', 'price', 'called_away']) expect(why(times(IN, at(100, 'pulled_out', { reason })).lost)).toBe(0);
    expect(why(times(IN).lost)).toBe(0);
  });
});
