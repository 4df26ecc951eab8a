import { isId } from '../units/id';
import { effectiveEvents } from './effective';
import type { StoredEvent } from './event';

/**
 * The events of one recording of a visit as events of another recording of the same visit: what two phones kept
 * apart without a network becomes one. Copies are observations; each device keeps its own order and clock. What
 * took the other visit as a whole back is left behind, and so is what was recorded in this visit to begin with.
 * @param newId the same id for the same event every time, so that joining twice adds nothing
 */
export function joinedEvents(into: string, from: readonly StoredEvent[], newId: (eventId: string) => string): StoredEvent[] {
  const whole = ofTheWhole(from);
  return from
    .filter((e) => !whole.has(e.id) && e.payload.recordedIn !== into)
    .map((e) => ({
      ...e,
      id: newId(e.id),
      visitId: into,
      role: 'observer' as const,
      payload: { ...followed(e.payload, newId), joinedFrom: e.visitId, recordedIn: e.payload.recordedIn ?? e.visitId },
    }));
}

/** Ids of the withdrawals that take back a visit as a whole, and of those that restore it. */
function ofTheWhole(events: readonly StoredEvent[]): Set<string> {
  const found = new Set<string>();
  let before = -1;
  while (found.size > before) {
    before = found.size;
    for (const { id, kind, visitId, payload } of events)
      if (kind === 'withdrawal' && (payload.target === visitId || found.has(payload.target as string))) found.add(id);
  }
  return found;
}

/** Members of payloads that name an event of the same recording: what is corrected or taken back, the hold that was released, the round that is void. */
const NAMING = ['target', 'hold', 'run'] as const;

/** What names other events of the recording names their copies. */
function followed(payload: Record<string, unknown>, newId: (eventId: string) => string): Record<string, unknown> {
  const { sessions, set } = payload;
  return {
    ...payload,
    ...Object.fromEntries(NAMING.flatMap((name) => (typeof payload[name] === 'string' ? [[name, newId(payload[name])]] : []))),
    ...(Array.isArray(sessions) ? { sessions: sessions.map((id) => (typeof id === 'string' ? newId(id) : id)) } : {}),
    ...(typeof set === 'object' && set !== null && !Array.isArray(set) ? { set: followed(set as Record<string, unknown>, newId) } : {}),
  };
}

/**
 * The recording that a visit was joined into, as long as that stands.
 * @param standing ids of the withdrawals of the visit that stand, newest last
 */
export function joinedInto(events: readonly StoredEvent[], standing: readonly string[]): string | null {
  const into = standing.flatMap((id) => {
    const said = events.find((e) => e.id === id)?.payload.joinedInto;
    return isId(said) ? [said] : [];
  });
  return into.at(-1) ?? null;
}

/**
 * What to take back in a recording so that another, joined into it, is parted from it, or joined again.
 * Copies that a person took back stay taken back; what parting took back says so.
 * @param there the events of the recording that was joined into
 * @returns ids of the events to withdraw
 */
export function takenBackTo(to: 'part' | 'join_again', there: readonly StoredEvent[], visitId: string, from: string): string[] {
  const { gone } = effectiveEvents(there, visitId, () => null);
  const asked = (e: StoredEvent) =>
    to === 'part'
      ? e.payload.joinedFrom === from && e.kind !== 'withdrawal' && e.kind !== 'correction'
      : e.kind === 'withdrawal' && e.payload.partedFrom === from;
  return there.filter((e) => asked(e) && !gone.has(e.id)).map((e) => e.id);
}
