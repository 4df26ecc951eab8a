import { badUtf8, readJson } from './strict-json';

const read = (...bytes: number[]) => {
  const { ok, ...why } = readJson(Uint8Array.from(bytes));
  return ok ? 'read' : why;
};
const text = (of: string) => [...new TextEncoder().encode(of)];

it('what comes first in a document of bad bytes is told, with its byte', () => {
  expect(read(...text('[1]'))).toBe('read');
  expect(read(0x5b, 0, 0x5d)).toEqual({ code: 'nul_byte', where: { byte: 1 } });
  expect(read(0x5b, 0xff, 0x5d)).toEqual({ code: 'bad_encoding', where: { byte: 1 } });
  expect(read(0x5b, 0, 0xff)).toEqual({ code: 'nul_byte', where: { byte: 1 } });
  expect(read(0x5b, 0xff, 0)).toEqual({ code: 'bad_encoding', where: { byte: 1 } });
  expect(read(0xff, 0)).toEqual({ code: 'bad_encoding', where: { byte: 0 } });
  expect(read(0, 0xff)).toEqual({ code: 'nul_byte', where: { byte: 0 } });
});

it('holds 25 MB and no byte more', () => {
  const most = 25 * 1024 * 1024;
  const blanks = new Uint8Array(most).fill(0x20);
  blanks[0] = 0x31;
  expect(readJson(blanks)).toMatchObject({ ok: true });
  const more = new Uint8Array(most + 1).fill(0x20);
  more[0] = 0x31;
  expect(readJson(more)).toEqual({ ok: false, code: 'too_large', where: { byte: most } });
});

// RFC 3629, sections 3 and 4, from memory: the first byte that no text can have there.
it.each([
  [[0x7f], -1],
  [[0x80], 0],
  [[0xc2, 0x80], -1],
  [[0xc1, 0xbf], 0],
  [[0xc2], 0],
  [[0xc2, 0x41], 0],
  [[0xdf, 0xbf], -1],
  [[0xe0, 0x9f, 0xbf], 0],
  [[0xe0, 0xa0, 0x80], -1],
  [[0xed, 0x9f, 0xbf], -1],
  [[0xed, 0xa0, 0x80], 0],
  [[0xef, 0xbf, 0xbf], -1],
  [[0xef, 0xbf], 0],
  [[0xef, 0xbf, 0x41], 0],
  [[0xf0, 0x8f, 0xbf, 0xbf], 0],
  [[0xf0, 0x90, 0x80, 0x80], -1],
  [[0xf4, 0x8f, 0xbf, 0xbf], -1],
  [[0xf4, 0x90, 0x80, 0x80], 0],
  [[0xf4, 0x8f, 0xbf], 0],
  [[0xf5, 0x80, 0x80, 0x80], 0],
  [[0x41, 0x42, 0xe2, 0x82], 2],
  [[], -1],
])('%j', (bytes, at) => expect(badUtf8(Uint8Array.from(bytes))).toBe(at));
