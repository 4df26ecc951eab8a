import { isId } from '@/core/units/id';
import type { StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { eventsOfVisits } from '../visits/event-rows';
import { forgetSheets } from './import-sheet';
import { billsBack } from './imported-bills';
import { sendImported } from './imported-events';
import { parted, visitBack } from './visits-back';
import { isOfImport, visitsOfImport } from './visits-of-import';

/** Visits that one request takes back: the page asks on until none is left, and can stop in between. */
const AT_ONCE = 1_000;

/** `next`: where to go on; `null` when all is taken back. */
export type Undone = { undone: number; next: string | null };
export type UndoneTo = { left: 'visit' | 'bill'; after: string };

/** Reads what `next` said; `null` where it is no such place. */
export function undoneTo(text: unknown): UndoneTo | null {
  const [left, after, ...more] = typeof text === 'string' ? text.split(' ') : [];
  return (left === 'visit' || left === 'bill') && isId(after) && more.length === 0 ? { left, after } : null;
}

/**
 * Takes back the next visits of an import that still stand, and, when none is left, the bills of it that stand beside recorded ones; sites that were made for it stay. A recording is never
 * taken back with it: one into which a visit of the import was joined has it no more, one that was joined into such a visit stands by itself again.
 * @param from where the last request stopped; `null` to begin
 */
export async function undoSheet(who: Member, importId: string, from: UndoneTo | null = null): Promise<Undone> {
  forgetSheets();
  const events: StoredEvent[] = [];
  const visits: string[] = [];
  let bills = 0;
  const written = async () => {
    const { refused } = await sendImported(who, events);
    return visits.filter((id) => !refused.has(id)).length + bills;
  };
  let looked = 0;
  for (const left of from?.left === 'bill' ? (['bill'] as const) : (['visit', 'bill'] as const))
    for await (const portion of visitsOfImport(who, left, importId, from?.left === left ? from.after : null)) {
      if (left === 'visit') {
        events.push(...(await visitsBack(who, portion.visits, importId)));
        visits.push(...portion.visits.keys());
      } else {
        const back = await billsBack(who, portion.visits, importId);
        events.push(...back.events);
        bills += back.bills;
      }
      looked += portion.visits.size;
      if (looked >= AT_ONCE) return { undone: await written(), next: `${left} ${portion.last}` };
    }
  return { undone: await written(), next: null };
}

/** What takes visits of an import back, and parts from them the recordings that were joined into them. @param visits with all their events */
async function visitsBack(who: Member, visits: ReadonlyMap<string, StoredEvent[]>, importId: string): Promise<StoredEvent[]> {
  const joinedFrom = (own: readonly StoredEvent[]) => [...new Set(own.flatMap((e) => (isId(e.payload.joinedFrom) ? [e.payload.joinedFrom] : [])))];
  const recordings = await eventsOfVisits(who.householdId, [...visits.values()].flatMap(joinedFrom));
  return [...visits].flatMap(([id, own]) => [
    ...joinedFrom(own).flatMap((from) => {
      const theirs = recordings.get(from) ?? [];
      return isOfImport(from, theirs, importId) ? [] : parted(who, from, theirs, importId, id);
    }),
    ...visitBack(who, id, own, importId),
  ]);
}
