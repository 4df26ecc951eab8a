import type { Subscription } from '../records/ocpi-tariff';
import { minorDigits } from '../units/money';
import { localMonth } from '../units/zoned';
import { type Bill, billOf, type CannotPrice, cannotPrice, sumTaxed, type Taxed } from './bill';
import type { CompiledTariff } from './compiled-tariff';
import { exact, NOTHING, ratio, rounded } from './exact';
import type { ChargedSession } from './session-period';

/** Half up to the minor unit, without and with tax each from its own exact amount. */
export function roundedTotal(t: Taxed, currency: string): Taxed {
  const places = minorDigits(currency);
  return { excl: rounded(t.excl, places), incl: rounded(t.incl, places) };
}

/** What a calendar month cost: its sessions as billed, the plan, and both. */
export type MonthCost = { sessions: Taxed; subscription: Taxed; total: Taxed };
/** Bills in the order of the sessions; months by name, `2024-03`, in order. */
export type PlanCost = { bills: Bill[]; months: Map<string, MonthCost>; total: Taxed };

/**
 * What some sessions cost by one tariff, month by month. Months are those of the place where a session started; the plan is due once in each
 * in which one did. Free kWh of a month go to whoever comes first. A month is the sum of its rounded bills and of the rounded plan.
 * @param plan what it costs a month; `null`: nothing @throws RangeError for a session that the tariff cannot price: see `cannotPriceAny`
 */
export function planCost(t: CompiledTariff, sessions: readonly ChargedSession[], plan: Subscription | null): PlanCost {
  const starts = sessions.map((s) => s.periods[0]?.start ?? 0);
  const inTime = sessions.map((_, i) => i).sort((a, b) => (starts[a] as number) - (starts[b] as number) || a - b);
  const monthOf = (i: number): string => localMonth(starts[i] as number, (sessions[i] as ChargedSession).zone);
  const used = new Map<string, ReturnType<typeof exact>>();
  const bills: Bill[] = [];
  const byMonth = new Map<string, Taxed[]>();
  for (const i of inTime) {
    const month = monthOf(i);
    const before = used.get(month) ?? NOTHING;
    const bill = billOf(t, sessions[i] as ChargedSession, before);
    bills[i] = bill;
    used.set(month, before.add(bill.kwh));
    byMonth.set(month, [...(byMonth.get(month) ?? []), roundedTotal(bill.total, t.currency)]);
  }
  const fee = plan ? exact(plan.monthly_fee) : NOTHING;
  const subscription = roundedTotal(
    {
      excl: fee,
      incl: fee.mul(
        exact(plan?.vat ?? 0)
          .div(ratio(100n, 1n))
          .add(ratio(1n, 1n)),
      ),
    },
    t.currency,
  );
  const months = new Map(
    [...byMonth]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([month, own]): [string, MonthCost] => {
        const billed = sumTaxed(own);
        return [month, { sessions: billed, subscription, total: sumTaxed([billed, subscription]) }];
      }),
  );
  return { bills, months, total: sumTaxed([...months.values()].map((m) => m.total)) };
}

/** Every reason why a tariff cannot price some sessions. @param path of the session with this place in the list */
export const cannotPriceAny = (t: CompiledTariff, sessions: readonly ChargedSession[], path: (i: number) => string): CannotPrice[] =>
  sessions.flatMap((s, i) => cannotPrice(t, s).map((p) => ({ ...p, path: p.path.replace('session', path(i)) })));

/** Names of the plans that cost least with tax; several where they cost the same. */
export function cheapest(costs: ReadonlyMap<string, PlanCost>): string[] {
  const least = [...costs.values()].reduce<PlanCost['total']['incl'] | null>((m, c) => (m === null || c.total.incl.lt(m) ? c.total.incl : m), null);
  return [...costs].filter(([, c]) => least !== null && c.total.incl.equals(least)).map(([name]) => name);
}
