import type { StoredEvent } from '@/core/visit/event';
import type { Member } from '../accounts/who';
import { idOf, importedEvent } from './imported-events';

/** What takes a visit of an import back. @param own all events of the visit */
export const visitBack = (who: Member, visitId: string, own: readonly StoredEvent[], importId: string): StoredEvent =>
  withdrawal(who, visitId, own, idOf(visitId, `undo ${own.filter((e) => e.kind === 'withdrawal').length}`), visitId, importId);

/** Taken back before: every withdrawal of the visit that still stands is itself taken back. */
export const restored = (who: Member, visitId: string, own: readonly StoredEvent[], importId: string): StoredEvent[] =>
  standingWithdrawals(visitId, own).map((e, i) => withdrawal(who, visitId, own, idOf(e.id, 'again'), e.id, importId, i));

/** Withdrawals of a whole visit that are not themselves taken back. */
export function standingWithdrawals(visitId: string, own: readonly StoredEvent[]): StoredEvent[] {
  const gone = new Set(own.filter((e) => e.kind === 'withdrawal').map((e) => String(e.payload.target)));
  return own.filter((e) => e.kind === 'withdrawal' && e.payload.target === visitId && !gone.has(e.id));
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
