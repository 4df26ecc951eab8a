import type { RowDataPacket } from 'mysql2/promise';
import type { StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { broughtBackBy, isJoined, standingWithdrawals } from './visits-back';

// Right after thousands of visits came in, what the database knows of its tables is of before: left to itself it has gone through all events of the household for each visit.
const EVENT = 'SELECT 1 FROM event e FORCE INDEX (event_visit) WHERE e.household_id = v.household_id AND e.visit_id = v.id';
const MADE = `${EVENT} AND e.kind = 'pulled_in' AND e.origin = 'imported' AND JSON_VALUE(e.payload, '$.sheet.import')`;
/** What an import leaves on a visit: one of its own was pulled in by it, or by another sheet and may have been brought back by it; a recorded one has a bill of it. */
const LEFT = {
  visit: {
    its: `(EXISTS (${MADE} = ?) OR (EXISTS (${MADE} IS NOT NULL) AND EXISTS (${EVENT} AND e.kind = 'withdrawal' AND e.origin = 'imported' AND e.device_id = ?)))`,
    // One that was joined into another is withdrawn, and stands there.
    only: `AND (v.withdrawn = FALSE OR EXISTS (${EVENT} AND e.kind = 'withdrawal' AND JSON_VALUE(e.payload, '$.joinedInto') IS NOT NULL))`,
    asked: (id: string) => [id, toBin(id)],
    is: (visitId: string, own: readonly StoredEvent[], importId: string) =>
      isOfImport(visitId, own, importId) && (standingWithdrawals(visitId, own).length === 0 || isJoined(visitId, own)),
  },
  bill: {
    its: `EXISTS (${EVENT} AND e.kind = 'bill' AND e.origin = 'imported' AND JSON_VALUE(e.payload, '$.import') = ?)`,
    only: '',
    asked: (id: string) => [id],
    is: () => true,
  },
} as const;
const isMade = ({ kind, origin, payload }: StoredEvent, importId: string): boolean =>
  // A recording into which one of the import was joined has a copy of it, and is none.
  kind === 'pulled_in' && origin === 'imported' && payload.joinedFrom === undefined && (payload.sheet as { import?: unknown } | undefined)?.import === importId;
/** Whether an import made a visit, or brought it back. @param own all its events */
export const isOfImport = (visitId: string, own: readonly StoredEvent[], importId: string): boolean =>
  own.some((e) => isMade(e, importId)) || broughtBackBy(visitId, own) === importId;
/** Visits that are looked at in one query, and those of which all events are read at once. */
const LOOKED_AT = 2_000;
const READ = 200;

/** Some visits of an import with all their events, and the last id that was looked at by then. */
export type ImportPortion = { visits: ReadonlyMap<string, StoredEvent[]>; last: string };

/**
 * The visits of an import that this person sees: those that it made and that stand, by themselves or joined into another, or those that a bill of it was brought to. They come in portions, in the order of their ids, since no
 * one query may look through a ledger of a hundred thousand visits. @param from the id after which to look
 */
export async function* visitsOfImport(who: Member, left: keyof typeof LEFT, importId: string, from: string | null = null): AsyncGenerator<ImportPortion> {
  const { its, only, asked, is } = LEFT[left];
  const db = await figuresOf(who.householdId);
  for (let after: Buffer = from === null ? Buffer.alloc(16) : toBin(from); ; ) {
    const [rows] = await db.execute<RowDataPacket[]>(
      `SELECT v.id, ${its} AS its FROM visit v WHERE v.household_id = ? AND v.id > ? ${only} AND ${seen()} ORDER BY v.id LIMIT ${LOOKED_AT}`,
      [...asked(importId), toBin(who.householdId), after, seenBy(who.personId)],
    );
    const last = rows.at(-1);
    if (!last) return;
    after = last.id;
    const ids = rows.filter((r) => r.its).map((r) => fromBin(r.id));
    for (let i = 0; i < ids.length; i += READ) {
      const some = ids.slice(i, i + READ);
      const read = [...(await eventsOfVisits(who.householdId, some))].filter(([id, own]) => is(id, own, importId));
      yield { visits: new Map(read), last: some.at(-1) as string };
    }
  }
}
