import { asideLabel } from './aside-label';
import { attemptsText, attemptText, outcomeText } from './attempt-text';
import { story } from './fixtures/story';

describe('attempts in words', () => {
  it('how one came out', () => {
    expect(outcomeText({ kind: 'power' } as never)).toBe('power');
    expect(outcomeText({ kind: 'failed', reason: 'Start error' } as never)).toBe('failed (start error)');
    expect(outcomeText({ kind: 'gave_up', reason: 'No power was seen' } as never)).toBe('gave up (no power was seen)');
    expect(outcomeText({ kind: 'open', reason: 'Waiting' } as never)).toBe('open (waiting)');
  });
  it('in a line, with the stall or without', () => {
    const one = { n: 2, outcome: { kind: 'power' } } as never;
    expect(attemptText(one, '4')).toBe('2. Stall 4: power');
    expect(attemptText(one, '')).toBe('2. Stall not named: power');
  });
  it.each([
    [[], null],
    [[2], 'attempt 2'],
    [[1, 3], 'attempts 1 and 3'],
    [[1, 2, 4], 'attempts 1, 2 and 4'],
  ])('%j is %s', (numbers, text) => expect(attemptsText(numbers)).toBe(text));
});

it('what stands beside the line says why', () => {
  const [correction, withdrawal] = story([1, 'correction', { target: 'x' }], [2, 'withdrawal', { target: 'x' }]);
  expect(asideLabel(correction as never)).toBe('a correction of something that is not here yet');
  expect(asideLabel(withdrawal as never)).toBe('the taking back of something that is not here yet');
  expect(asideLabel({ ...correction, v: 2 } as never)).toBe('“correction” of a newer version');
  expect(asideLabel({ ...withdrawal, v: 2 } as never)).toBe('“withdrawal” of a newer version');
  expect(asideLabel({ ...correction, kind: 'hologram_shown_twice', v: 1 } as never)).toBe('“hologram shown twice” of a newer version');
});
