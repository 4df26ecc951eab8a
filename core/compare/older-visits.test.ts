import { olderWords } from './older-visits';

describe('visits that a look is not of', () => {
  it.each([
    [1, '1 older visit is not looked at here.'],
    [1200, '1200 older visits are not looked at here.'],
  ])('%d', (n, words) => expect(olderWords(n)).toBe(words));
});
