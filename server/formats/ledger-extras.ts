import type { PoolConnection, RowDataPacket } from 'mysql2/promise';
import * as z from 'zod';
import { MOST_VIEWS, viewForm } from '@/core/compare/saved-view';
import { MOST_WATCHED, watchForm, watchWords } from '@/core/compare/watch';
import { addressHere, type PersonHere, pairHere } from '@/core/formats/people-here';
import { changesToClosed, isOver } from '@/core/tariff/closed-month';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import { firstProblem, ownWords } from '@/core/units/own-words';
import { localDay } from '@/core/units/zoned';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { type ClosedMonth, closedMonths, insertClosed, readClosed } from '../compare/closed-months';
import { putView, type ViewRow } from '../compare/saved-views';
import { toBin } from '../db/binary-id';

export type WatchRow = z.infer<typeof watchForm> & { since: number; endedAt: number | null; putBy: string };
/** What of a ledger is neither event nor record. */
export type Extra =
  | { kind: 'watch'; id: string; row: WatchRow }
  | { kind: 'view'; id: string; row: ViewRow }
  | { kind: 'closed'; id: string; row: ClosedMonth };
/** One that is here and says something else, as words can be made of it. */
export type ExtraDiffers =
  | { kind: 'watch'; id: string; what: string; here: { endedAt: number | null }; file: { endedAt: number | null } }
  | { kind: 'view'; id: string; what: string; here: { name: string; address: string }; file: { name: string; address: string } }
  | { kind: 'closed'; id: string; what: string; here: { closedAt: number }; file: { closedAt: number; differ: number } };
export type ExtraResult = { is: 'taken' | 'already' | 'full' } | { is: 'differs'; differs: ExtraDiffers };
type Read<K> = Extract<Extra, { kind: K }> | { path: string; reason: string };

const instant = z.int().min(FIRST_INSTANT).max(LAST_INSTANT);
const times = z.looseObject({ since: instant, endedAt: instant.nullish() });
const saved = z.looseObject({ savedAt: instant });
/** What stands under a name in something of which nothing is known. */
export const member = (raw: unknown, name: string): unknown => (typeof raw === 'object' && raw !== null ? (raw as Record<string, unknown>)[name] : undefined);
const A_STRANGER = 'is somebody of whom it was not said who that is here';
/** Where a day ends last: a month that is over there was over where its books were closed. */
const FIRST_ZONE = 'Pacific/Kiritimati';

/** A pair on watch as it stood, since when and until when. @param by who brings it in: whoever put it, where that is not said */
export function readWatch(raw: unknown, by: string, personHere: PersonHere): Read<'watch'> {
  const form = watchForm.safeParse(raw, { error: ownWords });
  if (!form.success) return firstProblem(form.error, '');
  const at = times.safeParse(raw, { error: ownWords });
  if (!at.success) return firstProblem(at.error, '');
  const pair = pairHere(form.data, personHere);
  if (!pair) return { path: 'a', reason: `${A_STRANGER}, or both are one` };
  const row = { ...pair, since: at.data.since, endedAt: at.data.endedAt ?? null, putBy: personHere(member(raw, 'putBy')) ?? by };
  return { kind: 'watch', id: pair.id, row };
}

/** A saved comparison. @param by as for a pair */
export function readView(raw: unknown, by: string, personHere: PersonHere): Read<'view'> {
  const form = viewForm.safeParse(raw, { error: ownWords });
  if (!form.success) return firstProblem(form.error, '');
  const at = saved.safeParse(raw, { error: ownWords });
  if (!at.success) return firstProblem(at.error, '');
  const address = addressHere(form.data.address, personHere);
  if (address === null) return { path: 'address', reason: `driver ${A_STRANGER}` };
  return { kind: 'view', id: form.data.id, row: { ...form.data, address, savedBy: personHere(member(raw, 'savedBy')) ?? by, savedAt: at.data.savedAt } };
}

/** A closed month, which has to be over: one that is not would keep its visits out of every statement. @param by as for a pair */
export function readMonth(raw: unknown, by: string, personHere: PersonHere): Read<'closed'> {
  const row = readClosed(raw, personHere(member(raw, 'closedBy')) ?? by);
  if ('reason' in row) return row;
  return isOver(row.month, localDay(now(), FIRST_ZONE)) ? { kind: 'closed', id: row.month, row } : { path: 'month', reason: 'is not over yet' };
}

/**
 * Writes what is not here yet, under the household's lock. What is here stays: the same id, the same pair still on watch, a comparison of the same name, a month that is closed.
 * @param isWanted of one that differs, whether the file's version is chosen; a month that is closed stays as it was closed
 */
export async function takeExtras(c: PoolConnection, who: Who, all: readonly Extra[], isWanted: (id: string) => boolean): Promise<ExtraResult[]> {
  const out: ExtraResult[] = [];
  for (const extra of all) {
    if (extra.kind === 'watch') out.push(await takeWatch(c, who, extra.row, isWanted(extra.id)));
    else if (extra.kind === 'view') out.push(await takeView(c, who, extra.row, isWanted(extra.id)));
    else out.push(await takeMonth(c, who, extra.row));
  }
  return out;
}

const rows = async (c: PoolConnection, sql: string, values: unknown[]): Promise<RowDataPacket[]> =>
  (await c.execute<RowDataPacket[]>(sql, values as never[]))[0];

async function takeWatch(c: PoolConnection, who: Who, w: WatchRow, isWanted: boolean): Promise<ExtraResult> {
  const hh = toBin(who.householdId);
  const [there] = await rows(c, 'SELECT ended_at FROM watch WHERE household_id = ? AND id = ?', [hh, toBin(w.id)]);
  const [open] = await rows(
    c,
    `SELECT COUNT(*) AS n, SUM(by_what = ? AND key_a = ? AND key_b = ? AND figure = ?) AS pair FROM watch WHERE household_id = ? AND ended_at IS NULL AND id <> ?`,
    [w.by, w.a, w.b, w.figure, hh, toBin(w.id)],
  );
  // The pair is on watch under another id: the one that is here holds, as where it is put on watch twice.
  if (w.endedAt === null && Number(open?.pair ?? 0) > 0) return { is: 'already' };
  const here = there && { endedAt: there.ended_at ? (there.ended_at as Date).getTime() : null };
  if (here?.endedAt === w.endedAt) return { is: 'already' };
  if (here && !isWanted) return { is: 'differs', differs: { kind: 'watch', id: w.id, what: watchWords(w), here, file: { endedAt: w.endedAt } } };
  if (w.endedAt === null && Number(open?.n ?? 0) >= MOST_WATCHED) return { is: 'full' };
  const ended = w.endedAt === null ? null : new Date(w.endedAt);
  if (here) await c.execute('UPDATE watch SET ended_at = ? WHERE household_id = ? AND id = ?', [ended, hh, toBin(w.id)]);
  else
    await c.execute('INSERT INTO watch (household_id, id, by_what, key_a, key_b, figure, since, ended_at, put_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)', [
      hh,
      toBin(w.id),
      w.by,
      w.a,
      w.b,
      w.figure,
      new Date(w.since),
      ended,
      toBin(w.putBy),
    ]);
  return { is: 'taken' };
}

async function takeView(c: PoolConnection, who: Who, v: ViewRow, isWanted: boolean): Promise<ExtraResult> {
  const [hh, id] = [toBin(who.householdId), toBin(v.id)];
  // Which names are one is the database's to say: it lets no second one in.
  const there = await rows(c, 'SELECT id, name, address FROM saved_view WHERE household_id = ? AND (id = ? OR name = ?) ORDER BY id = ? DESC', [
    hh,
    id,
    v.name,
    id,
  ]);
  const named = (r: RowDataPacket) => ({ name: r.name as string, address: r.address as string });
  if (there.some((r) => r.name === v.name && r.address === v.address)) return { is: 'already' };
  const here = there[0] && named(there[0]);
  if (here && !isWanted) {
    const { name, address } = v;
    return { is: 'differs', differs: { kind: 'view', id: v.id, what: here.name, here, file: { name, address } } };
  }
  const [room] = here ? [] : await rows(c, 'SELECT COUNT(*) AS n FROM saved_view WHERE household_id = ?', [hh]);
  if (Number(room?.n ?? 0) >= MOST_VIEWS) return { is: 'full' };
  await putView(c, who.householdId, v);
  return { is: 'taken' };
}

async function takeMonth(c: PoolConnection, who: Who, m: ClosedMonth): Promise<ExtraResult> {
  const [here] = await closedMonths(who, m.month);
  if (!here) return { is: await insertClosed(c, who.householdId, m) };
  const differ = changesToClosed(here.rows, m.rows).length;
  if (differ === 0) return { is: 'already' };
  return { is: 'differs', differs: { kind: 'closed', id: m.month, what: m.month, here: { closedAt: here.closedAt }, file: { closedAt: m.closedAt, differ } } };
}
