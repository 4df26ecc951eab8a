import type { Steps } from '@/core/units/steps';
import { deriveVisit, type Visit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { payloadProblem } from '@/core/visit/payloads';
import { unhurried } from '../unhurried';
import { eventsOfVisits } from './event-rows';

/** Visits derived from their events, by id, in turns with what else is asked. One that cannot be is told in the log and hinders no other. */
export const derivedVisits = (events: Iterable<readonly [visitId: string, events: readonly StoredEvent[]]>): Promise<Map<string, Visit>> =>
  unhurried(deriving(events));

const PORTION = 200;
/** Visits of a household derived from what is recorded of them, in the order of their ids here: of thousands the events of some at a time. */
export async function visitsById(householdId: string, ids: readonly string[]): Promise<Map<string, Visit>> {
  const out = new Map<string, Visit>();
  for (let from = 0; from < ids.length; from += PORTION) {
    const portion = ids.slice(from, from + PORTION);
    const derived = await derivedVisits(await eventsOfVisits(householdId, portion));
    for (const id of portion) {
      const visit = derived.get(id);
      if (visit) out.set(id, visit);
    }
  }
  return out;
}

function* deriving(events: Iterable<readonly [string, readonly StoredEvent[]]>): Steps<Map<string, Visit>> {
  const out = new Map<string, Visit>();
  for (const [visitId, own] of events) {
    try {
      out.set(visitId, deriveVisit(visitId, own, payloadProblem));
    } catch (error) {
      console.error(`visit ${visitId} could not be derived`, error);
    }
    yield;
  }
  return out;
}
