import { deriveVisit } from '../derive';
import type { StoredEvent } from '../event';
import { APP, CARD, IN, idOf, KW, SECOND_PHONE, SITE, STALL_A, STALL_B, type Step, story, T0, VISIT } from '../fixtures/story';
import { payloadProblem } from '../payloads';

const derive = (events: StoredEvent[]) => deriveVisit(VISIT, events, payloadProblem);
const attemptsOf = (...steps: Step[]) => derive(story(IN, [5, 'stall_chosen', { stallId: STALL_A }], ...steps)).attempts;
const outcomes = (...steps: Step[]) => attemptsOf(...steps).map((a) => a.outcome.kind);

// The rules under test are those of docs/definitions.md, "Attempts".
describe('an attempt opens', () => {
  it.each([
    ['first_act', { what: 'handle' }],
    ['adapter_fitted', {}],
    ['plugged', {}],
    ['means_shown', CARD],
    ['claimed', { by: 'screen' }],
    ['power_seen', KW],
  ] as const)('at %s when none is open', (kind, payload) => {
    expect(attemptsOf([10, kind, payload])).toHaveLength(1);
  });
  it('not at queueing, notes or a survey', () => {
    expect(attemptsOf([10, 'queue_joined'], [20, 'note', { text: 'rain' }], [30, 'survey', { stalls: [] }])).toHaveLength(0);
  });
});

describe('an attempt ends', () => {
  it('at an ending fault, failed, on the side of the fault', () => {
    const [a] = attemptsOf([10, 'plugged'], [20, 'means_shown', CARD], [60, 'fault', { code: 'start_error', side: 'network' }]);
    expect(a?.outcome).toMatchObject({ kind: 'failed', reason: 'Start error', side: 'network', code: 'start_error' });
  });
  it('not at a fault that ends nothing', () => {
    expect(outcomes([10, 'plugged'], [20, 'means_shown', CARD], [30, 'fault', { code: 'price_not_shown', side: 'network' }], [50, 'power_seen', KW])).toEqual([
      'power',
    ]);
  });
  it('at the move to another stall, not at choosing the same again', () => {
    expect(outcomes([10, 'plugged'], [60, 'stall_chosen', { stallId: STALL_B }], [70, 'plugged'], [80, 'means_shown', CARD], [99, 'power_seen', KW])).toEqual([
      'failed',
      'power',
    ]);
    expect(outcomes([10, 'plugged'], [60, 'stall_chosen', { stallId: STALL_A }], [80, 'means_shown', CARD], [99, 'power_seen', KW])).toEqual(['power']);
  });
  it('when power goes because the driver asked', () => {
    const steps: Step[] = [
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [50, 'power_seen', KW],
      [900, 'stop_asked', { by: 'button' }],
      [904, 'power_gone', {}],
      [950, 'means_shown', CARD],
      [980, 'power_seen', KW],
    ];
    expect(outcomes(...steps)).toEqual(['power', 'power']);
  });
  it('at pulling out: gave up when the driver left because of it, open when called away', () => {
    const start: Step[] = [
      [10, 'plugged'],
      [20, 'means_shown', CARD],
    ];
    expect(outcomes(...start, [300, 'pulled_out', { reason: 'gave_up' }])).toEqual(['gave_up']);
    expect(outcomes(...start, [300, 'pulled_out', { reason: 'price' }])).toEqual(['gave_up']);
    expect(outcomes(...start, [300, 'pulled_out', { reason: 'called_away' }])).toEqual(['open']);
  });
  it('never while it runs', () => {
    expect(outcomes([10, 'plugged'])).toEqual(['open']);
  });
});

describe('refused means', () => {
  it('do not end the attempt: the same means again continues it, each show counted', () => {
    const attempts = attemptsOf(
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [25, 'means_refused', CARD],
      [30, 'means_shown', CARD],
      [35, 'means_refused', CARD],
      [40, 'means_shown', CARD],
      [70, 'power_seen', KW],
    );
    expect(attempts).toHaveLength(1);
    expect(attempts[0]?.shows).toHaveLength(3);
    expect(attempts[0]?.outcome.kind).toBe('power');
  });
  it('another means after a refusal closes it as failed and opens a new one that inherits the plug', () => {
    const [first, second] = attemptsOf(
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [25, 'means_refused', { ...CARD, fault: 'card_refused' }],
      [60, 'means_shown', APP],
      [90, 'power_seen', KW],
    );
    expect(first?.outcome).toMatchObject({ kind: 'failed', reason: 'Card refused', side: 'payment' });
    expect(second?.pluggedEarlier).toBe(true);
    expect(second?.times.plugToPower).toMatchObject({ known: false, why: 'plugged earlier' });
    expect(second?.times.handshake).toMatchObject({ known: true, s: 30 });
  });
  it('without a refusal between, another means belongs to the same attempt', () => {
    expect(attemptsOf([10, 'plugged'], [20, 'means_shown', APP], [60, 'means_shown', CARD], [90, 'power_seen', KW])).toHaveLength(1);
  });
  it('recorded as a fault of that sort they are a refusal all the same', () => {
    const [a] = attemptsOf(
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [25, 'fault', { code: 'card_refused', side: 'payment' }],
      [40, 'means_shown', CARD],
      [60, 'power_seen', KW],
    );
    expect(a?.refusals).toHaveLength(1);
    expect(a?.outcome.kind).toBe('power');
  });
});

describe('plugging in again', () => {
  it('is a replug and starts a new attempt', () => {
    expect(outcomes([10, 'plugged'], [20, 'means_shown', CARD], [60, 'plugged'], [70, 'means_shown', CARD], [90, 'power_seen', KW])).toEqual([
      'failed',
      'power',
    ]);
  });
  it('within 2 s on one phone is a double touch: the first is kept', () => {
    const [a, ...more] = attemptsOf([10, 'plugged'], [11.9, 'plugged'], [20, 'means_shown', CARD], [50, 'power_seen', KW]);
    expect(more).toEqual([]);
    expect(a?.times.plugToPower).toMatchObject({ s: 40 });
  });
});

describe('the same stall again', () => {
  const failed: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
    [60, 'fault', { code: 'start_error', side: 'network' }],
  ];
  const again: Step = [70, 'first_act', { what: 'again' }];
  it('is the first act of the attempt that follows', () => {
    const [, b, ...more] = attemptsOf(...failed, again, [80, 'means_shown', CARD], [100, 'power_seen', KW]);
    expect(more).toEqual([]);
    expect(b).toMatchObject({ pluggedEarlier: true, outcome: { kind: 'power' } });
    expect([b?.opened.t, b?.firstAct?.t]).toEqual([T0 + 70_000, T0 + 70_000]);
    expect(b?.times.handshake).toMatchObject({ s: 20 });
  });
  it('with nothing following is no attempt, at pulling out or at a move, and the next stall knows nothing of it', () => {
    expect(attemptsOf(...failed, again, [300, 'pulled_out', { reason: 'gave_up' }])).toHaveLength(1);
    const [, b] = attemptsOf(...failed, again, [90, 'stall_chosen', { stallId: STALL_B }], [99, 'plugged'], [130, 'power_seen', KW]);
    expect(b).toMatchObject({ stallId: STALL_B });
    expect(b?.opened.t).toBe(T0 + 99_000);
    expect(b?.firstAct).toBeUndefined();
  });
  it('twice counts from the first; a fault after it is a failed attempt', () => {
    const [, b] = attemptsOf(...failed, again, [75, 'first_act', { what: 'again' }], [90, 'fault', { code: 'start_error', side: 'network' }]);
    expect(b).toMatchObject({ outcome: { kind: 'failed' } });
    expect(b?.opened.t).toBe(T0 + 70_000);
  });
  it('while an attempt is open begins none', () => {
    const [a, ...more] = attemptsOf([10, 'plugged'], again, [80, 'means_shown', CARD], [100, 'power_seen', KW]);
    expect(more).toEqual([]);
    expect(a?.opened.t).toBe(T0 + 10_000);
  });
});

describe('the connector', () => {
  const on = (connectorId: string, at_s: number): Step => [at_s, 'stall_chosen', { stallId: STALL_A, connectorId }];
  it('named or changed before the plug is in is that of the open attempt; after it, of the next', () => {
    expect(attemptsOf(on('CCS2', 6), [8, 'means_shown', CARD], on('CHAdeMO', 9), [10, 'plugged'], [50, 'power_seen', KW])[0]?.connectorId).toBe('CHAdeMO');
    expect(attemptsOf([10, 'plugged'], on('CCS2', 20), [50, 'power_seen', KW])[0]?.connectorId).toBe('CCS2');
    const two = attemptsOf(on('CCS2', 6), [10, 'plugged'], on('CHAdeMO', 20), [30, 'plugged'], [50, 'power_seen', KW]);
    expect(two.map((a) => a.connectorId)).toEqual(['CCS2', 'CHAdeMO']);
  });
});

describe('a place that has no name yet', () => {
  const HERE: Step = [0, 'pulled_in', { position: { latitude: 46.05, longitude: 14.5 } }];
  const DARK: Step = [30, 'fault', { code: 'stall_dark', side: 'network' }];
  it('has attempts all the same, a dead stall too', () => {
    expect(derive(story(HERE, DARK)).attempts).toMatchObject([{ stallId: null, outcome: { kind: 'failed', code: 'stall_dark' } }]);
    expect(derive(story(HERE, [10, 'plugged'], [50, 'power_seen', KW])).attempts).toMatchObject([{ stallId: null, outcome: { kind: 'power' } }]);
    // At a site on file a fault without a stall is of none.
    expect(derive(story(IN, DARK)).attempts).toEqual([]);
  });
  it('named later, they are at the stall that was named, from the arrival on', () => {
    const named = story(HERE, DARK, [300, 'correction', { target: idOf(100), set: { siteId: SITE } }], [301, 'stall_chosen', { stallId: STALL_A }]);
    const v = derive([...named, ...story([302, 'correction', { target: idOf(103), at: T0 + 1000 }]).map((e) => ({ ...e, id: idOf(190), seq: 9 }))]);
    expect(v.siteId).toBe(SITE);
    expect(v.attempts).toMatchObject([{ stallId: STALL_A, outcome: { kind: 'failed', code: 'stall_dark' } }]);
  });
});

describe('a free start', () => {
  const FREE = { meansKind: 'free_vend' };
  it('has its handshake the second time too', () => {
    const all = attemptsOf(
      [10, 'plugged'],
      [10, 'means_shown', FREE],
      [40, 'power_seen', KW],
      [400, 'stop_asked'],
      [410, 'power_gone', { why: 'asked' }],
      [500, 'means_shown', FREE],
      [525, 'power_seen', KW],
      [800, 'unplugged'],
      [900, 'plugged'],
      [900, 'means_shown', FREE],
      [917, 'power_seen', KW],
    );
    expect(all.map((a) => (a.times.handshake.known ? a.times.handshake.s : a.times.handshake.why))).toEqual([30, 25, 17]);
  });
});

describe('a dead stall', () => {
  it('is a failed attempt of zero length', () => {
    const [a] = attemptsOf([20, 'fault', { code: 'stall_dark', side: 'network' }]);
    expect(a).toMatchObject({ outcome: { kind: 'failed', code: 'stall_dark' } });
    expect(a?.opened.t).toBe(a?.ended?.at.t);
  });
  it('a second fault noted at it is no second attempt', () => {
    expect(attemptsOf([20, 'fault', { code: 'stall_dark', side: 'network' }], [25, 'fault', { code: 'reader_dead', side: 'network' }])).toHaveLength(1);
  });
  it('no usable stall at all is a visit without attempts that ended without a charge', () => {
    const v = derive(story(IN, [300, 'pulled_out', { reason: 'queue' }]));
    expect(v.attempts).toEqual([]);
    expect(v.ended).toBe('none');
    expect(v.delivered).toEqual({ known: true, value: '0' });
  });
});

describe('a reading belongs to the stall one stands at', () => {
  const at = (v: ReturnType<typeof derive>) => v.attempts.map((a) => [a.stallId, a.readings.length, a.proof?.mark ?? null]);
  const read = (payload: Record<string, unknown>): Record<string, unknown> => ({ screen: 'stall', ...payload });
  it('one that proves power opens an attempt there when none is open, after a failed one too', () => {
    expect(at(derive(story(IN, [5, 'stall_chosen', { stallId: STALL_A }], [50, 'reading', read({ kW: 40 })])))).toEqual([[STALL_A, 1, 'kW']]);
    const failed: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [10, 'plugged'], [60, 'fault', { code: 'start_error', side: 'network' }]];
    expect(at(derive(story(...failed, [90, 'reading', read({ kWh: '0.3' })])))).toEqual([
      [STALL_A, 0, null],
      [STALL_A, 1, 'kWh'],
    ]);
    expect(at(derive(story(...failed, [90, 'reading', read({ socPct: 40 })])))).toEqual([[STALL_A, 1, null]]);
  });
  it('one after a session is that session’s: its kWh are the screen’s memory', () => {
    const over: Step[] = [
      IN,
      [5, 'stall_chosen', { stallId: STALL_A }],
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [50, 'power_seen', KW],
      [900, 'unplugged'],
    ];
    expect(at(derive(story(...over, [930, 'reading', read({ kWh: '9.5' })])))).toEqual([[STALL_A, 1, 'kW']]);
    expect(at(derive(story(...over, [930, 'reading', read({ kW: 30 })])))).toHaveLength(2);
  });
  it('the meter read before plugging in is of the attempt that follows, and of none elsewhere', () => {
    const before: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [8, 'reading', read({ meterStart: '100.25' })]];
    const charged: Step[] = [
      [10, 'plugged'],
      [20, 'means_shown', CARD],
      [50, 'power_seen', KW],
      [900, 'reading', read({ meterEnd: '112.5' })],
      [905, 'unplugged'],
    ];
    expect(derive(story(...before, ...charged)).delivered).toEqual({ known: true, value: '12.25' });
    expect(derive(story(...before, [9, 'stall_chosen', { stallId: STALL_B }], ...charged)).delivered.known).toBe(false);
  });
  it('choosing the first stall after an act names the stall of that attempt', () => {
    expect(at(derive(story(IN, [10, 'plugged'], [15, 'stall_chosen', { stallId: STALL_A }], [50, 'power_seen', KW])))).toEqual([[STALL_A, 0, 'kW']]);
  });
});

describe('what ended an attempt stays its reason', () => {
  const start: Step[] = [
    [10, 'plugged'],
    [20, 'means_shown', CARD],
  ];
  const reason = (...steps: Step[]) => attemptsOf(...start, ...steps)[0]?.outcome;
  it.each([
    ['a fault', [70, 'fault', { code: 'adapter_not_recognised', side: 'adapter' }]],
    ['a refusal', [70, 'means_refused', { ...CARD, fault: 'card_refused' }]],
    ['a refusal noted as a fault', [70, 'fault', { code: 'card_refused', side: 'payment' }]],
  ] as [string, Step][])('whatever is noted later: %s', (_, later) => {
    expect(reason([60, 'fault', { code: 'start_error', side: 'network' }], later)).toMatchObject({ code: 'start_error', side: 'network' });
    expect(reason([60, 'unplugged'], later, [80, 'plugged'])).toMatchObject({ kind: 'failed', reason: 'Unplugged without power', side: null });
  });
});

describe('proof of power', () => {
  it.each([
    [{ screen: 'stall', kW: 12 }, 'kW'],
    [{ screen: 'car', A: 30 }, 'A'],
    [{ screen: 'stall', kWh: '0.1' }, 'kWh'],
  ])('a reading %j proves it by %s', (payload, mark) => {
    expect(attemptsOf([10, 'plugged'], [50, 'reading', payload])[0]?.proof?.mark).toBe(mark);
  });
  it.each([[{ screen: 'stall', V: 398 }], [{ screen: 'stall', kW: 0, kWh: '0.0' }], [{ screen: 'car', socPct: 40 }]])(
    'a reading %j proves nothing',
    (payload) => {
      expect(attemptsOf([10, 'plugged'], [50, 'reading', payload])[0]?.proof).toBeUndefined();
    },
  );
  it('a claim is no proof', () => {
    expect(
      outcomes([10, 'plugged'], [20, 'means_shown', CARD], [40, 'claimed', { by: 'screen' }], [300, 'fault', { code: 'claims_no_power', side: 'network' }]),
    ).toEqual(['failed']);
  });
});

describe('two phones on one visit', () => {
  const first: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [10, 'plugged'], [20, 'means_shown', CARD], [50, 'power_seen', KW]];
  it('the same moment seen twice is one: the recorder’s time, ± half the difference', () => {
    const v = derive(story(...first, [54, 'power_seen', KW, { deviceId: SECOND_PHONE, role: 'observer', seq: 1 }]));
    expect(v.attempts[0]?.times.handshake).toMatchObject({ s: 30, pm_s: 2 });
    expect(v.line.filter((e) => e.kind === 'power_seen')).toHaveLength(1);
    expect(v.line.find((e) => e.kind === 'power_seen')?.looks?.[0]?.differs_s).toBe(4);
  });
  it('the recorder’s time stands when the observer was the earlier one', () => {
    const v = derive(story(...first, [46, 'power_seen', KW, { deviceId: SECOND_PHONE, role: 'observer', seq: 1 }]));
    expect(v.attempts[0]?.times.handshake).toMatchObject({ s: 30, pm_s: 2 });
  });
  it('more than 30 s apart they are two', () => {
    const v = derive(story(...first, [81, 'power_seen', KW, { deviceId: SECOND_PHONE, role: 'observer', seq: 1 }]));
    expect(v.line.filter((e) => e.kind === 'power_seen')).toHaveLength(2);
  });
});
