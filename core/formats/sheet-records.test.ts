import { sheetRecords } from './sheet-records';

const x = (n: number, of = 'x') => of.repeat(n);
/** Each record as its line and what it says, or what is the matter with it. */
const cut = (text: string, most?: number) =>
  sheetRecords(text, ',', most).records.map((r) => [r.line, r.bad ? `${r.bad.code} ${r.bad.column}` : r.cells.join('|')]);
const whole = (text: string) => {
  const { records, tooLong, tooWide } = sheetRecords(text, ',');
  return { tooLong, tooWide, n: records.length };
};

describe('records of a sheet', () => {
  it('go on at the line after the one where a cell began whose quotes cannot be read', () => {
    expect(cut('a,"b"c,"d\ne",f\ng')).toEqual([
      [1, 'stray_quote 2'],
      [2, 'e"|f'],
      [3, 'g'],
    ]);
    expect(cut('"a\nb","c\nd"e,f\ng')).toEqual([
      [1, 'open_quote 2'],
      [3, 'd"e|f'],
      [4, 'g'],
    ]);
    expect(cut(`${x(250, 'a\n')}b,"c\r\nd,e\re`).slice(-3)).toEqual([
      [251, 'open_quote 2'],
      [252, 'd|e'],
      [253, 'e'],
    ]);
    expect(cut('"a\nb')).toEqual([
      [1, 'open_quote 1'],
      [2, 'b'],
    ]);
  });

  it('tell quotes that close too early from cells that begin with one', () => {
    expect(cut('"""a"""\n"""a""b"\n"a"b\n"a""b"c"\n""a\n"""\n')).toEqual([
      [1, '"a"'],
      [2, '"a"b'],
      [3, 'stray_quote 1'],
      [4, 'stray_quote 1'],
      [5, 'stray_quote 1'],
      [6, 'open_quote 1'],
    ]);
    expect(cut('"""a"""')).toEqual([[1, '"a"']]);
    // What stood before it is kept, what stands behind it is not looked at.
    expect(sheetRecords('a,"b"c,d\n', ',').records.map((r) => r.cells)).toEqual([['a']]);
    expect(cut('"""a""",b "c" d\n"""a","b"')).toEqual([
      [1, '"a"|b "c" d'],
      [2, '"a|b'],
    ]);
  });

  it('say where each stands, in characters, and how its line ends', () => {
    const text = 'é,😀\r\n"ü"x\rz';
    const { records, lineEnds } = sheetRecords(text, ',');
    expect(records.map((r) => text.slice(r.from, r.to))).toEqual(['é,😀\r\n', '"ü"x\r', 'z']);
    expect([...lineEnds]).toEqual(['CRLF', 'CR']);
    // Mixed, and no more than were asked for.
    expect(cut('a\nb\r\nc\rd')).toEqual(['a', 'b', 'c', 'd'].map((cell, i) => [i + 1, cell]));
    expect(cut('a\nb\nc', 2).map(([line]) => line)).toEqual([1, 2]);
    expect(cut('"a"b\nc\nd\ne\nf', 3).map(([line]) => line)).toEqual([1, 2, 3]);
  });

  it('have quoted cells of up to 65,536 characters, quotes doubled', () => {
    expect(cut(`"${x(65_535)}"\nb`)[0]).toEqual([1, x(65_535)]);
    expect(cut(`"${x(65_536)}"\nb`)[0]).toEqual([1, 'open_quote 1']);
    expect(cut(`"${x(32_768, '""')}"\nb`)[0]).toEqual([1, 'open_quote 1']);
    expect(cut(`"${x(65_535)}"x\nb`)[0]).toEqual([1, 'stray_quote 1']);
    expect(cut(`"${x(65_536)}"x\nb`)[0]).toEqual([1, 'open_quote 1']);
    expect(cut(`a,"${x(70, `${x(30_000)}\n`)}b`).map(([line, cells]) => `${line} ${cells?.toString().slice(0, 12)}`)).toEqual([
      '1 open_quote 2',
      ...Array.from({ length: 69 }, (_, i) => `${i + 2} ${x(12)}`),
      '71 b',
    ]);
  });

  it('are of 1,048,576 characters and 500 cells at most', () => {
    expect(whole(`${x(1_048_576)}\nb`)).toEqual({ tooLong: null, tooWide: null, n: 2 });
    expect(whole(`b\n${x(1_048_577)}\nb`)).toEqual({ tooLong: 2, tooWide: null, n: 1 });
    expect(whole(`"a"x${x(1_048_577)}\nb`)).toEqual({ tooLong: 1, tooWide: null, n: 0 });
    expect(whole(`b\n${x(3_000_000, 'a,')}\nb`)).toEqual({ tooLong: null, tooWide: 2, n: 1 });
    expect(whole(`b\n${x(500, 'a,')}\n"b`)).toEqual({ tooLong: null, tooWide: 2, n: 1 });
    expect(whole(x(2_000_000))).toEqual({ tooLong: 1, tooWide: null, n: 0 });
    expect(whole(`a,${x(2_000_000)}`)).toEqual({ tooLong: 1, tooWide: null, n: 0 });
    // In one cell bytes count: nobody writes so much into one.
    expect(whole(`${x(600_000, 'é')}\nb`)).toEqual({ tooLong: 1, tooWide: null, n: 0 });
    expect(whole(`a\n${x(499, ',')}\nb`)).toEqual({ tooLong: null, tooWide: null, n: 3 });
    expect(whole(`a\n${x(500, ',')}\nb`)).toEqual({ tooLong: null, tooWide: 2, n: 1 });
    expect(whole(`a\n${x(500, ',')}"b"c\nb`)).toEqual({ tooLong: null, tooWide: 2, n: 1 });
  });
});
