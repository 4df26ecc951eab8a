import { geoBounds, geoContains } from 'd3-geo';
import { feature } from 'topojson-client';
import type { GeometryCollection, Topology } from 'topojson-specification';
import land from 'world-atlas/land-50m.json';

type Box = [[west: number, south: number], [east: number, north: number]];
const topology = land as unknown as Topology<{ land: GeometryCollection }>;
let pieces: { box: Box; shape: GeoJSON.Polygon }[] | null = null;

/** Every piece of land with the box around it. Made when first asked: half a megabyte is read then. */
function everyPiece() {
  pieces ??= feature(topology, topology.objects.land)
    .features.flatMap((f) => (f.geometry.type === 'MultiPolygon' ? f.geometry.coordinates : []))
    .map((coordinates) => {
      const shape: GeoJSON.Polygon = { type: 'Polygon', coordinates };
      return { shape, box: geoBounds(shape) as Box };
    });
  return pieces;
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
    const lon = longitude + dLon / Math.max(0.1, Math.cos((lat * Math.PI) / 180));
    return everyPiece().some(({ box, shape }) => within(box, lat, lon) && geoContains(shape, [lon, lat]));
  });
}

/** Boxes may go over the line of dates: west is east of east then. */
const within = ([[west, south], [east, north]]: Box, lat: number, lon: number): boolean =>
  lat >= south && lat <= north && (west <= east ? lon >= west && lon <= east : lon >= west || lon <= east);
