import type { RowDataPacket } from 'mysql2/promise';
import { writtenInstant } from '@/core/formats/written-instant';
import { byId } from '@/core/units/by-id';
import { isId } from '@/core/units/id';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { seen, seenBy } from '../visits/seen-by';
import { type Caller, notUnderstood } from './caller';
import type { Wrong } from './problem';

/** Visits of one page. */
const LIMIT = { usual: 100, most: 500 };
/** The names by which a page of a list is asked for, and those of visits. */
export const PAGE_NAMES = ['limit', 'cursor'] as const;
export const VISIT_NAMES = [...PAGE_NAMES, 'from', 'to', 'site'] as const;
/** What part of the visits is asked for, and from where on. Times are UTC ms. */
export type PageAsk = { limit: number; after: string | null; from: number | null; to: number | null; site: string | null };

/** A day is its begin in UTC. */
const instantOf = (text: string): number | null => {
  // In an address that nobody encoded the plus of an offset has become a blank.
  const found = writtenInstant(text.replace(/(:\d{2}(?:[.,]\d+)?) (?=\d{2}(?::?\d{2})?$)/, '$1+'));
  const at = found && (found.at ?? Date.UTC(found.day[0], found.day[1] - 1, found.day[2]));
  return at !== null && at >= FIRST_INSTANT && at <= LAST_INSTANT ? at : null;
};
const cursorOf = (id: string): string => Buffer.from(id.replaceAll('-', ''), 'hex').toString('base64url');
function idOfCursor(cursor: string): string | null {
  const hex = Buffer.from(cursor, 'base64url').toString('hex');
  const id = hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
  return isId(id) && cursorOf(id) === cursor ? id : null;
}

/** What is wrong with the address of a page, all of it at once. @param takes the names that it may hold */
export const wrongInPage =
  (takes: readonly string[]) =>
  (request: Request): Wrong[] => {
    const names = notUnderstood(request, takes);
    return [...names, ...readPage(request).errors.filter((e) => names.every((n) => n.pointer !== e.pointer))];
  };
/** What part is asked for, where nothing is wrong with the address. */
export const pageAsk = (request: Request): PageAsk => readPage(request).ask;

function readPage(request: Request): { ask: PageAsk; errors: Wrong[] } {
  const get = (name: string) => new URL(request.url).searchParams.get(name);
  const errors: Wrong[] = [];
  const wrong = (name: string, detail: string): null => {
    errors.push({ pointer: `?${name}`, detail });
    return null;
  };
  const said = get('limit') ?? String(LIMIT.usual);
  const limit = /^\d{1,3}$/.test(said) ? Number(said) : 0;
  if (limit < 1 || limit > LIMIT.most) wrong('limit', `must be a whole number from 1 to ${LIMIT.most}`);
  const cursor = get('cursor');
  const after = cursor === null ? null : (idOfCursor(cursor) ?? wrong('cursor', 'is none that was given out here'));
  const time = (name: string) => {
    const text = get(name);
    return text === null ? null : (instantOf(text) ?? wrong(name, 'must be a date, 2025-10-14, or a time with its offset, 2025-10-14T13:52:00+02:00'));
  };
  const [from, to, site] = [time('from'), time('to'), get('site')];
  if (site !== null && !isId(site)) wrong('site', 'must be the id of a site');
  return { ask: { limit, after, from, to, site }, errors };
}

/** The visits of a page that this caller sees whole, in the order of their ids, and the cursor of the next. */
export async function visitsOfPage(caller: Caller, ask: PageAsk): Promise<{ ids: string[]; next: string | null }> {
  const where = ['household_id = ?', 'id > ?', seen()];
  const values: unknown[] = [toBin(caller.householdId), ask.after ? toBin(ask.after) : Buffer.alloc(16), seenBy(caller.personId)];
  const add = (condition: string, value: unknown) => {
    where.push(condition);
    values.push(value);
  };
  if (ask.from !== null) add('sort_at >= ?', new Date(ask.from));
  if (ask.to !== null) add('sort_at < ?', new Date(ask.to));
  if (ask.site !== null) add('site_id = ?', toBin(ask.site));
  const [rows] = await (await figuresOf(caller.householdId)).execute<RowDataPacket[]>(
    `SELECT id FROM visit v WHERE ${where.join(' AND ')} ORDER BY id LIMIT ${ask.limit + 1}`,
    values as never[],
  );
  const ids = rows.slice(0, ask.limit).map((r) => fromBin(r.id));
  return { ids, next: rows.length > ask.limit ? cursorOf(ids.at(-1) as string) : null };
}

/** Of a list that is at hand whole, by their ids. */
export function pageOf<T extends { id: string }>(all: readonly T[], ask: PageAsk): { items: T[]; next: string | null } {
  const left = byId(all).filter((x) => ask.after === null || x.id > ask.after);
  const items = left.slice(0, ask.limit);
  return { items, next: left.length > items.length ? cursorOf((items.at(-1) as T).id) : null };
}
