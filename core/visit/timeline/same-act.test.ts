import { STALL_A, STALL_B, type Step, story } from '../fixtures/story';
import type { Corrected } from './placed';
import { canBeSameAct, isEnding } from './same-act';

const events = (...steps: Step[]) => story(...steps) as Corrected[];
const same = (a: Step, b: Step) => {
  const [x, y] = events(a, b) as [Corrected, Corrected];
  return [canBeSameAct(x, y), canBeSameAct(y, x)];
};
const ends = (...steps: Step[]) => {
  const line = events(...steps);
  return line.map((_, i) => isEnding(line, i));
};

describe('one act seen twice', () => {
  it('is of one kind', () => {
    expect(same([0, 'plugged'], [1, 'plugged'])).toEqual([true, true]);
    expect(same([0, 'plugged'], [1, 'unplugged'])).toEqual([false, false]);
    expect(same([0, 'fault', { code: 'x' }], [1, 'change', { what: 'x' }])).toEqual([false, false]);
  });
  it('is of the same change, fault or stall', () => {
    expect(same([0, 'change', { what: 'rain' }], [1, 'change', { what: 'rain' }])).toEqual([true, true]);
    expect(same([0, 'change', { what: 'rain' }], [1, 'change', { what: 'cold' }])).toEqual([false, false]);
    expect(same([0, 'fault', { code: 'a' }], [1, 'fault', { code: 'a' }])).toEqual([true, true]);
    expect(same([0, 'fault', { code: 'a' }], [1, 'fault', { code: 'b' }])).toEqual([false, false]);
    expect(same([0, 'stall_chosen', { stallId: STALL_A }], [1, 'stall_chosen', { stallId: STALL_A }])).toEqual([true, true]);
    expect(same([0, 'stall_chosen', { stallId: STALL_A }], [1, 'stall_chosen', { stallId: STALL_B }])).toEqual([false, false]);
    expect(same([0, 'claimed', { by: 'beep' }], [1, 'claimed', { by: 'app' }])).toEqual([true, true]);
  });
});

describe('what ends an attempt', () => {
  it('unplugging, pulling out and faults that end it', () => {
    expect(ends([0, 'plugged'], [1, 'unplugged'], [2, 'pulled_out', { reason: 'enough' }])).toEqual([false, true, true]);
    expect(ends([0, 'fault', { code: 'start_error' }], [1, 'fault', { code: 'price_not_shown' }], [2, 'fault', { code: 'of_a_newer_list' }])).toEqual([
      true,
      false,
      false,
    ]);
  });
  it('a move to another stall, not the first choice nor the same one again', () => {
    const chosen = (at: number, stallId: string): Step => [at, 'stall_chosen', { stallId }];
    expect(ends(chosen(0, STALL_A), chosen(1, STALL_A), chosen(2, STALL_B), chosen(3, STALL_B), chosen(4, STALL_A))).toEqual([false, false, true, false, true]);
    expect(ends([0, 'plugged'], chosen(1, STALL_B))).toEqual([false, false]);
  });
});
