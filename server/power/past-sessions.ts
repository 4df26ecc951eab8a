import type { RowDataPacket } from 'mysql2/promise';
import type { LedgerFilter } from '@/core/compare/ledger-filter';
import { matesOf } from '@/core/power/charge-conditions';
import type { PastSession } from '@/core/power/past-sessions';
import type { SessionLooks } from '@/core/power/session-looks';
import { outletOf } from '@/core/power/setting-of';
import { localDay } from '@/core/units/zoned';
import type { Who } from '../accounts/who';
import { fromBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf, recordsWhere } from '../records/record-tables';
import { visitWhere } from '../visits/visit-where';

/** No filter of these asks for prices. */
const NO_PRICES = '';

/**
 * Sessions of a household under a filter, newest first, with what each stood at. Visits that were left out of comparisons
 * and those of trials teach and judge nothing.
 * @param most that are read
 */
export async function pastSessions(who: Who, filter: LedgerFilter, most: number): Promise<PastSession[]> {
  const where = visitWhere(who, filter, NO_PRICES);
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.sort_at, v.zone, v.network_id, v.site_id, v.car_id, a.n, a.stall_id, a.network_id AS at_network, a.adapter_id, a.model, p.looks
       FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
       JOIN session_power p ON p.household_id = v.household_id AND p.visit_id = v.id
       JOIN attempt_figures a ON a.household_id = p.household_id AND a.visit_id = p.visit_id AND a.n = p.n
      WHERE ${where.sql} AND f.left_out = FALSE AND f.trial_id IS NULL ORDER BY v.sort_at DESC LIMIT ${Math.trunc(most)}`,
    where.values,
  );
  const id = (bin: Buffer | null) => (bin === null ? null : fromBin(bin));
  const looksOf = rows.map((r): SessionLooks => (typeof r.looks === 'string' ? JSON.parse(r.looks) : r.looks));
  const stallIds = [...new Set([...rows.flatMap((r) => id(r.stall_id) ?? []), ...looksOf.flatMap((l) => l.beside ?? [])])];
  const [cars, adapters, stalls] = await Promise.all([
    recordsOf(who.householdId, 'car'),
    recordsOf(who.householdId, 'adapter'),
    stallIds.length === 0 ? [] : recordsWhere(who.householdId, 'stall', 'id', stallIds),
  ]);
  const byId = <T extends { id: string }>(all: readonly T[]) => new Map(all.map((r) => [r.id, r]));
  const [car, adapter, stall] = [byId(cars), byId(adapters), byId(stalls)];
  return rows.map((r, i) => {
    const looks = looksOf[i] as SessionLooks;
    const [at, with_, through] = [
      stall.get(id(r.stall_id) ?? '')?.fields,
      car.get(id(r.car_id) ?? '')?.fields,
      adapter.get(id(r.adapter_id) ?? '')?.fields ?? null,
    ];
    const beside = (looks.beside ?? []).flatMap((b) => stall.get(b) ?? []);
    const shared = at !== undefined && matesOf(id(r.stall_id), at.cabinet, beside).size > 0;
    return {
      visitId: fromBin(r.id),
      n: r.n,
      day: localDay(r.sort_at.getTime(), r.zone),
      at: r.sort_at.getTime(),
      networkId: id(r.at_network) ?? id(r.network_id),
      siteId: id(r.site_id),
      stallId: id(r.stall_id),
      model: r.model,
      carId: id(r.car_id),
      looks: shared ? { ...looks, hindered: true } : looks,
      stands:
        at && with_ ? { car: with_, stall: at, outlet: outletOf(at, with_, looks.connector, through?.from ?? null, looks.peak_kW), adapter: through } : null,
    };
  });
}
