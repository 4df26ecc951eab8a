import type Fraction from 'fraction.js';
import { momentOf } from '../records/moment';
import type { Dimension, ExtraPricing, OcpiTariff, Restrictions, TaxedPrice } from '../records/ocpi-tariff';
import { WEEKDAYS } from '../records/weekdays';
import { decimalsOf, exact, NOTHING } from './exact';

/** One price of an element, exact. `step`: in Wh or seconds; 0 rounds nothing. */
export type Component = {
  n: number;
  element: number;
  type: Dimension;
  price: Fraction;
  vat: Fraction /** What an amount without tax is multiplied by. */;
  taxed: Fraction;
  step: number;
};
/** When an element holds by the clock: minutes of the day, and days. `start` after `end` goes over midnight. */
export type ByClock = { start: number; end: number; from: string | null; until: string | null; weekdays: ReadonlySet<number> | null };
export type Element = {
  components: Partial<Record<Dimension, Component>>;
  clock: ByClock | null;
  /** From, inclusive, and up to, exclusive; `null`: without a bound. Milliseconds, kWh, kW, A. */
  duration: readonly [number | null, number | null];
  kwh: readonly [number | null, number | null];
  power: readonly [Fraction | null, Fraction | null];
  current: readonly [Fraction | null, Fraction | null];
  /** Of a reservation: there is none here. */
  never: boolean;
};
export type Bounds = { excl: Fraction; incl: Fraction | null };
/** A tariff made ready, for as many sessions as are priced by it. */
export type CompiledTariff = {
  currency: string;
  from: number | null;
  until: number | null;
  elements: readonly Element[];
  components: readonly Component[];
  /** Times of the day at which it changes; empty where it looks at no clock. */
  minutes: readonly number[];
  byClock: boolean;
  byCurrent: boolean;
  byPower: boolean;
  /** Decimals of the kWh it names. */
  decimals: number;
  min: Bounds | null;
  max: Bounds | null;
  /** The kW from which each step of the power price holds. */
  tiers: readonly Fraction[];
  extra: ExtraPricing;
  minimumCharge: Bounds | null;
};

const minuteOf = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));
const bounds = (p: TaxedPrice | undefined): Bounds | null =>
  p ? { excl: exact(p.excl_vat), incl: p.incl_vat === undefined ? null : exact(p.incl_vat) } : null;
const maybe = (n: number | undefined): Fraction | null => (n === undefined ? null : exact(n));

/** Only a start is until midnight, only an end from midnight; a start that is its end is the whole day; an end at 00:00 is the end of the day. */
function byClock(r: Restrictions): ByClock | null {
  const weekdays = r.day_of_week?.length ? new Set(r.day_of_week.map((d) => WEEKDAYS.indexOf(d))) : null;
  if (r.start_time === undefined && r.end_time === undefined && r.start_date === undefined && r.end_date === undefined && !weekdays) return null;
  const start = r.start_time === undefined ? 0 : minuteOf(r.start_time);
  const end = r.end_time === undefined ? 1440 : minuteOf(r.end_time) || 1440;
  const whole = r.start_time !== undefined && r.start_time === r.end_time;
  return { start: whole ? 0 : start, end: whole ? 1440 : end, from: r.start_date ?? null, until: r.end_date ?? null, weekdays };
}

/** Makes a tariff ready for pricing. @param extra what the standard does not know */
export function compileTariff(tariff: OcpiTariff, extra: ExtraPricing = {}): CompiledTariff {
  const components: Component[] = [];
  const elements = tariff.elements.map((e, element): Element => {
    const r: Restrictions = e.restrictions ?? {};
    const own: Element['components'] = {};
    for (const c of e.price_components) {
      const made = {
        n: components.length,
        element,
        type: c.type,
        price: exact(c.price),
        vat: c.vat === undefined ? NOTHING : exact(c.vat),
        taxed: exact(c.vat ?? 0)
          .div(100)
          .add(1),
        step: c.step_size,
      };
      components.push(made);
      own[c.type] = made;
    }
    return {
      components: own,
      clock: byClock(r),
      duration: [r.min_duration === undefined ? null : r.min_duration * 1000, r.max_duration === undefined ? null : r.max_duration * 1000],
      kwh: [r.min_kwh ?? null, r.max_kwh ?? null],
      power: [maybe(r.min_power), maybe(r.max_power)],
      current: [maybe(r.min_current), maybe(r.max_current)],
      never: r.reservation !== undefined,
    };
  });
  const clocks = elements.flatMap((e) => (e.clock ? [e.clock] : []));
  const has = (range: readonly (unknown | null)[]) => range.some((n) => n !== null);
  const kwh = [...elements.flatMap((e) => e.kwh), extra.allowance?.free_kwh_per_month ?? null].filter((n) => n !== null);
  return {
    currency: tariff.currency,
    from: tariff.start_date_time === undefined ? null : momentOf(tariff.start_date_time),
    until: tariff.end_date_time === undefined ? null : momentOf(tariff.end_date_time),
    elements,
    components,
    minutes: [...new Set(clocks.flatMap((c) => [c.start, c.end % 1440]))].sort((a, b) => a - b),
    byClock: clocks.length > 0,
    byCurrent: elements.some((e) => has(e.current)),
    byPower: elements.some((e) => has(e.power)) || extra.power_time !== undefined,
    decimals: Math.max(0, ...kwh.map(decimalsOf)),
    min: bounds(tariff.min_price),
    max: bounds(tariff.max_price),
    tiers: (extra.power_time?.tiers ?? []).map((s) => exact(s.min_power)),
    extra,
    minimumCharge: bounds(extra.minimum_charge),
  };
}
