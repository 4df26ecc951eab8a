import type { Mark } from '../timing';
import type { Draft, EndedBy, LeaveReason } from './attempt';
import { isNoted } from './attempt';
import { outcomeOf, refusalSide } from './outcome';

const at = (place: number) => ({ id: `e${place}`, t: place * 1000, place, precision: 'ms' }) as unknown as Mark;
const OPENED = at(1);
const draft = (more: Partial<Draft> = {}): Draft => ({
  stallId: null,
  opened: OPENED,
  pluggedEarlier: false,
  shows: [],
  refusals: [],
  pauses: [],
  faults: [],
  readings: [],
  ...more,
});
const ended = (by: EndedBy, more: Partial<Draft> = {}) => draft({ ended: { at: at(9), by }, ...more });
const refusal = (place: number, fault?: string) => ({ ...at(place), meansKind: 'contactless' as const, ...(fault ? { fault } : {}) });
const outcome = (a: Draft, left?: LeaveReason) => {
  const { at: when, ...said } = outcomeOf(a, left);
  return { ...said, place: when.place };
};

describe('how an attempt came out', () => {
  it('power, whatever ended it', () => {
    expect(outcome(ended('fault', { proof: { ...at(5), mark: 'kW', late: false }, refusals: [refusal(3, 'card_refused')] }))).toEqual({
      kind: 'power',
      place: 5,
    });
  });
  it('open while nothing ended it, from its first act', () => {
    expect(outcome(draft({ refusals: [refusal(3)] }), 'gave_up')).toEqual({
      kind: 'open',
      reason: 'still running, or the end was not recorded',
      place: 1,
    });
  });
  it.each([
    ['other_means', { kind: 'failed', reason: 'Refused', side: 'payment', place: 9 }],
    ['moved', { kind: 'failed', reason: 'Moved to another stall', side: null, place: 9 }],
    ['replug', { kind: 'failed', reason: 'Plugged in anew', side: null, place: 9 }],
    ['unplugged', { kind: 'failed', reason: 'Unplugged without power', side: null, place: 9 }],
    ['pulled_out', { kind: 'failed', reason: 'Unplugged without power', side: null, place: 9 }],
    ['power_gone', { kind: 'open', reason: 'power went without having been seen', place: 9 }],
    ['act_after_power', { kind: 'open', reason: 'power went without having been seen', place: 9 }],
    ['fault', { kind: 'failed', reason: 'Fault', side: null, place: 9 }],
  ] as const)('ended by %s', (by, said) => expect(outcome(ended(by))).toEqual(said));
  it('by a fault: its label, side and code, whatever was refused before', () => {
    const fault = { mark: at(9), code: 'start_error', side: 'car' as const, ends: true };
    const a = draft({ ended: { at: at(9), by: 'fault', fault }, refusals: [refusal(3, 'card_refused')] });
    expect(outcome(a)).toEqual({ kind: 'failed', reason: 'Start error', side: 'car', code: 'start_error', place: 9 });
  });
  it.each(['other_means', 'moved', 'replug', 'unplugged'] as const)('a refusal before the end, %s, is what it failed of, when it was refused', (by) => {
    expect(outcome(ended(by, { refusals: [refusal(2), refusal(4, 'card_refused')] }))).toEqual({
      kind: 'failed',
      reason: 'Card refused',
      side: 'payment',
      code: 'card_refused',
      place: 4,
    });
    expect(outcome(ended(by, { refusals: [refusal(4)] }))).toEqual({ kind: 'failed', reason: 'Refused', side: 'payment', place: 4 });
  });
  it('a refusal noted after the end is no reason of it, one at the end is', () => {
    expect(outcome(ended('moved', { refusals: [refusal(10, 'card_refused')] })).kind).toBe('failed');
    expect(outcome(ended('moved', { refusals: [refusal(10, 'card_refused')] }))).toMatchObject({ reason: 'Moved to another stall' });
    expect(outcome(ended('moved', { refusals: [refusal(9, 'card_refused')] }))).toMatchObject({ reason: 'Card refused' });
  });
  it.each([
    ['gave_up', 'gave up'],
    ['queue', 'left for the queue'],
    ['price', 'left for the price'],
    ['unsafe', 'left as unsafe'],
    ['closed', 'closed'],
  ] as const)('left because of %s', (left, reason) => {
    for (const by of ['unplugged', 'pulled_out'] as const) {
      expect(outcome(ended(by), left)).toEqual({ kind: 'gave_up', reason, side: null, left, place: 9 });
      expect(outcome(ended(by, { refusals: [refusal(4, 'app_unreachable')] }), left)).toEqual({
        kind: 'gave_up',
        reason: `${reason}: App cannot reach the stall`,
        side: 'network',
        code: 'app_unreachable',
        left,
        place: 9,
      });
    }
    expect(outcome(ended('moved'), left)).toMatchObject({ kind: 'failed' });
  });
  it.each([
    ['called_away', 'called away'],
    ['enough', 'power was not recorded'],
  ] as const)('left with %s it is open, or failed where it was refused', (left, reason) => {
    expect(outcome(ended('pulled_out'), left)).toEqual({ kind: 'open', reason, place: 9 });
    expect(outcome(ended('pulled_out', { refusals: [refusal(4)] }), left)).toEqual({ kind: 'failed', reason: 'Refused', side: 'payment', place: 4 });
  });
});

describe('whose side a refusal is on', () => {
  it.each([
    [undefined, 'payment'],
    ['card_refused', 'payment'],
    ['app_unreachable', 'network'],
    ['a_newer_code', 'payment'],
  ])('%s: %s', (code, side) => expect(refusalSide(code)).toBe(side));
});

describe('an attempt of which only the day is known', () => {
  const proof = (id: string) => ({ ...at(1), id, mark: 'kWh' as const, late: false });
  it.each([
    ['day', 'e1', false],
    ['day', 'e2', true],
    ['ms', 'e1', true],
  ] as const)('opened with precision %s by %s', (precision, id, noted) => expect(isNoted({ opened: { ...OPENED, precision }, proof: proof(id) })).toBe(noted));
  it('without any proof somebody noted it', () => expect(isNoted({ opened: { ...OPENED, precision: 'day' } })).toBe(true));
});
