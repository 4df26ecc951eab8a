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
  it('writes every text as JSON does, whatever stands in it', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('a', 'é', '"', '\\', '\0', '\n', '\u001f', '\u007f', '\u2028', '\ud800', '\udc00', '😀') }), (s) => {
        expect(canonicalJson(s)).toBe(JSON.stringify(s));
        expect(canonicalJson({ [s]: 1 })).toBe(JSON.stringify({ [s]: 1 }));
      }),
      { seed: 13, numRuns: 500 },
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
