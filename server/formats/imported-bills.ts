import { createHash } from 'node:crypto';
import { canonicalJson } from '@/core/records/canonical-json';
import type { Visit } from '@/core/visit/derive';
import type { StoredEvent } from '@/core/visit/event';
import { allBills } from '@/core/visit/told-bills';
import type { Member } from '../accounts/who';
import { now } from '../clock';
import { pool } from '../db/pool';
import { derivedVisits } from '../visits/derived-visits';
import { eventsById, eventsOfVisits } from '../visits/event-rows';
import { idOf, importedEvent, sendImported } from './imported-events';
import { visitsOfImport } from './visits-of-import';

/** A bill that is to stand beside a visit. `name`: by what its file gives it. */
export type BillBeside = { name: string; visit: Visit; payload: Record<string, unknown> /** UTC ms. */; at: number };
const PORTION = 1_000;

/**
 * The events by which bills come to stand beside visits. What came in and was taken back comes back as it was only where it is the same, beside the same visit; else it is another.
 */
export async function billsInto(who: Member, bills: readonly BillBeside[], importId: string): Promise<StoredEvent[]> {
  const events: StoredEvent[] = [];
  const seqs = new Map<string, number>();
  for (let i = 0; i < bills.length; i += PORTION) {
    const some = bills.slice(i, i + PORTION).map((b) => ({ ...b, id: idOf(who.householdId, b.name) }));
    const ids = some.map((b) => b.id);
    const there = await eventsById(pool(), who.householdId, ids);
    for (const { id, name, visit, payload, at } of some) {
      const before = there.get(id);
      const same = !before || (before.visitId === visit.id && canonicalJson(before.payload) === canonicalJson(payload));
      const said = createHash('sha256').update(canonicalJson(payload)).digest('hex');
      events.push(await billInto(who, visit, seqs, { id: same ? id : idOf(who.householdId, `${name} ${visit.id} ${said}`), payload, importId, at }));
    }
  }
  return events;
}

type ImportedBill = { id: string; payload: Record<string, unknown>; importId: string /** UTC ms. */; at: number };

/**
 * The event by which a bill comes to stand beside a visit that is recorded: the bill, or, where it came in before and was taken back, what takes that back.
 * @param seqs the last place given out of each visit
 */
async function billInto(who: Member, visit: Visit, seqs: Map<string, number>, bill: ImportedBill): Promise<StoredEvent> {
  const withdrawal = visit.takenBack.some((e) => e.id === bill.id) ? await withdrawalOf(who, visit.id, bill.id) : null;
  return withdrawal
    ? event(who, visit, seqs, idOf(who.householdId, `again ${withdrawal}`), 'withdrawal', { target: withdrawal }, bill.importId)
    : event(who, visit, seqs, bill.id, 'bill', bill.payload, bill.importId, bill.at);
}

/** Takes back every bill of an import that still stands. @returns how many */
export async function undoBills(who: Member, importId: string): Promise<number> {
  const events: StoredEvent[] = [];
  for await (const { visits } of visitsOfImport(who, 'bill', importId)) events.push(...(await billsBack(who, visits, importId)));
  return (await sendImported(who, events)).taken;
}

/** What takes back every bill of an import that stands beside these visits. @param visits with all their events */
export async function billsBack(who: Member, visits: ReadonlyMap<string, readonly StoredEvent[]>, importId: string): Promise<StoredEvent[]> {
  const seqs = new Map<string, number>();
  return [...(await derivedVisits(visits))].flatMap(([id, visit]) => {
    const own = visits.get(id) ?? [];
    const times = own.filter((e) => e.kind === 'withdrawal').length;
    return allBills(visit)
      .filter((b) => (b.payload as { import?: unknown }).import === importId)
      .map((b) => event(who, visit, seqs, idOf(who.householdId, `undo ${b.id} ${times}`), 'withdrawal', { target: b.id }, importId, undefined, own));
  });
}

/** The withdrawal that took a bill back and still stands. */
async function withdrawalOf(who: Member, visitId: string, target: string): Promise<string | null> {
  const own = (await eventsOfVisits(who.householdId, [visitId])).get(visitId) ?? [];
  const backs = own.filter((e) => e.kind === 'withdrawal');
  const undone = new Set(backs.map((e) => String(e.payload.target)));
  return backs.findLast((e) => e.payload.target === target && !undone.has(e.id))?.id ?? null;
}

function event(
  who: Member,
  visit: Visit,
  seqs: Map<string, number>,
  id: string,
  kind: 'bill' | 'withdrawal',
  payload: Record<string, unknown>,
  importId: string,
  at?: number,
  all: readonly StoredEvent[] = [],
): StoredEvent {
  const seq = (seqs.get(visit.id) ?? Math.max(0, ...visit.line.map((e) => e.seq), ...visit.takenBack.map((e) => e.seq), ...all.map((e) => e.seq))) + 1;
  seqs.set(visit.id, seq);
  return importedEvent(who, {
    id,
    visitId: visit.id,
    zone: visit.zone,
    seq,
    kind,
    payload,
    importId,
    ...(at === undefined ? {} : { at: Math.min(at, now()) }),
  });
}
