import type { RowDataPacket } from 'mysql2/promise';
import type { Who } from '../accounts/who';
import { fromBin, fromBinOrNull, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from '../visits/seen-by';

export type OtherVisit = { id: string; at: number; zone: string; site: string; carId: string | null };

/** Visits that can be laid over another: those of the same car or at the same site whose power was read; what they share most first, then the newest. */
export async function visitsToLayOver(who: Who, visitId: string, most = 300): Promise<OtherVisit[]> {
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.sort_at, v.zone, v.car_id, s.name AS site
       FROM visit v JOIN visit here ON here.household_id = v.household_id AND here.id = ?
       LEFT JOIN site s ON s.household_id = v.household_id AND s.id = v.site_id
      WHERE v.household_id = ? AND (v.car_id = here.car_id OR v.site_id = here.site_id) AND v.id <> ? AND v.withdrawn = FALSE AND ${seen()}
        AND EXISTS (SELECT 1 FROM session_power p WHERE p.household_id = v.household_id AND p.visit_id = v.id)
      ORDER BY COALESCE(v.car_id = here.car_id, FALSE) + COALESCE(v.site_id = here.site_id, FALSE) DESC, COALESCE(v.site_id = here.site_id, FALSE) DESC, v.sort_at DESC
      LIMIT ${Math.trunc(most)}`,
    [toBin(visitId), toBin(who.householdId), toBin(visitId), seenBy(who.personId)],
  );
  return rows.map((r) => ({
    id: fromBin(r.id),
    at: r.sort_at.getTime(),
    zone: r.zone,
    site: r.site ?? 'Somewhere new',
    carId: fromBinOrNull(r.car_id),
  }));
}
