import type { RowDataPacket } from 'mysql2/promise';
import { isId } from '@/core/units/id';
import { printDate } from '@/core/units/zoned';
import type { Who } from '../accounts/who';
import { toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from './seen-by';

/** `Vrba Crossing, 14 Oct 2025` of a visit; `null`: it is not here, or private to somebody else. */
export async function visitTitle(who: Who, visitId: string): Promise<string | null> {
  if (!isId(visitId)) return null;
  const [[row]] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.sort_at, v.zone, s.name FROM visit v LEFT JOIN site s ON s.household_id = v.household_id AND s.id = v.site_id
      WHERE v.household_id = ? AND v.id = ? AND ${seen()}`,
    [toBin(who.householdId), toBin(visitId), seenBy(who.personId)],
  );
  return row ? `${row.name ?? 'A visit'}, ${printDate((row.sort_at as Date).getTime(), row.zone)}` : null;
}
