import { geoAzimuthalEquidistant } from 'd3-geo';
import { kmBetween, type Position } from '@/core/records/place-questions';

/** A point of the sketch in km east and south of its middle. */
export type PlacedPoint = { id: string; name: string; x: number; y: number };
export type Spot = { id: string; name: string } & Position;

/**
 * Places sites around a middle by the azimuthal equidistant projection: every distance from the middle is true,
 * so that distance rings are circles.
 */
export function placeAround(middle: Position, spots: readonly Spot[]): PlacedPoint[] {
  const project = geoAzimuthalEquidistant().rotate([-middle.longitude, -middle.latitude]).translate([0, 0]).scale(1);
  const probe = project([middle.longitude, Math.min(90, middle.latitude + 0.01)]) ?? [0, -1];
  const kmPerUnit = kmBetween(middle, { latitude: Math.min(90, middle.latitude + 0.01), longitude: middle.longitude }) / Math.abs(probe[1] || 1);
  return spots.map((s) => {
    const [x, y] = project([s.longitude, s.latitude]) ?? [0, 0];
    return { id: s.id, name: s.name, x: x * kmPerUnit, y: y * kmPerUnit };
  });
}

/** Distance between rings: 1, 2 or 5 times a power of ten km, at least `leastPx` apart. @param pxPerKm scale of the sketch */
export function ringStep(pxPerKm: number, leastPx: number): number {
  const least = leastPx / pxPerKm;
  const power = 10 ** Math.floor(Math.log10(least));
  return ([1, 2, 5, 10].find((m) => m * power >= least) ?? 10) * power;
}

/** Scale and middle of a window of `width` × `height` px that shows all points. Pixels per km, and the km at its centre. */
export function fitAll(
  points: readonly { x: number; y: number }[],
  width: number,
  height: number,
  marginPx: number,
): { pxPerKm: number; x: number; y: number } {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (points.length === 0) return { pxPerKm: 1, x: 0, y: 0 };
  // A single site, or sites in one town, still stand in a landscape of ten km.
  const across = Math.max(x1 - x0, 10);
  const down = Math.max(y1 - y0, 10);
  return { pxPerKm: Math.min((width - 2 * marginPx) / across, (height - 2 * marginPx) / down), x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
}

export type Label = { id: string; text: string; x: number; y: number; align: 'left' | 'right' | 'center' };
type Box = { x0: number; y0: number; x1: number; y1: number };
const boxOf = (l: Label, letter: number, line: number): Box => {
  const long = l.text.length * letter;
  const x0 = l.align === 'left' ? l.x : l.align === 'right' ? l.x - long : l.x - long / 2;
  return { x0, x1: x0 + long, y0: l.y - line / 2, y1: l.y + line / 2 };
};
const stoneBox = (s: { x: number; y: number }, stone: number): Box => ({ x0: s.x - stone / 2, x1: s.x + stone / 2, y0: s.y - stone, y1: s.y });
const over = (a: Box, b: Box) => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

/**
 * Which stones get their name beside or under them, so that no name covers another name or a stone.
 * Earlier ones go first and have more places to go to; what finds none stays without. After `most` names it stops.
 * @param stones on the screen, px; a stone's foot stands at its point
 */
export function placeNames(
  stones: readonly { id: string; name: string; x: number; y: number }[],
  size: { width: number; height: number; stone: number; letter: number; line: number },
  most: number,
): Label[] {
  const half = size.stone / 2;
  const taken: Box[] = stones.slice(0, 400).map((s) => stoneBox(s, size.stone));
  const out: Label[] = [];
  for (const s of stones) {
    if (out.length >= most) break;
    const y = s.y - size.stone / 2;
    const places: Label[] = [
      { id: s.id, text: s.name, x: s.x + half + 4, y, align: 'left' },
      { id: s.id, text: s.name, x: s.x - half - 4, y, align: 'right' },
      { id: s.id, text: s.name, x: s.x, y: s.y + size.line / 2 + 1, align: 'center' },
      { id: s.id, text: s.name, x: s.x, y: s.y - size.stone - size.line / 2 - 3, align: 'center' },
      { id: s.id, text: s.name, x: s.x + half + 2, y: y - size.line, align: 'left' },
      { id: s.id, text: s.name, x: s.x + half + 2, y: y + size.line, align: 'left' },
      { id: s.id, text: s.name, x: s.x - half - 2, y: y - size.line, align: 'right' },
      { id: s.id, text: s.name, x: s.x - half - 2, y: y + size.line, align: 'right' },
    ];
    for (const label of places) {
      const box = boxOf(label, size.letter, size.line);
      if (box.x0 < 2 || box.x1 > size.width - 2 || box.y0 < 0 || box.y1 > size.height) continue;
      if (taken.some((t) => over(t, box))) continue;
      taken.push(box);
      out.push(label);
      break;
    }
  }
  return out;
}

/** Where on a ring its distance may stand, of a full turn from the east, clockwise. */
const ON_RING = [7, 5, 1, 3, 6, 0, 4, 2].map((eighth) => (eighth / 8) * 2 * Math.PI);

/**
 * Where the distance of each ring is written: on the ring, off every stone and name. A ring with no such place goes without.
 * @param rings the smallest first, `r` in px @param size as for the names
 */
export function placeDistances(
  rings: readonly { text: string; r: number }[],
  centre: { x: number; y: number },
  size: { width: number; height: number; stone: number; letter: number; line: number },
  stones: readonly { x: number; y: number }[],
  names: readonly Label[],
): Label[] {
  const taken = [...stones.slice(0, 400).map((s) => stoneBox(s, size.stone)), ...names.map((n) => boxOf(n, size.letter, size.line))];
  return rings.flatMap(({ text, r }): Label[] => {
    const places = ON_RING.map((turn): Label => ({ id: text, text, x: centre.x + r * Math.cos(turn), y: centre.y + r * Math.sin(turn), align: 'center' }));
    const free = places.find((label) => {
      const box = boxOf(label, size.letter, size.line);
      return box.x0 >= 2 && box.x1 <= size.width - 2 && box.y0 >= 0 && box.y1 <= size.height && !taken.some((t) => over(t, box));
    });
    return free ? [free] : [];
  });
}
