import { type PlaceQuestion, type Position, placeQuestions } from '@/core/records/place-questions';

/** Zones of the world by position: a table large enough to be fetched only when a position is typed. */
const zones = () => import('tz-lookup').then((m) => m.default);

/** IANA zone of a position; `null` at sea, where none is worth filling in. */
export async function zoneAt(latitude: number, longitude: number): Promise<string | null> {
  const zone = (await zones())(latitude, longitude);
  return zone.startsWith('Etc/') ? null : zone;
}

/** What to ask about a site's position before it is kept. @param others positions of the other sites @param homeZone the household's zone */
export async function askAboutPlace(fields: Record<string, unknown>, others: readonly Position[], homeZone: string): Promise<PlaceQuestion[]> {
  return placeQuestions(fields as { latitude: number | null; longitude: number | null; zone: string }, others, await zones(), homeZone);
}
