import type { RowDataPacket } from 'mysql2/promise';
import { chargedAttempts } from '@/core/tariff/charged-visit';
import { type PlanMonth, type PlanVisit, paysFrom, planMonths, pricedBothWays, twelveMonths, wholeMonths } from '@/core/tariff/plan-months';
import { tariffOn } from '@/core/tariff/tariff-on';
import { grouped } from '@/core/units/grouped';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '../accounts/sessions';
import { now } from '../clock';
import { fromBin, toBin } from '../db/binary-id';
import { figuresOf } from '../figures/refresh';
import { recordsOf } from '../records/record-tables';
import { visitsById } from '../visits/derived-visits';
import { seen, seenBy } from '../visits/seen-by';

/** Visits of a year that are priced: the newest. */
const MOST_VISITS = 3_000;

export type PlanRow = {
  id: string;
  name: string;
  monthlyFee: string;
  currency: string;
  from: string | null;
  months: PlanMonth[];
  priced: boolean;
  otherCurrency: string | null;
};

/** Every plan with what it would have saved in each of the last twelve months, by the prices of each visit’s day. `beyond`: visits that are not looked at for being too many: months that have some are left out. */
export async function plansPage(who: SignedIn, most = MOST_VISITS): Promise<{ plans: PlanRow[]; beyond: number }> {
  const { householdId } = who;
  const [plans, tariffs, sites] = await Promise.all([recordsOf(householdId, 'plan'), recordsOf(householdId, 'tariff'), recordsOf(householdId, 'site')]);
  const kept = plans.filter((p) => !p.archived);
  if (kept.length === 0) return { plans: [], beyond: 0 };
  const today = localDay(now(), who.zone);
  const year = twelveMonths(today.slice(0, 7));
  const networkOf = new Map(sites.map((s) => [s.id, s.fields.networkId]));
  const byNetwork = grouped(tariffs, (t) => t.fields.networkId);
  const withPlan = [...new Set(tariffs.flatMap((t) => (t.fields.planId ? [t.fields.networkId] : [])))];
  const { wanted, beyond } = await visitsAt(who, withPlan, year[0] ?? '', most);
  const months = wholeMonths(year, wanted.at(-1)?.month ?? null, beyond);
  const derived = await visitsById(
    householdId,
    wanted.map((w) => w.id),
  );
  const visits = wanted.flatMap(({ id, siteId }) => {
    const visit = derived.get(id);
    if (!visit) return [];
    const attempts = chargedAttempts(visit);
    return attempts.known && attempts.value.length > 0
      ? [{ siteId, networkId: networkOf.get(siteId) ?? null, day: localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone), attempts: attempts.value }]
      : [];
  });
  const rowOf = (plan: (typeof kept)[number]): PlanRow => {
    const { currency } = plan.fields;
    const fee = plan.fields.monthlyFee ?? '0';
    const prices = tariffs.filter((t) => t.fields.planId === plan.id);
    const payer = { planId: plan.id, providerId: null };
    const own = visits.flatMap((v): PlanVisit[] => {
      const of = byNetwork.get(v.networkId ?? '') ?? [];
      const member = tariffOn(of, v, v.day, payer);
      const guest = tariffOn(of, v, v.day);
      const visit =
        member && guest && member.currency === currency && guest.currency === currency
          ? { month: v.day.slice(0, 7), attempts: v.attempts, guest, member }
          : null;
      return visit && pricedBothWays(visit) ? [visit] : [];
    });
    const of = byNetwork.get(plan.fields.networkId ?? '') ?? [];
    const place = { siteId: null, networkId: plan.fields.networkId };
    const [guest, member] = [tariffOn(of, place, today), tariffOn(of, place, today, payer)];
    return {
      id: plan.id,
      name: plan.fields.name,
      monthlyFee: fee,
      currency,
      from: guest?.currency === currency && member?.currency === currency ? paysFrom(guest, member, Number(fee)) : null,
      months: planMonths(
        own,
        months,
        { monthlyFee: Number(fee), currency },
        (month) => plan.fields.from.slice(0, 7) <= month && (plan.fields.until === null || month <= plan.fields.until.slice(0, 7)),
      ),
      priced: prices.length > 0,
      // A sum of two currencies is none.
      otherCurrency: prices.every((t) => t.fields.currency !== currency) ? (prices[0]?.fields.currency ?? null) : null,
    };
  };
  const used = (p: PlanRow) => p.months.reduce((n, m) => n + m.visits, 0);
  return { plans: kept.map(rowOf).sort((a, b) => used(b) - used(a) || (a.name < b.name ? -1 : 1)), beyond };
}

/** The newest charges at these networks since a month that this person sees, `2025-10`, the newest first; how many more there are. */
async function visitsAt(
  who: SignedIn,
  networkIds: readonly string[],
  month: string,
  most: number,
): Promise<{ wanted: { id: string; siteId: string; month: string }[]; beyond: number }> {
  if (networkIds.length === 0) return { wanted: [], beyond: 0 };
  const [rows] = await (await figuresOf(who.householdId)).execute<RowDataPacket[]>(
    `SELECT v.id, v.site_id, v.local_month, COUNT(*) OVER () AS n FROM visit v JOIN visit_figures f ON f.household_id = v.household_id AND f.visit_id = v.id
      WHERE v.household_id = ? AND v.withdrawn = FALSE AND ${seen()} AND v.local_month >= ? AND f.delivered_kwh > 0 AND v.site_id IS NOT NULL
        AND v.network_id IN (${networkIds.map(() => '?').join(', ')}) ORDER BY v.sort_at DESC LIMIT ${Math.trunc(most)}`,
    [toBin(who.householdId), seenBy(who.personId), month, ...networkIds.map(toBin)],
  );
  return {
    wanted: rows.map((r) => ({ id: fromBin(r.id), siteId: fromBin(r.site_id), month: r.local_month as string })),
    beyond: Number(rows[0]?.n ?? 0) - rows.length,
  };
}
