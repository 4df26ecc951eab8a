import { WEEKDAYS } from '../records/weekdays';
import { holdsBy } from './clock-window';
import type { CompiledTariff, Component } from './compiled-tariff';
import { decimal } from './exact';

/** A stretch of a weekday by the clock, minutes from midnight: what a kWh costs at the start of a session, tax in; `null`: nothing is asked for one. */
export type PriceStretch = { from: number; to: number; perKWh: string | null };
/** From Monday on. */
export type PriceDay = { weekday: number; stretches: PriceStretch[] };

/** Monday first. */
export const WEEK = [1, 2, 3, 4, 5, 6, 0] as const;
export const weekdayName = (weekday: number): string => {
  const name = WEEKDAYS[weekday] ?? '';
  return name.charAt(0) + name.slice(1, 3).toLowerCase();
};

/** The price of a kind that holds as a session begins, at a weekday and time of day; bounds of kWh, power and dates are not looked at beyond their start. */
export function priceAt(t: CompiledTariff, type: Component['type'], weekday: number, minute: number, day: string): Component | undefined {
  return t.elements.find(
    (e) => !e.never && e.components[type] !== undefined && holdsBy(e.clock, { from: 0, day, weekday, minute }) && !e.kwh[0] && !e.duration[0],
  )?.components[type];
}

/** What a kWh costs through the week. @param day whose dates hold, ISO */
export function priceWeek(t: CompiledTariff, day: string): PriceDay[] {
  const cuts = [...new Set([0, ...t.minutes])].sort((a, b) => a - b);
  const tax = 1 + (t.extra.tax_percent ?? 0) / 100;
  return WEEK.map((weekday) => {
    const stretches: PriceStretch[] = [];
    for (const [i, from] of cuts.entries()) {
      const c = priceAt(t, 'ENERGY', weekday, from, day);
      const perKWh = c ? decimal(c.price.mul(c.taxed).mul(tax), 4).replace(/0{1,2}$/, '') : null;
      const last = stretches.at(-1);
      const to = cuts[i + 1] ?? 1440;
      if (last && last.perKWh === perKWh) last.to = to;
      else stretches.push({ from, to, perKWh });
    }
    return { weekday, stretches };
  });
}
