import type { RowDataPacket } from 'mysql2/promise';
import type { Who } from '../accounts/who';
import { toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from './seen-by';

/** True for a visit of the household that this person sees whole. */
export async function visitSeen(who: Who, visitId: string): Promise<boolean> {
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(`SELECT 1 FROM visit v WHERE household_id = ? AND id = ? AND ${seen()}`, [
    toBin(who.householdId),
    toBin(visitId),
    seenBy(who.personId),
  ]);
  return rows.length > 0;
}
