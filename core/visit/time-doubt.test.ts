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

describe('what happens before one is there, and after one has left', () => {
  const line2 = [
    { id: 'in', kind: 'pulled_in', t: 1000, precision: 'ms' as const },
    { id: 'out', kind: 'pulled_out', t: 9000, precision: 'ms' as const },
  ];
  const asked = (kind: string, at: number, more: typeof line2 = line2) => timeDoubt(more as never, { id: 'x', kind }, at, 'UTC');
  it.each(['reserved', 'released', 'first_act', 'price_shown', 'stall_named', 'note'])('%s may stand before the arrival', (kind) => {
    expect(asked(kind, 500)).toBeNull();
    // An arrival put after it is not asked about either.
    expect(timeDoubt([{ id: 'x', kind, t: 500, precision: 'ms' }] as never, { id: 'in', kind: 'pulled_in' }, 1000, 'UTC')).toBeNull();
  });
  it.each(['bill', 'receipt', 'rating', 'note', 'figure_given', 'mark', 'danger_cleared', 'help_called', 'help_answered', 'help_ended'])(
    '%s may stand after the leaving',
    (kind) => {
      expect(asked(kind, 9500)).toBeNull();
      expect(timeDoubt([{ id: 'x', kind, t: 9500, precision: 'ms' }] as never, { id: 'out', kind: 'pulled_out' }, 9000, 'UTC')).toBeNull();
    },
  );
  it('others may not, and what has but a day or is the event itself is no witness', () => {
    expect(asked('plugged', 999)).not.toBeNull();
    expect(asked('plugged', 1000)).toBeNull();
    expect(asked('plugged', 9000)).toBeNull();
    expect(asked('plugged', 9001)).not.toBeNull();
    const days = line2.map((e) => ({ ...e, precision: 'day' as const }));
    expect(asked('plugged', 1, days as never)).toBeNull();
    expect(timeDoubt(line2 as never, { id: 'in', kind: 'pulled_in' }, 9000, 'UTC')).toBeNull();
    expect(timeDoubt(line2 as never, { id: 'in', kind: 'pulled_in' }, 9001, 'UTC')).not.toBeNull();
    expect(timeDoubt(line2 as never, { id: 'out', kind: 'pulled_out' }, 1000, 'UTC')).toBeNull();
    expect(timeDoubt([], { id: 'x', kind: 'plugged' }, 5, 'UTC')).toBeNull();
  });
});
