import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import type { SheetRow } from '@/core/formats/sheet-row';
import { rowKey } from '@/core/formats/sheet-visit';
import { canonicalJson } from '@/core/records/canonical-json';
import { isId } from '@/core/units/id';
import { ROWS_A_STEP, type Steps } from '@/core/units/steps';
import type { StoredEvent } from '@/core/visit/event';
import type { TypedEvent } from '@/core/visit/typed-visit';
import type { Member } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { unhurried } from '../unhurried';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { idOf } from './imported-events';
import { standingWithdrawals } from './visits-back';

const PORTION = 500;
/** How the visit of a row stands. `withdrawn`: by taking an import back, so that it can come in again; one that somebody took back by hand is `there` and stays as it is. `hidden`: private to somebody else. */
export type RowStands = 'there' | 'withdrawn' | 'hidden';
export type RowVisits = { visitOf: Map<number, string>; stands: Map<string, RowStands> };
/** What a row would be written as; `null` while its site is not known. */
type Told = (row: SheetRow) => readonly TypedEvent[] | null;

/** The id of an event of a row's visit, by its place. */
export const rowEventId = (visitId: string, i: number, kind: string): string => idOf(visitId, `${i} ${kind}`);

/**
 * The visit of each row by line: rows that say the same, in whichever file, are the same visit; within a file each stands for one more. One that was taken back comes in again as it was
 * only where it would be written the same today; of a row that tells more by now, or of a column that is read otherwise, it is a visit of its own. A row that names a visit
 * that is here is that one.
 */
export async function rowVisits(who: Member, rows: readonly SheetRow[], told: Told): Promise<RowVisits> {
  const own = new Map([...(await unhurried(firstIds(who, rows))), ...(await namedHere(who, rows))]);
  const first = await standing(who, [...new Set(own.values())]);
  const back = rows.filter((r) => first.stands.get(own.get(r.line) as string) === 'withdrawn');
  const otherwise = back.flatMap((r) => {
    const id = own.get(r.line) as string;
    const events = told(r);
    return events && !isSame(id, events, first.events.get(id) ?? []) ? [[r.line, idOf(id, contentOf(events))] as const] : [];
  });
  const visitOf = new Map([...own, ...otherwise]);
  const second = await standing(
    who,
    otherwise.map(([, id]) => id),
  );
  return { visitOf, stands: new Map([...first.stands, ...second.stands]) };
}

/** A row that was copied and given another time is another visit. A choice. */
const SAME_MS = { time: 3_600_000, day: 86_400_000 };
/** Visits of this household that rows name themselves, about the time that they tell: those of a sheet that went out here. */
async function namedHere(who: Member, rows: readonly SheetRow[]): Promise<[line: number, visitId: string][]> {
  const named = rows.flatMap((r) => (isId(r.rest.visit) ? [{ r, id: r.rest.visit }] : []));
  if (named.length === 0) return [];
  const db = await figuresOf(who.householdId);
  const at = new Map<string, number>();
  for (let i = 0; i < named.length; i += PORTION) {
    const part = named.slice(i, i + PORTION);
    const [found] = await db.execute<RowDataPacket[]>(`SELECT id, sort_at FROM visit WHERE household_id = ? AND id IN (${part.map(() => '?').join(', ')})`, [
      toBin(who.householdId),
      ...part.map(({ id }) => toBin(id)),
    ]);
    for (const f of found) at.set(fromBin(f.id), (f.sort_at as Date).getTime());
  }
  return named.flatMap(({ r, id }): [number, string][] => {
    const there = at.get(id);
    return there !== undefined && Math.abs(there - r.start) <= SAME_MS[r.startPrecision === 'day' ? 'day' : 'time'] ? [[r.line, id]] : [];
  });
}

function* firstIds(who: Member, rows: readonly SheetRow[]): Steps<Map<number, string>> {
  const times = new Map<string, number>();
  const out = new Map<number, string>();
  for (const [i, r] of rows.entries()) {
    if (i % ROWS_A_STEP === 0) yield;
    const key = rowKey(r);
    const n = (times.get(key) ?? 0) + 1;
    times.set(key, n);
    out.set(r.line, idOf(who.householdId, `row ${n} ${key}`));
  }
  return out;
}

/** An event of a row without the file and the line that it stood in. */
function saidBy({ kind, payload }: Pick<TypedEvent | StoredEvent, 'kind' | 'payload'>): string {
  const { sheet, ...others } = payload as { sheet?: object } & Record<string, unknown>;
  const { import: _, line: __, ...kept } = (sheet ?? {}) as Record<string, unknown>;
  return canonicalJson({ kind, ...others, sheet: kept });
}
const contentOf = (events: readonly TypedEvent[]): string =>
  createHash('sha256')
    .update(events.map((e) => `${e.at} ${e.precision} ${saidBy(e)}`).join('\n'))
    .digest('hex');
/** Whether a visit was written of these. */
function isSame(visitId: string, events: readonly TypedEvent[], written: readonly StoredEvent[]): boolean {
  const byId = new Map(written.map((e) => [e.id, e]));
  const same = events.every((e, i) => {
    const before = byId.get(rowEventId(visitId, i, e.kind));
    return before !== undefined && before.at === e.at && before.precision === e.precision && saidBy(before) === saidBy(e);
  });
  const more = written.some((e) => e.id === rowEventId(visitId, events.length, e.kind));
  return same && !more;
}

async function standing(who: Member, ids: readonly string[]): Promise<{ stands: Map<string, RowStands>; events: Map<string, StoredEvent[]> }> {
  const stands = new Map<string, RowStands>();
  const events = new Map<string, StoredEvent[]>();
  const db = await figuresOf(who.householdId);
  for (let i = 0; i < ids.length; i += PORTION) {
    const part = ids.slice(i, i + PORTION);
    const [rows] = await db.execute<RowDataPacket[]>(
      `SELECT id, withdrawn, ${seen()} AS seen FROM visit v WHERE household_id = ? AND id IN (${part.map(() => '?').join(', ')})`,
      [seenBy(who.personId), toBin(who.householdId), ...part.map(toBin)],
    );
    for (const r of rows) stands.set(fromBin(r.id), r.seen ? 'there' : 'hidden');
    const back = rows.filter((r) => r.seen && r.withdrawn).map((r) => fromBin(r.id));
    if (back.length === 0) continue;
    for (const [id, own] of await eventsOfVisits(who.householdId, back)) {
      if (!standingWithdrawals(id, own).every((e) => e.origin === 'imported')) continue;
      stands.set(id, 'withdrawn');
      events.set(id, own);
    }
  }
  return { stands, events };
}
