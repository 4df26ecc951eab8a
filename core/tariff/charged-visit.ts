import Big from 'big.js';
import { known, type Maybe, unknown } from '../units/known';
import { chargingEnd } from '../visit/attempt-times';
import type { Attempt } from '../visit/attempts/attempt';
import { sessionEnergy, wholeEnergy } from '../visit/delivered';
import type { Visit } from '../visit/derive';
import { NO_ATTEMPT } from '../visit/receipt-alone';
import { type Bill, billOf, cannotPrice } from './bill';
import type { CompiledTariff } from './compiled-tariff';
import { type ChargedSession, type Period, plainPeriod } from './session-period';

/** A session of a visit as it is priced. `timed`: false where only its day is known. */
export type ChargedAttempt = { n: number; session: ChargedSession; kWh: string; timed: boolean };

/** kWh of a decimal string in whole Wh, at most the total. */
export const wh = (kWh: string): number => Number(new Big(kWh).times(1000).round(0, Big.roundHalfUp).toString());
/** Of a session of which only the day is known: long enough for any power. */
const NOMINAL_MS = 3_600_000;

/** How full the site was on arrival, 0 to 1; 0 where nobody looked: an idle fee that depends on it is then not expected. */
export function occupancyOf(v: Pick<Visit, 'line'>): number {
  const seen = v.line.find((e) => e.kind === 'pulled_in')?.payload.seen;
  return seen?.total !== undefined && seen.total > 0 && seen.free !== undefined ? Math.min(1, Math.max(0, 1 - seen.free / seen.total)) : 0;
}

/** When the stall showed how many Wh, rising, from nothing at the start to all at the end. */
function counted(a: Attempt, start: number, end: number, total: number): { t: number; wh: number }[] {
  const points = [{ t: start, wh: 0 }];
  for (const r of a.readings) {
    const t = Math.round(r.mark.t);
    if (r.screen !== 'stall' || r.kWh === undefined || t <= start || t >= end) continue;
    const last = points.at(-1) as { t: number; wh: number };
    const read = wh(r.kWh);
    // A figure that falls, or passes the last one, was misread.
    if (read >= last.wh && read <= total && t > last.t) points.push({ t, wh: read });
  }
  return [...points, { t: end, wh: total }];
}

/** Energy between two moments: even between two readings, over the time that was charging. */
function shared(points: readonly { t: number; wh: number }[], stretches: readonly [number, number][]): { start: number; end: number; wh: number }[] {
  const out: { start: number; end: number; wh: number }[] = [];
  for (const [i, to] of points.slice(1).entries()) {
    const from = points[i] as { t: number; wh: number };
    const pieces = stretches.map(([s, e]) => ({ start: Math.max(s, from.t), end: Math.min(e, to.t) })).filter((p) => p.end > p.start);
    const time = pieces.reduce((sum, p) => sum + p.end - p.start, 0);
    let left = to.wh - from.wh;
    let timeLeft = time;
    for (const p of pieces) {
      // Whole Wh, and what rounding leaves goes to the next: nothing is lost.
      const own = Math.round((left * (p.end - p.start)) / timeLeft);
      out.push({ ...p, wh: own });
      left -= own;
      timeLeft -= p.end - p.start;
    }
    // Read while it was paused: it came before.
    if (pieces.length === 0 && left > 0) {
      const last = out.at(-1);
      if (last) last.wh += left;
    }
  }
  return out;
}

/**
 * From when a session is charged for: power as the stall claimed it, else as it was proved. UTC ms, whole, as all times of a priced session are: where a phone's clock
 * jumped, or stands beside another's, a touch lies between two of them.
 */
export const chargedFrom = ({ claimed }: Pick<Attempt, 'claimed'>, proof_t: number): number =>
  Math.round(claimed && claimed.t <= proof_t ? claimed.t : proof_t);
const whole = (t: number | null): number | null => (t === null ? null : Math.round(t));
/** Until when a session charged, as far as anything of its end was told. UTC ms. */
export const chargedUntil = (a: Attempt): number | null => whole(chargingEnd(a)?.t ?? a.unplugged?.t ?? a.ended?.at.t ?? null);

/**
 * Until when the car stood connected after a session: until it was unplugged, also in a try after it that got no power; else until the next session, or another
 * stall, began; else until it left. UTC ms; `null`: it still stands there.
 */
export function stoodUntil(v: Pick<Visit, 'attempts' | 'pulledOutAt'>, a: Attempt): number | null {
  if (a.unplugged) return whole(a.unplugged.t);
  for (const later of v.attempts) {
    if (later.n <= a.n) continue;
    if (later.proof || later.stallId !== a.stallId) return whole(later.opened.t);
    if (later.unplugged) return whole(later.unplugged.t);
  }
  return whole(v.pulledOutAt);
}

/** A session of so many Wh from its start to the end of charging, then parked until `left`: even between the stall's readings, pauses parked. UTC ms. */
export function periodsOf(a: Attempt, { start, end, left, total }: { start: number; end: number; left: number; total: number }, occupancy: number): Period[] {
  const pauses = a.pauses.map((p): [number, number] => [Math.max(start, Math.round(p.from.t)), Math.min(end, Math.round(p.to.t))]).filter(([s, e]) => e > s);
  const stretches: [number, number][] = [];
  let at = start;
  for (const [s, e] of pauses) {
    if (s > at) stretches.push([at, s]);
    at = Math.max(at, e);
  }
  if (end > at) stretches.push([at, end]);
  // Paused all along, by what was tapped: what was delivered came some time all the same.
  if (stretches.length === 0) stretches.push([start, end]);
  const periods: Period[] = [];
  let cursor = start;
  for (const p of shared(counted(a, start, end, total), stretches)) {
    if (p.start > cursor) periods.push(plainPeriod(cursor, p.start, false, 0, occupancy));
    periods.push(plainPeriod(p.start, p.end, true, p.wh / 1000, occupancy));
    cursor = p.end;
  }
  if (left > cursor) periods.push(plainPeriod(cursor, left, false, 0, occupancy));
  return periods;
}

/** Energy shared among sessions by their time, kWh: what is in none of them yet. */
function sharedByTime(energy: Big, sessions: Visit['attempts']): [number, string][] {
  const times = sessions.map((a) => (a.times.charging.known ? Math.max(1, a.times.charging.s) : 1));
  const time = times.reduce((s, t) => s + t, 0);
  return sessions.map((a, i) => [
    a.n,
    energy
      .times(times[i] as number)
      .div(time)
      .round(3, Big.roundHalfUp)
      .toString(),
  ]);
}

/** kWh of each session: its own, else of what all bills say together the share of its time. */
function energiesOf(v: Pick<Visit, 'attempts' | 'billed' | 'delivered'>): Maybe<Map<number, string>> {
  const sessions = v.attempts.filter((a) => a.proof);
  const own = new Map<number, string>();
  for (const a of sessions) {
    const energy = sessionEnergy(a, v.billed);
    if (energy && !energy.atLeast) own.set(a.n, energy.value);
  }
  const missing = sessions.filter((a) => !own.has(a.n));
  if (missing.length === 0) return known(own);
  const all = wholeEnergy(v.delivered);
  const left = all.known ? [...own.values()].reduce((s, x) => s.minus(x), new Big(all.value)) : null;
  return !left || left.lt(0) ? unknown('the kWh were not read to the end') : known(new Map([...own, ...sharedByTime(left, missing)]));
}

/** A bill as it is held in the hand: for which attempts, by their numbers, and the kWh on it, a decimal string, where it says some. */
export type BillInHand = { attempts: readonly number[]; kWh?: string | undefined };

/** What of a visit its price hangs on. */
export type PricedVisit = Pick<Visit, 'attempts' | 'billed' | 'zone' | 'pulledOutAt' | 'line' | 'delivered'>;

/**
 * A session as it is priced that charges no longer: from the start of power to the end of charging, then parked while the car was connected. Energy is even between the
 * stall's readings; pauses are parked. A session of which only the day is known has no times.
 * @param now UTC ms, until when a car that still stands there stood; `null`: what comes after the charge is not asked
 */
export function endedAttempt(v: PricedVisit, a: Attempt & { proof: NonNullable<Attempt['proof']> }, kWh: string, now: number | null): ChargedAttempt {
  const total = wh(kWh);
  const start = chargedFrom(a, a.proof.t);
  const ended = chargedUntil(a) ?? whole(v.pulledOutAt);
  const occupancy = occupancyOf(v);
  if (a.proof.precision === 'day' || ended === null || ended <= start)
    return { n: a.n, kWh, timed: false, session: { zone: v.zone, periods: [plainPeriod(start, start + NOMINAL_MS, true, total / 1000, occupancy)] } };
  const left = Math.max(ended, stoodUntil(v, a) ?? now ?? ended);
  return { n: a.n, kWh, timed: true, session: { zone: v.zone, periods: periodsOf(a, { start, end: ended, left, total }, occupancy) } };
}

/** A charge of which no attempt was noted, typed in from its receipt: its energy, at no time that is known. */
function withoutAttempt(v: PricedVisit): ChargedAttempt[] {
  const energy = wholeEnergy(v.delivered);
  const start = v.line[0]?.t;
  if (!energy.known || Number(energy.value) <= 0 || start === undefined) return [];
  const period = plainPeriod(whole(start) as number, (whole(start) as number) + NOMINAL_MS, true, wh(energy.value) / 1000, occupancyOf(v));
  return [{ n: NO_ATTEMPT, kWh: energy.value, timed: false, session: { zone: v.zone, periods: [period] } }];
}

/**
 * The sessions of a visit as they are priced.
 * @param bill only the sessions of this one, with the kWh that it says
 * @returns unknown where a session's energy is not known to the end
 */
export function chargedAttempts(v: PricedVisit, bill?: BillInHand): Maybe<ChargedAttempt[]> {
  if (v.attempts.length === 0 && !bill) return known(withoutAttempt(v));
  const sessions = v.attempts.filter((a) => a.proof && (!bill || bill.attempts.includes(a.n)));
  const energies = bill?.kWh === undefined ? energiesOf(v) : known(new Map(sharedByTime(new Big(bill.kWh), sessions)));
  if (!energies.known) return energies;
  return known(sessions.flatMap((a) => (a.proof ? [endedAttempt(v, { ...a, proof: a.proof }, energies.value.get(a.n) ?? '0', null)] : [])));
}

/** Whether a tariff asks when and for how long, or for energy and starts alone. */
export const needsTimes = (t: CompiledTariff): boolean =>
  t.byClock ||
  t.byPower ||
  t.components.some((c) => c.type === 'TIME' || c.type === 'PARKING_TIME') ||
  t.elements.some((e) => e.duration.some((d) => d !== null)) ||
  t.extra.idle_fee !== undefined ||
  t.extra.overstay_fee !== undefined ||
  t.extra.allowance?.free_minutes_per_session !== undefined;

/** What the sessions of a visit cost by a tariff, each for itself; unknown with the reason. */
export function visitBills(t: CompiledTariff, attempts: readonly ChargedAttempt[]): Maybe<Bill[]> {
  if (attempts.length === 0) return unknown('no session to be charged for');
  if (attempts.some((a) => !a.timed) && needsTimes(t)) return unknown('the price depends on times that were not recorded');
  const problem = attempts.flatMap((a) => cannotPrice(t, a.session))[0];
  if (problem) return unknown(problem.reason);
  return known(attempts.map((a) => billOf(t, a.session)));
}
