import type { RowDataPacket } from 'mysql2/promise';
import type { ItemResult } from '@/core/protocol/outbox';
import { NOT_FOR_ROLE } from '@/core/records/roles';
import type { StoredEvent } from '@/core/visit/event';
import { fromBin, toBin } from '../db/binary-id';
import { eventsById } from '../visits/event-rows';
import { wishesOf } from '../visits/join-wishes';
import type { Writing } from './writing';

/** So long after the end of a visit what was seen of it may still be timed by a clock that is off. */
const AFTER_END_MS = 15 * 60_000;
type Refusal = Pick<ItemResult, 'path' | 'reason' | 'code'>;

/**
 * What somebody who only looks on may not write, and why, by the id of the event: they add to a visit that is open, or to a
 * recording of theirs that is to be joined to one; they take back and correct what they wrote themselves. What belongs to a
 * visit that is not here yet waits on their phone.
 */
export async function lookOnOnly(w: Writing, events: readonly StoredEvent[]): Promise<Map<string, Refusal>> {
  const { c, who } = w;
  const refused = new Map<string, Refusal>();
  const visitIds = [...new Set(events.map((e) => e.visitId))];
  if (visitIds.length === 0) return refused;
  const marks = visitIds.map(() => '?').join(', ');
  const [rows] = await c.execute<RowDataPacket[]>(`SELECT id, pulled_out_at, person_id FROM visit WHERE household_id = ? AND id IN (${marks})`, [
    toBin(who.householdId),
    ...visitIds.map(toBin),
  ]);
  const visits = new Map(rows.map((r) => [fromBin(r.id), { endedAt: (r.pulled_out_at as Date | null)?.getTime() ?? null, personId: fromBin(r.person_id) }]));
  const joining = await wishesOf(w, events);
  const targets = events.flatMap((e) => (typeof e.payload.target === 'string' ? [e.payload.target] : []));
  const known = await eventsById(c, who.householdId, targets);
  const own = new Set(events.map((e) => e.id));
  for (const e of events) {
    const { target } = e.payload;
    const takesBack = e.kind === 'correction' || e.kind === 'withdrawal';
    const visit = visits.get(e.visitId);
    if (joining.has(e.visitId)) {
      if (joining.get(e.visitId) === null) refused.set(e.id, { code: 'visit_unknown', reason: 'is of a visit that is not here yet: it waits' });
    } else if (!visit) refused.set(e.id, { code: 'visit_unknown', reason: 'is of a visit that is not here yet: it waits' });
    else if (takesBack && !own.has(target as string) && known.get(target as string)?.personId !== who.personId)
      refused.set(e.id, { path: 'payload.target', reason: NOT_FOR_ROLE.observer });
    else if (!takesBack && e.role !== 'observer') refused.set(e.id, { path: 'role', reason: NOT_FOR_ROLE.observer });
    else if (!takesBack && visit.endedAt !== null && e.at > visit.endedAt + AFTER_END_MS)
      refused.set(e.id, { path: 'visitId', reason: 'is a visit that is over: you can add to one that is open' });
  }
  return refused;
}
