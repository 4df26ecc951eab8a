import type { RowDataPacket } from 'mysql2/promise';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from '../visits/seen-by';

/** Visits read at a time: memory does not grow with the ledger. */
const PORTION = 200;

/** The ids of every visit that this person sees whole, in their order, some at a time. */
export async function* visitPortions({ householdId, personId }: Who): AsyncGenerator<string[]> {
  const figures = await figuresOf(householdId);
  for (let after: Buffer = Buffer.alloc(16); ; ) {
    const [rows] = await figures.execute<RowDataPacket[]>(
      `SELECT id FROM visit v WHERE household_id = ? AND id > ? AND ${seen()} ORDER BY id LIMIT ${PORTION}`,
      [toBin(householdId), after, seenBy(personId)],
    );
    if (rows.length === 0) return;
    yield rows.map((r) => fromBin(r.id));
    after = rows.at(-1)?.id as Buffer;
  }
}
