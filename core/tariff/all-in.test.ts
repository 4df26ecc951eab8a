import fc from 'fast-check';
import { allInOf, type BilledCharge, homePer100km, measuredUse, riseOf, USUAL_YIELD, yieldsOf } from './all-in';
import { breakEvenPump, equivalentNeed, type Fuel, fuelPer100km, LITRES, needWords } from './fuel';

const charge = (paid: string, kWh: string, more: Partial<BilledCharge> = {}): BilledCharge => ({
  group: 'a',
  current: 'dc',
  paid,
  kWh,
  rise: null,
  visit_s: null,
  hour: null,
  ...more,
});
const USUAL = yieldsOf([]);

describe('what charging came to', () => {
  it('is total over total, not the mean of the stops', () => {
    const all = allInOf([charge('20', '40'), charge('9', '10')], USUAL, null, null);
    expect(all).toMatchObject({ visits: 2, kWh: 50, paid: 29, perKWh: 0.58, per100km: null });
    // The mean of 0.50 and 0.90 would be 0.70.
  });
  it('is made equal in the battery: an AC meter sits before the onboard charger', () => {
    const [ac, dc] = [allInOf([charge('9', '20', { current: 'ac' })], USUAL, 18, null), allInOf([charge('9', '20')], USUAL, 18, null)];
    expect(ac?.perBatteryKWh).toBeCloseTo(0.5, 12);
    expect(dc?.perBatteryKWh).toBeCloseTo(9 / 19, 12);
    expect(ac?.per100km).toBeCloseTo(9, 12);
    expect(homePer100km(0.18, USUAL, 20)).toBeCloseTo(4, 12);
  });
  it('counts an hour at the site where it has a price, over the visits whose length is known', () => {
    const all = allInOf([charge('10', '20', { visit_s: 1800 }), charge('99', '1')], { ac: { of: 1, own: true, n: 3 }, dc: { of: 1, own: true, n: 3 } }, 20, 12);
    expect(all?.time).toEqual({ hours: 0.5, visits: 1, per100km: ((10 + 6) / 20) * 20 });
    expect(allInOf([charge('10', '20', { visit_s: 1800 })], USUAL, 20, null)?.time.per100km).toBeNull();
    expect(allInOf([charge('10', '20')], USUAL, 20, 12)?.time).toEqual({ hours: 0, visits: 0, per100km: null });
  });
  it('says what a stop in the middle was like', () => {
    const stops = [charge('1', '10', { hour: 8 }), charge('1', '30', { hour: 17 }), charge('1', '20', { hour: 9 })];
    expect(allInOf(stops, USUAL, null, null)?.stop).toEqual({ kWh: 20, hour: 9 });
    expect(allInOf([charge('1', '10')], USUAL, null, null)?.stop).toEqual({ kWh: 10, hour: null });
  });
  it('is nothing where nothing was delivered', () => {
    expect(allInOf([], USUAL, 18, 10)).toBeNull();
    expect(allInOf([charge('2', '0')], USUAL, 18, 10)).toBeNull();
  });
  it('of two parts lies between them', () => {
    const some = fc.array(fc.tuple(fc.integer({ min: 0, max: 9000 }), fc.integer({ min: 1, max: 90 })), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(some, some, (a, b) => {
        const of = (all: [number, number][]) =>
          allInOf(
            all.map(([c, k]) => charge((c / 100).toFixed(2), String(k))),
            USUAL,
            18,
            null,
          )?.per100km as number;
        const [x, y, both] = [of(a), of(b), of([...a, ...b])];
        return both >= Math.min(x, y) - 1e-9 && both <= Math.max(x, y) + 1e-9;
      }),
    );
  });
});

describe('what of the metered energy came into the battery', () => {
  it('is by the own charges from three on, else what is usual', () => {
    const told = [
      charge('1', '99', { rise: { battery: 18.6, meter: 20 } }),
      charge('1', '30', { rise: { battery: 27.9, meter: 30 } }),
      charge('1', '40', { rise: { battery: 37.2, meter: 40 } }),
      charge('1', '50'),
    ];
    expect(yieldsOf(told).dc).toEqual({ of: expect.closeTo(0.93, 12), own: true, n: 3 });
    expect(yieldsOf(told).ac).toEqual({ of: USUAL_YIELD.ac, own: false, n: 0 });
    expect(yieldsOf(told.slice(1)).dc).toEqual({ of: USUAL_YIELD.dc, own: false, n: 2 });
  });
  it.each([0.6, 1.1])('a share of %s is a misreading', (share) => {
    const told = [20, 30, 40].map((kWh) => charge('1', String(kWh), { rise: { battery: kWh * share, meter: kWh } }));
    expect(yieldsOf(told).dc.own).toBe(false);
  });
  it('is read between two readings that say level and meter both', () => {
    const read = (socPct?: number, kWh?: string) => ({ socPct, kWh });
    expect(riseOf([read(20), read(22, '1.0'), read(undefined, '9'), read(42, '14.5'), read(60)], 62)).toEqual({ battery: 12.4, meter: 13.5 });
    expect(riseOf([read(22, '1.0'), read(41, '14.5')], 62)).toBeNull();
    expect(riseOf([read(22, '1.0')], 62)).toBeNull();
    expect(riseOf([], 62)).toBeNull();
  });
  it('is never more than all of it', () => expect(yieldsOf([1, 2, 3].map(() => charge('1', '10', { rise: { battery: 10.1, meter: 10 } }))).dc.of).toBe(1));
});

it('what the car uses is by all its ways together, from three on', () => {
  expect(
    measuredUse([
      { kWhPer100km: 20, km: 300 },
      { kWhPer100km: 15, km: 100 },
      { kWhPer100km: 10, km: 100 },
    ]),
  ).toEqual({ kWhPer100km: 17, km: 500, n: 3 });
  expect(measuredUse([{ kWhPer100km: 20, km: 300 }])).toBeNull();
});

describe('fuel', () => {
  const litre: Fuel = { price: 1.5, unit: 'litre', needs: 6 };
  it('costs by what a car needs, and breaks even where it costs as much', () => {
    expect(fuelPer100km(litre)).toBe(9);
    expect(breakEvenPump(9, litre)).toBe(1.5);
    expect(breakEvenPump(7.2, litre)).toBeCloseTo(1.2, 12);
    expect(equivalentNeed(7.2, litre)).toBeCloseTo(4.8, 12);
  });
  // Common practice, no source: 3.77 buys half an imperial gallon at 163.9 pence a litre; 17 miles on it is about 34 miles per gallon.
  it('half an imperial gallon for 3.77 at 163.9 p a litre, and 17 miles on it', () => {
    const gallon: Fuel = { price: 1.639 * LITRES.imperial, unit: 'imperial', needs: 40 };
    expect(3.77 / gallon.price).toBeCloseTo(0.5, 1);
    expect(equivalentNeed(3.77 / ((17 * 1.609344) / 100), gallon)).toBeCloseTo(33.6, 1);
  });
  // NIST SP 811, appendix B.8: miles per US gallon divided into 235.215 are litres per 100 km; from memory. For the imperial gallon 282.481.
  it.each([
    ['us', 235.215],
    ['imperial', 282.481],
  ] as const)('a mile per %s gallon is %s litres per 100 km', (unit, litres) => {
    const f: Fuel = { price: LITRES[unit], unit, needs: 1 };
    expect(fuelPer100km(f)).toBeCloseTo(litres, 3);
  });
  it('to and fro is the same, whatever it is sold by', () => {
    for (const unit of ['litre', 'imperial', 'us'] as const)
      fc.assert(
        fc.property(fc.double({ min: 0.1, max: 9, noNaN: true }), fc.double({ min: 1, max: 80, noNaN: true }), (price, needs) => {
          const f: Fuel = { price, unit, needs };
          expect(equivalentNeed(fuelPer100km(f), f)).toBeCloseTo(needs, 6);
          expect(breakEvenPump(fuelPer100km(f), f)).toBeCloseTo(price, 6);
        }),
      );
  });
  it('is said as its pump’s country does', () => expect([needWords(5.25, 'litre'), needWords(41, 'us')]).toEqual(['5.3 l/100 km', '41.0 mi/gal']));
});
