import { createHash } from 'node:crypto';
import type { RowDataPacket } from 'mysql2/promise';
import { recordedAttempts } from '@/core/formats/cdr-bills';
import type { RecordedAttempt } from '@/core/formats/match-sessions';
import type { MileRecord } from '@/core/records/record-schema';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import type { Visit } from '@/core/visit/derive';
import type { Member } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf, figuresSettled } from '../figures/refresh';
import { householdRev } from '../outbox/household-rev';
import { recordsOf } from '../records/record-tables';
import { visitsById } from '../visits/derived-visits';
import { seen, seenBy } from '../visits/seen-by';
import { HeldReads } from './held-reads';

/** Visits so near to what a file tells of are looked at. */
export const AROUND_MS = 2 * 86_400_000;
/** More near one file are not worked out at once: they would be held in memory, each with its events. */
const MOST_VISITS = 20_000;

/** Visits that this person sees around any of these instants, UTC ms; `null` where they are too many. */
async function visitsAround(who: Member, instants: readonly number[], without: ReadonlySet<string>): Promise<Map<string, Visit> | null> {
  // What is told of the year 0000 or 9999 is near no visit, and makes the rest no wider.
  const times = instants.filter((t) => t >= FIRST_INSTANT && t <= LAST_INSTANT).sort((a, b) => a - b);
  const [first, last] = [times[0], times.at(-1)];
  if (first === undefined || last === undefined) return new Map();
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT id, sort_at FROM visit v WHERE household_id = ? AND withdrawn = FALSE AND sort_at BETWEEN ? AND ? AND ${seen()} ORDER BY sort_at`,
    [toBin(who.householdId), new Date(first - AROUND_MS), new Date(last + AROUND_MS), seenBy(who.personId)],
  );
  // Both lists rise: the first instant that is not long before a visit says whether one is near.
  let i = 0;
  const near = rows.flatMap((r) => {
    const at = (r.sort_at as Date).getTime();
    while (i < times.length && (times[i] as number) < at - AROUND_MS) i += 1;
    const id = fromBin(r.id);
    return i < times.length && (times[i] as number) <= at + AROUND_MS && !without.has(id) ? [id] : [];
  });
  return near.length > MOST_VISITS ? null : visitsById(who.householdId, near);
}

export type SessionsAround = {
  visits: Map<string, Visit>;
  attempts: RecordedAttempt[];
  sites: readonly MileRecord<'site'>[];
  stalls: readonly MileRecord<'stall'>[];
};
/** Of ten thousand visits it takes seconds, and each answer to what a file asks wants them again. */
const held = new HeldReads<SessionsAround>();

/**
 * Visits that this person sees around any of these instants, UTC ms, with their sessions as something billed may be matched to them, by the names that places have here.
 * @param without visits that are not asked for
 * @returns `null` where more than 20,000 stand near
 */
export async function sessionsAround(who: Member, instants: readonly number[], without: ReadonlySet<string> = new Set()): Promise<SessionsAround | null> {
  // Asked before they are read, and in this order: what is written meanwhile is seen the next time, and what waits for its figures may stand elsewhere once it has them.
  const { epoch, rev } = await householdRev(who.householdId);
  const settled = await figuresSettled(who.householdId);
  const key = `${who.householdId} ${epoch} ${rev} ${createHash('sha256')
    .update(Float64Array.from(instants))
    .update([...without].join())
    .digest('hex')}`;
  const around = held.of(who.personId, key) ?? (await readAround(who, instants, without));
  if (around && settled) held.keep(who.personId, [key], around);
  return around;
}

async function readAround(who: Member, instants: readonly number[], without: ReadonlySet<string>): Promise<SessionsAround | null> {
  const visits = await visitsAround(who, instants, without);
  if (!visits) return null;
  const [sites, stalls] = await Promise.all([recordsOf(who.householdId, 'site'), recordsOf(who.householdId, 'stall')]);
  const siteName = new Map(sites.map((s) => [s.id, s.fields.name]));
  const stallName = new Map(stalls.map((s) => [s.id, s.fields.name]));
  const attempts = [...visits.values()].flatMap((v) =>
    recordedAttempts(v, siteName.get(v.siteId ?? '') ?? '', (id) => (id ? (stallName.get(id) ?? null) : null)),
  );
  return { visits, attempts, sites, stalls };
}
