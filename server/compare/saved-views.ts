import type { RowDataPacket } from 'mysql2/promise';
import { MOST_VIEWS, type SavedView, viewAddress, type viewForm } from '@/core/compare/saved-view';
import type * as z from '@/core/units/schema';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction, pool } from '../db/pool';

/** The comparisons that a household saved, by name. */
export async function savedViews(householdId: string): Promise<SavedView[]> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT id, name, address FROM saved_view WHERE household_id = ? ORDER BY name', [toBin(householdId)]);
  return rows.map((r) => ({ id: fromBin(r.id), name: r.name, address: r.address }));
}

/**
 * Saves a comparison by name; of the same name it takes the place of the one there was.
 * @returns why not, or `null`
 */
export const saveView = (who: Who, form: z.infer<typeof viewForm>): Promise<string | null> =>
  inTransaction(async (c) => {
    await c.execute('SELECT id FROM household WHERE id = ? FOR UPDATE', [toBin(who.householdId)]);
    const [there] = await c.execute<RowDataPacket[]>('SELECT id, name FROM saved_view WHERE household_id = ?', [toBin(who.householdId)]);
    const known = there.some((r) => fromBin(r.id) === form.id || String(r.name).toLowerCase() === form.name.toLowerCase());
    if (!known && there.length >= MOST_VIEWS) return `${MOST_VIEWS} comparisons are saved: remove one first.`;
    // The one that bore the name gives way, whatever its id.
    await c.execute('DELETE FROM saved_view WHERE household_id = ? AND name = ? AND id <> ?', [toBin(who.householdId), form.name, toBin(form.id)]);
    await c.execute(
      `INSERT INTO saved_view (household_id, id, name, address, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?)
         ON DUPLICATE KEY UPDATE name = VALUES(name), address = VALUES(address), saved_by = VALUES(saved_by), saved_at = VALUES(saved_at)`,
      [toBin(who.householdId), toBin(form.id), form.name, viewAddress(form.address), toBin(who.personId), new Date(now())],
    );
    return null;
  });

/** Removes one; one that is not there, or another household's, stays as it is. */
export async function removeView(who: Who, viewId: string): Promise<void> {
  await pool().execute('DELETE FROM saved_view WHERE household_id = ? AND id = ?', [toBin(who.householdId), toBin(viewId)]);
}
