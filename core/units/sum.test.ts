import Big from 'big.js';
import fc from 'fast-check';
import { sumOf } from './sum';

describe('the sum of decimals', () => {
  it('is exact, whatever they are', () => {
    const decimal = fc
      .tuple(fc.bigInt({ min: -(10n ** 20n), max: 10n ** 20n }), fc.integer({ min: 0, max: 12 }))
      .map(([digits, places]) => new Big(digits.toString()).div(new Big(10).pow(places)).toFixed(places));
    fc.assert(
      fc.property(fc.array(decimal), (values) => {
        expect(sumOf(values).toFixed()).toBe(values.reduce((s, v) => s.plus(v), new Big(0)).toFixed());
      }),
    );
  });
  it('at its edges: none, many, the longest and the greatest', () => {
    expect(sumOf([]).toFixed()).toBe('0');
    expect(sumOf(Array<string>(30).fill('999999999.999999')).toFixed()).toBe('29999999999.99997');
    expect(sumOf(['0.1234567', '0.0000003', '1000000000', '-1e-7']).toFixed()).toBe('1000000000.1234569');
    expect(() => sumOf(['1', 'x'])).toThrow();
    expect(() => sumOf(['1', ''])).toThrow();
    expect(() => sumOf(['.'])).toThrow();
  });
});
