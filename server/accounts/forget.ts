import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import { FORMER_DRIVER } from '@/core/records/roles';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { inTransaction } from '../db/pool';
import { forgetRecords } from '../records/kept-records';
import { forgetRows } from '../visits/kept-rows';
import { moveOut, roleForUpdate } from './members';
import type { Who } from './who';

/** Deletes a household with everything of it; its people, and their sessions, are elsewhere by then. */
const forget = (c: PoolConnection, householdId: string) => c.query('CALL forget_household(?)', [toBin(householdId)]);

/** What is kept of it in memory, once it is gone. */
function forgetKept(householdId: string): void {
  forgetRecords(householdId);
  forgetRows(householdId);
}

/** Deletes a household of the owner's, all of it, at once. Its people keep their accounts. @returns why not, else null */
export async function deleteHousehold(who: Who): Promise<string | null> {
  const why = await inTransaction(async (c) => {
    if ((await roleForUpdate(c, who.householdId, who.personId)) !== 'owner') return 'Only the owner deletes a household.';
    const [people] = await c.execute<RowDataPacket[]>('SELECT person_id FROM member WHERE household_id = ? AND left_at IS NULL', [toBin(who.householdId)]);
    for (const p of people) await moveOut(c, who.householdId, fromBin(p.person_id));
    await forget(c, who.householdId);
    return null;
  });
  if (why === null) forgetKept(who.householdId);
  return why;
}

/**
 * Deletes a person's account: name, address and password go; what they recorded stays with its household under no name.
 * A household of which they were the only one goes with them.
 * @returns why not, else null: an owner of others hands over first
 */
export async function deletePerson(personId: string): Promise<string | null> {
  const { why, gone } = await inTransaction(async (c): Promise<{ why: string | null; gone: string[] }> => {
    const [owned] = await c.execute<RowDataPacket[]>(
      `SELECT h.id, h.name, (SELECT COUNT(*) FROM member o WHERE o.household_id = h.id AND o.left_at IS NULL) AS people
         FROM member m JOIN household h ON h.id = m.household_id WHERE m.person_id = ? AND m.role = 'owner' AND m.left_at IS NULL FOR UPDATE`,
      [toBin(personId)],
    );
    const others = owned.find((h) => Number(h.people) > 1);
    if (others) return { why: `You own ${others.name}, which has other people: hand it over first, or delete it.`, gone: [] };
    const at = new Date(now());
    await c.execute('DELETE FROM signed_in_session WHERE person_id = ?', [toBin(personId)]);
    await c.execute('DELETE FROM api_token WHERE person_id = ?', [toBin(personId)]);
    await c.execute('DELETE FROM known_device WHERE person_id = ?', [toBin(personId)]);
    await c.execute('UPDATE member SET left_at = COALESCE(left_at, ?) WHERE person_id = ?', [at, toBin(personId)]);
    // The address is free again, nothing opens the account, and it opens nothing.
    await c.execute(
      `UPDATE person SET name = ?, email = CONCAT(HEX(id), '@deleted.invalid'), password_hash = '', recovery_hash = NULL, recovery_made_at = NULL,
              household_id = NULL, wishes = NULL, deleted_at = ? WHERE id = ?`,
      [FORMER_DRIVER, at, toBin(personId)],
    );
    const gone = owned.map((h) => fromBin(h.id));
    for (const id of gone) await forget(c, id);
    return { why: null, gone };
  });
  for (const id of gone) forgetKept(id);
  return why;
}
