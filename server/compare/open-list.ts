import type { RowDataPacket } from 'mysql2/promise';
import { billTotals } from '@/core/tariff/checked-bill';
import { longestFirst, type OpenItem, openItems } from '@/core/tariff/open-items';
import { localDay } from '@/core/units/zoned';
import { seesAll } from '@/core/visit/private';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsWhere } from '../records/record-tables';
import { pricesAgainst } from '../visits/bill-check';
import { derivedVisits } from '../visits/derived-visits';
import { eventsOfVisits } from '../visits/event-rows';
import { seen, seenBy } from '../visits/seen-by';

/** Visits that are looked at, the newest: more that wait for money nobody works through. */
const MOST_VISITS = 300;

/** What waits about the money of all visits that this person sees, the longest open first. `beyond`: visits that are not in it. */
export async function openList(who: SignedIn): Promise<{ items: (OpenItem & { place: string })[]; beyond: number }> {
  const { householdId, personId } = who;
  const [rows] = await (await figuresOf(householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, COUNT(*) OVER () AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND ${seen()} AND (f.open_money IS NOT NULL OR f.bill_check = 'off') ORDER BY v.sort_at DESC LIMIT ${MOST_VISITS}`,
    [toBin(householdId), seenBy(personId)],
  );
  const ids = rows.map((r) => fromBin(r.id));
  const visits = [...(await derivedVisits(await eventsOfVisits(householdId, ids))).values()].filter((v) => seesAll(v, personId));
  const sites = new Map((await recordsWhere(householdId, 'site', 'id', [...new Set(visits.flatMap((v) => v.siteId ?? []))])).map((s) => [s.id, s]));
  const against = await pricesAgainst(householdId, [...sites.values()]);
  const items = visits.flatMap((v) => {
    const place = sites.get(v.siteId ?? '')?.fields.name ?? 'Unknown site';
    const prices = against(v);
    return openItems(v, prices && billTotals(v, prices), localDay(now(), v.zone)).map((i) => ({ ...i, place }));
  });
  return { items: items.sort(longestFirst), beyond: Number(rows[0]?.n ?? 0) - ids.length };
}
