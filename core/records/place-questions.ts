import { geoDistance } from 'd3-geo';

/** Mean radius of the earth, km (IUGG, R1). */
const EARTH_KM = 6371.0088;
export type Position = { latitude: number; longitude: number };

/** Great-circle distance on the mean sphere, km; within 0.6 % of the ellipsoid. */
export const kmBetween = (a: Position, b: Position): number => geoDistance([a.longitude, a.latitude], [b.longitude, b.latitude]) * EARTH_KM;

/** Something that is likely a slip: asked about, never refused. `better` is what may have been meant. */
export type PlaceQuestion = { path: 'latitude' | 'zone'; text: string; better?: Partial<Position & { zone: string }> };

/** Farther than this from every site known is worth a question, km. */
const FAR_KM = 1500;

/**
 * What to ask about a site's position and zone before it is kept.
 * @param zoneAt IANA zone of a position; ocean zones begin with `Etc/`
 * @param others positions of the household's other sites
 * @param homeZone zone of the household: tells swapped coordinates at the very first site
 */
export function placeQuestions(
  site: { latitude: number | null; longitude: number | null; zone: string },
  others: readonly Position[],
  zoneAt: (latitude: number, longitude: number) => string,
  homeZone: string = site.zone,
): PlaceQuestion[] {
  const { latitude, longitude, zone } = site;
  if (latitude === null || longitude === null) return [];
  const here = { latitude, longitude };
  const zoneHere = zoneAt(latitude, longitude);
  const far = (p: Position) => others.length > 0 && Math.min(...others.map((o) => kmBetween(o, p))) > FAR_KM;
  const atSea = zoneHere.startsWith('Etc/');
  const turned = Math.abs(longitude) <= 90 ? { latitude: longitude, longitude: latitude } : null;
  if (turned && (atSea || far(here) || (others.length === 0 && zoneHere !== homeZone))) {
    const zoneTurned = zoneAt(turned.latitude, turned.longitude);
    if (!zoneTurned.startsWith('Etc/') && (others.length > 0 ? !far(turned) : zoneTurned === homeZone))
      return [{ path: 'latitude', text: 'Latitude and longitude look swapped.', better: { ...turned, zone: zoneTurned } }];
  }
  if (atSea) return [{ path: 'latitude', text: 'This position is at sea.' }];
  if (far(here)) return [{ path: 'latitude', text: `This position is over ${FAR_KM} km from every other site.` }];
  if (zoneHere !== zone) return [{ path: 'zone', text: `At this position the time zone is ${zoneHere}.`, better: { zone: zoneHere } }];
  return [];
}
