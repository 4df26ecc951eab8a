import distance from '@turf/distance';

export type Position = { latitude: number; longitude: number };

/** The mean radius of the Earth (IUGG, R1), km. */
const EARTH_KM = 6371.0088;
/** Great-circle distance on the mean sphere, km; within 0.6 % of the ellipsoid. */
export const kmBetween = (a: Position, b: Position): number => distance([a.longitude, a.latitude], [b.longitude, b.latitude], { units: 'kilometers' });

/** Beyond this two places of one name are two, or one of them was moved, km. */
export const APART_KM = 1;
/** A place of which the position may not be known. */
export type MaybePlaced = { latitude: number | null; longitude: number | null };
/** How far two places are from each other, km; `null` while one of them is not known. */
export const kmApart = (a: MaybePlaced, b: MaybePlaced): number | null =>
  a.latitude === null || a.longitude === null || b.latitude === null || b.longitude === null ? null : kmBetween(a as Position, b as Position);
export const isApart = (a: MaybePlaced, b: MaybePlaced): boolean => (kmApart(a, b) ?? 0) > APART_KM;

/** Something that is likely a slip: asked about, never refused. `better` is what may have been meant. */
export type PlaceQuestion = { path: 'latitude' | 'zone'; text: string; better?: Partial<Position & { zone: string }> };

/** Farther than this from every site known is worth a question, km. */
const FAR_KM = 1500;

/** Whether a position is far from every one of these; from none, nothing is. A file's positions may all be: as points of the unit sphere each comparison is three products. */
export function farFrom(places: readonly Position[]): (p: Position) => boolean {
  const all = places.map(onSphere);
  return (p) => {
    const [x, y, z] = onSphere(p);
    return all.length > 0 && all.every(([a, b, c]) => x * a + y * b + z * c < COS_FAR);
  };
}
const COS_FAR = Math.cos(FAR_KM / EARTH_KM);
function onSphere({ latitude, longitude }: Position): [x: number, y: number, z: number] {
  const [lat, lon] = [(latitude * Math.PI) / 180, (longitude * Math.PI) / 180];
  return [Math.cos(lat) * Math.cos(lon), Math.cos(lat) * Math.sin(lon), Math.sin(lat)];
}

/** A position with its coordinates swapped; `null` when they cannot be. */
export const turned = ({ latitude, longitude }: Position): Position | null => (Math.abs(longitude) <= 90 ? { latitude: longitude, longitude: latitude } : null);

/**
 * What to ask about a site's position and zone before it is kept.
 * @param zoneAt IANA zone of a position; ocean zones begin with `Etc/`; `null` where that cannot be told, and nothing is asked that needs it
 * @param others positions of the household's other sites
 * @param homeZone zone of the household: tells swapped coordinates at the very first site
 */
export function placeQuestions(
  site: { latitude: number | null; longitude: number | null; zone: string },
  others: readonly Position[],
  zoneAt: (latitude: number, longitude: number) => string | null,
  homeZone: string = site.zone,
): PlaceQuestion[] {
  const { latitude, longitude, zone } = site;
  if (latitude === null || longitude === null) return [];
  const here = { latitude, longitude };
  const zoneHere = zoneAt(latitude, longitude);
  const far = farFrom(others);
  const atSea = zoneHere?.startsWith('Etc/') === true;
  const swapped = turned(here);
  if (swapped && (atSea || far(here) || (others.length === 0 && zoneHere !== null && zoneHere !== homeZone))) {
    const zoneTurned = zoneAt(swapped.latitude, swapped.longitude);
    if (zoneTurned?.startsWith('Etc/') !== true && (others.length > 0 ? !far(swapped) : zoneTurned === homeZone))
      return [{ path: 'latitude', text: 'Latitude and longitude look swapped.', better: { ...swapped, ...(zoneTurned ? { zone: zoneTurned } : {}) } }];
  }
  if (atSea) return [{ path: 'latitude', text: 'This position is at sea.' }];
  if (far(here)) return [{ path: 'latitude', text: `This position is over ${FAR_KM} km from every other site.` }];
  if (zoneHere !== null && zoneHere !== zone) return [{ path: 'zone', text: `At this position the time zone is ${zoneHere}.`, better: { zone: zoneHere } }];
  return [];
}
