import { sheetText } from './sheet-bytes';

const le = (...units: number[]) => Uint8Array.from(units.flatMap((u) => [u & 255, u >> 8]));
const units = (text: string) => [...text].map((c) => c.charCodeAt(0));
const told = (bytes: Uint8Array) => {
  const got = sheetText(bytes);
  return got.ok ? [got.encoding, got.text] : [got.code, got.where && 'byte' in got.where ? got.where.byte : null];
};

describe('UTF-16 without a BOM', () => {
  it('is told by the zeros among its high bytes: two in five of them are enough', () => {
    expect(told(le(...units('a;b\n1;2')))).toEqual(['utf-16le', 'a;b\n1;2']);
    // Č, Š, Ž, Ć, Đ and ő have no zero among theirs.
    expect(told(le(...units('ČŠŽab')))).toEqual(['utf-16le', 'ČŠŽab']);
    expect(told(le(...units('ČŠŽĆabc')))).toEqual(['utf-16le', 'ČŠŽĆabc']);
    expect(told(le(...units('ČŠŽĆĐőabc')))[0]).toBe('nul_byte');
    expect(told(le(...units('ČŠab')))).toEqual(['utf-16le', 'ČŠab']);
    expect(told(le(...units('A')))).toEqual(['utf-16le', 'A']);
  });
  it('is not told of an odd number of bytes, of one that has a zero among the low ones, or of nothing', () => {
    expect(told(Uint8Array.of(97, 0, 98))).toEqual(['nul_byte', 1]);
    expect(told(Uint8Array.of(97))).toEqual(['utf-8', 'a']);
    // The other way round it has its zeros first.
    expect(told(Uint8Array.of(0, 97, 0, 98))).toEqual(['nul_byte', 0]);
    expect(told(le(97, 0, 98, 99, 100))).toEqual(['nul_byte', 1]);
    expect(told(new Uint8Array())).toEqual(['utf-8', '']);
  });
});

// The marks of Unicode, chapter 23.8 (from memory): EF BB BF, FF FE, FE FF.
it.each([
  [Uint8Array.of(0xef, 0xbb, 0xbf, 97), ['utf-8', 'a']],
  [Uint8Array.of(0xff, 0xfe, 97, 0), ['utf-16le', 'a']],
  [Uint8Array.of(0xfe, 0xff, 0, 97), ['utf-16be', 'a']],
  [Uint8Array.of(0xff, 0xfe, 97, 0, 98), ['bad_encoding', 4]],
  [Uint8Array.of(0xff, 0xfe, 0x3d, 0xd8, 0, 0xde), ['utf-16le', '😀']],
  [Uint8Array.of(0xff, 0xfe, 0x3d, 0xd8), ['bad_encoding', 2]],
  [Uint8Array.of(0xff, 0xfe, 0x00, 0xde, 97, 0), ['bad_encoding', 2]],
  [Uint8Array.of(0xff, 0xfe, 0, 0), ['nul_byte', 2]],
  [Uint8Array.of(0xef, 0xbb, 0xbf, 0xff), ['bad_encoding', 3]],
])('with its mark: %j', (bytes, want) => expect(told(bytes)).toEqual(want));

// Windows-1252 and -1250 (the tables of WHATWG's Encoding standard, from memory): E8 is è in one and č in the other, 80 is € in both.
it('bytes that are no UTF-8 are Windows-1252, and as Windows-1250 would read them where that differs', () => {
  expect(sheetText(Uint8Array.of(0xe8))).toMatchObject({ encoding: 'windows-1252', text: 'è', other: 'č' });
  expect(sheetText(Uint8Array.of(0x80, 0x9a))).toMatchObject({ encoding: 'windows-1252', text: '€š', other: null });
});
