import type { RowDataPacket } from 'mysql2/promise';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';

/** Condition on `visit`: all but those that are private to somebody else. It takes one value, `seenBy(personId)`. @param v the table's name in the query */
export const seen = (v = 'v'): string => `(${v}.private_to IS NULL OR ${v}.private_to = ?)`;
export const seenBy = (personId: string): Buffer => toBin(personId);

/** Of some visits those that are private to somebody else, withdrawn ones too. */
export async function hiddenOf(who: Who, visitIds: readonly string[]): Promise<Set<string>> {
  if (visitIds.length === 0) return new Set();
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT id FROM visit v WHERE household_id = ? AND id IN (${visitIds.map(() => '?').join(', ')}) AND NOT ${seen()}`,
    [toBin(who.householdId), ...visitIds.map(toBin), seenBy(who.personId)],
  );
  return new Set(rows.map((r) => fromBin(r.id)));
}
