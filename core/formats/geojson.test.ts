import { geoContains } from 'd3-geo';
import { feature } from 'topojson-client';
import land from 'world-atlas/land-50m.json';
import { atSea } from './at-sea';
import fixtures from './fixtures/geojson.json';
import { type GeoRead, geojsonIn, geojsonOut } from './geojson';
import { readJson } from './strict-json';

// biome-ignore lint/suspicious/noExplicitAny: a case is read as it stands in the file.
type Any = any;
const read = (text: string, known = fixtures.known): GeoRead => {
  const json = readJson(new TextEncoder().encode(text));
  if (!json.ok) throw new Error(json.code);
  return geojsonIn(json.value, known, atSea);
};
const point = (coordinates: unknown, properties: object = { name: 'A' }, more: object = {}) =>
  JSON.stringify({ type: 'Feature', geometry: { type: 'Point', coordinates }, properties, ...more });
const sorted = (list: readonly unknown[]) => list.map((x) => JSON.stringify(x)).sort();

describe('sites as GeoJSON, in', () => {
  it.each(fixtures.cases.flatMap((c: Any) => (c.expected ? [[c.id, c.title, c] as const] : [])))('%s: %s', (_id, _title, c) => {
    const got = read(c.text);
    expect(sorted(got.sites)).toEqual(sorted(c.expected.sites));
    expect(sorted(got.breaches)).toEqual(sorted(c.expected.breaches));
    expect([...got.kept].sort()).toEqual([...c.expected.kept].sort());
  });
  // RFC 7946, 1.5: the example of a FeatureCollection, from memory. Of its three features the point alone can be a site, and it has no name.
  it('the example of the standard: no site, each feature with its reason', () => {
    const example = {
      type: 'FeatureCollection',
      features: [
        { type: 'Feature', geometry: { type: 'Point', coordinates: [102.0, 0.5] }, properties: { prop0: 'value0' } },
        {
          type: 'Feature',
          geometry: {
            type: 'LineString',
            coordinates: [
              [102.0, 0.0],
              [103.0, 1.0],
            ],
          },
          properties: { prop0: 'value0', prop1: 0.0 },
        },
        {
          type: 'Feature',
          geometry: {
            type: 'Polygon',
            coordinates: [
              [
                [100.0, 0.0],
                [101.0, 0.0],
                [101.0, 1.0],
                [100.0, 1.0],
                [100.0, 0.0],
              ],
            ],
          },
          properties: { prop1: { this: 'that' } },
        },
      ],
    };
    expect(read(JSON.stringify(example)).breaches).toEqual([
      { pointer: '/features/0/properties/name', code: 'no_name' },
      { pointer: '/features/1/geometry/type', code: 'geometry' },
      { pointer: '/features/1/properties/name', code: 'no_name' },
      { pointer: '/features/2/geometry/type', code: 'geometry' },
      { pointer: '/features/2/properties/name', code: 'no_name' },
    ]);
  });
  it.each([
    ['a feature alone', point([14, 46]), [], 1],
    ['the altitude, and what is beyond it', point([14, 46, 300, 1]), [], 1],
    ['a feature that is none', '{"type":"FeatureCollection","features":[7]}', [{ pointer: '/features/0', code: 'feature' }], 0],
    ['no list of features', '{"type":"FeatureCollection"}', [{ pointer: '/features', code: 'not_geojson' }], 0],
    ['a list', '[]', [{ pointer: '', code: 'not_geojson' }], 0],
    ['a geometry that is no object', '{"type":"Feature","geometry":[14,46],"properties":{"name":"A"}}', [{ pointer: '/geometry', code: 'geometry' }], 0],
    ['a zone that is none', point([14, 46], { name: 'A', zone: 'Mars/Olympus' }), [{ pointer: '/properties/zone', code: 'zone' }], 0],
    ['a zone that is no text', point([14, 46], { name: 'A', zone: 7 }), [{ pointer: '/properties/zone', code: 'zone' }], 0],
    [
      'both beyond their bounds',
      point([181, -91]),
      [
        { pointer: '/geometry/coordinates/0', code: 'bounds' },
        { pointer: '/geometry/coordinates/1', code: 'bounds' },
      ],
      0,
    ],
    ['an altitude in words', point([14, 46, 'high']), [{ pointer: '/geometry/coordinates', code: 'coordinates' }], 0],
    ['no properties', '{"type":"Feature","geometry":null,"properties":null}', [{ pointer: '/properties/name', code: 'no_name' }], 0],
    [
      'another system of coordinates',
      point([14, 46], { name: 'A' }, { crs: { type: 'name', properties: { name: 'EPSG:3857' } } }),
      [{ pointer: '/crs', code: 'crs' }],
      0,
    ],
    ['the one that it is anyway', point([14, 46], { name: 'A' }, { crs: { type: 'name', properties: { name: 'urn:ogc:def:crs:OGC:1.3:CRS84' } } }), [], 1],
    ['a name that is no text', point([14, 46], { name: 7 }), [{ pointer: '/properties/name', code: 'no_name' }], 0],
  ])('%s', (_what, text, breaches, sites) => {
    const got = read(text);
    expect(got.breaches).toEqual(breaches);
    expect(got.sites).toHaveLength(sites);
  });
  it('keeps the altitude, what else is said, and where members stand that the standard does not have', () => {
    const got = read(
      JSON.stringify({
        type: 'Feature',
        bbox: [1],
        'x/y': 1,
        geometry: { type: 'Point', coordinates: [14, 46, 300], z: 1 },
        properties: { name: 'A', network: 7, zone: null },
      }),
    );
    expect(got.sites[0]).toMatchObject({ altitude: 300, network: null, rest: { network: 7 } });
    expect(got.kept).toEqual(['/x~1y', '/geometry/z']);
  });
  it('asks by what is known: nothing is far where nothing is known, and nothing has moved less than a kilometre', () => {
    expect(read(point([36.8, -1.3]), []).sites[0]?.asks).toEqual([]);
    expect(read(point([45.9, 14.5]), []).sites[0]?.asks).toEqual([]);
    expect(read(point([12.2, 39.9]), []).sites[0]?.asks).toEqual(['swapped']);
    // At sea, and on land when turned: a position is asked about, never turned.
    expect(read(point([-25, 60]), []).sites[0]).toMatchObject({ asks: ['at_sea'], better: null });
    expect(read(point([10, -40]), []).sites[0]).toMatchObject({ latitude: -40, longitude: 10 });
    const at = (km: number) => [{ name: 'a', latitude: 46 + km / 111.195, longitude: 14, network: '', zone: '', stalls: [] }];
    expect(read(point([14, 46]), at(0.99)).sites[0]?.asks).toEqual([]);
    expect(read(point([14, 46]), at(1.01)).sites[0]?.asks).toEqual(['moved']);
    expect(read(point([14, 46]), at(1499)).sites[0]?.asks).toEqual(['moved']);
    expect(read(point([14, 46]), at(1501)).sites[0]?.asks).toEqual(['far']);
  });
});

describe('sites as GeoJSON, out', () => {
  it.each(fixtures.cases.flatMap((c: Any) => (c.sites ? [[c.id, c.title, c] as const] : [])))('%s: %s', (_id, _title, c) => {
    expect(geojsonOut(c.sites)).toEqual(JSON.parse(c.text));
  });
  it('members of the feature that a site came from go out with it; what is here goes before them', () => {
    const feature = {
      type: 'Feature',
      id: 'there',
      bbox: [1],
      crs: {},
      x_more: { a: 1 },
      geometry: null,
      properties: { name: 'B', colour: 'red', note: 'theirs' },
    };
    const out = geojsonOut([{ id: '1', name: 'A', latitude: 46, longitude: 14, note: null }], new Map([['1', feature]]));
    expect(out).toEqual({
      type: 'FeatureCollection',
      features: [
        {
          type: 'Feature',
          id: '1',
          x_more: { a: 1 },
          geometry: { type: 'Point', coordinates: [14, 46] },
          properties: { name: 'A', colour: 'red', note: 'theirs' },
        },
      ],
    });
  });
  it('rounds half up, both ways, and comes in again as it went out', () => {
    const out = geojsonOut([{ id: '1', name: 'A', latitude: -46.0000005, longitude: 14.0000005, network: 'B', zone: 'Europe/Ljubljana', note: undefined }]);
    expect(out).toMatchObject({
      features: [{ geometry: { coordinates: [14.000001, -46.000001] }, properties: { name: 'A', network: 'B', zone: 'Europe/Ljubljana' } }],
    });
    expect(read(JSON.stringify(out)).sites[0]).toMatchObject({
      name: 'A',
      network: 'B',
      latitude: -46.000001,
      longitude: 14.000001,
      zone: 'Europe/Ljubljana',
      ref: '1',
      rest: {},
    });
  });
});

// Common knowledge, no source: what lies in the middle of an ocean or a country.
describe('at sea', () => {
  it.each([
    ['the Tyrrhenian Sea', 39.9, 12.2, true],
    ['the Gulf of Guinea', 0, 0, true],
    ['the Pacific at the line of dates', 30, 180, true],
    ['the Caspian Sea is no sea of the oceans, but no land either', 42, 50.5, true],
    ['Ljubljana', 46.05, 14.5, false],
    ['Nairobi', -1.29, 36.82, false],
    ['a harbour', 45.55, 13.72, false],
    ['an island', 35.2, 25, false],
    ['Chukotka, beyond the line of dates', 67, -175, false],
    ['the pole', -90, 0, false],
  ])('%s', (_what, latitude, longitude, expected) => {
    expect(atSea(latitude, longitude)).toBe(expected);
  });
  // The same land asked of d3-geo, which goes by great circles: at the line of dates, the poles, within a sea within land, on a long coast.
  it.each([
    [66, -175],
    [66.2, 179.99],
    [68.5, -180],
    [72, 180],
    [-89, 179.9],
    [-77.5, -180],
    [-72, -60.5],
    [-66.5, 140],
    [43.5, 51.5],
    [45, 13.1],
    [37.4, 140],
    [84, 0],
  ])('%d, %d as by great circles', (latitude, longitude) => {
    const all = feature(land as never, (land as { objects: { land: unknown } }).objects.land as never) as unknown as GeoJSON.FeatureCollection;
    const isLand = (lat: number, lon: number) => geoContains(all, [lon, lat]);
    const east = 0.25 / Math.max(0.1, Math.cos((latitude * Math.PI) / 180));
    const near = [
      [0, 0],
      [0.25, 0],
      [-0.25, 0],
      [0, east],
      [0, -east],
    ] as const;
    expect(atSea(latitude, longitude)).toBe(!near.some(([dLat, dLon]) => isLand(latitude + dLat, longitude + dLon)));
  });
});
