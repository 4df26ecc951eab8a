import * as z from '@/core/units/schema';
import { MOST_PRICE } from '../units/money';
import { isDay, momentOf } from './moment';
import { WEEKDAYS } from './weekdays';

/** What a price is of, as OCPI 2.2.1 names it: the start, a kWh, an hour charging, an hour not charging. */
export const DIMENSIONS = ['ENERGY', 'FLAT', 'PARKING_TIME', 'TIME'] as const;
export type Dimension = (typeof DIMENSIONS)[number];

/** Elements, components and price steps that one tariff may have: more is no price anybody could read. */
export const MOST_ELEMENTS = 200;
const MOST_MINUTES = 100_000;

export const price = z.number().check(z.minimum(0, 'must not be below 0'), z.maximum(MOST_PRICE));
export const percent = z.number().check(z.minimum(0, 'must not be below 0'), z.maximum(100, 'must be at most 100'));
/** kWh, kW, A. */
export const quantity = z.number().check(z.minimum(0, 'must not be below 0'), z.maximum(1e9));
/** Minutes to the millisecond. */
const minutes = quantity.check(
  z.maximum(MOST_MINUTES),
  z.refine((m) => Math.abs(m * 60_000 - Math.round(m * 60_000)) < 1e-6, 'must be whole milliseconds'),
);
export const moment = z.string().check(z.refine((t) => momentOf(t) !== null, 'must be a moment in UTC, such as 2025-10-14T12:00:00Z'));
const day = z.string().check(z.refine(isDay, 'must be a day, such as 2025-10-14'));
const clock = z.string().check(z.regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'must be a time of day from 00:00 to 23:59'));
const whole = z.int().check(z.minimum(0, 'must not be below 0'), z.maximum(1_000_000_000));

/** A bound or a charge, without and with tax. */
export const taxedPrice = z.object({ excl_vat: price, incl_vat: z.optional(price) }).check(
  z.superRefine(({ excl_vat, incl_vat }, ctx) => {
    if (incl_vat !== undefined && incl_vat < excl_vat) ctx.addIssue({ code: 'custom', path: ['incl_vat'], message: 'must not be less than without tax' });
  }),
);
export type TaxedPrice = z.infer<typeof taxedPrice>;

const component = z.object({
  type: z.enum(DIMENSIONS),
  price,
  vat: z.optional(percent),
  step_size: whole,
});

const RANGES = ['kwh', 'current', 'power', 'duration'] as const;
/** An unknown restriction is refused, not passed over: what it restricts would be charged to everybody. */
const restrictions = z
  .strictObject({
    start_time: z.optional(clock),
    end_time: z.optional(clock),
    start_date: z.optional(day),
    end_date: z.optional(day),
    min_kwh: z.optional(quantity),
    max_kwh: z.optional(quantity),
    min_current: z.optional(quantity),
    max_current: z.optional(quantity),
    min_power: z.optional(quantity),
    max_power: z.optional(quantity),
    min_duration: z.optional(whole),
    max_duration: z.optional(whole),
    day_of_week: z.optional(z.array(z.enum(WEEKDAYS))),
    reservation: z.optional(z.enum(['RESERVATION', 'RESERVATION_EXPIRES'])),
  })
  .check(
    z.superRefine((r, ctx) => {
      for (const name of RANGES) {
        const [least, most] = [r[`min_${name}`], r[`max_${name}`]];
        if (least !== undefined && most !== undefined && least >= most)
          ctx.addIssue({ code: 'custom', path: [`max_${name}`], message: `must be more than min_${name}: it would hold never` });
      }
      if (r.start_date !== undefined && r.end_date !== undefined && r.start_date >= r.end_date)
        ctx.addIssue({ code: 'custom', path: ['end_date'], message: 'must be after start_date' });
    }),
  );
export type Restrictions = z.infer<typeof restrictions>;

const element = z
  .object({ price_components: z.array(component).check(z.minLength(1, 'must hold at least one price')), restrictions: z.optional(restrictions) })
  .check(
    z.superRefine(({ price_components }, ctx) => {
      for (const [i, { type }] of price_components.entries())
        if (price_components.findIndex((c) => c.type === type) < i)
          ctx.addIssue({ code: 'custom', path: ['price_components', i, 'type'], message: `${type} has a price in this element already` });
    }),
  );

/**
 * A tariff in the form in which it is kept: the Tariff object of OCPI 2.2.1 (module Tariffs), from memory. Prices are without tax, per kWh, per hour
 * or per session; a component without `vat` has none on top. Fields that the standard does not know stay with it and price nothing.
 */
export const ocpiTariff = z
  .looseObject({
    country_code: z.string().check(z.regex(/^[A-Za-z]{2}$/, 'must be two letters')),
    party_id: z.string().check(z.regex(/^[A-Za-z0-9]{3}$/, 'must be three letters or digits')),
    id: z.string().check(z.minLength(1, 'is missing'), z.maxLength(36)),
    currency: z.string().check(z.regex(/^[A-Z]{3}$/, 'must be three capital letters, such as EUR')),
    type: z.optional(z.enum(['AD_HOC_PAYMENT', 'PROFILE_CHEAP', 'PROFILE_FAST', 'PROFILE_GREEN', 'REGULAR'])),
    tariff_alt_text: z.optional(z.array(z.looseObject({ language: z.string(), text: z.string() }))),
    min_price: z.optional(taxedPrice),
    max_price: z.optional(taxedPrice),
    elements: z.array(element).check(z.minLength(1, 'must hold at least one element'), z.maxLength(MOST_ELEMENTS)),
    start_date_time: z.optional(moment),
    end_date_time: z.optional(moment),
    last_updated: moment,
  })
  .check(
    z.superRefine((t, ctx) => {
      const wrong = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message });
      const [least, most] = [t.min_price, t.max_price];
      if (least && most && least.excl_vat > most.excl_vat) wrong(['max_price', 'excl_vat'], 'must not be less than min_price');
      if (least?.incl_vat !== undefined && most?.incl_vat !== undefined && least.incl_vat > most.incl_vat)
        wrong(['max_price', 'incl_vat'], 'must not be less than min_price');
      if (t.start_date_time && t.end_date_time && (momentOf(t.start_date_time) ?? 0) >= (momentOf(t.end_date_time) ?? 0))
        wrong(['end_date_time'], 'must be after start_date_time');
    }),
  );
export type OcpiTariff = z.infer<typeof ocpiTariff>;

/** Steps must rise, or it cannot be told which holds. */
const rising = <T>(of: (step: T) => number, name: string) =>
  z.superRefine((steps: T[], ctx) => {
    for (const [i, step] of steps.entries())
      if (i > 0 && of(step) <= of(steps[i - 1] as T)) ctx.addIssue({ code: 'custom', path: [i, name], message: 'must be more than the one before' });
  });
const occupancy = z.number().check(z.minimum(0, 'must be from 0 to 1'), z.maximum(1, 'must be from 0 to 1'));

/** What free minutes may apply to. */
export const FREE_OF = ['ENERGY', 'TIME', 'PARKING_TIME', 'X_POWER_TIME'] as const;

/** What stands on posts and not in OCPI 2.2.1. A field that is not known is refused: it would be charged by nobody. */
export const extraPricing = z.strictObject({
  idle_fee: z.optional(
    z.strictObject({
      grace_minutes: minutes,
      rates: z.array(z.strictObject({ min_occupancy: occupancy, price_per_min: price })).check(
        z.minLength(1, 'must hold at least one rate'),
        rising((r) => r.min_occupancy, 'min_occupancy'),
      ),
      step_seconds: z.optional(whole),
      vat: z.optional(percent),
    }),
  ),
  overstay_fee: z.optional(z.strictObject({ after_minutes: minutes, fee: price, vat: z.optional(percent) })),
  power_time: z.optional(
    z.strictObject({
      tiers: z.array(z.strictObject({ min_power: quantity, price_per_min: price })).check(
        z.minLength(1, 'must hold at least one tier'),
        rising((t) => t.min_power, 'min_power'),
      ),
      step_seconds: z.optional(whole),
      vat: z.optional(percent),
    }),
  ),
  allowance: z.optional(
    z
      .strictObject({
        free_minutes_per_session: z.optional(minutes),
        applies_to: z.optional(z.array(z.enum(FREE_OF))),
        free_kwh_per_month: z.optional(quantity),
      })
      .check(
        z.superRefine((a, ctx) => {
          if (a.free_minutes_per_session === undefined && a.free_kwh_per_month === undefined)
            ctx.addIssue({ code: 'custom', path: [], message: 'must say what is free' });
          if (a.free_minutes_per_session !== undefined && !a.applies_to?.length)
            ctx.addIssue({ code: 'custom', path: ['applies_to'], message: 'must say what the free minutes are of' });
        }),
      ),
  ),
  minimum_charge: z.optional(taxedPrice),
  tax_percent: z.optional(percent),
});
export type ExtraPricing = z.infer<typeof extraPricing>;

/** What a plan costs a month. */
export const subscription = z.strictObject({ monthly_fee: price, vat: z.optional(percent) });
export type Subscription = z.infer<typeof subscription>;
