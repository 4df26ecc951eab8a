import { deriveVisit } from './derive';
import { APP, CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from './fixtures/story';
import { inDanger, isDanger, isPlugged, meansToTryAgain, nextAct, type UsualHere } from './next-act';
import { payloadProblem } from './payloads';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const PLAIN: UsualHere = { carIsMeans: false, payFirst: false, adapter: false };
const next = (usual: Partial<UsualHere>, ...steps: Step[]) => nextAct(visit(...steps), { ...PLAIN, ...usual });
const chosen: Step = [5, 'stall_chosen', { stallId: STALL_A }];
const plug = (at: number): Step => [at, 'plugged'];
const card = (at: number): Step => [at, 'means_shown', CARD];
const refused = (at: number): Step => [at, 'means_refused', CARD];
const power = (at: number): Step => [at, 'power_seen', KW];
const stop = (at: number): Step => [at, 'stop_asked', { by: 'button' }];
const unplug = (at: number): Step => [at, 'unplugged'];
const fault = (at: number, code = 'start_error'): Step => [at, 'fault', { code, side: 'network' }];
const out = (at: number, reason = 'enough'): Step => [at, 'pulled_out', { reason }];
const again = (at: number): Step => [at, 'first_act', { what: 'again' }];
const BILL: Step = [3000, 'bill', { sessions: [], amount: '9.00', currency: 'EUR', state: 'charged' }];
const SEEN = { role: 'observer' as const, deviceId: '01900000-0000-7000-8000-0000000000aa' };

describe('what comes next', () => {
  it.each<[string, Partial<UsualHere>, Step[], string]>([
    ['nothing yet', {}, [[0, 'note', { text: 'x' }]], 'pulled_in'],
    ['pulled in', {}, [IN], 'choose_stall'],
    ['at a place without a name', {}, [[0, 'pulled_in', {}]], 'plugged'],
    ['stall chosen', {}, [IN, chosen], 'plugged'],
    ['where one pays first', { payFirst: true }, [IN, chosen], 'means_shown'],
    ['where one pays first, and paid', { payFirst: true }, [IN, chosen, card(10)], 'plugged'],
    ['where one pays first and was refused', { payFirst: true }, [IN, chosen, card(10), refused(15)], 'means_shown'],
    ['refused and shown again', { payFirst: true }, [IN, chosen, card(10), refused(15), card(20)], 'plugged'],
    ['where the car pays, whatever the order', { payFirst: true, carIsMeans: true }, [IN, chosen], 'plugged'],
    ['an adapter first', { adapter: true }, [IN, chosen], 'adapter_fitted'],
    ['an adapter first, before paying', { adapter: true, payFirst: true }, [IN, chosen], 'adapter_fitted'],
    ['an adapter is on', { adapter: true }, [IN, chosen, [8, 'adapter_fitted', {}]], 'plugged'],
    ['an adapter stays on for the second try', { adapter: true }, [IN, chosen, [8, 'adapter_fitted', {}], plug(10), fault(40), unplug(50)], 'plugged'],
    [
      'at another stall it is fitted anew',
      { adapter: true },
      [IN, chosen, [8, 'adapter_fitted', {}], plug(10), fault(40), unplug(50), [60, 'stall_chosen', { stallId: STALL_B }]],
      'adapter_fitted',
    ],
    ['plugged in', {}, [IN, chosen, plug(10)], 'means_shown'],
    ['plugged in, the car pays', { carIsMeans: true }, [IN, chosen, plug(10)], 'power_seen'],
    ['plugged and shown', {}, [IN, chosen, plug(10), card(20)], 'power_seen'],
    ['plugged, shown, refused', {}, [IN, chosen, plug(10), card(20), refused(25)], 'means_shown'],
    ['shown first, then plugged', {}, [IN, chosen, card(10), plug(20)], 'power_seen'],
    ['it says it charges', {}, [IN, chosen, plug(10), [20, 'claimed', { by: 'screen' }]], 'power_seen'],
    ['charging', {}, [IN, chosen, plug(10), card(20), power(50)], 'reading'],
    ['stop pressed', {}, [IN, chosen, plug(10), card(20), power(50), stop(900)], 'unplugged'],
    ['power gone', {}, [IN, chosen, plug(10), card(20), power(50), [900, 'power_gone', { why: 'car_target' }]], 'unplugged'],
    ['unplugged after a charge', {}, [IN, chosen, plug(10), card(20), power(50), stop(900), unplug(950)], 'pulled_out'],
    [
      'another stall after a charge',
      {},
      [IN, chosen, plug(10), card(20), power(50), stop(900), unplug(950), [960, 'stall_chosen', { stallId: STALL_B }]],
      'plugged',
    ],
    ['failed, the plug still in', {}, [IN, chosen, plug(10), card(20), fault(60)], 'unplugged'],
    ['failed, unplugged', {}, [IN, chosen, plug(10), card(20), fault(60), unplug(70)], 'plugged'],
    ['failed, the same stall again, plug in', {}, [IN, chosen, plug(10), card(20), fault(60), again(70)], 'means_shown'],
    ['failed, again, shown', {}, [IN, chosen, plug(10), card(20), fault(60), again(70), card(80)], 'power_seen'],
    ['a charge that a fault ended, unplugged', {}, [IN, chosen, plug(10), card(20), power(50), fault(600, 'stopped_by_itself'), unplug(650)], 'plugged'],
    ['the car pays and it failed: it is shown by pressing start', { carIsMeans: true }, [IN, chosen, plug(10), fault(60), again(70)], 'means_shown'],
    [
      'the helpline started it',
      {},
      [IN, chosen, plug(10), card(20), fault(60), [70, 'help_called'], [90, 'help_ended', { result: 'remote_start' }]],
      'power_seen',
    ],
    ['the helpline reset it', {}, [IN, chosen, plug(10), card(20), fault(60), [70, 'help_called'], [90, 'help_ended', { result: 'reset' }]], 'unplugged'],
    [
      'it started, and that failed too',
      {},
      [IN, chosen, plug(10), card(20), [70, 'help_called'], [90, 'help_ended', { result: 'remote_start' }], fault(120)],
      'unplugged',
    ],
    ['danger', {}, [IN, chosen, plug(10), fault(20, 'danger')], 'call_help'],
    ['danger, somebody was called', {}, [IN, chosen, plug(10), fault(20, 'danger'), [30, 'help_called'], [60, 'help_ended', {}]], 'unplugged'],
    ['pulled out without a bill', {}, [IN, chosen, plug(10), card(20), power(50), stop(900), unplug(950), out(990)], 'bill'],
    ['pulled out with one', {}, [IN, chosen, plug(10), card(20), power(50), stop(900), unplug(950), out(990), BILL], 'done'],
    ['pulled out without a charge', {}, [IN, chosen, plug(10), card(20), fault(60), unplug(70), out(90, 'gave_up')], 'done'],
    ['pulled out, nobody knows whether it charged', {}, [IN, chosen, plug(10), card(20), out(90)], 'bill'],
  ])('%s', (_, usual, steps, act) => expect(next(usual, ...steps)).toBe(act));
});

describe('what it goes by', () => {
  it('plugged from a plugging in to the unplugging, a move or the leaving', () => {
    const is = (...steps: Step[]) => isPlugged(visit(...steps));
    expect([
      is(IN),
      is(IN, plug(10)),
      is(IN, plug(10), card(20)),
      is(IN, plug(10), unplug(20)),
      is(IN, plug(10), [20, 'stall_chosen', { stallId: STALL_B }]),
      is(IN, plug(10), out(20)),
    ]).toEqual([false, true, true, false, false, false]);
  });
  it('meant to try again: an act or a stall of one’s own after the attempt ended', () => {
    const is = (...steps: Step[]) => meansToTryAgain(visit(IN, chosen, plug(10), ...steps));
    expect(is()).toBe(false);
    expect(is(fault(60))).toBe(false);
    expect(is(fault(60), again(70))).toBe(true);
    expect(is(fault(60), [70, 'stall_chosen', { stallId: STALL_B }])).toBe(true);
    expect(is(fault(60), [70, 'note', { text: 'x' }])).toBe(false);
    expect(is(fault(60), [400, 'stall_chosen', { stallId: STALL_B }, SEEN])).toBe(false);
    expect(is([20, 'means_shown', APP])).toBe(false);
  });
  it('danger until somebody was called, the stall left or the cable out', () => {
    const is = (...steps: Step[]) => inDanger(visit(IN, chosen, ...steps));
    expect(is()).toBe(false);
    expect(is(fault(20))).toBe(false);
    expect(is(fault(20, 'danger'))).toBe(true);
    expect(is(fault(20, 'danger'), [30, 'help_called'])).toBe(true);
    expect(is(fault(20, 'danger'), [30, 'help_ended', {}])).toBe(false);
    expect(is(plug(15), fault(20, 'danger'), unplug(30))).toBe(false);
    expect(is(fault(20, 'danger'), [30, 'stall_chosen', { stallId: STALL_B }])).toBe(false);
    expect(is(fault(20, 'danger'), [30, 'help_ended', {}], fault(40, 'danger'))).toBe(true);
    const kinds = visit(IN, fault(1, 'danger'), fault(2), fault(3, 'a_newer_code'), [4, 'note', { text: 'x' }]).line.map(isDanger);
    expect(kinds).toEqual([false, true, false, false, false]);
  });
});
