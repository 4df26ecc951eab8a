import type { RowDataPacket } from 'mysql2/promise';
import { MOST_WATCHED, type Watch, type watchForm } from '@/core/compare/watch';
import { GROUPINGS, type Grouping } from '@/core/figures/groupings';
import { isId } from '@/core/units/id';
import type * as z from '@/core/units/schema';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';

const fromRow = (r: RowDataPacket): Watch => ({
  id: fromBin(r.id),
  by: r.by_what,
  a: r.key_a,
  b: r.key_b,
  figure: r.figure,
  since: (r.since as Date).getTime(),
});

/** The pairs on watch, the first put first. */
export async function watchesOf(householdId: string, by?: Grouping): Promise<Watch[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, by_what, key_a, key_b, figure, since FROM watch WHERE household_id = ? AND ended_at IS NULL${by ? ' AND by_what = ?' : ''} ORDER BY since, id`,
    by ? [toBin(householdId), by] : [toBin(householdId)],
  );
  return rows.map(fromRow);
}

/**
 * Puts a pair on watch from this moment on. One that is on watch already, either way round, stays as it is: the earlier moment holds.
 * @returns why not, or `null`
 */
export async function putOnWatch(who: Who, form: z.infer<typeof watchForm>): Promise<string | null> {
  const { by, figure } = form;
  if (form.a === form.b) return 'Choose two different ones.';
  if (typeof GROUPINGS[by].named === 'string' && !(isId(form.a) && isId(form.b))) return 'That is not known here.';
  const [a, b] = [form.a, form.b].sort() as [string, string];
  return inTransaction(async (c) => {
    // Who puts two on watch at once waits for the other.
    await c.execute('SELECT id FROM household WHERE id = ? FOR UPDATE', [toBin(who.householdId)]);
    const [open] = await c.execute<RowDataPacket[]>('SELECT id, by_what, key_a, key_b, figure FROM watch WHERE household_id = ? AND ended_at IS NULL', [
      toBin(who.householdId),
    ]);
    if (open.some((r) => r.by_what === by && r.key_a === a && r.key_b === b && r.figure === figure)) return null;
    if (open.length >= MOST_WATCHED) return `${MOST_WATCHED} pairs are on watch: end one first. With more, some would be found, not watched.`;
    // Sent twice it is one; an id that another household has is another's.
    await c.execute('INSERT IGNORE INTO watch (household_id, id, by_what, key_a, key_b, figure, since, put_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?)', [
      toBin(who.householdId),
      toBin(form.id),
      by,
      a,
      b,
      figure,
      new Date(now()),
      toBin(who.personId),
    ]);
    return null;
  });
}

/** Ends a watch; one that is over, or unknown here, stays as it is. */
export async function endWatch(who: Who, watchId: string): Promise<void> {
  await pool().execute('UPDATE watch SET ended_at = ? WHERE household_id = ? AND id = ? AND ended_at IS NULL', [
    new Date(now()),
    toBin(who.householdId),
    toBin(watchId),
  ]);
}
