import type Fraction from 'fraction.js';
import type { Dimension } from '../records/ocpi-tariff';
import type { Bounds, CompiledTariff, Component } from './compiled-tariff';
import { exact, NOTHING, ratio, upTo } from './exact';
import { type ChargedSession, isTooLong, MOST_DAYS, type Period } from './session-period';
import { type Stretch, sessionVolumes, type Volume } from './session-volumes';

/** What a line of a bill is for: a dimension of the standard, a fee it does not know, or a change to the sum. */
export const FEES = ['X_POWER_TIME', 'X_IDLE', 'X_OVERSTAY'] as const;
export type Fee = (typeof FEES)[number];
export const ADJUSTMENTS = ['min_price', 'max_price', 'x_minimum_charge', 'x_tax'] as const;
export type Adjustment = (typeof ADJUSTMENTS)[number];

/** An amount without and with tax, exact. */
export type Taxed = { excl: Fraction; incl: Fraction };
/**
 * One line: so much at a price, what tax is on it, and what caused it. `quantity` in its unit, with what was `added` by rounding up to a step;
 * `price` for one `per`. Lines add up to the total exactly.
 */
export type Line = Taxed & {
  of: Dimension | Fee | Adjustment;
  /** The element of the tariff; `null`: it is of none. */
  element: number | null;
  quantity: Fraction;
  added: Fraction;
  unit: 'Wh' | 's' | 'x' | '';
  price: Fraction | null;
  per: 'kWh' | 'h' | 'min' | 'x' | '';
  /** Percent; `null`: of a change to the sum. */
  vat: Fraction | null;
  where: readonly Stretch[];
};
export type Bill = { currency: string; lines: Line[]; total: Taxed; kwh: Fraction };

const ONE = ratio(1n, 1n);
const HUNDRED = ratio(100n, 1n);
const THOUSAND = ratio(1000n, 1n);
const A_MINUTE = ratio(60n, 1n);
const AN_HOUR = ratio(3600n, 1n);
const taxed = (excl: Fraction, vat: Fraction): Taxed => ({ excl, incl: excl.mul(ONE.add(vat.div(HUNDRED))) });
export const sumTaxed = (all: readonly Taxed[]): Taxed =>
  all.reduce<Taxed>((s, t) => ({ excl: s.excl.add(t.excl), incl: s.incl.add(t.incl) }), { excl: NOTHING, incl: NOTHING });
/** Minutes in ms, whole. */
const msOf = (minutes: number): number => Math.round(minutes * 60_000);

/** What rounding a dimension's total up to the step of the component that was charged last adds, in Wh or seconds. A total of nothing is never rounded up. */
function stepAdded(volumes: readonly Volume[], last: Component | undefined): Fraction {
  if (!last || last.step === 0) return NOTHING;
  const total = volumes.reduce((s, v) => s.add(inUnit(v)), NOTHING);
  return upTo(total, last.step).sub(total);
}
/** Wh of energy, seconds of time. */
const inUnit = ({ of, amount }: Volume): Fraction => (of.type === 'ENERGY' ? amount.mul(THOUSAND) : amount.div(THOUSAND));

function dimensionLines(t: CompiledTariff, session: ChargedSession, before: Fraction): { lines: Line[]; found: ReturnType<typeof sessionVolumes> } {
  const found = sessionVolumes(t, session, before);
  const lines: Line[] = [];
  if (found.flat) {
    const { of, at } = found.flat;
    lines.push({
      of: 'FLAT',
      element: of.element,
      quantity: ONE,
      added: NOTHING,
      unit: 'x',
      price: of.price,
      per: 'x',
      vat: of.vat,
      where: [[at, at]],
      excl: of.price,
      incl: of.price.mul(of.taxed),
    });
  }
  for (const type of ['ENERGY', 'TIME', 'PARKING_TIME'] as const) {
    const own = found.volumes.filter((v) => v.of.type === type);
    const last = found.last[type];
    // Time charging and time parked share one rounding: where both were charged for, the parked time is rounded up and the charging is not,
    // also when the charging goes on afterwards, and also where parking costs nothing.
    const added = type === 'TIME' && found.last.PARKING_TIME ? NOTHING : stepAdded(own, last);
    for (const v of own) {
      const more = v.of === last ? added : NOTHING;
      const quantity = inUnit(v).add(more);
      const excl = quantity.mul(v.of.price).div(type === 'ENERGY' ? THOUSAND : AN_HOUR);
      lines.push({
        of: type,
        element: v.of.element,
        quantity,
        added: more,
        unit: type === 'ENERGY' ? 'Wh' : 's',
        price: v.of.price,
        per: type === 'ENERGY' ? 'kWh' : 'h',
        vat: v.of.vat,
        where: v.where,
        excl,
        incl: excl.mul(v.of.taxed),
      });
    }
  }
  return { lines, found };
}

/** Minutes charging by how much power was given; the total of seconds at a price is rounded up at the last one. */
function powerLines(t: CompiledTariff, found: ReturnType<typeof sessionVolumes>): Line[] {
  const fee = t.extra.power_time;
  if (!fee) return [];
  const vat = fee.vat === undefined ? NOTHING : exact(fee.vat);
  const seconds = found.tiers.reduce((s, v) => s.add(v.ms), NOTHING).div(THOUSAND);
  const added = fee.step_seconds ? upTo(seconds, fee.step_seconds).sub(seconds) : NOTHING;
  return found.tiers.map(({ tier, ms, where }): Line => {
    const price = exact(fee.tiers[tier]?.price_per_min ?? 0);
    const more = tier === found.lastTier ? added : NOTHING;
    const quantity = ms.div(THOUSAND).add(more);
    return {
      of: 'X_POWER_TIME',
      element: null,
      quantity,
      added: more,
      unit: 's',
      price,
      per: 'min',
      vat,
      where,
      ...taxed(quantity.div(A_MINUTE).mul(price), vat),
    };
  });
}

/**
 * Idle from the end of the last charging on: a pause between two is not idle, and without charging there is none. The grace is deducted, not waived. The rate is
 * that of the greatest occupancy that is reached; below the least nothing is charged. The total of seconds with a rate is rounded up at the last one.
 */
function idleLines(t: CompiledTariff, periods: readonly Period[]): Line[] {
  const fee = t.extra.idle_fee;
  const lastCharge = periods.findLastIndex((p) => p.charging && p.end > p.start);
  if (!fee || lastCharge < 0) return [];
  const from = (periods[lastCharge] as Period).end + msOf(fee.grace_minutes);
  const vat = fee.vat === undefined ? NOTHING : exact(fee.vat);
  const idle = fee.rates.map((rate) => ({ rate, ms: 0, where: [] as Stretch[] }));
  let last: (typeof idle)[number] | null = null;
  for (const p of periods.slice(lastCharge + 1)) {
    const start = Math.max(p.start, from);
    const at = idle[fee.rates.findLastIndex((r) => r.min_occupancy <= p.occupancy)];
    if (!at || start >= p.end) continue;
    at.ms += p.end - start;
    at.where.push([start, p.end]);
    last = at;
  }
  const seconds = ratio(BigInt(idle.reduce((s, i) => s + i.ms, 0)), 1000n);
  const added = fee.step_seconds ? upTo(seconds, fee.step_seconds).sub(seconds) : NOTHING;
  return idle
    .filter((i) => i.ms > 0)
    .map((i): Line => {
      const more = i === last ? added : NOTHING;
      const price = exact(i.rate.price_per_min);
      const quantity = ratio(BigInt(i.ms), 1000n).add(more);
      return {
        of: 'X_IDLE',
        element: null,
        quantity,
        added: more,
        unit: 's',
        price,
        per: 'min',
        vat,
        where: i.where,
        ...taxed(quantity.div(A_MINUTE).mul(price), vat),
      };
    });
}

/** Once, when the car was connected strictly longer than so many minutes. */
function overstayLines(t: CompiledTariff, from: number, to: number): Line[] {
  const fee = t.extra.overstay_fee;
  if (!fee || to - from <= msOf(fee.after_minutes)) return [];
  const vat = fee.vat === undefined ? NOTHING : exact(fee.vat);
  const price = exact(fee.fee);
  const at = from + msOf(fee.after_minutes);
  return [{ of: 'X_OVERSTAY', element: null, quantity: ONE, added: NOTHING, unit: 'x', price, per: 'x', vat, where: [[at, at]], ...taxed(price, vat) }];
}

/**
 * What a bound changes. Without and with tax are bound each by itself; where the bound does not say with tax, that amount goes along with the
 * one without by the same factor, or is the bound where that one was nothing.
 */
function bound(of: 'min_price' | 'max_price' | 'x_minimum_charge', sum: Taxed, bounds: Bounds | null): Line[] {
  if (!bounds) return [];
  const least = of !== 'max_price';
  const held = (n: Fraction, by: Fraction): Fraction => (least ? (n.lt(by) ? by : n) : n.gt(by) ? by : n);
  const excl = held(sum.excl, bounds.excl);
  const along = (): Fraction => (excl.equals(sum.excl) ? sum.incl : sum.excl.equals(0) ? excl : sum.incl.mul(excl.div(sum.excl)));
  const incl = bounds.incl ? held(sum.incl, bounds.incl) : along();
  const change = { excl: excl.sub(sum.excl), incl: incl.sub(sum.incl) };
  return change.excl.equals(0) && change.incl.equals(0) ? [] : [adjustment(of, change)];
}
const adjustment = (of: Adjustment, change: Taxed): Line => ({
  of,
  element: null,
  quantity: ONE,
  added: NOTHING,
  unit: '',
  price: null,
  per: '',
  vat: null,
  where: [],
  ...change,
});

/** Why a session cannot be priced by a tariff; the path is that of the request of a price. */
export type CannotPrice = { path: string; reason: string };

/**
 * Whether a tariff can price a session: it is of a length that there is; the tariff holds for the whole of one that begins while it is valid, whatever comes after; and where
 * it looks at the current, that of every period of charging is known.
 */
export function cannotPrice(t: CompiledTariff, session: ChargedSession): CannotPrice[] {
  const start = session.periods[0]?.start ?? 0;
  if (isTooLong(session)) return [{ path: 'session.periods', reason: `the charge would have lasted more than ${MOST_DAYS} days` }];
  if ((t.from !== null && start < t.from) || (t.until !== null && start >= t.until))
    return [{ path: 'session.periods[0].start', reason: 'the tariff is not valid then' }];
  if (!t.byCurrent) return [];
  return session.periods.flatMap((p, i) =>
    p.charging && p.current === null && p.end > p.start
      ? [{ path: `session.periods[${i}].avg_current_a`, reason: 'is missing: the tariff looks at the current' }]
      : [],
  );
}

/**
 * What a session costs, line by line; lines add up exactly, and nothing is rounded here.
 * Order: the dimensions of the standard within `min_price` and `max_price`, the fees it does not know on top, then the minimum charge, then tax on the
 * amount with tax. One start fee at most: the one that holds first.
 * @param before kWh of the month before this session, for what a month gives free
 */
export function billOf(t: CompiledTariff, session: ChargedSession, before: Fraction = NOTHING): Bill {
  const { periods } = session;
  const { lines, found } = dimensionLines(t, session, before);
  lines.push(...bound('min_price', sumTaxed(lines), t.min));
  lines.push(...bound('max_price', sumTaxed(lines), t.max));
  lines.push(...powerLines(t, found), ...idleLines(t, periods), ...overstayLines(t, periods[0]?.start ?? 0, periods.at(-1)?.end ?? 0));
  lines.push(...bound('x_minimum_charge', sumTaxed(lines), t.minimumCharge));
  const { incl } = sumTaxed(lines);
  const tax = t.extra.tax_percent ? incl.mul(exact(t.extra.tax_percent)).div(HUNDRED) : NOTHING;
  if (!tax.equals(0)) lines.push(adjustment('x_tax', { excl: NOTHING, incl: tax }));
  return { currency: t.currency, lines, total: sumTaxed(lines), kwh: found.kwh };
}
