import type Fraction from 'fraction.js';
import * as z from '@/core/units/schema';
import { percent, price } from '../records/ocpi-tariff';
import { exact, NOTHING, ratio } from './exact';

const amount = z.number().check(z.minimum(0, 'must not be below 0'), z.maximum(1e6));

/** A plan as it is advertised: so much a month, a kWh, a session; so many kWh in it. Tax comes on top of what is charged, not of the monthly fee. */
export const advertisedPlan = z.strictObject({
  monthly_fee: z.optional(price),
  price_per_kwh: price,
  included_kwh: z.optional(amount),
  price_per_session: z.optional(price),
  sessions_per_month: z.optional(amount),
  tax_percent: z.optional(percent),
});
export type AdvertisedPlan = z.infer<typeof advertisedPlan>;

type Cost = { at: (kWh: Fraction) => Fraction; bend: Fraction; slope: Fraction };
function costOf(p: AdvertisedPlan): Cost {
  const tax = exact(p.tax_percent ?? 0)
    .div(ratio(100n, 1n))
    .add(ratio(1n, 1n));
  const fixed = exact(p.monthly_fee ?? 0).add(
    exact(p.price_per_session ?? 0)
      .mul(exact(p.sessions_per_month ?? 0))
      .mul(tax),
  );
  const bend = exact(p.included_kwh ?? 0);
  const slope = exact(p.price_per_kwh).mul(tax);
  return { bend, slope, at: (kWh) => (kWh.gt(bend) ? fixed.add(kWh.sub(bend).mul(slope)) : fixed) };
}

export type Cheaper = 'a' | 'b' | 'tie';
const cheaper = (sign: bigint): Cheaper => (sign < 0n ? 'a' : sign > 0n ? 'b' : 'tie');

/** kWh a month at which the one that costs less changes; where two cost the same over a stretch, its end. And which costs less at nothing and for ever after. */
export type BreakEven = { crossings: Fraction[]; atZero: Cheaper; inTheLimit: Cheaper };

/**
 * Where of two plans the cheaper one changes, by kWh a month.
 * What each costs is two straight lines that meet where its included kWh end, so the difference is straight between those.
 */
export function breakEven(planA: AdvertisedPlan, planB: AdvertisedPlan): BreakEven {
  const [a, b] = [costOf(planA), costOf(planB)];
  const difference = (kWh: Fraction): Fraction => a.at(kWh).sub(b.at(kWh));
  const bends = [a.bend, b.bend].filter((k) => !k.equals(0)).sort((x, y) => x.compare(y));
  const points = [NOTHING, ...bends.filter((k, i) => i === 0 || !k.equals(bends[i - 1] as Fraction))];
  const crossings: Fraction[] = [];
  const signOf = (f: Fraction): bigint => (f.equals(0) ? 0n : f.s);
  const at0 = signOf(difference(NOTHING));
  /** Sign of the last difference that was one. */
  let sign = at0;
  const change = (to: bigint, at: Fraction) => {
    if (to !== 0n && sign !== 0n && to !== sign) crossings.push(at);
    if (to !== 0n) sign = to;
  };
  for (const [i, from] of points.entries()) {
    const to = points[i + 1];
    const here = difference(from);
    const slope = to ? difference(to).sub(here).div(to.sub(from)) : a.slope.sub(b.slope);
    // A difference of nothing at the start of a straight stretch takes the sign of its slope: there the tie ends.
    if (here.equals(0)) {
      change(signOf(slope), from);
      continue;
    }
    change(signOf(here), from);
    if (slope.equals(0)) continue;
    const zero = from.sub(here.div(slope));
    if (zero.lte(from) || (to && zero.gte(to))) continue;
    change(signOf(slope), zero);
  }
  const limit = a.slope.sub(b.slope);
  const last = points.at(-1) as Fraction;
  return { crossings, atZero: cheaper(at0), inTheLimit: cheaper(signOf(limit) || signOf(difference(last))) };
}
