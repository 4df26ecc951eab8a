import { isId } from '@/core/units/id';
import type { StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { forgetSheets } from './import-sheet';
import { billsBack } from './imported-bills';
import { sendImported } from './imported-events';
import { visitBack } from './visits-back';
import { visitsOfImport } from './visits-of-import';

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
 * Takes back the next visits of an import that still stand, and, when none is left, the bills of it that stand beside recorded ones; sites that were made for it stay.
 * @param from where the last request stopped; `null` to begin
 */
export async function undoSheet(who: Member, importId: string, from: UndoneTo | null = null): Promise<Undone> {
  forgetSheets();
  const events: StoredEvent[] = [];
  let visits = 0;
  for (const left of from?.left === 'bill' ? (['bill'] as const) : (['visit', 'bill'] as const))
    for await (const portion of visitsOfImport(who, left, importId, from?.left === left ? from.after : null)) {
      if (left === 'visit') for (const [id, own] of portion.visits) events.push(visitBack(who, id, own, importId));
      else events.push(...(await billsBack(who, portion.visits, importId)));
      visits += portion.visits.size;
      if (visits >= AT_ONCE) return { undone: (await sendImported(who, events)).taken, next: `${left} ${portion.last}` };
    }
  return { undone: (await sendImported(who, events)).taken, next: null };
}
