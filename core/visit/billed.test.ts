import { attemptChoices, attemptsNamed, billedOf, kWhBilledFor, kWhBilledForAll } from './billed';
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

describe('whose energy a bill says', () => {
  const of = (kWh: string | undefined, ...attempts: number[]) => ({ attempts, ...(kWh === undefined ? {} : { kWh }) });
  it('of one attempt: bills for it alone that say some; the greatest', () => {
    expect(kWhBilledFor(1, [of('9'), of('10', 1), of('12.5', 1), of('30', 1, 2), of(undefined, 1), of('40', 2)])).toBe('12.5');
    expect(kWhBilledFor(1, [of('9'), of('30', 1, 2), of(undefined, 1)])).toBeUndefined();
  });
  it('of all: when each bill says some and none is left out', () => {
    expect(kWhBilledForAll([1, 2], [])).toBeUndefined();
    expect(kWhBilledForAll([1, 2], [of('10.1', 1), of('20.2', 2)])).toBe('30.3');
    expect(kWhBilledForAll([1, 2], [of('10', 1, 2)])).toBe('10');
    expect(kWhBilledForAll([1, 2], [of('10')])).toBe('10');
    expect(kWhBilledForAll([1, 2], [of('10', 1)])).toBeUndefined();
    expect(kWhBilledForAll([1, 2], [of('10', 1), of(undefined, 2)])).toBeUndefined();
    // One for the whole visit makes up for attempts that the others leave out.
    expect(kWhBilledForAll([1, 2], [of('10', 1), of('5')])).toBe('15');
  });
  it('a bill without kWh has none, and a refund is none', () => {
    const v = derive(bill([PLUG_2], { kWh: undefined }), bill([PLUG_1], { state: 'refunded' }));
    expect(billedOf(v.bills, v.attempts, v.line)).toEqual([{ attempts: [2] }]);
  });
  it('attempts are named once, in order, by what another phone saw too', () => {
    const v = derive();
    expect(attemptsNamed([PLUG_2, ids[7] as string, ids[8] as string, PLUG_1], v.attempts, v.line)).toEqual([1, 2]);
    expect(attemptsNamed([], v.attempts, v.line)).toEqual([]);
    const seen = v.line.map((e) => (e.id === PLUG_2 ? { ...e, looks: [{ eventId: 'look' }, { eventId: 'another' }] } : e)) as never;
    expect(attemptsNamed(['look'], v.attempts, seen)).toEqual([2]);
    expect(attemptsNamed(['Stryker was here'], v.attempts, v.line)).toEqual([]);
    // Eleven attempts are sorted as numbers.
    const many = Array.from({ length: 11 }, (_, i) => ({ n: i + 1, opened: { place: i } }));
    const line = [10, 1].map((place) => ({ id: String(place), place }));
    expect(attemptsNamed(['10', '1'], many as never, line as never)).toEqual([2, 11]);
    expect(attemptsNamed(['-1'], many as never, [{ id: '-1', place: -1 }] as never)).toEqual([]);
  });
  it('an attempt is offered with its events from its first to the next one’s, and without a stall’s name', () => {
    const v = derive();
    const [one, two] = attemptChoices(v.attempts, v.line, () => '');
    expect(one?.name).toBe('1. Stall not named: failed (start error)');
    expect([one?.events[0], two?.events[0]]).toEqual([PLUG_1, PLUG_2]);
    expect(two?.events).not.toContain(PLUG_1);
    expect([...(one?.events ?? []), ...(two?.events ?? [])]).toEqual(ids.slice(2));
    const bare = v.attempts.map((a) => ({ ...a, stallId: null }));
    expect(attemptChoices(bare, v.line, () => 'X')[0]?.name).toMatch(/^1\. Stall not named/);
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
