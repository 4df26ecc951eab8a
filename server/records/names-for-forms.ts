import type { RowDataPacket } from 'mysql2/promise';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

type Named = { id: string; name: string };
/** A list to choose from that is longer is of no use. */
const MOST = 1000;

/** Names of the records of one type, those in use first, by name. */
export async function namesOf(householdId: string, type: 'network' | 'provider' | 'car' | 'site'): Promise<Named[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, name FROM ${type} WHERE household_id = ? ORDER BY archived_at IS NOT NULL, name LIMIT ${MOST}`,
    [toBin(householdId)],
  );
  return rows.map((r) => ({ id: fromBin(r.id), name: r.name as string }));
}

/** Names that a record can refer to, for forms. */
export async function namesForForms(householdId: string): Promise<Record<'network' | 'provider' | 'car', Named[]>> {
  const [network, provider, car] = await Promise.all([namesOf(householdId, 'network'), namesOf(householdId, 'provider'), namesOf(householdId, 'car')]);
  return { network, provider, car };
}

/** Names of all records of one type of a household, by name; archived ones too unless they are left out. */
export async function allNames(householdId: string, type: 'network' | 'site', { archived }: { archived: boolean }): Promise<Named[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, name FROM ${type} WHERE household_id = ?${archived ? '' : ' AND archived_at IS NULL'} ORDER BY name`,
    [toBin(householdId)],
  );
  return rows.map((r) => ({ id: fromBin(r.id), name: r.name as string }));
}
