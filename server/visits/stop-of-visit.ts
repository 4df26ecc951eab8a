import type { RowDataPacket } from 'mysql2/promise';
import type { StopVisit } from '@/core/visit/stop';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from './seen-by';

/** A chain longer than this is a mistake, not a stop. */
const MOST = 8;

/** Every visit of the stop that a visit belongs to, itself too; one visit alone is no stop. */
export async function stopOfVisit({ householdId, personId }: Who, visitId: string): Promise<StopVisit[]> {
  const figures = await figuresOf(householdId);
  const found = new Map<string, StopVisit>();
  const asked = new Set<string>();
  let ask = [visitId];
  while (ask.length > 0 && found.size < MOST) {
    for (const id of ask) asked.add(id);
    const marks = ask.map(() => '?').join(', ');
    const ids = ask.map(toBin);
    const [rows] = await figures.execute<RowDataPacket[]>(
      `SELECT v.id, v.linked_visit, v.site_id, v.zone, v.pulled_in_at, v.pulled_out_at, f.ended, f.lost_s
         FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND ${seen()} AND (v.id IN (${marks}) OR v.linked_visit IN (${marks}))`,
      [toBin(householdId), seenBy(personId), ...ids, ...ids],
    );
    const next = new Set<string>();
    for (const r of rows) {
      const id = fromBin(r.id);
      if (found.has(id)) continue;
      found.set(id, {
        id,
        siteId: r.site_id === null ? null : fromBin(r.site_id),
        zone: r.zone,
        pulledInAt: r.pulled_in_at === null ? null : (r.pulled_in_at as Date).getTime(),
        pulledOutAt: r.pulled_out_at === null ? null : (r.pulled_out_at as Date).getTime(),
        ended: r.ended,
        lost_s: r.lost_s,
      });
      next.add(id);
      if (r.linked_visit !== null) next.add(fromBin(r.linked_visit));
    }
    ask = [...next].filter((id) => !asked.has(id));
  }
  return found.size > 1 ? [...found.values()] : [];
}
