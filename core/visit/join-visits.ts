import type { StoredEvent } from './event';

/**
 * The events of one recording of a visit as events of another recording of the same visit: what two phones kept
 * apart without a network becomes one. Copies are observations; each device keeps its own order and clock. What
 * took the other visit as a whole back is left behind.
 * @param newId the same id for the same event every time, so that joining twice adds nothing
 */
export function joinedEvents(into: string, from: readonly StoredEvent[], newId: (eventId: string) => string): StoredEvent[] {
  const ids = new Map(from.map((e) => [e.id, newId(e.id)]));
  return from
    .filter((e) => !(e.kind === 'withdrawal' && e.payload.target === e.visitId))
    .map((e) => {
      const target = typeof e.payload.target === 'string' ? ids.get(e.payload.target) : undefined;
      return {
        ...e,
        id: ids.get(e.id) as string,
        visitId: into,
        role: 'observer' as const,
        payload: { ...e.payload, ...(target ? { target } : {}), joinedFrom: e.visitId },
      };
    });
}
