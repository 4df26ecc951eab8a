import { firstLetters } from './first-letters';

it('the first letters of a text are whole characters', () => {
  expect([firstLetters('abcd', 3), firstLetters('ab', 3), firstLetters('', 3), firstLetters('a😀bc', 3)]).toEqual(['abc', 'ab', '', 'a😀b']);
});
