import fc from 'fast-check';
import Fraction from 'fraction.js';
import { decimal, decimalsIn, decimalsOf, exact, fractionText, plain, ratio, rounded, units, upTo } from './exact';
import { clockStretches } from './local-clock';

describe('exact numbers', () => {
  it('are as they were written, without an exponent', () => {
    expect([0.1, 1e-7, 123456789012, 1.5e21, 0].map(plain)).toEqual(['0.1', '0.0000001', '123456789012', '1500000000000000000000', '0']);
    expect([0.1, 1e-7, 2.5].map((n) => fractionText(exact(n)))).toEqual(['1/10', '1/10000000', '5/2']);
    expect([0, 7, 0.25, 1e-7, 16.534].map(decimalsOf)).toEqual([0, 0, 2, 7, 3]);
    expect([ratio(1n, 8n), ratio(7n, 1n), ratio(1n, 50n), new Fraction('0.1234567')].map(decimalsIn)).toEqual([3, 0, 2, 7]);
  });
  it('in whole units of ten to the minus so many', () => {
    expect([units(16.534, 3), units(16.534, 6), units(7, 2), units(0.1 + 0.2, 17), units(123456.5, 12), units(0, 4)]).toEqual([
      16534n,
      16534000n,
      700n,
      30000000000000004n,
      123456500000000000n,
      0n,
    ]);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10 ** 9 }), fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 8 }), (whole, places, more) => {
        const n = Number(`${whole}e-${places}`);
        expect(units(n, places + more)).toBe(BigInt(whole) * 10n ** BigInt(more));
      }),
    );
  });
  it('are rounded half up, away from nothing, and printed with all places', () => {
    expect(
      [
        ['0.125', 2],
        ['0.1249', 2],
        ['-0.125', 2],
        ['2.5', 0],
        ['0.005', 2],
        ['-3', 6],
        ['0', 2],
        ['1234.5', 1],
      ].map(([n, p]) => decimal(new Fraction(n as string), p as number)),
    ).toEqual(['0.13', '0.12', '-0.13', '3', '0.01', '-3.000000', '0.00', '1234.5']);
    expect(fractionText(rounded(ratio(1n, 3n), 2))).toBe('33/100');
    expect([fractionText(ratio(-3n, 1n)), fractionText(ratio(-67n, 20n))]).toEqual(['-3', '-67/20']);
  });
  it('up to a step', () => {
    expect([upTo(ratio(21n, 2n), 5), upTo(ratio(10n, 1n), 5), upTo(ratio(0n, 1n), 5), upTo(ratio(1n, 1000n), 1)].map(fractionText)).toEqual([
      '15',
      '10',
      '0',
      '1',
    ]);
  });
});

describe('a session cut by the clock of its place', () => {
  const at = (text: string) => Date.parse(text);
  const cut = (zone: string, from: string, to: string, minutes: number[]) =>
    clockStretches(zone, at(from), at(to), minutes).map((s) => [new Date(s.from).toISOString().slice(5, 16), s.day.slice(5), s.weekday, s.minute]);
  it('at its start, at each time asked for and at midnight, before its end', () => {
    expect(cut('Europe/Amsterdam', '2024-03-05T15:50:00Z', '2024-03-05T23:30:00Z', [1020])).toEqual([
      ['03-05T15:50', '03-05', 2, 1010],
      ['03-05T16:00', '03-05', 2, 1020],
      ['03-05T23:00', '03-06', 3, 0],
    ]);
    expect(cut('UTC', '2024-03-05T10:00:00Z', '2024-03-05T11:00:00Z', [600, 660])).toEqual([['03-05T10:00', '03-05', 2, 600]]);
    expect(cut('UTC', '2024-03-05T10:00:00Z', '2024-03-05T10:00:00Z', [600])).toEqual([['03-05T10:00', '03-05', 2, 600]]);
  });
  it('where the clock is put forward, and back', () => {
    expect(cut('Europe/Amsterdam', '2024-03-31T00:30:00Z', '2024-03-31T01:30:00Z', [150, 180])).toEqual([
      ['03-31T00:30', '03-31', 0, 90],
      ['03-31T01:00', '03-31', 0, 180],
    ]);
    expect(cut('Europe/Amsterdam', '2024-10-27T00:00:00Z', '2024-10-27T02:30:00Z', [150])).toEqual([
      ['10-27T00:00', '10-27', 0, 120],
      ['10-27T00:30', '10-27', 0, 150],
      ['10-27T01:00', '10-27', 0, 120],
      ['10-27T01:30', '10-27', 0, 150],
    ]);
    // Half an hour: Lord Howe Island, 7 April 2024.
    expect(cut('Australia/Lord_Howe', '2024-04-06T14:50:00Z', '2024-04-06T15:40:00Z', [110])).toEqual([
      ['04-06T14:50', '04-07', 0, 110],
      ['04-06T15:00', '04-07', 0, 90],
      ['04-06T15:20', '04-07', 0, 110],
    ]);
  });
});
