import type { RowDataPacket } from 'mysql2/promise';
import { toBin } from '../db/binary-id';
import { pool } from '../db/pool';

/** Below this the way to the server explains the difference, seconds. */
const TOLD_S = 5;

/** By how many seconds the clocks of the phones that sent a visit were ahead of the server's (behind: negative), where it is worth telling. */
export async function phoneClocks(householdId: string, visitId: string): Promise<number[]> {
  const [rows] = await pool().execute<RowDataPacket[]>(
    `SELECT device_id, TIMESTAMPDIFF(MICROSECOND, received_at, sent_at) / 1000000 AS ahead
       FROM event WHERE household_id = ? AND visit_id = ? AND sent_at IS NOT NULL`,
    [toBin(householdId), toBin(visitId)],
  );
  // The batch that came quickest says it best.
  const byDevice = new Map<string, number>();
  for (const r of rows) {
    const key = (r.device_id as Buffer).toString('hex');
    const ahead = Number(r.ahead);
    const best = byDevice.get(key);
    if (best === undefined || Math.abs(ahead) < Math.abs(best)) byDevice.set(key, ahead);
  }
  return [...byDevice.values()].filter((s) => Math.abs(s) > TOLD_S);
}
