import { toldApart } from './told-apart';

describe('names of several', () => {
  const apart = (...list: [name: string, more: string][]) =>
    toldApart(
      list,
      ([name]) => name,
      ([, more]) => more,
    );
  it('are told apart where they are the same, and nowhere else', () => {
    expect(apart(['12 Jun', '9:10'], ['13 Jun', '9:10'], ['12 Jun', '17:40'])).toEqual(['12 Jun, 9:10', '13 Jun', '12 Jun, 17:40']);
    expect(apart()).toEqual([]);
  });
});
