import { WIDTH } from './pdf-sheet';
import { placedWords } from './pdf-tape';

const at = (...xs: number[]) => placedWords(xs.map((x, i) => ({ x, text: `mark no. ${i}` })));

describe('words above a tape on paper', () => {
  it('stand in one row where there is room, in the next where one is in the way', () => {
    expect(at(0, 100, 200).map((w) => w.row)).toEqual([0, 0, 0]);
    expect(at(0, 5, 10).map((w) => w.row)).toEqual([0, 1, 2]);
    expect(at(0, 5, 100).map((w) => w.row)).toEqual([0, 1, 0]);
  });
  it('those that find no room are left out, and none lies over another or beyond the edge', () => {
    const words = at(...Array.from({ length: 60 }, (_, i) => (i * WIDTH) / 59));
    expect(words.length).toBeLessThan(60);
    for (const [i, a] of words.entries()) {
      expect(a.at).toBeGreaterThanOrEqual(0);
      expect(a.at + a.text.length * 3.5).toBeLessThanOrEqual(WIDTH + 0.001);
      for (const b of words.slice(i + 1)) if (a.row === b.row) expect(b.at).toBeGreaterThanOrEqual(a.at + a.text.length * 3.5);
    }
  });
  it('keep the place of what they tell, also at the right edge', () => {
    expect(at(WIDTH)[0]).toMatchObject({ x: WIDTH, row: 0 });
    expect(at(WIDTH)[0]?.at).toBeLessThan(WIDTH - 20);
    expect(placedWords([])).toEqual([]);
  });
});
