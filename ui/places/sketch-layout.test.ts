import { kmBetween } from '@/core/records/place-questions';
import { fitAll, placeAround, placeDistances, placeNames, ringStep } from './sketch-layout';

const middle = { latitude: 46.2, longitude: 14.7 };
const spot = (id: string, latitude: number, longitude: number) => ({ id, name: id, latitude, longitude });

describe('the sketch', () => {
  it('keeps true distances from its middle, and directions', () => {
    const spots = [spot('north', 46.9, 14.7), spot('east', 46.2, 15.9), spot('far', 51.5, 2.3)];
    const placed = placeAround(middle, spots);
    for (const [i, p] of placed.entries()) expect(Math.hypot(p.x, p.y)).toBeCloseTo(kmBetween(middle, spots[i] as (typeof spots)[0]), 6);
    expect(placed[0]?.y).toBeLessThan(0);
    expect(Math.abs(placed[0]?.x as number)).toBeLessThan(1e-6);
    expect(placed[1]?.x).toBeGreaterThan(0);
  });
  it.each([
    [1, 45, 50],
    [10, 45, 5],
    [0.2, 45, 500],
    [4, 40, 10],
  ])('rings at %d px per km, at least %d px apart: every %d km', (pxPerKm, least, km) => expect(ringStep(pxPerKm, least)).toBeCloseTo(km, 9));
  it('shows all points, and never less than ten km', () => {
    const f = fitAll(
      [
        { x: -50, y: 0 },
        { x: 50, y: 20 },
      ],
      300,
      200,
      20,
    );
    expect(f).toEqual({ pxPerKm: 2.6, x: 0, y: 10 });
    expect(fitAll([{ x: 3, y: 3 }], 120, 120, 10)).toEqual({ pxPerKm: 10, x: 3, y: 3 });
    expect(fitAll([], 120, 120, 10).pxPerKm).toBe(1);
  });
  it('no name covers another or a stone; the first in line chooses first, and goes without where there is no room', () => {
    const stones = Array.from({ length: 60 }, (_, i) => ({ id: String(i), name: `Site number ${i}`, x: (i * 53) % 380, y: 20 + ((i * 37) % 200) }));
    const names = placeNames(stones, { width: 390, height: 236, stone: 16, letter: 6, line: 14 }, 40);
    expect(names.length).toBeGreaterThan(2);
    const size = { width: 390, height: 236, stone: 16, letter: 6, line: 14 };
    const pair = [
      { id: 'a', name: 'Mill', x: 100, y: 100 },
      { id: 'b', name: 'Brod', x: 122, y: 100 },
    ];
    // Beside it stands a stone: the name goes to the other side.
    expect(placeNames(pair, size, 2)).toMatchObject([
      { id: 'a', align: 'right' },
      { id: 'b', align: 'left' },
    ]);
    const crowd = Array.from({ length: 81 }, (_, i) => ({
      id: String(i),
      name: 'A long name of a site',
      x: 100 + (i % 9) * 10,
      y: 60 + Math.floor(i / 9) * 10,
    }));
    expect(placeNames([crowd[40] as (typeof crowd)[0], ...crowd], size, 1).map((n) => n.id)).not.toContain('40');
    const box = (n: (typeof names)[0]) => {
      const x0 = n.x - { left: 0, right: 1, center: 0.5 }[n.align] * n.text.length * 6;
      return { x0, x1: x0 + n.text.length * 6 };
    };
    for (const a of names) for (const s of stones) expect(a.y + 7 > s.y - 16 && s.y > a.y - 7 && box(a).x0 < s.x + 8 && s.x - 8 < box(a).x1).toBe(false);
    for (const [i, a] of names.entries())
      for (const b of names.slice(i + 1)) expect(Math.abs(a.y - b.y) < 14 && box(a).x0 < box(b).x1 && box(b).x0 < box(a).x1).toBe(false);
  });
  it('writes the distances of its rings off stones and names, and leaves out what has no place', () => {
    const size = { width: 400, height: 400, stone: 16, letter: 6, line: 14 };
    const centre = { x: 200, y: 200 };
    const ring = { text: '50 km', r: 100 };
    const northEast = { x: 200 + 100 * Math.SQRT1_2, y: 200 - 100 * Math.SQRT1_2 };
    expect(placeDistances([ring], centre, size, [], [])).toMatchObject([northEast]);
    // A stone there: the north-west is next.
    expect(placeDistances([ring], centre, size, [northEast], [])).toMatchObject([{ x: 200 - 100 * Math.SQRT1_2 }]);
    const name = { id: 'a', text: 'Mill of Zdravec', x: northEast.x - 20, y: northEast.y, align: 'left' as const };
    expect(placeDistances([ring], centre, size, [], [name])[0]?.x).toBeLessThan(200);
    expect(placeDistances([{ text: '500 km', r: 1000 }], centre, size, [], [])).toEqual([]);
  });
});
