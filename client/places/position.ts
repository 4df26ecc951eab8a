import { type PlaceQuestion, type Position, placeQuestions, turned } from '@/core/records/place-questions';
import { askServer } from '../server/ask-server';

/** Nobody waits longer for what can be filled in by hand, or later. */
const WAIT_MS = 5_000;
/** Zone of a position as the server's table has it, `Etc/…` at sea; `null` where it cannot be asked. */
async function zoneOf({ latitude, longitude }: Position): Promise<string | null> {
  const said = await askServer(`/api/v1/zone?latitude=${latitude}&longitude=${longitude}`, {}, WAIT_MS);
  return said?.ok ? (said.body as { zone: string }).zone : null;
}

/** IANA zone of a position; `null` at sea, where none is worth filling in, and without a network. */
export async function zoneAt(latitude: number, longitude: number): Promise<string | null> {
  const zone = await zoneOf({ latitude, longitude });
  return zone?.startsWith('Etc/') ? null : zone;
}

/** What to ask about a site's position before it is kept. @param others positions of the other sites @param homeZone the household's zone */
export async function askAboutPlace(fields: Record<string, unknown>, others: readonly Position[], homeZone: string): Promise<PlaceQuestion[]> {
  const site = fields as { latitude: number | null; longitude: number | null; zone: string };
  if (site.latitude === null || site.longitude === null) return [];
  const here = { latitude: site.latitude, longitude: site.longitude };
  const there = turned(here);
  const [zone, zoneTurned] = await Promise.all([zoneOf(here), there ? zoneOf(there) : null]);
  return placeQuestions(site, others, (latitude) => (latitude === here.latitude ? zone : zoneTurned), homeZone);
}
