import fc from 'fast-check';
import { MOST_DEPTH, unkeepable } from './keepable-json';

const nested = (depth: number): unknown => (depth === 0 ? 1 : { in: nested(depth - 1) });

describe('a JSON value that can be kept', () => {
  it.each<[string, unknown]>([
    ['plain values', { a: 1, b: 'two', c: [true, null, -0.5], d: { e: '' } }],
    ['whole emoji, other scripts, line ends', 'Škofja Loka 😀\n☂ עברית'],
    ['nesting up to the bound', nested(MOST_DEPTH)],
  ])('%s', (_what, value) => expect(unkeepable(value, 'payload')).toBeNull());
  it.each<[string, unknown, string, string]>([
    ['half a pair at the end', { a: ['x\ud83d'] }, 'payload.a.0', 'holds half a character'],
    ['half a pair at the start', '\ude00x', 'payload', 'holds half a character'],
    ['the wrong way round', '\ude00\ud83d', 'payload', 'holds half a character'],
    ['a zero', { a: 'a\u0000' }, 'payload.a', 'holds a character that cannot be shown'],
    ['no number', { a: Number.POSITIVE_INFINITY }, 'payload.a', 'is a number too large to keep'],
    ['nesting beyond the bound', nested(MOST_DEPTH + 1), 'payload.in', 'is nested too deeply'],
    ['a name behind the object', JSON.parse('{"a":{"__proto__":1}}'), 'payload.a.__proto__', 'is a name that cannot be kept'],
    ['half a name', { '\ud83d': 1 }, 'payload', 'has a name that holds half a character'],
  ])('is not %s', (_what, value, path, reason) => expect(unkeepable(value, 'payload')).toEqual({ path, reason }));
  it('comes through JSON and UTF-8 as it was', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        if (unkeepable(value, '')) return;
        const there = new TextDecoder().decode(new TextEncoder().encode(JSON.stringify(value)));
        expect(JSON.parse(there)).toEqual(JSON.parse(JSON.stringify(value)));
      }),
      { seed: 5, numRuns: 300 },
    );
  });
});
