import { alarms } from './alarms';
import { deriveVisit } from './derive';
import { CARD, IN, KW, STALL_A, type Step, story, T0, VISIT } from './fixtures/story';
import { payloadProblem } from './payloads';
import { stayClocks } from './stay-clocks';
import { codeTyped, visitCode } from './visit-code';

const visit = (...steps: Step[]) => deriveVisit(VISIT, story(...steps), payloadProblem);
const charging: Step[] = [IN, [5, 'stall_chosen', { stallId: STALL_A }], [60, 'plugged'], [75, 'means_shown', CARD], [100, 'power_seen', KW]];
const RULES = { maxStay_min: 60, overstayAfter_min: 70, idleGrace_min: 5 };
const told = (v: ReturnType<typeof visit>, ten: { pct: number; at: number } | null = null) =>
  alarms(v, stayClocks(v, RULES), ten).map((a) => [a.text, (a.due - T0) / 60_000]);

describe('alarms', () => {
  it('come before a limit, and ask after twenty silent minutes whether it has stopped', () => {
    const v = visit(...charging);
    expect(told(v)).toEqual([
      ['Has it stopped?', 20 + 100 / 60],
      ['The max stay ends in 10 min', 50],
      ['The overstay limit comes in 5 min', 66],
    ]);
  });
  it('ask earlier when the battery is likely full', () => {
    expect(told(visit(...charging), { pct: 100, at: T0 + 12 * 60_000 })[0]).toEqual(['Has it stopped?', 12]);
  });
  it('nudge softly a minute before the battery shows its next full ten', () => {
    const [first] = alarms(visit(...charging), [], { pct: 40, at: T0 + 10 * 60_000 });
    expect(first).toMatchObject({ text: '40 % is near: a reading?', due: T0 + 9 * 60_000, soft: true, ask: 'reading' });
  });
  it('speak of the idle grace once the charge has ended, and of nothing after pulling out', () => {
    const stopped = visit(...charging, [1300, 'stop_asked', { by: 'button' }], [1310, 'power_gone', { why: 'asked' }]);
    expect(told(stopped)[0]).toEqual(['The idle grace ends in 3 min', 1310 / 60 + 2]);
    expect(told(visit(...charging, [1300, 'unplugged'], [1400, 'pulled_out', { reason: 'enough' }]))).toEqual([]);
  });
  it('do not ask what is known: power is gone, or comes back', () => {
    const asks = (...more: Step[]) => alarms(visit(...charging, ...more), [], null).some((a) => a.ask === 'stopped');
    expect(asks([900, 'power_gone', { why: 'car_target' }])).toBe(false);
    expect(asks([900, 'power_gone', {}], [960, 'power_seen', KW])).toBe(true);
  });
  it('asks nothing of a visit where nobody charges, or somebody has pulled out', () => {
    const all = (...steps: Step[]) => alarms(visit(...steps), [{ kind: 'max_stay', until: T0 + 3_600_000 }], null).map((a) => a.key);
    expect(all(IN)).toEqual([`max_stay ${T0 + 3_600_000}`]);
    expect(all(IN, [60, 'plugged'])).toEqual([`max_stay ${T0 + 3_600_000}`]);
    expect(all(...charging, [900, 'unplugged'])).toEqual([`max_stay ${T0 + 3_600_000}`]);
    expect(all(...charging, [900, 'stop_asked', { by: 'button' }])).toEqual([`max_stay ${T0 + 3_600_000}`]);
    expect(all(...charging, [900, 'pulled_out', { reason: 'enough' }])).toEqual([]);
  });
  it('a battery that was full before the last word tells nothing of when it stops', () => {
    const asked = (pct: number, at_s: number) => alarms(visit(...charging), [], { pct, at: T0 + at_s * 1000 }).find((a) => a.ask === 'stopped')?.due;
    expect(asked(100, 99)).toBe(T0 + 1_300_000);
    expect(asked(100, 100)).toBe(T0 + 1_300_000);
    expect(asked(100, 101)).toBe(T0 + 101_000);
    expect(asked(90, 500)).toBe(T0 + 1_300_000);
    expect(alarms(visit(...charging), [], { pct: 40, at: T0 }).map((a) => a.key)).toContain('ten 1 40');
    expect(alarms(visit(...charging), [], { pct: 100, at: T0 }).map((a) => a.ask)).toEqual(['stopped']);
  });
  it('a new event is a new matter', () => {
    const keys = (...more: Step[]) => alarms(visit(...charging, ...more), [], null).map((a) => a.key);
    expect(keys()).not.toEqual(keys([900, 'reading', { screen: 'stall', socPct: 40 }]));
  });
});

it('a visit’s code is the end of its id', () => expect(visitCode('018e983e-3f00-7251-ac94-720631de58bb')).toBe('31DE-58BB'));

it.each([
  ['31de-58bb', '31DE58BB'],
  ['31DE 58BB', '31DE58BB'],
  ['31de', '31DE'],
  ['31de5', '31DE5'],
  // A day, the number of a stall, a year with its month: words, not codes.
  ['12', null],
  ['123', null],
  ['12 oct', null],
  ['2025 10 12 1', null],
  ['', null],
])('%s as a code is %s', (typed, code) => expect(codeTyped(typed)).toBe(code));
