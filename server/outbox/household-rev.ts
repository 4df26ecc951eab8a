import type { RowDataPacket } from 'mysql2/promise';
import { fromBin, toBin } from '../db/binary-id';
import { pool } from '../db/pool';

/** By how much a restore moves a household's rev on: nothing written after the backup, and lost, had a rev as great. */
export const EPOCH_STEP = 1_000_000;

/** `rev` counts the household's writing transactions; `epoch` changes with each restore, from a backup that had `epochRev`. */
export type HouseholdRev = { rev: number; epoch: string; epochRev: number };

export async function householdRev(householdId: string): Promise<HouseholdRev> {
  const [rows] = await pool().execute<RowDataPacket[]>('SELECT rev, epoch, epoch_rev FROM household WHERE id = ?', [toBin(householdId)]);
  const r = rows[0];
  return { rev: Number(r?.rev ?? 0), epoch: r?.epoch ? fromBin(r.epoch) : 'first', epochRev: Number(r?.epoch_rev ?? 0) };
}
