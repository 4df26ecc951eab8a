import { codeDigits, codeTyped, printCode, visitCode, wholeCode } from './visit-code';

const ID = '01900000-0000-7000-8000-0a1b7c2f09ab';

it('is the random end of the id, in two halves', () => {
  expect([codeDigits(ID), visitCode(ID), printCode('7C2F09AB')]).toEqual(['7C2F09AB', '7C2F-09AB', '7C2F-09AB']);
  expect(codeDigits('01900000-0000-7000-8000-00000000-09ab')).toBe('000009AB');
});
it.each([
  ['7c2f', '7C2F', null],
  ['7C2F-09AB', '7C2F09AB', '7C2F09AB'],
  ['7C2F – 09 ab', '7C2F09AB', '7C2F09AB'],
  ['7C2F09A', '7C2F09A', null],
  ['7C2', null, null],
  ['7C2F09AB1', null, null],
  ['7C2G', null, null],
  ['x7C2F', null, null],
  ['', null, null],
])('%j typed is %j, whole %j', (typed, some, whole) => expect([codeTyped(typed), wholeCode(typed)]).toEqual([some, whole]));
