import Big from 'big.js';
import type { RowDataPacket } from 'mysql2/promise';
import type { LedgerFilter } from '@/core/compare/ledger-filter';
import type { LedgerMonth, LedgerRow, LedgerSum } from '@/core/compare/ledger-row';
import { isId } from '@/core/units/id';
import { isInstant } from '@/core/units/instant';
import { visitState } from '@/core/visit/derive';
import type { Who } from '../accounts/who';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import type { Database } from '../db/pool';
import { figuresOf } from '../figures/refresh';
import { visitWhere } from './visit-where';

export type LedgerPage = { rows: LedgerRow[]; months: LedgerMonth[]; next: string | null; total: LedgerSum };

export const PAGE_SIZE = 60;

/** The id beyond every other (RFC 9562, Max UUID). */
const AFTER_ALL = 'ffffffff-ffff-ffff-ffff-ffffffffffff';

/** A place in the list: the sort time and id of the last row shown. */
const readPlace = (place: string | undefined): { at: Date; id: Buffer } | null => {
  const [ms, id] = (place ?? '').split('~');
  const at = Number(ms);
  return isInstant(at) && (isId(id) || id === AFTER_ALL) ? { at: new Date(at), id: toBin(id) } : null;
};

/** The place in the list right after everything later than an instant. @param at UTC ms */
export const placeAfter = (at: number): string => `${at}~${AFTER_ALL}`;

/**
 * One page of the ledger, newest first, with the sums of the months on it.
 * @param place where the page before ended; the first page without
 */
export async function ledgerPage(who: Who, currency: string, filter: LedgerFilter, place?: string): Promise<LedgerPage> {
  const figures = await figuresOf(who.householdId);
  const where = visitWhere(who, filter, currency, 'blank');
  const from = readPlace(place);
  const [rows] = await figures.execute<RowDataPacket[]>(
    // From the visits in their order: sixty rows are looked up, not ten thousand sorted.
    `SELECT STRAIGHT_JOIN v.id, v.site_id, v.sort_at, v.zone, v.local_month, v.pulled_in_at, v.pulled_out_at, v.last_event_at, v.newer, v.driver_id, v.private_to, p.name AS driver, s.name AS site_name, n.name AS network_name,
            f.ended, f.left_reason, f.attempts, f.failed, f.handshake_s, f.handshake_bound, f.delivered_kwh, f.delivered_least, f.paid, f.currency, f.fault_codes, t.tape
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
       JOIN visit_tape t ON t.household_id = v.household_id AND t.visit_id = v.id
       LEFT JOIN person p ON p.id = v.driver_id
       LEFT JOIN site s ON s.household_id = v.household_id AND s.id = v.site_id
       LEFT JOIN network n ON n.household_id = v.household_id AND n.id = v.network_id
      WHERE ${where.sql}${from ? ' AND (v.sort_at < ? OR (v.sort_at = ? AND v.id < ?))' : ''}
      ORDER BY v.sort_at DESC, v.id DESC LIMIT ${PAGE_SIZE + 1}`,
    from ? [...where.values, from.at, from.at, from.id] : where.values,
  );
  const at = now();
  const shown = rows.slice(0, PAGE_SIZE).map((r): LedgerRow => {
    const isPrivate = r.private_to !== null && fromBin(r.private_to) !== who.personId;
    const pulledOutAt = r.pulled_out_at ? (r.pulled_out_at as Date).getTime() : null;
    const row: LedgerRow = {
      id: fromBin(r.id),
      at: (r.sort_at as Date).getTime(),
      timeKnown: r.pulled_in_at !== null,
      zone: r.zone,
      month: r.local_month,
      siteId: r.site_id ? fromBin(r.site_id) : null,
      siteName: r.site_name,
      networkName: r.network_name,
      state: visitState({ pulledOutAt, lastEventAt: ((r.last_event_at ?? r.sort_at) as Date).getTime() }, at),
      ended: r.ended,
      leftReason: r.left_reason,
      attempts: r.attempts,
      failed: r.failed,
      handshake_s: r.handshake_s,
      handshakeBound: r.handshake_bound,
      kWh: r.delivered_kwh ?? r.delivered_least,
      kWhAtLeast: r.delivered_kwh === null && r.delivered_least !== null,
      paid: r.paid,
      currency: r.currency,
      faultCodes: r.fault_codes === '' ? [] : (r.fault_codes as string).split(','),
      tape: typeof r.tape === 'string' ? JSON.parse(r.tape) : r.tape,
      newer: r.newer === 1,
      driver: r.driver,
      isPrivate,
    };
    return isPrivate ? blankRow(row) : row;
  });
  const last = shown.at(-1);
  const months = [...new Set(shown.map((r) => r.month))];
  return {
    rows: shown,
    months: await monthSums(figures, where, months),
    next: rows.length > PAGE_SIZE && last ? `${last.at}~${last.id}` : null,
    total: await totalOf(figures, where),
  };
}

/** A visit that is private to somebody else: that the car was charged, on which day, how much, for what. */
const blankRow = (r: LedgerRow): LedgerRow => ({
  ...r,
  timeKnown: false,
  siteId: null,
  siteName: null,
  networkName: null,
  leftReason: null,
  attempts: 0,
  failed: 0,
  handshake_s: null,
  handshakeBound: null,
  faultCodes: [],
  tape: [],
});

/** What all visits under a filter come to, whichever page of them is shown. */
async function totalOf(figures: Database, where: ReturnType<typeof visitWhere>): Promise<LedgerSum> {
  const [rows] = await figures.execute<RowDataPacket[]>(`SELECT f.currency, ${SUMS} ${FROM_FIGURES} WHERE ${where.sql} GROUP BY f.currency`, where.values);
  return addUp(rows);
}

/** Sums of whole months under the same filter, whichever part of them the page shows. */
async function monthSums(figures: Database, where: ReturnType<typeof visitWhere>, months: readonly string[]): Promise<LedgerMonth[]> {
  if (months.length === 0) return [];
  const [rows] = await figures.execute<RowDataPacket[]>(
    `SELECT v.local_month AS month, f.currency, ${SUMS} ${FROM_FIGURES} WHERE ${where.sql} AND v.local_month IN (${months.map(() => '?').join(', ')}) GROUP BY v.local_month, f.currency`,
    [...where.values, ...months],
  );
  return [...new Set(rows.map((r) => r.month as string))]
    .sort()
    .reverse()
    .map((month) => ({ month, ...addUp(rows.filter((r) => r.month === month)) }));
}

const FROM_FIGURES = 'FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id';
const SUMS =
  'COUNT(*) AS visits, COALESCE(SUM(COALESCE(f.delivered_kwh, f.delivered_least)), 0) AS kwh, SUM(f.delivered_kwh IS NULL AND f.delivered_least IS NOT NULL) AS least, SUM(f.paid) AS paid';
/** Rows of one currency each, added up; money is never added across currencies. */
function addUp(rows: readonly RowDataPacket[]): LedgerSum {
  return {
    visits: rows.reduce((n, r) => n + Number(r.visits), 0),
    kWh: rows.reduce((kWh, r) => kWh.plus(r.kwh), new Big(0)).toString(),
    kWhAtLeast: rows.some((r) => Number(r.least) > 0),
    paid: rows.flatMap((r) => (r.paid !== null && r.currency ? [{ amount: r.paid as string, currency: r.currency as string }] : [])),
  };
}
