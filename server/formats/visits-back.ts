import { isId } from '@/core/units/id';
import { effectiveEvents } from '@/core/visit/effective';
import type { StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { idOf, importedEvent } from './imported-events';

/** What takes a visit of an import back; what it was joined into it leaves first. @param own all events of the visit */
export function visitBack(who: Member, visitId: string, own: readonly StoredEvent[], importId: string): StoredEvent[] {
  const left = parted(who, visitId, own, importId);
  return [...left, withdrawal(who, visitId, own, idOf(visitId, `undo ${own.filter((e) => e.kind === 'withdrawal').length}`), visitId, importId, left.length)];
}

/** Withdrawals by which a recording was joined into another, and which stand. @param into only those into this one */
const joins = (visitId: string, own: readonly StoredEvent[], into?: string): StoredEvent[] =>
  standingWithdrawals(visitId, own).filter(({ payload: { joinedInto } }) => (into === undefined ? isId(joinedInto) : joinedInto === into));
export const isJoined = (visitId: string, own: readonly StoredEvent[]): boolean => joins(visitId, own).length > 0;

/** What parts a recording from those that it was joined into. @param into only from this one */
export const parted = (who: Member, visitId: string, own: readonly StoredEvent[], importId: string, into?: string): StoredEvent[] =>
  joins(visitId, own, into).map((e, i) => withdrawal(who, visitId, own, idOf(e.id, 'parted'), e.id, importId, i));

/** Taken back before: every withdrawal of the visit that still stands is itself taken back. */
export const restored = (who: Member, visitId: string, own: readonly StoredEvent[], importId: string): StoredEvent[] =>
  standingWithdrawals(visitId, own).map((e, i) => withdrawal(who, visitId, own, idOf(e.id, 'again'), e.id, importId, i));

/** Withdrawals of a whole visit that stand. */
export function standingWithdrawals(visitId: string, own: readonly StoredEvent[]): StoredEvent[] {
  const standing = new Set(effectiveEvents(own, visitId, () => null).visitWithdrawals);
  return own.filter((e) => standing.has(e.id));
}

/** The import that brought a visit back last, after it was taken back; `null`: none did. It is the device of what it wrote. */
export function broughtBackBy(visitId: string, own: readonly StoredEvent[]): string | null {
  const all = own.filter((e) => e.kind === 'withdrawal' && e.origin === 'imported').sort((a, b) => a.seq - b.seq);
  const away = new Set(all.filter((e) => e.payload.target === visitId).map((e) => e.id));
  return all.findLast((e) => away.has(String(e.payload.target)))?.deviceId ?? null;
}

const withdrawal = (who: Member, visitId: string, own: readonly StoredEvent[], id: string, target: string, importId: string, after = 0): StoredEvent =>
  importedEvent(who, {
    id,
    visitId,
    zone: own[0]?.zone ?? 'UTC',
    seq: Math.max(0, ...own.map((e) => e.seq)) + 1 + after,
    kind: 'withdrawal',
    payload: { target },
    importId,
  });
