import { fromKm, KM_PER_MILE, toKm } from './distance';

describe('distances kept in km and read in miles', () => {
  // 1 mile = 1760 yards of 0.9144 m (international yard, 1959; NIST SP 811 appendix B gives 1.609344 E+03 m), from memory.
  it('a mile is 1760 yards', () => expect(KM_PER_MILE).toBe((1760 * 0.9144) / 1000));
  it.each([
    [61234, 'km', 61234],
    [100, 'mi', 160.934],
    [38049, 'mi', 61233.93],
    [0, 'mi', 0],
  ] as const)('%s read in %s is %s km', (read, unit, km) => expect(toKm(read, unit)).toBeCloseTo(km, 2));
  it('what was typed in miles is read in miles as it was typed', () => {
    for (let mi = 0; mi < 400_000; mi += 997.3) expect(fromKm(toKm(Number(mi.toFixed(1)), 'mi'), 'mi')).toBe(Number(mi.toFixed(1)));
  });
  it('kilometres stay as they are, to a tenth', () => {
    expect(fromKm(61234.56, 'km')).toBe(61234.6);
    expect(toKm(61234.56, 'km')).toBe(61234.56);
  });
});
