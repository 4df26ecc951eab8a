import type { StoredEvent } from '../visit/event';

/** The events of a visit as the server answers them, unchanged, and beside them what the batches said of their devices' clocks, ms by event. */
export type VisitEvents = { events: StoredEvent[] | null; heard?: Record<string, number> };

/** An event with what its batch said of its device's clock. */
export const withHeard = (event: StoredEvent, heard_ms: number | undefined): StoredEvent => (heard_ms === undefined ? event : { ...event, heard_ms });

/** The answer for these events. */
export function visitEventsAnswer(all: readonly StoredEvent[]): VisitEvents {
  const heard: Record<string, number> = {};
  const events = all.map(({ heard_ms, ...event }) => {
    if (heard_ms !== undefined) heard[event.id] = heard_ms;
    return event;
  });
  return { events, heard };
}
