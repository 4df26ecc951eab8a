import { deriveVisit } from '../derive';
import { CARD, IN, idOf, KW, SECOND_PHONE, STALL_A, STALL_B, type Step, story, T0, VISIT } from '../fixtures/story';
import { type Kind, payloadProblem } from '../payloads';
import { isActAtStall, isAfterwards, isKind, isSeenByMany, KINDS } from './registry';

const attempts = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem).attempts;
const CHOSEN: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const PLUGGED: Step[] = [IN, CHOSEN, [10, 'plugged']];
const SHOWN: Step[] = [...PLUGGED, [20, 'means_shown', CARD]];
const CHARGING: Step[] = [...SHOWN, [50, 'power_seen', KW]];
/** By somebody looking on, alone. */
const seen = (at: number, kind: Kind, payload: object = {}): Step => [at, kind, payload as never, { role: 'observer', deviceId: SECOND_PHONE }];

describe('what is true of a kind, whatever happened', () => {
  const which = (is: (kind: Kind) => boolean) => KINDS.filter(is);
  it('two people can see it at one moment', () =>
    expect(which(isSeenByMany)).toEqual([
      'pulled_in',
      'stall_chosen',
      'plugged',
      'means_shown',
      'means_accepted',
      'means_refused',
      'claimed',
      'power_seen',
      'change',
      'fault',
      'stop_asked',
      'power_gone',
      'unplugged',
      'pulled_out',
    ]));
  it('it comes afterwards, and says nothing of the visit’s length', () =>
    expect(which(isAfterwards)).toEqual([
      'danger_cleared',
      'bill',
      'receipt',
      'hold_released',
      'rating',
      'note',
      'mark',
      'trial_round',
      'trial_voided',
      'figure_given',
    ]));
  it('it is an act of the driver at the stall', () =>
    expect(which(isActAtStall)).toEqual(['stall_chosen', 'first_act', 'adapter_fitted', 'plugged', 'means_shown', 'pulled_out']));
  it('a kind is known by its own name alone', () => {
    for (const kind of ['', 'hologram', 'toString', '__proto__', 'Plugged']) expect(isKind(kind)).toBe(false);
    expect(isKind('plugged')).toBe(true);
  });
});

describe('what somebody looking on did alone opens, cuts and ends nothing', () => {
  it.each<[Kind, object]>([
    ['first_act', { what: 'handle' }],
    ['adapter_fitted', { adapterId: idOf(20) }],
    ['plugged', {}],
    ['means_shown', CARD],
    ['claimed', { by: 'screen' }],
    ['power_seen', KW],
    ['fault', { code: 'start_error', side: 'network' }],
  ])('%s', (kind, payload) => expect(attempts(IN, CHOSEN, seen(400, kind, payload), [900, 'note', { text: 'x' }])).toEqual([]));
  it('in an attempt that runs it ends nothing, and is kept where it tells something', () => {
    const faulty = attempts(...CHARGING, seen(400, 'fault', { code: 'stopped_by_itself', side: 'network' }), [900, 'stop_asked', {}]);
    expect(faulty).toHaveLength(1);
    expect(faulty[0]).toMatchObject({ stopAsked: { kind: 'stop_asked' }, faults: [{ code: 'stopped_by_itself', ends: false }] });
    expect(faulty[0]?.ended).toBeUndefined();
    const pulled = attempts(
      ...CHARGING,
      seen(400, 'pulled_out', { reason: 'enough' }),
      seen(500, 'unplugged'),
      seen(600, 'stall_chosen', { stallId: STALL_B }),
      [900, 'stop_asked', {}],
    );
    expect(pulled).toHaveLength(1);
    expect(pulled[0]?.ended).toBeUndefined();
    expect(pulled[0]?.unplugged).toBeUndefined();
    expect(pulled[0]?.stallId).toBe(STALL_A);
  });
  it('it may prove power, say that power went, accept and claim, once each', () => {
    const [a] = attempts(...SHOWN, seen(25, 'means_accepted', CARD), seen(40, 'claimed', { by: 'app' }), seen(100, 'power_seen', KW));
    expect(a).toMatchObject({ accepted: { kind: 'means_accepted' }, claimed: { kind: 'claimed' }, proof: { onlySeen: true, mark: 'kW', late: false } });
    const [gone] = attempts(...CHARGING, [600, 'stop_asked', {}], [620, 'power_gone', { why: 'asked' }], seen(660, 'power_gone', { why: 'car_target' }));
    expect(gone?.powerGone).toMatchObject({ why: 'asked', asked: true });
    const [lookedOn] = attempts(...CHARGING, [600, 'stop_asked', {}], seen(660, 'power_gone', { why: 'asked' }), [700, 'note', { text: 'x' }]);
    expect(lookedOn).toMatchObject({ powerGone: { why: 'asked' } });
    expect(lookedOn?.ended).toBeUndefined();
  });
});

describe('what each kind does to the attempts', () => {
  it('an adapter: once per attempt, the last that was named', () => {
    const [a] = attempts(IN, CHOSEN, [8, 'adapter_fitted', { adapterId: idOf(20) }], [9, 'adapter_fitted', {}], [10, 'plugged']);
    expect(a).toMatchObject({ adapterId: idOf(20), adapterFitted: { t: T0 + 8000 } });
    const [b] = attempts(IN, CHOSEN, [8, 'adapter_fitted', {}], [9, 'adapter_fitted', { adapterId: idOf(21) }], [10, 'plugged']);
    expect(b).toMatchObject({ adapterId: idOf(21), adapterFitted: { t: T0 + 8000 } });
    expect(attempts(...PLUGGED)[0]).not.toHaveProperty('adapterId');
  });
  it('a first act: the first counts; “again” waits for what follows it', () => {
    expect(attempts(IN, CHOSEN, [6, 'first_act', { what: 'handle' }], [8, 'first_act', { what: 'app' }], [10, 'plugged'])[0]).toMatchObject({
      firstAct: { t: T0 + 6000 },
    });
    expect(attempts(...SHOWN, [60, 'fault', { code: 'start_error', side: 'network' }], [70, 'first_act', { what: 'again' }])).toHaveLength(1);
    const two = attempts(
      ...SHOWN,
      [60, 'fault', { code: 'start_error', side: 'network' }],
      [70, 'first_act', { what: 'again' }],
      [75, 'first_act', { what: 'again' }],
      [90, 'means_shown', CARD],
    );
    expect(two).toHaveLength(2);
    expect(two[1]).toMatchObject({ opened: { t: T0 + 70_000 }, firstAct: { t: T0 + 70_000 } });
    // In an attempt that runs it is an act like any other.
    expect(attempts(...PLUGGED, [15, 'first_act', { what: 'again' }])).toHaveLength(1);
    // While a charge is paused it means a new try.
    expect(attempts(...CHARGING, [200, 'change', { what: 'paused' }], [300, 'first_act', { what: 'again' }], [310, 'means_shown', CARD])).toHaveLength(2);
  });
  it('plugging in twice within a moment is one, later a new try; the connector is the attempt’s', () => {
    expect(attempts(...PLUGGED, [11, 'plugged'])).toHaveLength(1);
    expect(attempts(...PLUGGED, [12, 'plugged'])).toHaveLength(1);
    expect(attempts(...PLUGGED, [60, 'plugged'])).toHaveLength(2);
    expect(attempts(...PLUGGED, [60, 'plugged'])[0]?.ended?.by).toBe('replug');
    expect(attempts(IN, CHOSEN, [10, 'plugged', { connectorId: 'CCS2' }])[0]?.connectorId).toBe('CCS2');
    expect(attempts(IN, [5, 'stall_chosen', { stallId: STALL_A, connectorId: 'CHAdeMO' }], [10, 'plugged'])[0]?.connectorId).toBe('CHAdeMO');
    const paused = attempts(...CHARGING, [200, 'change', { what: 'paused' }], [300, 'unplugged'], [320, 'plugged']);
    // It ended by itself where power had stopped, before the plug was taken out or put in again.
    expect(paused.map((a) => a.ended?.by)).toEqual(['power_gone', undefined]);
    const again = attempts(...CHARGING, [200, 'change', { what: 'paused' }], [320, 'plugged']);
    expect(again.map((a) => a.ended?.by)).toEqual(['act_after_power', undefined]);
  });
  it('a refusal told by a fault is a refusal of the means that was shown', () => {
    const held = { ...CARD, meansId: idOf(21) };
    const [a] = attempts(...PLUGGED, [20, 'means_shown', held], [30, 'fault', { code: 'card_refused', side: 'payment' }]);
    expect(a).toMatchObject({ refusals: [{ meansKind: 'contactless', meansId: idOf(21), fault: 'card_refused' }], faults: [] });
    expect(a?.ended).toBeUndefined();
    const [b] = attempts(...SHOWN, [30, 'fault', { code: 'card_refused', side: 'payment' }]);
    expect(b?.refusals[0]).not.toHaveProperty('meansId');
    // With nothing shown it is a fault that ends nothing.
    expect(attempts(...PLUGGED, [30, 'fault', { code: 'card_refused', side: 'payment' }])[0]).toMatchObject({
      refusals: [],
      faults: [{ code: 'card_refused', ends: false }],
    });
  });
  it('a fault that ends: the attempt that runs, else one of no length; after an ended one it is its last word', () => {
    expect(attempts(IN, CHOSEN, [30, 'fault', { code: 'stall_dark', side: 'network' }])[0]).toMatchObject({
      opened: { t: T0 + 30_000 },
      ended: { by: 'fault', fault: { ends: true, code: 'stall_dark' } },
    });
    expect(attempts(IN, [30, 'fault', { code: 'stall_dark', side: 'network' }])).toEqual([]);
    expect(attempts([0, 'pulled_in', {}], [30, 'fault', { code: 'stall_dark', side: 'network' }])).toHaveLength(1);
    const twice = attempts(...SHOWN, [40, 'fault', { code: 'start_error', side: 'network' }], [45, 'fault', { code: 'timed_out', side: 'network' }]);
    expect(twice).toHaveLength(1);
    expect(twice[0]).toMatchObject({
      ended: { fault: { code: 'start_error' } },
      faults: [
        { code: 'start_error', ends: true },
        { code: 'timed_out', ends: false },
      ],
    });
    const unknown = attempts(...SHOWN, [40, 'fault', { code: 'of_a_newer_list', side: 'network' }]);
    expect(unknown[0]).toMatchObject({ faults: [{ code: 'of_a_newer_list', ends: false }] });
    expect(unknown[0]?.ended).toBeUndefined();
  });
  it('power gone: asked for it ends, else it pauses; why and not before are kept where they were said', () => {
    expect(attempts(...CHARGING, [600, 'power_gone', { why: 'asked' }])[0]).toMatchObject({
      ended: { by: 'power_gone' },
      powerGone: { asked: true, why: 'asked' },
    });
    expect(attempts(...CHARGING, [590, 'stop_asked', {}], [600, 'power_gone'])[0]).toMatchObject({ ended: { by: 'power_gone' }, powerGone: { asked: true } });
    const [paused] = attempts(...CHARGING, [600, 'power_gone', { notBefore: T0 + 500_000 }]);
    expect(paused).toMatchObject({ paused: { kind: 'power_gone' }, powerGone: { asked: false, notBefore: T0 + 500_000 } });
    expect(paused?.ended).toBeUndefined();
    expect(paused?.powerGone).not.toHaveProperty('why');
    expect(attempts(...CHARGING, [600, 'power_gone', { why: 'car_target' }])[0]?.powerGone).not.toHaveProperty('notBefore');
    expect(attempts(IN, CHOSEN, [600, 'power_gone', {}])).toEqual([]);
  });
  it('paused and resumed by a change of which somebody says so; before power nothing pauses', () => {
    expect(attempts(...CHARGING, [200, 'change', { what: 'paused' }], [300, 'change', { what: 'resumed' }])[0]?.pauses).toHaveLength(1);
    expect(attempts(...SHOWN, [200, 'change', { what: 'paused' }])[0]?.paused).toBeUndefined();
    expect(attempts(...CHARGING, [200, 'change', { what: 'rain' }])[0]).toMatchObject({ pauses: [] });
    expect(attempts(IN, [200, 'change', { what: 'paused' }])).toEqual([]);
  });
  it('claimed and power: the first counts', () => {
    const [a] = attempts(
      ...SHOWN,
      [30, 'claimed', { by: 'beep' }],
      [35, 'claimed', { by: 'screen' }],
      [50, 'power_seen', KW],
      [60, 'power_seen', { screen: 'stall', mark: 'kWh' }],
    );
    expect(a).toMatchObject({ claimed: { t: T0 + 30_000 }, proof: { t: T0 + 50_000, mark: 'kW' } });
    expect(attempts(...SHOWN, [50, 'power_seen', { ...KW, late: true }])[0]?.proof).toMatchObject({ late: true });
  });
});
