import fc from 'fast-check';
import { canonicalJson } from './canonical-json';

describe('canonical JSON', () => {
  it('sorts keys at every depth and leaves undefined out', () => {
    expect(canonicalJson({ b: [{ d: 1, c: undefined }], a: null })).toBe('{"a":null,"b":[{"d":1}]}');
  });
  it('is JSON that says the same', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (v) => expect(JSON.parse(canonicalJson(v))).toEqual(JSON.parse(JSON.stringify(v)))),
      { seed: 11, numRuns: 300 },
    );
  });
  it('does not depend on the order in which keys were set', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.integer()), (d) => {
        expect(canonicalJson(Object.fromEntries(Object.entries(d).reverse()))).toBe(canonicalJson(d));
      }),
      { seed: 12, numRuns: 200 },
    );
  });
});
