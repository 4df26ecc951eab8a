import type { RowDataPacket } from 'mysql2/promise';
import type { Lately } from '@/core/power/compatible-stalls';
import { localDay } from '@/core/units/zoned';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from './seen-by';

/** The last two outcomes at each stall of a household, newest first; of one site when it is given. */
export async function stallsLately({ householdId, personId }: Who, siteId?: string): Promise<Lately> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT stall_id, outcome, sort_at, zone FROM (
       SELECT a.stall_id, a.outcome, v.sort_at, v.zone,
              ROW_NUMBER() OVER (PARTITION BY a.stall_id ORDER BY v.sort_at DESC, a.n DESC) AS nth
       FROM visit v JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id
       WHERE v.household_id = ? AND v.withdrawn = FALSE AND ${seen()} AND a.stall_id IS NOT NULL${siteId ? ' AND v.site_id = ?' : ''}
     ) lately WHERE nth <= 2 ORDER BY stall_id, nth`,
    [toBin(householdId), seenBy(personId), ...(siteId ? [toBin(siteId)] : [])],
  );
  const out: Record<string, { outcome: 'power' | 'failed' | 'gave_up' | 'open'; on: string }[]> = {};
  for (const r of rows) {
    const id = fromBin(r.stall_id);
    out[id] ??= [];
    out[id].push({ outcome: r.outcome, on: localDay((r.sort_at as Date).getTime(), r.zone) });
  }
  return out;
}
