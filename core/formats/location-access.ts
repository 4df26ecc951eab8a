import { privateNumber } from '../records/private-number';
import type { RecordFields } from '../records/record-schema';
import { isObject, listIn, objectsIn, textOf } from './ocpi-check';
import type { JsonObject } from './strict-json';

/** How one gets to a site and what is around it, as a network says it; `null`: it says nothing of it. */
export type SiteAccess = Pick<RecordFields<'site'>, 'entrance' | 'food' | 'shop'>;
export const NO_ACCESS: SiteAccess = { entrance: null, food: null, shop: null };

/** ParkingType of OCPI 2.2.1, in words. */
const PARKING: Readonly<Record<string, string>> = {
  ALONG_MOTORWAY: 'along the motorway',
  PARKING_GARAGE: 'in a multi-storey car park',
  PARKING_LOT: 'in a car park',
  ON_DRIVEWAY: 'on a driveway',
  ON_STREET: 'on the street',
  UNDERGROUND_GARAGE: 'in an underground car park',
};
/** ParkingRestriction of OCPI 2.2.1, in words. */
const RESTRICTED: Readonly<Record<string, string>> = {
  EV_ONLY: 'for electric cars only',
  PLUGGED: 'only while plugged in',
  DISABLED: 'for disabled people with a permit',
  CUSTOMERS: 'for customers only',
  MOTORCYCLES: 'for motorcycles only',
};
/** Facility of OCPI 2.2.1, as far as a stop is the better for it. */
const FOOD: Readonly<Record<string, string>> = { RESTAURANT: 'restaurant', CAFE: 'cafe', HOTEL: 'hotel' };
const SHOP: Readonly<Record<string, string>> = { SUPERMARKET: 'supermarket', MALL: 'shopping centre', FUEL_STATION: 'filling station' };

const textsIn = (o: JsonObject, name: string): string[] => listIn(o, name).flatMap((v) => (typeof v === 'string' ? [v] : []));
/**
 * A text of a file as a record holds it: on one line, as long as it may be, no half of a character. One that holds a number of a card or a contract is left out: it would cost
 * the whole site.
 */
export function keptText(text: string, most: number): string | null {
  const cut = text
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, most)
    .replace(/[\ud800-\udbff]$/, '')
    .trim();
  return cut === '' || privateNumber(cut) !== null ? null : cut;
}
const words = (codes: readonly string[], of: Readonly<Record<string, string>>): string[] => [
  ...new Set(codes.flatMap((c) => (Object.hasOwn(of, c) ? [of[c] as string] : []))),
];

/** The directions in English where there are some, else in the first language that is there. */
function directions(o: JsonObject): string | null {
  const all = objectsIn(o, 'directions').filter((d) => (textOf(d, 'text') ?? '').trim() !== '');
  const found = all.find((d) => textOf(d, 'language')?.toLowerCase().startsWith('en')) ?? all[0];
  return found ? keptText(textOf(found, 'text') ?? '', 300) : null;
}

/** What a Location of OCPI 2.2.1 says of the way in and of what is around. A restriction is told where every post has it, else as that of some. */
export function accessOf(location: JsonObject): SiteAccess {
  const evses = listIn(location, 'evses').filter(isObject);
  const restricted = evses.map((e) => new Set(words(textsIn(e, 'parking_restrictions'), RESTRICTED)));
  const all = [...new Set(restricted.flatMap((r) => [...r]))];
  const everywhere = all.filter((w) => restricted.every((r) => r.has(w)));
  const somewhere = all.filter((w) => !everywhere.includes(w)).map((w) => `some posts ${w}`);
  const facilities = textsIn(location, 'facilities');
  const way = [...words([textOf(location, 'parking_type') ?? ''], PARKING), ...everywhere, ...somewhere, directions(location)].filter((w) => w !== null);
  return {
    entrance: keptText(way.join('; '), 300),
    food: keptText(words(facilities, FOOD).join(', '), 120),
    shop: keptText(words(facilities, SHOP).join(', '), 120),
  };
}
