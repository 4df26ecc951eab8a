import type { RowDataPacket } from 'mysql2/promise';
import { byStall, type Danger, type Dangers } from '@/core/visit/dangers';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';

/** A danger with the visit that reported it: whoever clears it adds to that visit. */
export type ReportedDanger = Danger & { visitId: string; zone: string; maxSeq: number };

/** What was reported at the stalls of a household and nobody has cleared since, the newest visit first. @param stallId of this one alone */
export async function reportedDangers(householdId: string, stallId?: string): Promise<ReportedDanger[]> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT d.visit_id, d.stall_id, d.danger, d.on_day, v.zone,
            (SELECT MAX(e.seq) FROM event e FORCE INDEX (event_visit) WHERE e.household_id = d.household_id AND e.visit_id = d.visit_id) AS max_seq
       FROM stall_danger d JOIN visit v ON v.household_id = d.household_id AND v.id = d.visit_id
      WHERE d.household_id = ?${stallId ? ' AND d.stall_id = ?' : ''} ORDER BY d.on_day DESC`,
    stallId ? [toBin(householdId), toBin(stallId)] : [toBin(householdId)],
  );
  return rows.map((r) => ({ visitId: fromBin(r.visit_id), stallId: fromBin(r.stall_id), is: r.danger, on: r.on_day, zone: r.zone, maxSeq: Number(r.max_seq) }));
}

/** The same by stall, as answers about stalls want it. */
export const stallDangers = async (householdId: string): Promise<Dangers> =>
  byStall((await reportedDangers(householdId)).map(({ stallId, is, on }) => ({ stallId, is, on })));
