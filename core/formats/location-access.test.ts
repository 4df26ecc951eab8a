import { RECORDS } from '../records/record-schema';
import { accessOf, keptText, NO_ACCESS } from './location-access';
import { type JsonObject, readJson } from './strict-json';

const read = (location: object) => {
  const json = readJson(new TextEncoder().encode(JSON.stringify(location)));
  if (!json.ok) throw new Error(json.code);
  return accessOf(json.value as JsonObject);
};
const evse = (...parking_restrictions: string[]) => ({ parking_restrictions });

describe('how one gets to a site of a network’s file', () => {
  it('is where one parks, for whom the posts are, and the way', () => {
    expect(
      read({
        parking_type: 'UNDERGROUND_GARAGE',
        directions: [
          { language: 'de', text: 'Zweite Einfahrt' },
          { language: 'en', text: ' Second entrance ' },
        ],
        evses: [evse('CUSTOMERS', 'EV_ONLY'), evse('CUSTOMERS')],
      }).entrance,
    ).toBe('in an underground car park; for customers only; some posts for electric cars only; Second entrance');
    expect(read({ directions: [{ language: 'de', text: 'Zweite Einfahrt' }] }).entrance).toBe('Zweite Einfahrt');
    expect(read({ evses: [evse('DISABLED')] }).entrance).toBe('for disabled people with a permit');
  });
  it('with what is around', () => {
    expect(read({ facilities: ['CAFE', 'RESTAURANT', 'CAFE', 'SUPERMARKET', 'WIFI', 'FUEL_STATION'] })).toEqual({
      entrance: null,
      food: 'cafe, restaurant',
      shop: 'supermarket, filling station',
    });
  });
  it('is nothing where nothing of it is understood', () => {
    expect(read({})).toEqual(NO_ACCESS);
    expect(
      read({
        parking_type: 'SPACE',
        facilities: ['toString', 3],
        directions: [3, { text: ' ' }, { text: 4 }],
        evses: [4, { parking_restrictions: 'x' }, evse('FUTURE')],
      }),
    ).toEqual(NO_ACCESS);
  });
  it('is cut to what a site holds, on one line, and tells no number of a card', () => {
    const long = read({ parking_type: 'ON_STREET', directions: [{ language: 'en', text: '😀'.repeat(400) }] }).entrance ?? '';
    expect([long.length <= 300, long.endsWith('😀'), long.startsWith('on the street; 😀')]).toEqual([true, true, true]);
    expect(RECORDS.site.shape.entrance.safeParse(long).success).toBe(true);
    expect(keptText('a\r\n  b\tc ', 5)).toBe('a b c');
    expect(keptText('ab😀', 3)).toBe('ab');
    expect(read({ parking_type: 'ON_STREET', directions: [{ language: 'en', text: 'Card 4111 1111 1111 1111' }] }).entrance).toBe('on the street');
    expect([keptText('4111 1111 1111 1111', 90), keptText('  ', 9)]).toEqual([null, null]);
  });
  it('is read of a file of any size in one go through it', () => {
    // Held each against each, these would take minutes.
    const many = Array.from({ length: 200_000 }, (_, i) => `X${i}`);
    expect(read({ evses: [{ parking_restrictions: [...many, 'EV_ONLY'] }, evse('EV_ONLY')], facilities: [...many, 'CAFE'] })).toEqual({
      entrance: 'for electric cars only',
      food: 'cafe',
      shop: null,
    });
  });
});
