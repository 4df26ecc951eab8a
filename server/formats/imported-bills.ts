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
    // What takes something back stands behind it: where such a thing is about, all events of the visit tell the place.
    const again = new Set(some.filter((b) => there.has(b.id)).map((b) => b.visit.id));
    const all = again.size > 0 ? await eventsOfVisits(who.householdId, [...again]) : new Map<string, StoredEvent[]>();
    for (const { id: first, name, visit, payload, at } of some) {
      const own = all.get(visit.id) ?? [];
      const before = there.get(first);
      const same = !before || (before.visitId === visit.id && canonicalJson(before.payload) === canonicalJson(payload));
      const said = createHash('sha256').update(canonicalJson(payload)).digest('hex');
      const id = same ? first : idOf(who.householdId, `${name} ${visit.id} ${said}`);
      const withdrawal = visit.takenBack.some((e) => e.id === id) ? withdrawalOf(own, id) : null;
      const [of, kind, told, when] = withdrawal
        ? ([idOf(who.householdId, `again ${withdrawal}`), 'withdrawal', { target: withdrawal }, undefined] as const)
        : ([id, 'bill', payload, at] as const);
      events.push(event(who, visit, seqs, of, kind, told, importId, when, own));
    }
  }
  return events;
}

/** Takes back every bill of an import that still stands. @returns how many */
export async function undoBills(who: Member, importId: string): Promise<number> {
  const events: StoredEvent[] = [];
  let bills = 0;
  for await (const { visits } of visitsOfImport(who, 'bill', importId)) {
    const back = await billsBack(who, visits, importId);
    events.push(...back.events);
    bills += back.bills;
  }
  await sendImported(who, events);
  return bills;
}

/**
 * What takes back every bill of an import that stands beside these visits, and how many they are: one that stands in a recording, and in the one into which that was joined, is one.
 * @param visits with all their events
 */
export async function billsBack(
  who: Member,
  visits: ReadonlyMap<string, readonly StoredEvent[]>,
  importId: string,
): Promise<{ events: StoredEvent[]; bills: number }> {
  const seqs = new Map<string, number>();
  const events: StoredEvent[] = [];
  let bills = 0;
  for (const [id, visit] of await derivedVisits(visits)) {
    const own = visits.get(id) ?? [];
    const times = own.filter((e) => e.kind === 'withdrawal').length;
    const standing = allBills(visit).filter((b) => (b.payload as { import?: unknown }).import === importId);
    for (const b of standing)
      events.push(event(who, visit, seqs, idOf(who.householdId, `undo ${b.id} ${times}`), 'withdrawal', { target: b.id }, importId, undefined, own));
    if (!visit.withdrawn) bills += standing.length;
  }
  return { events, bills };
}

/** The withdrawal that took a bill back and still stands. @param own all events of its visit */
function withdrawalOf(own: readonly StoredEvent[], target: string): string | null {
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
