import { withTold } from './trial-steps';

const round = (id: string, visitId: string, n: number, side: string) => ({ id, visitId, kind: 'trial_round', payload: { trialId: 'T', round: n, side } });

it('adds what was told here to what the server knows', () => {
  expect(withTold({ T: ['1a'], U: ['2b'] }, [round('e', 'v', 1, 'b'), { kind: 'note', payload: { text: 'x' } }])).toEqual({ T: ['1a', '1b'], U: ['2b'] });
  expect(withTold({}, [{ kind: 'trial_round', payload: { trialId: 'T', round: 3 } }])).toEqual({ T: ['3'] });
});
it('what was taken back, alone or with its visit, was not run', () => {
  const back = (target: string) => ({ id: 'w', visitId: 'v', kind: 'withdrawal', payload: { target } });
  const told = [round('e', 'v', 1, 'a'), round('f', 'x', 1, 'b')];
  expect(withTold({}, [...told, back('e')])).toEqual({ T: ['1b'] });
  expect(withTold({}, [...told, back('x')])).toEqual({ T: ['1a'] });
  expect(withTold({ T: ['9a'] }, [back('e')])).toEqual({ T: ['9a'] });
});
