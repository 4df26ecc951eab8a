import type { StatementRow } from '@/core/tariff/statement';
import { printSeen } from '@/core/units/zoned';
import { deriveVisit } from '@/core/visit/derive';
import { payloadProblem } from '@/core/visit/payloads';
import { readPhoto } from '../photos/photo-table';
import { eventsOfVisits } from '../visits/event-rows';
import type { AttachedReceipt } from './statement-pdf';

/** More nobody prints; a year of them is asked month by month. */
const MOST = 60;

/** The pictures of the receipts of these visits, in their order; of what is private to somebody else none. `more`: that are not attached for being too many. */
export async function receiptsOf(householdId: string, rows: readonly StatementRow[]): Promise<{ receipts: AttachedReceipt[]; more: number }> {
  const with_ = rows.filter((r) => !r.hidden && r.receipts > 0);
  const events = await eventsOfVisits(
    householdId,
    with_.map((r) => r.visitId),
  );
  const all = with_.flatMap((r) => {
    const v = deriveVisit(r.visitId, events.get(r.visitId) ?? [], payloadProblem);
    return v.line.flatMap((e) => (e.kind === 'receipt' ? [{ sha256: e.payload.sha256, words: `Receipt, ${printSeen(r.day)}, ${r.place}` }] : []));
  });
  const receipts: AttachedReceipt[] = [];
  for (const { sha256, words } of all.slice(0, MOST)) {
    const bytes = await readPhoto(householdId, sha256);
    if (bytes) receipts.push({ bytes, words });
  }
  return { receipts, more: Math.max(0, all.length - MOST) };
}
