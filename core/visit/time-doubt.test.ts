import { deriveVisit } from './derive';
import { CARD, IN, idOf, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { timeDoubt } from './time-doubt';

const STEPS: Step[] = [
  IN,
  [5, 'stall_chosen', { stallId: STALL_A }],
  [10, 'plugged'],
  [20, 'means_shown', CARD],
  [900, 'pulled_out', { reason: 'enough' }],
  [950, 'bill', { sessions: [], amount: '9.10', currency: 'EUR', state: 'charged' }],
];
const { line, zone } = deriveVisit(VISIT, story(...STEPS), payloadProblem);
const doubt = (n: number, kind: string, at_s: number) => timeDoubt(line, { id: idOf(100 + n), kind }, T0 + at_s * 1000, zone);

describe('a corrected time is asked about', () => {
  it.each([
    ['an act before the arrival', 2, 'plugged', -1, 'That is before the arrival at 13:52:00.'],
    ['an act after the leaving', 2, 'plugged', 901, 'That is after the leaving at 14:07:00.'],
    ['an arrival after something', 0, 'pulled_in', 6, 'Something was recorded at 13:52:05 already, before that arrival.'],
    ['a leaving before something', 4, 'pulled_out', 19, 'Something was still recorded at 13:52:20, after that leaving.'],
  ] as const)('%s', (_, n, kind, at_s, said) => expect(doubt(n, kind, at_s)).toBe(said));
  it.each([
    ['an act at the arrival', 2, 'plugged', 0],
    ['an act at the leaving', 2, 'plugged', 900],
    ['a bill after the leaving', 5, 'bill', 4000],
    ['an app opened on the way', 1, 'first_act', -60],
    ['an arrival put earlier', 0, 'pulled_in', -600],
    ['a leaving put later', 4, 'pulled_out', 1200],
  ] as const)('not %s', (_, n, kind, at_s) => expect(doubt(n, kind, at_s)).toBeNull());
  it('nor where only the day is known', () =>
    expect(
      timeDoubt(
        line.map((e) => ({ ...e, precision: 'day' as const })),
        { id: idOf(102), kind: 'plugged' },
        T0 - 1000,
        zone,
      ),
    ).toBeNull());
  it('nor anything in a visit that has neither end', () => expect(timeDoubt([], { id: idOf(1), kind: 'plugged' }, 0, zone)).toBeNull());
});
