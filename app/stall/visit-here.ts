import type { HeldEvents } from '@/client/store/held-events';
import { eventsOfVisit } from '@/client/store/keep-event';
import type { KeptEvent, PhoneStore } from '@/client/store/phone-store';
import { deviceId } from '@/client/touch/page-life';

/** A visit's events, written down or held in memory. */
export const readVisit = async (store: PhoneStore | null, held: HeldEvents, id: string): Promise<KeptEvent[]> => [
  ...(store ? await eventsOfVisit(store, id) : []),
  ...held.all().filter((k) => k.event.visitId === id),
];

/** A stop goes on within this time or not at all. */
const STOP_GOES_ON_MS = 3 * 3600 * 1000;
/** The id that the visit before gave its successor. */
export async function nextVisitId(store: PhoneStore): Promise<string | null> {
  const next = (await store.get('meta', 'nextVisit').catch(() => undefined)) as { id: string; at: number } | undefined;
  return next && Date.now() - next.at < STOP_GOES_ON_MS ? next.id : null;
}
/** The same, used up. */
export async function takeNextVisitId(store: PhoneStore): Promise<string | null> {
  const id = await nextVisitId(store);
  await store.delete('meta', 'nextVisit').catch(() => {});
  return id;
}

/** This phone's last event that still stands and is not itself a taking back. */
export function lastToUndo(kept: readonly KeptEvent[]): KeptEvent | null {
  const takenBack = new Set(kept.filter((k) => k.event.kind === 'withdrawal').map((k) => k.event.payload.target));
  const here = deviceId();
  const standing = kept.filter((k) => k.event.deviceId === here && k.event.kind !== 'withdrawal' && !takenBack.has(k.event.id));
  return standing.sort((a, b) => b.event.seq - a.event.seq)[0] ?? null;
}

/** True when another phone records this visit: what is tapped here are observations beside it. */
export function looksOn(kept: readonly KeptEvent[]): boolean {
  if (kept.length === 0) return false;
  const here = deviceId();
  // Corrections are made on any device, and make nobody the recorder.
  const mine = kept.find((k) => k.event.deviceId === here && k.event.kind !== 'correction' && k.event.kind !== 'withdrawal');
  return mine ? mine.event.role === 'observer' : kept.some((k) => k.event.deviceId !== here);
}
