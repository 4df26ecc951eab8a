import * as z from '@/core/units/schema';
import { canonicalJson } from '../records/canonical-json';
import type { ExtraPricing, OcpiTariff, Restrictions } from '../records/ocpi-tariff';
import { DECIMAL, MOST_PRICE } from '../units/money';

/** Days that a time of day is of. */
export const DAYS = { all: [], weekdays: ['MONDAY', 'TUESDAY', 'WEDNESDAY', 'THURSDAY', 'FRIDAY'], weekend: ['SATURDAY', 'SUNDAY'] } as const;
export type Days = keyof typeof DAYS;

const money = z.string().check(
  z.trim(),
  z.regex(DECIMAL, 'A decimal number such as 0.55'),
  z.refine((s) => Number(s) >= 0 && Number(s) <= MOST_PRICE, `Between 0 and ${MOST_PRICE}`),
);
const number = (least: number, most: number) =>
  z.string().check(
    z.trim(),
    z.regex(/^\d{1,5}(\.\d{1,3})?$/, 'A number'),
    z.refine((s) => Number(s) >= least && Number(s) <= most, `Between ${least} and ${most}`),
  );
/** Empty is "none". */
const or = (schema: z.ZodMiniString) => z.union([z.literal(''), schema]);
const clock = z.string().check(z.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time such as 22:00'));

/**
 * What stands on a post, as it is typed: prices as shown. Every field is text and empty where the post says nothing of it.
 * Minutes are of charging, `parkedPerMin` of standing there plugged in; `byPower` a price a minute from so many kW on.
 */
export const plainPrice = z.object({
  perKWh: or(money),
  startFee: or(money),
  windows: z
    .array(z.object({ from: clock, to: clock, days: z.enum(['all', 'weekdays', 'weekend']), perKWh: money }))
    .check(z.maxLength(8, 'At most eight times')),
  perMin: or(money),
  parkedPerMin: or(money),
  byPower: z.array(z.object({ fromKW: number(0, 4000), perMin: money })).check(z.maxLength(6, 'At most six steps')),
  idlePerMin: or(money),
  idleAfterMin: or(number(0, 10_000)),
  overstayFee: or(money),
  overstayAfterMin: or(number(1, 50_000)),
  freeMin: or(number(0, 10_000)),
  minimum: or(money),
  taxOnTop: or(number(0, 100)),
});
export type PlainPrice = z.infer<typeof plainPrice>;

export const NO_PRICE: PlainPrice = {
  perKWh: '',
  startFee: '',
  windows: [],
  perMin: '',
  parkedPerMin: '',
  byPower: [],
  idlePerMin: '',
  idleAfterMin: '',
  overstayFee: '',
  overstayAfterMin: '',
  freeMin: '',
  minimum: '',
  taxOnTop: '',
};

type Element = OcpiTariff['elements'][number];
type Component = Element['price_components'][number];
const given = (s: string): boolean => s !== '';
/** Prices a minute are prices an hour in the standard. */
const hourly = (perMin: string): number => Number((Number(perMin) * 60).toFixed(6));
const component = (type: Component['type'], price: number): Component => ({ type, price, step_size: 0 });

function windowRestrictions(w: PlainPrice['windows'][number]): Restrictions {
  const whole = w.from === w.to;
  return { ...(whole ? {} : { start_time: w.from, end_time: w.to }), ...(w.days === 'all' ? {} : { day_of_week: [...DAYS[w.days]] }) };
}

/** Whether anything is asked at all: a price of nothing is typed as 0. */
export const saysPrice = (p: PlainPrice): boolean =>
  given(p.perKWh) || given(p.startFee) || given(p.perMin) || given(p.parkedPerMin) || p.windows.length > 0 || p.byPower.length > 0;

/**
 * The tariff object that plain choices mean. Times of day come first, the price at all other times after them; prices are taken as shown, without tax apart.
 * @param idle minutes of grace are 0 where none are given
 */
export function objectOfPlain(p: PlainPrice, of: { id: string; currency: string; day: string }): { tariff: OcpiTariff; extra: ExtraPricing | null } {
  const always: Component[] = [
    ...(given(p.perKWh) ? [component('ENERGY', Number(p.perKWh))] : []),
    ...(given(p.perMin) ? [component('TIME', hourly(p.perMin))] : []),
    ...(given(p.parkedPerMin) ? [component('PARKING_TIME', hourly(p.parkedPerMin))] : []),
  ];
  const elements: Element[] = [
    ...(given(p.startFee) ? [{ price_components: [component('FLAT', Number(p.startFee))] }] : []),
    ...p.windows.map((w): Element => ({ price_components: [component('ENERGY', Number(w.perKWh))], restrictions: windowRestrictions(w) })),
    ...(always.length > 0 ? [{ price_components: always }] : []),
  ];
  const extra: ExtraPricing = {
    ...(given(p.idlePerMin)
      ? { idle_fee: { grace_minutes: Number(p.idleAfterMin || 0), rates: [{ min_occupancy: 0, price_per_min: Number(p.idlePerMin) }] } }
      : {}),
    ...(given(p.overstayFee) && given(p.overstayAfterMin) ? { overstay_fee: { after_minutes: Number(p.overstayAfterMin), fee: Number(p.overstayFee) } } : {}),
    ...(p.byPower.length > 0 ? { power_time: { tiers: steps(p) } } : {}),
    ...(given(p.freeMin) && Number(p.freeMin) > 0
      ? { allowance: { free_minutes_per_session: Number(p.freeMin), applies_to: ['TIME' as const, 'PARKING_TIME' as const, 'X_POWER_TIME' as const] } }
      : {}),
    ...(given(p.minimum) ? { minimum_charge: { excl_vat: Number(p.minimum) } } : {}),
    ...(given(p.taxOnTop) && Number(p.taxOnTop) > 0 ? { tax_percent: Number(p.taxOnTop) } : {}),
  };
  return {
    tariff: {
      country_code: 'ZZ',
      party_id: 'OWN',
      id: of.id.slice(0, 36),
      currency: of.currency,
      // A post that asks for nothing but minutes by power has a start that costs nothing.
      elements: elements.length > 0 ? elements : [{ price_components: [component('FLAT', 0)] }],
      last_updated: `${of.day}T00:00:00Z`,
    },
    extra: Object.keys(extra).length > 0 ? extra : null,
  };
}
const steps = (p: PlainPrice) =>
  p.byPower.map((s) => ({ min_power: Number(s.fromKW), price_per_min: Number(s.perMin) })).sort((a, b) => a.min_power - b.min_power);

const text = (n: number | undefined): string => (n === undefined ? '' : String(n));
const daysOf = (days: readonly string[] | undefined): Days | null =>
  (Object.keys(DAYS) as Days[]).find((d) => (DAYS[d] as readonly string[]).join() === (days ?? []).join()) ?? null;

/** The plain choices that an object is; `null` for one that says more than they can. */
export function plainOfObject(tariff: OcpiTariff, extra: ExtraPricing | null): PlainPrice | null {
  const p: PlainPrice = { ...NO_PRICE, windows: [], byPower: [] };
  for (const e of tariff.elements) {
    const r = e.restrictions;
    for (const c of e.price_components) {
      const minute = String(Number((c.price / 60).toFixed(6)));
      if (c.type === 'FLAT' && !r) p.startFee = text(c.price);
      else if (c.type === 'ENERGY' && !r) p.perKWh = text(c.price);
      else if (c.type === 'TIME' && !r) p.perMin = minute;
      else if (c.type === 'PARKING_TIME' && !r) p.parkedPerMin = minute;
      else if (c.type === 'ENERGY' && r) {
        const days = daysOf(r.day_of_week);
        if (days) p.windows.push({ from: r.start_time ?? '00:00', to: r.end_time ?? '00:00', days, perKWh: text(c.price) });
      }
    }
  }
  const { idle_fee: idle, overstay_fee: over, power_time: power, allowance, minimum_charge: least, tax_percent } = extra ?? {};
  if (idle) [p.idleAfterMin, p.idlePerMin] = [text(idle.grace_minutes), text(idle.rates[0]?.price_per_min)];
  if (over) [p.overstayAfterMin, p.overstayFee] = [text(over.after_minutes), text(over.fee)];
  p.byPower = (power?.tiers ?? []).map((s) => ({ fromKW: text(s.min_power), perMin: text(s.price_per_min) }));
  p.freeMin = text(allowance?.free_minutes_per_session);
  p.minimum = text(least?.excl_vat);
  p.taxOnTop = text(tax_percent);
  // What is typed again must mean the same: all else is more than the choices can say.
  const again = objectOfPlain(p, { id: tariff.id, currency: tariff.currency, day: tariff.last_updated.slice(0, 10) });
  const said = (t: OcpiTariff, x: ExtraPricing | null) =>
    canonicalJson([
      t.elements,
      t.min_price ?? null,
      t.max_price ?? null,
      t.start_date_time ?? null,
      t.end_date_time ?? null,
      x && Object.keys(x).length > 0 ? x : null,
    ]);
  return said(again.tariff, again.extra) === said(tariff, extra) ? p : null;
}

/** What the post says in one line: the price of a kWh at all times, else the first of them, and the start fee, tax in where it comes on top. */
export function oneLineOf(p: PlainPrice): { perKWh: string | null; startFee: string } {
  const tax = 1 + Number(p.taxOnTop || 0) / 100;
  const taxed = (s: string) => String(Number((Number(s) * tax).toFixed(6)));
  const perKWh = p.perKWh || p.windows[0]?.perKWh;
  return { perKWh: perKWh ? taxed(perKWh) : null, startFee: p.startFee ? taxed(p.startFee) : '0' };
}

/** The same of any object: its first prices of a kWh and of the start. */
export function oneLineOfObject(tariff: OcpiTariff, extra: ExtraPricing | null): { perKWh: string | null; startFee: string } {
  const first = (type: 'ENERGY' | 'FLAT') => tariff.elements.flatMap((e) => e.price_components).find((c) => c.type === type);
  const taxed = (c: Component | undefined) =>
    c ? String(Number((c.price * (1 + (c.vat ?? 0) / 100) * (1 + (extra?.tax_percent ?? 0) / 100)).toFixed(6))) : null;
  return { perKWh: taxed(first('ENERGY')), startFee: taxed(first('FLAT')) ?? '0' };
}
