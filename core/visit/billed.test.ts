import { attemptChoices, attemptsNamed } from './billed';
import { correctionSet } from './correction-set';
import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, STALL_B, type Step, story, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';

const TWO: Step[] = [
  IN,
  [5, 'stall_chosen', { stallId: STALL_A }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [60, 'fault', { code: 'start_error', side: 'network' }],
  [100, 'stall_chosen', { stallId: STALL_B }],
  [110, 'plugged'],
  [120, 'means_shown', CARD],
  [150, 'power_seen', KW],
  [900, 'stop_asked', { by: 'button' }],
  [960, 'unplugged'],
  [990, 'pulled_out', { reason: 'enough' }],
];
const derive = (...more: Step[]) => deriveVisit(VISIT, story(...TWO, ...more), payloadProblem);
const ids = derive().line.map((e) => e.id);
const bill = (sessions: string[], more: Record<string, unknown> = {}): Step => [
  1200,
  'bill',
  { sessions, amount: '12.00', currency: 'EUR', kWh: '20', state: 'charged', ...more },
];
const [PLUG_1, PLUG_2] = [ids[2] as string, ids[6] as string];

describe('which attempts a bill is for', () => {
  it('is told by any event of an attempt', () => {
    const v = derive();
    expect(attemptsNamed([PLUG_2], v.attempts, v.line)).toEqual([2]);
    expect(attemptsNamed([ids[8] as string, PLUG_1], v.attempts, v.line)).toEqual([1, 2]);
    expect(attemptsNamed([ids[0] as string], v.attempts, v.line)).toEqual([]);
  });
  it('is offered as a line for each attempt, with the events that belong to it', () => {
    const v = derive();
    const choices = attemptChoices(v.attempts, v.line, (id) => (id === STALL_A ? '1' : '2'));
    expect(choices.map((c) => [c.id, c.name])).toEqual([
      [PLUG_1, '1. Stall 1: failed (start error)'],
      [PLUG_2, '2. Stall 2: power'],
    ]);
    expect(choices[0]?.events).toContain(ids[4]);
    expect(choices[0]?.events).not.toContain(PLUG_2);
  });
  it('settles whether the first try gave energy', () => {
    expect(derive(bill([PLUG_2])).firstTry.answer).toBe('no');
    expect(derive(bill([PLUG_1])).firstTry).toMatchObject({ answer: 'yes', why: 'kWh on the bill for attempt 1' });
    expect(derive(bill([])).firstTry.answer).toBe('no');
    expect(derive(bill([PLUG_1], { state: 'refunded' })).firstTry.answer).toBe('no');
  });
  it('can be changed afterwards, and the change is held to the bounds', () => {
    const v = derive(bill([]));
    const payload = v.bills[0]?.payload as Record<string, unknown>;
    const { set } = correctionSet('bill', payload, { amount: '12.00', currency: 'EUR', kWh: '20', state: 'charged', sessions: PLUG_1 });
    expect(set).toEqual({ sessions: [PLUG_1] });
    const target = v.bills[0]?.id;
    expect(derive(bill([]), [1300, 'correction', { target, set }]).billed).toEqual([{ attempts: [1], kWh: '20' }]);
    expect(derive(bill([]), [1300, 'correction', { target, set: { sessions: ['no id'] } }]).billed).toEqual([{ attempts: [], kWh: '20' }]);
  });
});

describe('energy on bills', () => {
  it('is not taken off by a refund, nor counted twice when one session is billed twice', () => {
    expect(derive(bill([]), [1300, 'bill', { sessions: [], amount: '12.00', currency: 'EUR', state: 'refunded' }]).delivered).toEqual({
      known: true,
      value: '20',
    });
    expect(derive(bill([PLUG_2]), bill([PLUG_2])).delivered).toEqual({ known: true, value: '20' });
  });
  it('tells that a visit whose power nobody saw ended with a charge', () => {
    const unseen = deriveVisit(
      VISIT,
      story(IN, [10, 'plugged'], [20, 'means_shown', CARD], [30, 'claimed', { by: 'screen' }], [900, 'pulled_out', { reason: 'enough' }], bill([])),
      payloadProblem,
    );
    expect(unseen.ended).toBe('charge');
    expect(unseen.firstTry.answer).toBe('yes');
  });
});
