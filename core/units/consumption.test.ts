import fc from 'fast-check';
import { CONSUMPTIONS, consumptionFrom, consumptionIn } from './consumption';

describe('consumption in four units', () => {
  // A mile is 1.609344 km (international yard and pound agreement, 1959): 18 kWh/100 km are 3.452 mi/kWh.
  it.each([
    ['kWh/100 km', 18],
    ['Wh/km', 180],
    ['mi/kWh', 3.452],
    ['km/kWh', 5.5556],
  ] as const)('18 kWh/100 km in %s are %d', (unit, said) => expect(consumptionIn(18, unit)).toBeCloseTo(said, 3));
  it('comes back as it went', () =>
    fc.assert(
      fc.property(fc.double({ min: 5, max: 300, noNaN: true }), fc.constantFrom(...CONSUMPTIONS), (uses, unit) => {
        expect(consumptionFrom(consumptionIn(uses, unit), unit)).toBeCloseTo(uses, 9);
      }),
    ));
});
