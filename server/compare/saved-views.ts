import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
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
    await putView(c, who.householdId, { ...form, address: viewAddress(form.address), savedBy: who.personId, savedAt: now() });
    return null;
  });

/** A comparison as it is kept: who saved it, and when. */
export type ViewRow = SavedView & { savedBy: string; savedAt: number };

/** Writes one; the one that bore the name gives way, whatever its id. */
export async function putView(c: PoolConnection, householdId: string, view: ViewRow): Promise<void> {
  await c.execute('DELETE FROM saved_view WHERE household_id = ? AND name = ? AND id <> ?', [toBin(householdId), view.name, toBin(view.id)]);
  await c.execute(
    `INSERT INTO saved_view (household_id, id, name, address, saved_by, saved_at) VALUES (?, ?, ?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE name = VALUES(name), address = VALUES(address), saved_by = VALUES(saved_by), saved_at = VALUES(saved_at)`,
    [toBin(householdId), toBin(view.id), view.name, view.address, toBin(view.savedBy), new Date(view.savedAt)],
  );
}

/** Removes one; one that is not there, or another household's, stays as it is. */
export async function removeView(who: Who, viewId: string): Promise<void> {
  await pool().execute('DELETE FROM saved_view WHERE household_id = ? AND id = ?', [toBin(who.householdId), toBin(viewId)]);
}
