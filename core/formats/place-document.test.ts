import { MOST_DOCUMENT } from '../records/place-schema';
import { recordItem } from '../records/record-schema';
import { idOf } from '../visit/fixtures/story';
import { documentMembers, documentRows, placeDocument, saysTheSame } from './place-document';
import { type JsonObject, readJson } from './strict-json';

const kept = (of: object | string) => {
  const json = readJson(new TextEncoder().encode(typeof of === 'string' ? of : JSON.stringify(of)));
  if (!json.ok) throw new Error(json.code);
  return placeDocument('OCPI', json.value as JsonObject);
};

describe('what a file says of a site', () => {
  it('is kept as it stands, to the last digit, but for numbers of cards and contracts', () => {
    const text = '{"b":1.50,"a":[{"x_y":"ž","n":1e2}],"__proto__":{"p":true}}';
    expect(kept(text)).toEqual({ format: 'OCPI', text, lacks: 'nothing' });
    expect(kept({ a: 'pay 4111 1111 1111 1111', b: [{ c: 'SI-BLU-C12345678' }] }).text).toBe('{"a":"not kept","b":[{"c":"not kept"}]}');
    // A card's digits after a decimal point are none of a card, but no record that holds them is kept.
    expect(kept('{"a":14.4111111111111111}')).toMatchObject({ text: null, lacks: 'all' });
  });
  it('is kept without its posts where it is longer than is kept, else not at all', () => {
    const long = 'x'.repeat(MOST_DOCUMENT);
    expect(kept({ a: 1, evses: [{ uid: long }] })).toEqual({ format: 'OCPI', text: '{"a":1}', lacks: 'posts' });
    expect(kept({ a: long })).toEqual({ format: 'OCPI', text: null, lacks: 'all' });
    const most = 'x'.repeat(MOST_DOCUMENT - '{"a":""}'.length);
    expect([kept({ a: most }).lacks, kept({ a: `${most}x` }).lacks]).toEqual(['nothing', 'all']);
  });
  it('is the same whatever it says of the moment', () => {
    expect(
      saysTheSame(
        '{"a":1,"last_updated":"1","evses":[{"status":"CHARGING","uid":"1"}]}',
        '{"a":1,"last_updated":"2","evses":[{"status":"BLOCKED","uid":"1"}]}',
      ),
    ).toBe(true);
    expect(saysTheSame('{"a":1}', '{"a":2}')).toBe(false);
  });
  it('is read row by row: what is empty is none, lists of words are one', () => {
    expect(documentRows('{"a":"b","c":null,"d":"","e":["X","Y"],"f":[],"g":[{"h":1,"i":[true,false]},{"h":{}}],"j":[1,{"k":2}]}')).toEqual([
      { at: 'a', value: 'b' },
      { at: 'e', value: 'X, Y' },
      { at: 'g/0/h', value: '1' },
      { at: 'g/0/i', value: 'true, false' },
      { at: 'j/0', value: '1' },
      { at: 'j/1/k', value: '2' },
    ]);
  });
  it('is told of its own format alone', () => {
    const from = { format: 'OCPI' as const, day: '2025-10-01', document: '{"a":1}' };
    expect([documentMembers(from, 'OCPI'), documentMembers(from, 'GeoJSON'), documentMembers(null, 'OCPI')]).toEqual([{ a: 1 }, {}, {}]);
  });
  it.each(['', 'x', '[]', '7', 'null', `{"a":${'['.repeat(70)}${']'.repeat(70)}}`, '{"a":"4111 1111 1111 1111"}', `{"a":"${'x'.repeat(MOST_DOCUMENT)}"}`])(
    'is no record’s where it is no object that can be kept: %#',
    (document) => {
      const site = { networkId: idOf(2), name: 'Lipa Barn', zone: 'UTC', fromFile: { format: 'OCPI' as const, day: '2025-10-01', document } };
      expect(() => recordItem('site', idOf(1), site)).toThrow();
      expect(recordItem('site', idOf(1), { ...site, fromFile: { ...site.fromFile, document: '{}' } }).fields.fromFile?.document).toBe('{}');
    },
  );
});
