import type { RowDataPacket } from 'mysql2/promise';
import { FIRST_INSTANT, LAST_INSTANT } from '@/core/units/instant';
import { chosenStall, NO_ATTEMPT } from '@/core/visit/receipt-alone';
import type { Member } from '../accounts/who';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { derivedVisits } from '../visits/derived-visits';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';
import { type Paid, paidFor } from './paid-for';

/** What a file of bills or rows speaks of: when its sessions began, UTC ms, of which networks they are, and which sessions here it tells, or may. */
export type FileSpeaksOf = { starts: readonly number[]; networks: ReadonlySet<string>; tells: (visitId: string, n: number) => boolean };
/** A session here that such a file does not tell. `paid`: what is noted for it, whoever noted it. */
export type SessionLeftOut = { visitId: string; n: number; site: string; stall: string | null; at: number; dayOnly: boolean; zone: string; paid: Paid[] };
export type SessionsLeftOut = { shown: SessionLeftOut[]; more: number };

/** A file is of so much more than from its first session to its last. A choice. */
const BESIDE_MS = 86_400_000;
const SHOWN = 100;
const PORTION = 5_000;

/**
 * Sessions with power that this person sees, within the time and at the networks that a file speaks of, and not in it: what a network has not billed, or a sheet forgot.
 * They need not be anywhere near one that is in it.
 * @param portion rows of one query
 */
export async function sessionsLeftOut(who: Member, file: FileSpeaksOf, portion = PORTION): Promise<SessionsLeftOut> {
  const times = file.starts.filter((t) => t >= FIRST_INSTANT && t <= LAST_INSTANT);
  if (times.length === 0 || file.networks.size === 0) return { shown: [], more: 0 };
  const from = times.reduce((a, b) => Math.min(a, b)) - BESIDE_MS;
  const to = times.reduce((a, b) => Math.max(a, b)) + BESIDE_MS;
  const networks = [...file.networks].map(toBin);
  const db = await figuresOf(who.householdId);
  const left: { visitId: string; n: number }[] = [];
  // Of a ledger of years some at a time: whoever else asks gets an answer in between.
  for (let passed = 0; ; passed += portion) {
    const [rows] = await db.execute<RowDataPacket[]>(
      // A charge without an attempt was typed in from its receipt: the visit is its session.
      `SELECT v.id, COALESCE(a.n, ${NO_ATTEMPT}) AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
         LEFT JOIN attempt_figures a ON a.household_id = v.household_id AND a.visit_id = v.id AND a.outcome = 'power'
        WHERE v.household_id = ? AND v.withdrawn = FALSE AND v.sort_at BETWEEN ? AND ? AND ${seen()}
          AND (a.n IS NOT NULL OR (f.attempts = 0 AND f.ended = 'charge'))
          AND COALESCE(a.network_id, v.network_id) IN (${networks.map(() => '?').join(', ')}) ORDER BY v.sort_at, v.id, a.n LIMIT ${portion} OFFSET ${passed}`,
      [toBin(who.householdId), new Date(from), new Date(to), seenBy(who.personId), ...networks],
    );
    for (const r of rows) {
      const session = { visitId: fromBin(r.id), n: Number(r.n) };
      if (!file.tells(session.visitId, session.n)) left.push(session);
    }
    if (rows.length < portion) break;
  }
  const shown = left.slice(0, SHOWN);
  const [sites, stalls, visits] = await Promise.all([
    recordsOf(who.householdId, 'site'),
    recordsOf(who.householdId, 'stall'),
    derivedVisits(await eventsOfVisits(who.householdId, [...new Set(shown.map((s) => s.visitId))])),
  ]);
  const nameOf = new Map([...sites, ...stalls].map((r) => [r.id, r.fields.name]));
  return {
    shown: shown.flatMap(({ visitId, n }) => {
      const v = visits.get(visitId);
      const a = v?.attempts.find((x) => x.n === n);
      if (!v) return [];
      const begun = a?.proof ?? a?.opened;
      const stall = nameOf.get((a ? a.stallId : chosenStall(v)) ?? '') ?? null;
      const at = begun?.t ?? v.pulledInAt ?? v.lastEventAt;
      return [
        {
          visitId,
          n,
          site: nameOf.get(v.siteId ?? '') ?? '',
          stall,
          at,
          dayOnly: begun ? begun.precision === 'day' : v.dayOnly,
          zone: v.zone,
          paid: paidFor(v, n),
        },
      ];
    }),
    more: left.length - shown.length,
  };
}
