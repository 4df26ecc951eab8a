import type { Alarm } from './alarms';
import { limitText, matterNow } from './matter';
import type { StayClock } from './stay-clocks';

const min = (n: number) => n * 60_000;
const clock = (kind: StayClock['kind'], at_min: number): StayClock => ({ kind, until: min(at_min) });
const STOPPED: Alarm = { key: 's', text: 'Has it stopped?', due: min(20), ask: 'stopped' };
const READING: Alarm = { key: 'r', text: '70 % is near: a reading?', due: min(18), ask: 'reading', soft: true };
const now = (at_min: number, o: Partial<Parameters<typeof matterNow>[0]> = {}) => {
  const m = matterNow({ inDanger: false, clocks: [], alarms: [], answered: new Set(), ...o }, min(at_min));
  return m === null ? null : m.is === 'limit' ? m.clock.kind : m.is;
};

describe('one matter above the pads', () => {
  const clocks = [clock('idle_grace', 30), clock('max_stay', 60)];
  const all = { clocks, alarms: [READING, STOPPED] };
  it('danger goes before all', () => expect(now(25, { ...all, inDanger: true })).toBe('danger'));
  it.each([
    [19, 'reading'],
    [19.9, 'reading'],
    [20, 'idle_grace'],
    [30, 'idle_grace'],
    [40, 'idle_grace'],
    [41, 'stopped'],
    [50, 'max_stay'],
    [71, 'stopped'],
  ])('a limit within ten minutes, or passed in the last ten, then what is asked: %d min, %s', (at, is) => expect(now(at, all)).toBe(is));
  it('what was answered is not asked again: the limit that comes first stands', () => {
    expect(now(41, { ...all, answered: new Set(['s']) })).toBe('reading');
    expect(now(41, { ...all, answered: new Set(['s', 'r']) })).toBe('max_stay');
    expect(now(90, { ...all, answered: new Set(['s', 'r']) })).toBe('idle_grace');
  });
  it('an alarm that is of no use any more is none', () => expect(now(19, { alarms: [{ ...READING, until: min(18.5) }] })).toBeNull());
  it('nothing where nothing is due', () => expect(now(5)).toBeNull());
});

describe('a limit in words', () => {
  it.each([
    ['overstay', 10, 'Overstay fee starts in', '10:00', false],
    ['idle_grace', 0.5, 'Idle fee starts in', '0:30', false],
    ['max_stay', 0, 'Max stay ends in', '0:00', false],
    ['max_stay', -75, 'Max stay over by', '1:15:00', true],
    ['overstay', -0.1, 'Overstay fee may run since', '0:06', true],
    ['idle_grace', -2, 'Idle fee may run since', '2:00', true],
  ] as const)('%s %d min ahead', (kind, ahead, words, time, past) => expect(limitText({ kind, until: min(ahead) }, 0)).toEqual({ words, time, past }));
});
