import { geojsonIn } from './geojson';
import { cdrsIn } from './ocpi-cdrs';
import { locationsIn } from './ocpi-locations';
import { tariffsIn } from './ocpi-tariffs';
import type { Json } from './strict-json';

// More than a call takes as its arguments (some 120,000 on this Node.js, measured): a hostile file of a few megabytes holds them.
const MANY = 140_000;
const empties = (n: number): Json => Array.from({ length: n }, () => new Map<string, Json>());
const members = (): [string, Json][] => Array.from({ length: MANY }, (_, i) => [`m${i}`, true]);
const object = (of: [string, Json][]): Json => new Map(of);

describe('of a file that is wrong in very many places every one is told', () => {
  it.each([
    ['Locations', locationsIn, 'evses', 2],
    ['CDRs', cdrsIn, 'charging_periods', 2],
    ['tariffs', tariffsIn, 'elements', 1],
  ] as const)('%s, of whose parts each lacks so many things', (_, read, list, lacks) => {
    expect(read([object([[list, empties(MANY / lacks)]])]).breaches.length).toBeGreaterThanOrEqual(MANY);
  });
  it('members that a standard does not have, of a collection, a feature and its geometry', () => {
    const point: [string, Json][] = [
      ['type', 'Feature'],
      ['properties', object([['name', 'Brod Landing']])],
    ];
    const geometry = object([...members(), ['type', 'Point']]);
    const collection = (features: Json, more: [string, Json][] = []) => object([['type', 'FeatureCollection'], ['features', features], ...more]);
    const kept = (document: Json) => geojsonIn(document, [], () => false).kept.length;
    expect(kept(collection([], members()))).toBe(MANY);
    expect(kept(collection([object([...point, ['geometry', null], ...members()])]))).toBe(MANY);
    expect(geojsonIn(collection([object([...point, ['geometry', geometry]])]), [], () => false).breaches.length).toBe(1);
  });
});
