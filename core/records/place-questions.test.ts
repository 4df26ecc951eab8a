import fc from 'fast-check';
import tzlookup from 'tz-lookup';
import { farFrom, kmBetween, placeQuestions } from './place-questions';

const ask = (latitude: number | null, longitude: number | null, zone = 'Europe/Ljubljana', others = [{ latitude: 46.2, longitude: 14.7 }]) =>
  placeQuestions({ latitude, longitude, zone }, others, tzlookup);

describe('what is asked about a position', () => {
  it('nothing, when all fits or no position is given', () => {
    expect(ask(46.377, 14.092)).toEqual([]);
    expect(ask(null, null)).toEqual([]);
  });
  it('swapped, with the other way round as an offer', () =>
    expect(ask(14.092, 46.377)).toEqual([
      { path: 'latitude', text: 'Latitude and longitude look swapped.', better: { latitude: 46.377, longitude: 14.092, zone: 'Europe/Ljubljana' } },
    ]));
  it('swapped, told by the zone alone at the first site', () => expect(ask(14.092, 46.377, 'Europe/Ljubljana', [])[0]?.text).toMatch(/swapped/));
  it('swapped at the first site, though its zone was filled in from the swapped position', () =>
    expect(placeQuestions({ latitude: 14.092, longitude: 46.377, zone: 'Asia/Aden' }, [], tzlookup, 'Europe/Ljubljana')[0]?.text).toMatch(/swapped/));
  it('at sea', () => expect(ask(43, -40)).toEqual([{ path: 'latitude', text: 'This position is at sea.' }]));
  it('far from every other site', () => expect(ask(60.5, 30.1)[0]?.text).toMatch(/1500 km/));
  it('another zone than its position has', () =>
    expect(ask(46.601, 13.85)).toEqual([{ path: 'zone', text: 'At this position the time zone is Europe/Vienna.', better: { zone: 'Europe/Vienna' } }]));
});

describe('distance', () => {
  it('a quarter of the meridian is 10,007.5 km on the mean sphere: a quarter of 2π × 6371.0088 km (IUGG mean radius, from memory)', () =>
    expect(kmBetween({ latitude: 0, longitude: 0 }, { latitude: 90, longitude: 0 })).toBeCloseTo(10007.557, 2));
  it('one minute of latitude is a nautical mile of 1.852 km within half a per cent', () =>
    expect(Math.abs(kmBetween({ latitude: 46, longitude: 14 }, { latitude: 46 + 1 / 60, longitude: 14 }) / 1.852 - 1)).toBeLessThan(0.005));
});

describe('far from every place', () => {
  it('as the great-circle distances to each of them say', () => {
    const places = fc.array(
      fc.record({ latitude: fc.double({ min: -90, max: 90, noNaN: true }), longitude: fc.double({ min: -180, max: 180, noNaN: true }) }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(places, fc.double({ min: -90, max: 90, noNaN: true }), fc.double({ min: -180, max: 180, noNaN: true }), (all, latitude, longitude) => {
        const here = { latitude, longitude };
        expect(farFrom(all)(here)).toBe(all.length > 0 && all.every((p) => kmBetween(p, here) > 1500));
      }),
      { seed: 7, numRuns: 2000 },
    );
  });
  it.each([
    [13.4, false],
    [13.6, true],
  ])('along a meridian a degree is 111.195 km: %d degrees', (degrees, want) =>
    expect(farFrom([{ latitude: 20, longitude: 10 }])({ latitude: 20 + degrees, longitude: 10 })).toBe(want),
  );
  it('across the date line it is near', () => expect(farFrom([{ latitude: 0, longitude: 179 }])({ latitude: 0, longitude: -179 })).toBe(false));
});
