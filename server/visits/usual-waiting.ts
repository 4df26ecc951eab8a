import type { RowDataPacket } from 'mysql2/promise';
import { type Usual, usualHandshakes } from '@/core/compare/usual-handshake';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from './seen-by';

/** The usual handshakes of a household's stalls and networks by means, over the attempts that count. */
export async function usualWaiting({ householdId, personId }: Who): Promise<Usual> {
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT a.stall_id, a.network_id, a.means_kind, a.outcome, a.late, a.handshake_s
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
       JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND f.left_out = FALSE AND ${seen()} AND a.stall_id IS NOT NULL`,
    [toBin(householdId), seenBy(personId)],
  );
  return usualHandshakes(
    rows.map((r) => ({
      stallId: fromBin(r.stall_id),
      networkId: r.network_id === null ? null : fromBin(r.network_id),
      meansKind: r.means_kind,
      outcome: r.outcome,
      late: r.late === 1,
      handshake_s: r.handshake_s,
    })),
  );
}
