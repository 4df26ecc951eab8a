import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import land from 'world-atlas/land-50m.json';

/** A ring as it is walked, longitudes running on over the line of dates; its edges by the band of latitude that they go through. */
type Ring = { west: number; east: number; bands: ReadonlyMap<number, Float64Array> };
const topology = land as unknown as Topology<{ land: GeometryCollection }>;
let rings: Ring[] | null = null;

/** Bands of half a degree: of Eurasia's sixty thousand edges a few hundred lie in one. */
const bandOf = (latitude: number): number => Math.floor(latitude * 2);

/** Every ring of land, of lakes and seas within it too. Made when first asked: half a megabyte is read then. */
function everyRing(): Ring[] {
  rings ??= feature(topology, topology.objects.land)
    .features.flatMap((f) => (f.geometry.type === 'MultiPolygon' ? f.geometry.coordinates : []))
    .flat()
    .map(ringOf);
  return rings;
}

function ringOf(points: readonly GeoJSON.Position[]): Ring {
  let [before, turns] = [points[0]?.[0] as number, 0];
  const walked = points.map(([lon, lat]) => {
    // A step over the line of dates is no step around the earth.
    if ((lon as number) - before > 180) turns -= 360;
    else if (before - (lon as number) > 180) turns += 360;
    before = lon as number;
    return [(lon as number) + turns, lat as number] as const;
  });
  const [first, last] = [walked[0] as readonly [number, number], walked.at(-1) as readonly [number, number]];
  // Once around the earth: what lies within goes down to the pole.
  if (Math.abs(last[0] - first[0]) > 180) walked.push([last[0], -90], [first[0], -90], first);
  const bands = new Map<number, number[]>();
  let [west, east] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const [i, [x, y]] of walked.entries()) {
    [west, east] = [Math.min(west, x), Math.max(east, x)];
    const from = walked[i - 1];
    if (!from || from[1] === y) continue;
    for (let band = bandOf(Math.min(from[1], y)); band <= bandOf(Math.max(from[1], y)); band++) {
      const edges = bands.get(band) ?? [];
      bands.set(band, edges);
      edges.push(...from, x, y);
    }
  }
  return { west, east, bands: new Map([...bands].map(([band, edges]) => [band, Float64Array.from(edges)])) };
}

/** A coast is drawn to a few kilometres, and small islands not at all: so near to land nothing is said to be at sea, degrees. */
const NEAR = 0.25;
const AROUND = [
  [0, 0],
  [0, NEAR],
  [0, -NEAR],
  [NEAR, 0],
  [-NEAR, 0],
] as const;

/** True for a position that lies well off every coast. Land of Natural Earth 1:50m (public domain). */
export function atSea(latitude: number, longitude: number): boolean {
  return !AROUND.some(([dLat, dLon]) => {
    const lat = Math.max(-90, Math.min(90, latitude + dLat));
    return isLand(lat, longitude + dLon / Math.max(0.1, Math.cos((lat * Math.PI) / 180)));
  });
}

/** Whether a place lies within an odd number of rings: a register of a country asks tens of thousands of times. */
function isLand(lat: number, lon: number): boolean {
  const band = bandOf(lat);
  let within = false;
  for (const { west, east, bands } of everyRing()) {
    const edges = bands.get(band);
    if (edges) for (const x of [lon - 360, lon, lon + 360]) if (x >= west && x <= east && crossings(edges, lat, x) % 2 === 1) within = !within;
  }
  return within;
}

/** Edges to the east of a place, on its latitude. They are short: that the earth is round bends none of them by more than the coast is drawn to. */
function crossings(edges: Float64Array, lat: number, lon: number): number {
  let n = 0;
  for (let i = 0; i < edges.length; i += 4) {
    const [x1, y1, x2, y2] = [edges[i] as number, edges[i + 1] as number, edges[i + 2] as number, edges[i + 3] as number];
    if (y1 > lat !== y2 > lat && lon < x1 + ((lat - y1) / (y2 - y1)) * (x2 - x1)) n += 1;
  }
  return n;
}
