import { finish, type Steps } from '../units/steps';
import { cdrOf } from './fixtures/cdr';
import { readingGeojson } from './geojson';
import { cdrsIn, readingCdrs } from './ocpi-cdrs';
import { readingLocations } from './ocpi-locations';
import { readingJson, readJson } from './strict-json';
import { proposingTariffs } from './tariff-proposals';

const AT = Date.UTC(2025, 9, 14, 12);
const json = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
/** What it came to, and how often others could have had their turn. */
function counted<T>(steps: Steps<T>): [T, number] {
  for (let turns = 0; ; turns++) {
    const step = steps.next();
    if (step.done) return [step.value, turns];
  }
}

describe('a long file', () => {
  it('of JSON is read in steps to what it is at once, and what is wrong far in is told', () => {
    const long = Array.from({ length: 10_000 }, (_, i) => (i % 3 === 0 ? { a: [i] } : String(i)));
    const [read, turns] = counted(readingJson(json(long)));
    expect(read).toEqual(readJson(json(long)));
    expect(read.ok).toBe(true);
    expect(turns).toBeGreaterThanOrEqual(10);
    expect(finish(readingJson(json(long).slice(0, -5)))).toMatchObject({ ok: false, code: 'not_json' });
  });
  it('of CDRs has a step for each', () => {
    const read = readJson(json(Array.from({ length: 7 }, (_, i) => cdrOf({ start: AT, end: AT + 1_800_000 }, { id: `C${i}` }))));
    if (!read.ok) throw new Error(read.code);
    const [got, turns] = counted(readingCdrs(read.value));
    expect(got.bills).toHaveLength(7);
    expect(got).toEqual(cdrsIn(read.value));
    expect(turns).toBe(7);
  });
  it('of features, Locations and Tariffs has a step for each', () => {
    const value = (of: unknown) => {
      const read = readJson(json(of));
      if (!read.ok) throw new Error(read.code);
      return read.value;
    };
    const seven = (of: (i: number) => object) => Array.from({ length: 7 }, (_, i) => of(i));
    const features = seven((i) => ({ type: 'Feature', geometry: null, properties: { name: `S${i}` } }));
    const [geo, ofFeatures] = counted(readingGeojson(value({ type: 'FeatureCollection', features }), [], () => false));
    expect([geo.sites.length, ofFeatures]).toEqual([7, 7]);
    const [locations, ofLocations] = counted(readingLocations(value(seven((i) => ({ id: `L${i}` })))));
    expect([locations.sites.length, ofLocations]).toEqual([0, 7]);
    const tariff = (i: number) => ({
      ...{ country_code: 'SI', party_id: 'SMR', id: `T${i}`, currency: 'EUR', last_updated: '2026-01-01T00:00:00Z' },
      elements: [{ price_components: [{ type: 'ENERGY', price: 0.5, step_size: 1 }] }],
    });
    const [tariffs, ofTariffs] = counted(proposingTariffs(value(seven(tariff)), 'UTC'));
    // Read, then proposed.
    expect([tariffs.proposals.length, ofTariffs]).toEqual([7, 14]);
  });
});
