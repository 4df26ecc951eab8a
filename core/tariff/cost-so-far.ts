import type Fraction from 'fraction.js';
import { known, type Maybe, unknown } from '../units/known';
import { minorDigits } from '../units/money';
import type { Attempt } from '../visit/attempts/attempt';
import { sessionEnergy, stallKWhSoFar } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import { type Bill, billOf, cannotPrice, type Line } from './bill';
import { chargedFrom, chargedUntil, occupancyOf, periodsOf, wh } from './charged-visit';
import type { CompiledTariff } from './compiled-tariff';
import { decimal, exact, NOTHING } from './exact';
import { type ChargedSession, type Period, plainPeriod } from './session-period';

/** How far ahead a change of price is looked for. A choice: longer nobody waits at a stall. */
const AHEAD_MS = 6 * 3_600_000;

/** What a charge costs now, tax in: a kWh and a minute, each a decimal string, `null` where there is no such price. */
export type PricesNow = { perKWh: string | null; perMin: string | null };
/** `total`: so far, tax in, of every session of the visit. `next`: when the price is another one, and what it is then. UTC ms. */
export type CostSoFar = { total: string; currency: string; now: PricesNow; next: { at: number; prices: PricesNow } | null };

type Told = Pick<Visit, 'attempts' | 'billed' | 'zone' | 'pulledOutAt' | 'line' | 'delivered'>;
type Running = Attempt & { proof: NonNullable<Attempt['proof']> };

/** kW that the price by power goes by after the last reading of the kWh: as read last, else the mean so far, else nothing. */
function lastKW(a: Running, total_wh: number, from: number, to: number): number {
  const read = a.readings.findLast((r) => r.kW !== undefined)?.kW;
  return read ?? (to > from ? (total_wh / 1000 / (to - from)) * 3_600_000 : 0);
}

/** The session that runs, as it stands now. Energy is what the stall has shown; the time since its last reading counts, with power as it was read last. */
export function runningSession(v: Told, a: Running, at: number): ChargedSession {
  const now = Math.round(at);
  const total = wh(stallKWhSoFar(a) ?? '0');
  const start = Math.min(chargedFrom(a, a.proof.t), now);
  const power = lastKW(a, total, start, now);
  const occupancy = occupancyOf(v);
  const periods = start < now ? periodsOf(a, { start, end: now, left: now, total }, occupancy) : [plainPeriod(start, now, true, 0, occupancy)];
  return { zone: v.zone, periods: periods.map((p) => (p.charging && p.kwh === 0 ? { ...p, power } : p)) };
}

/** A session before it, as far as it was read; nothing of its energy is `null`. */
function earlierSession(v: Told, a: Running, now: number, byEnergy: boolean): ChargedSession | null {
  const energy = sessionEnergy(a, v.billed);
  if (!energy && byEnergy) return null;
  const start = Math.min(chargedFrom(a, a.proof.t), now);
  const end = Math.max(start, chargedUntil(a) ?? now);
  const left = Math.max(end, Math.round(a.unplugged?.t ?? end));
  const total = wh(energy?.value ?? '0');
  const occupancy = occupancyOf(v);
  return { zone: v.zone, periods: end > start ? periodsOf(a, { start, end, left, total }, occupancy) : [plainPeriod(start, end, true, 0, occupancy)] };
}
const isRunning = <A extends Attempt>(a: A): a is A & Running => a.proof !== undefined;

const lastOf = (s: ChargedSession): Period => s.periods.at(-1) as Period;
/** The same session so many minutes and kWh later. */
function longer(s: ChargedSession, minutes: number, kWh: number): ChargedSession {
  const { end, occupancy } = lastOf(s);
  const ms = Math.round(minutes * 60_000);
  return ms <= 0 ? s : { ...s, periods: [...s.periods, plainPeriod(end, end + ms, true, Math.round(kWh * 1000) / 1000, occupancy)] };
}

const PRICED: ReadonlySet<Line['of']> = new Set(['ENERGY', 'TIME', 'X_POWER_TIME']);
/** What the lines of a bill say is charged at a moment. */
function pricesAt(t: CompiledTariff, bill: Bill, at: number): PricesNow {
  let [perKWh, perMin]: (Fraction | null)[] = [null, null];
  for (const l of bill.lines) {
    if (!PRICED.has(l.of) || l.price === null || !l.where.some(([from, to]) => from <= at && at < to)) continue;
    const incl = l.price.mul((l.vat ?? NOTHING).div(100).add(1));
    if (l.of === 'ENERGY') perKWh = incl;
    else perMin = (perMin ?? NOTHING).add(l.of === 'TIME' ? incl.div(60) : incl);
  }
  const onTop = (t.extra.tax_percent ?? 0) / 100;
  const text = (f: Fraction | null | undefined) => (f ? decimal(f.mul(exact(onTop).add(1)), 4) : null);
  return { perKWh: text(perKWh), perMin: text(perMin) };
}

/** When the price of a kWh or a minute is another one, should the charge go on as it was read last; within six hours. */
function nextChange(t: CompiledTariff, bill: Bill, now: number, until: number): CostSoFar['next'] {
  const edges = bill.lines.flatMap((l) => (PRICED.has(l.of) ? l.where.flat() : []));
  const before = pricesAt(t, bill, now);
  for (const at of [...new Set(edges)].filter((t) => t > now && t < until).sort((a, b) => a - b)) {
    const prices = pricesAt(t, bill, at);
    if (prices.perKWh !== before.perKWh || prices.perMin !== before.perMin) return { at, prices };
  }
  return null;
}

/**
 * What a visit has cost by a tariff while it charges: its sessions before, and the running one from its start to now.
 * @param a the session that runs @param at UTC ms, now
 * @returns unknown where a price of energy has no kWh to go by, or the tariff cannot price it
 */
export function costSoFar(t: CompiledTariff, v: Told, a: Running, at: number): Maybe<CostSoFar> {
  const now = Math.round(at);
  const session = runningSession(v, a, now);
  const byEnergy = t.components.some((c) => c.type === 'ENERGY' && !c.price.equals(0));
  const earlier = v.attempts.filter(isRunning).filter((x) => x.n < a.n);
  const before = earlier.map((x) => earlierSession(v, x, now, byEnergy));
  const read = before.filter((s) => s !== null);
  if (read.length < before.length || (byEnergy && stallKWhSoFar(a) === undefined)) return unknown('the kWh were not read yet');
  const sessions = [...read, session];
  const problem = sessions.flatMap((s) => cannotPrice(t, s))[0];
  if (problem) return unknown(problem.reason);
  const total = sessions.reduce((sum, s) => sum.add(billOf(t, s).total.incl), NOTHING);
  const power = lastKW(a, wh(stallKWhSoFar(a) ?? '0'), session.periods[0]?.start ?? now, now);
  const hours = AHEAD_MS / 3_600_000;
  // Without any power read a little flows all the same: else nothing would ask for a price.
  const onward = billOf(t, longer(session, hours * 60, Math.max(power, 1) * hours));
  return known({
    total: decimal(total, minorDigits(t.currency)),
    currency: t.currency,
    now: pricesAt(t, onward, now),
    next: nextChange(t, onward, now, now + AHEAD_MS),
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
