import type Fraction from 'fraction.js';
import { known, type Maybe, unknown } from '../units/known';
import { minorDigits } from '../units/money';
import type { Attempt } from '../visit/attempts/attempt';
import { sessionEnergy, stallKWhSoFar } from '../visit/delivered';
import { type Bill, billOf, cannotPrice, type Line } from './bill';
import { chargedFrom, chargedUntil, endedAttempt, needsTimes, occupancyOf, type PricedVisit, periodsOf, stoodUntil, wh } from './charged-visit';
import type { CompiledTariff } from './compiled-tariff';
import { decimal, exact, NOTHING } from './exact';
import { type ChargedSession, type Period, plainPeriod } from './session-period';

/** How far ahead a change of price is looked for. A choice: longer nobody waits at a stall. */
const AHEAD_MS = 6 * 3_600_000;

/** What a charge, or a car that stands connected, costs now, tax in: a kWh and a minute, each a decimal string, `null` where there is no such price. */
export type PricesNow = { perKWh: string | null; perMin: string | null };
/** What comes next, should it go on as it is: prices from then on, and a fee that is asked once. UTC ms. */
export type CostNext = { at: number; prices: PricesNow; fee: string | null };
/** `total`: so far, tax in, of every session of the visit. */
export type CostSoFar = { total: string; currency: string; now: PricesNow; next: CostNext | null };

type Running = Attempt & { proof: NonNullable<Attempt['proof']> };

/** kW that the price by power goes by after the last reading of the kWh: as read last, else the mean so far, else nothing. */
function lastKW(a: Running, total_wh: number, from: number, to: number): number {
  const read = a.readings.findLast((r) => r.kW !== undefined)?.kW;
  return read ?? (to > from ? (total_wh / 1000 / (to - from)) * 3_600_000 : 0);
}

/**
 * The session that runs, as it stands now. Energy is what the stall has shown; the time since its last reading counts, with power as it was read last.
 * @param kWh what the stall shows now, a decimal string, where that is not recorded yet
 */
export function runningSession(v: PricedVisit, a: Running, at: number, kWh?: string): ChargedSession {
  const now = Math.round(at);
  const total = wh(kWh ?? stallKWhSoFar(a) ?? '0');
  const start = Math.min(chargedFrom(a, a.proof.t), now);
  const power = lastKW(a, total, start, now);
  const occupancy = occupancyOf(v);
  const periods = start < now ? periodsOf(a, { start, end: now, left: now, total }, occupancy) : [plainPeriod(start, now, true, 0, occupancy)];
  return { zone: v.zone, periods: periods.map((p) => (p.charging && p.kwh === 0 ? { ...p, power } : p)) };
}

const hasPower = <A extends Attempt>(a: A): a is A & Running => a.proof !== undefined;

const lastOf = (s: ChargedSession): Period => s.periods.at(-1) as Period;
/** The same session so many minutes later: with so many kWh, or standing there connected. */
function longer(s: ChargedSession, minutes: number, kWh: number, charging = true): ChargedSession {
  const { end, occupancy } = lastOf(s);
  const ms = Math.round(minutes * 60_000);
  return ms <= 0 ? s : { ...s, periods: [...s.periods, plainPeriod(end, end + ms, charging, Math.round(kWh * 1000) / 1000, occupancy)] };
}

const PRICED: ReadonlySet<Line['of']> = new Set(['ENERGY', 'TIME', 'X_POWER_TIME', 'PARKING_TIME', 'X_IDLE']);
const ONCE: ReadonlySet<Line['of']> = new Set(['FLAT', 'X_OVERSTAY']);
const taxedPrice = (t: CompiledTariff, l: Line): Fraction =>
  (l.price ?? NOTHING).mul((l.vat ?? NOTHING).div(100).add(1)).mul(exact((t.extra.tax_percent ?? 0) / 100).add(1));

/** What the lines of a bill say is charged at a moment. */
function pricesAt(t: CompiledTariff, bill: Bill, at: number): PricesNow {
  let perKWh: Fraction | null = null;
  let perMin: Fraction | null = null;
  for (const l of bill.lines) {
    if (!PRICED.has(l.of) || l.price === null || !l.where.some(([from, to]) => from <= at && at < to)) continue;
    const price = taxedPrice(t, l);
    if (l.of === 'ENERGY') perKWh = price;
    else perMin = (perMin ?? NOTHING).add(l.per === 'h' ? price.div(60) : price);
  }
  const text = (f: Fraction | null) => (f ? decimal(f, 4) : null);
  return { perKWh: text(perKWh), perMin: text(perMin) };
}

/** When the price of a kWh or a minute is another one, or a fee is asked once, by a bill that goes on. */
function nextChange(t: CompiledTariff, bill: Bill, now: number, until: number): CostNext | null {
  const before = pricesAt(t, bill, now);
  const edges = bill.lines.flatMap((l) => (PRICED.has(l.of) || ONCE.has(l.of) ? l.where.flat() : []));
  for (const at of [...new Set(edges)].filter((t) => t > now && t < until).sort((a, b) => a - b)) {
    const prices = pricesAt(t, bill, at);
    const once = bill.lines.filter((l) => ONCE.has(l.of) && l.where.some(([from]) => from === at)).reduce((sum, l) => sum.add(taxedPrice(t, l)), NOTHING);
    const fee = once.equals(0) ? null : decimal(once, minorDigits(t.currency));
    if (fee !== null || prices.perKWh !== before.perKWh || prices.perMin !== before.perMin) return { at, prices, fee };
  }
  return null;
}

/** What comes of a session from now on: going on as it was read last, or standing there connected. @param kW `null`: it charges no longer */
function ahead(t: CompiledTariff, session: ChargedSession, now: number, kW: number | null): Pick<CostSoFar, 'now' | 'next'> {
  const hours = AHEAD_MS / 3_600_000;
  // Without any power read a little flows all the same: else nothing would ask for a price.
  const onward = billOf(t, longer(session, hours * 60, kW === null ? 0 : Math.max(kW, 1) * hours, kW !== null));
  return { now: pricesAt(t, onward, now), next: nextChange(t, onward, now, now + AHEAD_MS) };
}

/** What a charge that begins now is asked: prices, what comes next, and the fee of the start, `null` where there is none. */
export type PricesFrom = Pick<CostSoFar, 'now' | 'next'> & { start: string | null };
/** What a charge would be asked that began now with so many kW. @returns unknown where the tariff cannot price it */
export function pricesFrom(t: CompiledTariff, zone: string, at: number, kW: number): Maybe<PricesFrom> {
  const now = Math.round(at);
  const session: ChargedSession = { zone, periods: [plainPeriod(now, now + 1, true, 0, 0)] };
  const problem = cannotPrice(t, session)[0];
  if (problem) return unknown(problem.reason);
  const start = billOf(t, session).lines.find((l) => l.of === 'FLAT' && !l.incl.equals(0));
  return known({ ...ahead(t, session, now + 1, kW), start: start ? decimal(taxedPrice(t, start), minorDigits(t.currency)) : null });
}

/**
 * What a visit has cost by a tariff so far: every session, and the time that the car has stood connected after each.
 * @param at UTC ms, now
 * @returns unknown where a price of energy has no kWh to go by, or the tariff cannot price it
 */
export function costSoFar(t: CompiledTariff, v: PricedVisit, at: number): Maybe<CostSoFar> {
  const all = v.attempts.filter(hasPower);
  const last = all.at(-1);
  if (!last) return unknown('nothing was charged yet');
  const now = Math.max(Math.round(at), ...all.map((a) => Math.round(a.proof.t)));
  const charges = chargedUntil(last) === null && v.pulledOutAt === null;
  const byEnergy = t.components.some((c) => c.type === 'ENERGY' && !c.price.equals(0));
  const over = charges ? all.slice(0, -1) : all;
  const read = over.flatMap((a) => {
    const energy = sessionEnergy(a, v.billed);
    return energy || !byEnergy ? [endedAttempt(v, a, energy?.value ?? '0', now)] : [];
  });
  if (read.length < over.length || (charges && byEnergy && stallKWhSoFar(last) === undefined)) return unknown('the kWh were not read yet');
  if (read.some((a) => !a.timed) && needsTimes(t)) return unknown('the price depends on times that were not recorded');
  const sessions = [...read.map((a) => a.session), ...(charges ? [runningSession(v, last, now)] : [])];
  const problem = sessions.flatMap((s) => cannotPrice(t, s))[0];
  if (problem) return unknown(problem.reason);
  const total = sessions.reduce((sum, s) => sum.add(billOf(t, s).total.incl), NOTHING);
  const session = sessions.at(-1) as ChargedSession;
  const stands = charges || stoodUntil(v, last) === null;
  const kW = charges ? lastKW(last, wh(stallKWhSoFar(last) ?? '0'), session.periods[0]?.start ?? now, now) : null;
  return known({
    total: decimal(total, minorDigits(t.currency)),
    currency: t.currency,
    ...(stands ? ahead(t, session, now, kW) : { now: { perKWh: null, perMin: null }, next: null }),
  });
}

/** What so many kWh and minutes more cost, from a moment on at which so much has come already since now. Money as a number. */
export type CostOfStaying = (kWh: number, minutes: number, sinceNow: { min: number; kWh: number }) => number;
/** What staying costs, for advice; `null` where the tariff cannot price the session as it stands. */
export function costOfStaying(t: CompiledTariff, session: ChargedSession): CostOfStaying | null {
  if (cannotPrice(t, session).length > 0) return null;
  const sum = (s: ChargedSession): Fraction => billOf(t, s).total.incl;
  return (kWh, minutes, since) => {
    const from = longer(session, since.min, since.kWh);
    return Number(
      sum(longer(from, minutes, kWh))
        .sub(sum(from))
        .valueOf(),
    );
  };
}
