import type { RowDataPacket } from 'mysql2/promise';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

/** Names that a record can refer to, for forms. */
export async function namesForForms(householdId: string): Promise<Record<'network' | 'provider' | 'car', { id: string; name: string }[]>> {
  const [networks, providers, cars] = await Promise.all(
    (['network', 'provider', 'car'] as const).map(async (type) => {
      const [rows] = await pool().execute<RowDataPacket[]>(`SELECT id, name FROM ${type} WHERE household_id = ? ORDER BY archived_at IS NOT NULL, name`, [
        toBin(householdId),
      ]);
      return rows.map((r) => ({ id: fromBin(r.id), name: r.name as string }));
    }),
  );
  return { network: networks ?? [], provider: providers ?? [], car: cars ?? [] };
}

/** Names of the networks of a household by name; archived ones too unless they are left out. */
export async function networkNames(householdId: string, { archived }: { archived: boolean }): Promise<{ id: string; name: string }[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT id, name FROM network WHERE household_id = ?${archived ? '' : ' AND archived_at IS NULL'} ORDER BY name`,
    [toBin(householdId)],
  );
  return rows.map((r) => ({ id: fromBin(r.id), name: r.name as string }));
}
