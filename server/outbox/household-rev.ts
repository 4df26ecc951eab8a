import type { RowDataPacket } from 'mysql2/promise';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';

/** Counts the household's writing transactions. */
export async function householdRev(householdId: string): Promise<number> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT rev FROM household WHERE id = ?', [toBin(householdId)]);
  return Number(rows[0]?.rev ?? 0);
}
