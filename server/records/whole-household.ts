import type { RowDataPacket } from 'mysql2/promise';
import { inReferenceOrder } from '@/core/records/reference-order';
import { membersOf } from '../accounts/members';
import type { Who } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { recordsSince } from './record-tables';

/** Visits read at once. */
const STEP = 200;

/**
 * Everything that was recorded in a household, as the text of one JSON object (RFC 8259) in parts: its people, its records of
 * every type, its events, each as it travels; visits that are private to somebody else are left out. Photos stay behind; they are named by their SHA-256. Read visit by visit, so that
 * a large ledger is never in memory whole.
 */
export async function* wholeHousehold(household: Who & { householdName: string; currency: string; zone: string }): AsyncGenerator<string> {
  const { householdId, personId, householdName, currency, zone } = household;
  const figures = await figuresOf(householdId);
  const people = (await membersOf(householdId)).map(({ personId, name, role }) => ({ personId, name, role }));
  const head = JSON.stringify({ format: 'mile-ledger-household', version: 1, household: { id: householdId, name: householdName, currency, zone }, people });
  const records = inReferenceOrder(await recordsSince(householdId, 0), (r) => r);
  yield `${head.slice(0, -1)},"records":${JSON.stringify(records)},"events":[`;
  let after: Buffer = Buffer.alloc(16);
  let begun = false;
  for (;;) {
    const [rows] = await figures.execute<RowDataPacket[]>(`SELECT id FROM visit v WHERE household_id = ? AND id > ? AND ${seen()} ORDER BY id LIMIT ${STEP}`, [
      toBin(householdId),
      after,
      seenBy(personId),
    ]);
    if (rows.length === 0) break;
    const events = [
      ...(
        await eventsOfVisits(
          householdId,
          rows.map((r) => fromBin(r.id)),
        )
      ).values(),
    ].flat();
    if (events.length > 0) yield `${begun ? ',' : ''}${events.map((e) => JSON.stringify(e)).join(',')}`;
    begun ||= events.length > 0;
    after = rows.at(-1)?.id as Buffer;
  }
  yield ']}';
}
