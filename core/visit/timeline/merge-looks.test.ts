import type { StoredEvent } from '../event';
import { idOf, PHONE, SECOND_PHONE, STALL_A, STALL_B, type Step, story, T0 } from '../fixtures/story';
import { deviceLine, type Levelled } from './device-line';
import { mergeLooks } from './merge-looks';
import type { Corrected } from './placed';

const THIRD = idOf(90);
const FOURTH = idOf(91);
/** What one device has, its clock level with all others. */
const device = (deviceId: string, role: StoredEvent['role'], ...steps: Step[]): Levelled[] =>
  deviceLine(
    story(
      ...steps.map(([s, k, p, e], i): Step => [s, k, p, { deviceId, role, id: idOf(Number.parseInt(deviceId.slice(-2), 16) * 1000 + i), ...e }]),
    ) as Corrected[],
  ).map((x) => ({ ...x, clock_s: 0 }));
const recorder = (...steps: Step[]) => device(PHONE, 'recorder', ...steps);
const onlooker = (...steps: Step[]) => device(SECOND_PHONE, 'observer', ...steps);
/** Each act: kind, seconds, and how far the looks at it were off. */
const acts = (of: Levelled[], ...others: Levelled[][]) =>
  mergeLooks(of, others).map((a) => [a.of.e.kind, (a.of.t - T0) / 1000, a.looks.map((l) => l.differs_s)]);

describe('looks taken into the recorder’s acts', () => {
  it('the nearer of two acts, each phone once an act', () => {
    const twice = recorder([0, 'plugged'], [20, 'plugged']);
    expect(acts(twice, onlooker([11, 'plugged']))).toEqual([
      ['plugged', 0, []],
      ['plugged', 20, [9]],
    ]);
    expect(acts(twice, onlooker([9, 'plugged']))).toEqual([
      ['plugged', 0, [9]],
      ['plugged', 20, []],
    ]);
    expect(acts(twice, onlooker([11, 'plugged'], [21, 'plugged'], [22, 'plugged']))).toEqual([
      ['plugged', 0, [21]],
      ['plugged', 20, [9]],
      ['plugged', 22, []],
    ]);
    // As near to the one as to the other: the first.
    expect(acts(twice, onlooker([10, 'plugged']))[0]).toEqual(['plugged', 0, [10]]);
  });
  it('what was recorded goes before what was only seen, however near that is', () => {
    expect(acts(recorder([0, 'plugged']), onlooker([40, 'plugged']), device(THIRD, 'observer', [30, 'plugged']))).toEqual([
      ['plugged', 0, [30]],
      ['plugged', 40, []],
    ]);
    expect(acts(recorder([0, 'plugged']), onlooker([40, 'plugged']), device(THIRD, 'observer', [30.001, 'plugged']))).toEqual([
      ['plugged', 0, []],
      ['plugged', 40, [9.999]],
    ]);
    // Of several that are only seen, the nearer, whichever came first.
    const seen = [onlooker([40, 'plugged']), device(THIRD, 'observer', [75, 'plugged'])] as const;
    expect(acts(recorder([0, 'plugged']), ...seen, device(FOURTH, 'observer', [60, 'plugged']))).toEqual([
      ['plugged', 0, []],
      ['plugged', 40, []],
      ['plugged', 75, [15]],
    ]);
  });
  it('not across what ended an attempt between the two, on whichever side the look was', () => {
    const between = recorder([0, 'claimed', { by: 'beep' }], [10, 'unplugged'], [20, 'claimed', { by: 'beep' }]);
    const looks = (s: number) => acts(between, onlooker([s, 'claimed', { by: 'beep' }])).filter(([kind]) => kind === 'claimed');
    expect(looks(11)).toEqual([
      ['claimed', 0, []],
      ['claimed', 20, [9]],
    ]);
    expect(looks(9)).toEqual([
      ['claimed', 0, [9]],
      ['claimed', 20, []],
    ]);
    const oneOnly = recorder([0, 'claimed', { by: 'beep' }], [10, 'unplugged']);
    expect(acts(oneOnly, onlooker([12, 'claimed', { by: 'beep' }])).filter(([kind]) => kind === 'claimed')).toHaveLength(2);
    const behind = recorder([10, 'unplugged'], [20, 'claimed', { by: 'beep' }]);
    expect(acts(behind, onlooker([8, 'claimed', { by: 'beep' }])).filter(([kind]) => kind === 'claimed')).toHaveLength(2);
    // At the very moment of a look it stands between nothing.
    expect(acts(oneOnly, onlooker([10, 'claimed', { by: 'beep' }])).filter(([kind]) => kind === 'claimed')).toEqual([['claimed', 0, [10]]]);
    expect(acts(recorder([0, 'unplugged'], [0, 'claimed', { by: 'beep' }]), onlooker([5, 'claimed', { by: 'beep' }])).filter(([k]) => k === 'claimed')).toEqual(
      [['claimed', 0, [5]]],
    );
  });
  it('an ending seen twice is one, and does not stand between its own looks', () => {
    expect(acts(recorder([0, 'unplugged']), onlooker([20, 'unplugged']))).toEqual([['unplugged', 0, [20]]]);
    expect(acts(recorder([20, 'unplugged']), onlooker([0, 'unplugged']))).toEqual([['unplugged', 20, [20]]]);
    // Another one between the two does.
    expect(acts(recorder([0, 'pulled_out', { reason: 'enough' }], [10, 'unplugged']), onlooker([20, 'pulled_out', { reason: 'enough' }]))).toHaveLength(3);
  });
  it('which stall was chosen before is told by the order of the time line, not by that of the list', () => {
    const typed = { origin: 'typed' as const };
    const back = recorder(
      [20, 'stall_chosen', { stallId: STALL_A }, typed],
      [1, 'stall_chosen', { stallId: STALL_A }, typed],
      [10, 'stall_chosen', { stallId: STALL_B }, typed],
    );
    // A, B at 10, A at 20: the claims at 5 and 15 are of two attempts, those at 21 and 25 of one.
    const claims = (a: number, b: number) =>
      mergeLooks([...back, ...recorder([a, 'claimed', { by: 'beep' }, { id: idOf(5000) }])], [onlooker([b, 'claimed', { by: 'beep' }])]).filter(
        (x) => x.of.e.kind === 'claimed',
      ).length;
    expect([claims(5, 15), claims(15, 25), claims(21, 25), claims(0.5, 1.5)]).toEqual([2, 2, 1, 1]);
  });
  it('what each has for itself is never taken in', () => {
    expect(acts(recorder([0, 'note', { text: 'rain' }]), onlooker([0, 'note', { text: 'rain' }]))).toHaveLength(2);
  });
  it('without others each is its own act', () => {
    expect(acts(recorder([0, 'plugged'], [1, 'plugged']))).toEqual([
      ['plugged', 0, []],
      ['plugged', 1, []],
    ]);
  });
});
