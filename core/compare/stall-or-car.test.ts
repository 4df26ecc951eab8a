import { start } from './fixtures/starts';
import { stallOrCar, stallOrCarText } from './stall-or-car';

let at = 0;
const runs = (n: number, yes: boolean, carId: string | null, stallId: string) =>
  Array.from({ length: n }, () => {
    at += 1;
    // Each failure is an outage of its own: the stall was seen working in between.
    return { ...start('N', yes, { stallId, at, workedAt: [stallId] }), carId };
  });
const text = (...all: ReturnType<typeof runs>[]) => stallOrCar(all.flat(), 'S').map((x) => stallOrCarText(x, x.carId));

describe('the stall or the car', () => {
  it('a car that starts elsewhere and not here, where others do not start either: the stall', () => {
    expect(text(runs(12, false, 'heron', 'S'), runs(30, true, 'heron', 'T'), runs(6, false, 'badger', 'S'))).toEqual([
      'badger started here at 0 of 6 visits; other cars here 0 of 12 visits, badger elsewhere 0 of 0 visits. Cannot tell yet whether it is the stall or the car.',
      'heron started here at 0 of 12 visits; other cars here 0 of 6 visits, heron elsewhere 30 of 30 visits. It is clearly the stall.',
    ]);
  });
  it('others start here, this one nowhere: the car', () => {
    expect(text(runs(12, false, 'heron', 'S'), runs(12, false, 'heron', 'T'), runs(30, true, 'badger', 'S'))[0]).toMatch(/It is clearly the car\.$/);
  });
  it('others start here, and this one elsewhere: the two together', () => {
    expect(text(runs(12, false, 'heron', 'S'), runs(30, true, 'heron', 'T'), runs(30, true, 'badger', 'S'))[0]).toMatch(/It is clearly the two together\.$/);
    expect(text(runs(3, false, 'heron', 'S'), runs(30, true, 'heron', 'T'), runs(3, true, 'badger', 'S'))[0]).toMatch(/It is probably the two together\.$/);
  });
  it('of little nothing is said, of a stall that never failed nothing at all', () => {
    expect(text(runs(1, false, 'heron', 'S'), runs(2, true, 'heron', 'T'), runs(2, true, 'badger', 'S'))[0]).toMatch(/Cannot tell yet/);
    expect(text(runs(9, true, 'heron', 'S'))).toEqual([]);
    expect(text(runs(9, false, null, 'S'))).toEqual([]);
    // More often here than anywhere: nothing speaks against it.
    expect(text(runs(1, false, 'heron', 'S'), runs(20, true, 'heron', 'S'), runs(20, false, 'heron', 'T'), runs(20, false, 'badger', 'S'))[1]).toMatch(
      /Cannot tell yet/,
    );
  });
  it('one outage is one failure', () => {
    const down = Array.from({ length: 12 }, (_, i) => ({ ...start('N', false, { stallId: 'S', at: 1000 + i }), carId: 'heron' }));
    expect(stallOrCar([...down, ...runs(30, true, 'heron', 'T')], 'S')).toMatchObject([{ here: { yes: 0, n: 1 }, stall: 'cannot_tell' }]);
  });
});
