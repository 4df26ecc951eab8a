import type { StoredEvent } from '@/core/visit/event';
import type { HeldEvents } from '../store/held-events';
import { eventsOfVisit } from '../store/keep-event';
import type { KeptEvent, PhoneStore } from '../store/phone-store';
import { deviceId } from '../touch/page-life';

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

/** What this phone's last touch made that still stands and is not itself a taking back, the latest first. */
export function toUndo(kept: readonly KeptEvent[]): KeptEvent[] {
  const takenBack = new Set(kept.filter((k) => k.event.kind === 'withdrawal').map((k) => k.event.payload.target));
  const here = deviceId();
  const standing = kept
    .filter((k) => k.event.deviceId === here && k.event.kind !== 'withdrawal' && !takenBack.has(k.event.id))
    .sort((a, b) => b.event.seq - a.event.seq || (a.event.id < b.event.id ? 1 : -1));
  const last = standing[0]?.event;
  const touch = standing.filter(({ event: e }) => e.life === last?.life && e.mono === last.mono && e.at === last.at);
  // Choosing another stall does not take back the visit.
  return touch.length > 1 ? touch.filter(({ event: e }) => e.kind !== 'pulled_in') : touch;
}

/** Acts of whoever records: corrections are made on any device, and make nobody the recorder. */
const acts = (kept: readonly KeptEvent[]) => kept.map((k) => k.event).filter((e) => e.kind !== 'correction' && e.kind !== 'withdrawal');
const records = (e: StoredEvent) => e.role === 'recorder' && e.origin === 'tap';

/** True when another phone records this visit: what is tapped here are observations beside it. */
export function looksOn(kept: readonly KeptEvent[]): boolean {
  const here = deviceId();
  const all = acts(kept).sort((a, b) => b.seq - a.seq);
  const mine = all.find((e) => e.deviceId === here);
  const other = all.find((e) => e.deviceId !== here);
  if (!mine) return other !== undefined;
  if (mine.role === 'observer') return true;
  // Another phone took over since, while this one was silent.
  return all.some((e) => e.deviceId !== here && records(e) && e.seq > mine.seq);
}

/** A phone that has recorded nothing for so long may be dead: another may record in its place. */
export const SILENT_S = 600;

/** Seconds since whoever records was last heard of. @param now UTC ms */
export function silentFor(kept: readonly KeptEvent[], now: number): number {
  const here = deviceId();
  const last = acts(kept)
    .filter((e) => e.deviceId !== here && records(e))
    .reduce((latest, e) => Math.max(latest, e.at), Number.NEGATIVE_INFINITY);
  return Math.max(0, (now - last) / 1000);
}
