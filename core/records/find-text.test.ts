import { findBest, findScore, plainText } from './find-text';

describe('finding by what is typed', () => {
  it('needs no accents and no case', () => {
    expect(plainText(' Žiče ĐAKOVO Łódź ')).toBe('zice dakovo lodz');
    expect(findScore('zdrávec', 'Mill of Zdravec')).toBeGreaterThan(0);
  });
  it('needs every word', () => {
    expect(findScore('vrba 4', 'Vrba Crossing, stall 4')).toBeGreaterThan(0);
    expect(findScore('vrba 5', 'Vrba Crossing, stall 4')).toBe(0);
  });
  it('the whole name first, then its beginning, then beginnings of words, then the rest', () => {
    const among = ['Old Brodland', 'Nabrod', 'Brod Landing', 'Brod'].map((text) => ({ text }));
    expect(findBest('brod', among, 9).map((x) => x.text)).toEqual(['Brod', 'Brod Landing', 'Old Brodland', 'Nabrod']);
  });
  it('nothing typed finds nothing', () => expect(findBest(' ', [{ text: 'x' }], 5)).toEqual([]));
});
