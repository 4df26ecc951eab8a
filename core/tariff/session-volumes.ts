import type Fraction from 'fraction.js';
import { holdsBy } from './clock-window';
import type { CompiledTariff, Component, Element } from './compiled-tariff';
import { decimalsIn, decimalsOf, exact, NOTHING, ratio, units } from './exact';
import { type ClockStretch, clockStretches } from './local-clock';
import type { ChargedSession, Period } from './session-period';

/** From when to when something was charged, UTC ms. */
export type Stretch = [from: number, to: number];

/** How much of a session each price was of: ms or kWh, exact; and where. */
export type Volume = { of: Component; amount: Fraction; where: Stretch[] };
/** Minutes at one step of the power price. */
export type TierVolume = { tier: number; ms: Fraction; where: Stretch[] };
export type Volumes = {
  volumes: Volume[];
  /** Of each dimension the component that was charged last, if any was. */
  last: Partial<Record<Component['type'], Component>>;
  flat: { of: Component; at: number } | null;
  tiers: TierVolume[];
  lastTier: number | null;
  /** All of the session, kWh. */
  kwh: Fraction;
};

const HOUR = 3_600_000n;
/** Where a period begins that nothing cuts. */
const WHOLE: readonly bigint[] = [0n];

/** Something gathered: whole units as far as it goes, the rest exact. */
class Gathered {
  whole = 0n;
  rest: Fraction | null = null;
  readonly where: Stretch[] = [];
  add(n: bigint, d: bigint): void {
    if (d === 1n) this.whole += n;
    else if (n % d === 0n) this.whole += n / d;
    else this.rest = (this.rest ?? NOTHING).add(ratio(n, d));
  }
  at([from, to]: Stretch): void {
    const last = this.where.at(-1);
    if (last && last[1] === from) last[1] = to;
    else this.where.push([from, to]);
  }
  total(perWhole: bigint): Fraction {
    const whole = ratio(this.whole, 1n);
    return (this.rest ? whole.add(this.rest) : whole).div(ratio(perWhole, 1n));
  }
}

/** Mean power of a period, kW: as given, else its kWh over its time. */
function powerOf(p: Period): Fraction {
  if (p.power !== null) return exact(p.power);
  return p.end > p.start ? exact(p.kwh).mul(ratio(HOUR, BigInt(p.end - p.start))) : NOTHING;
}
const within = (n: Fraction, [least, most]: readonly [Fraction | null, Fraction | null]): boolean =>
  (least === null || n.gte(least)) && (most === null || n.lt(most));

/** Whether an element holds for a whole period by power and current. A period that is parked and says nothing has none. */
function holdsIn(e: Element, p: Period, power: Fraction): boolean {
  if (e.never || !within(power, e.power)) return false;
  return (e.current[0] === null && e.current[1] === null) || within(p.current === null ? NOTHING : exact(p.current), e.current);
}

const holdsSince = (e: Element, ms: number): boolean => (e.duration[0] === null || ms >= e.duration[0]) && (e.duration[1] === null || ms < e.duration[1]);

/**
 * A session taken apart at everything at which a price may change – the clock of the place, time since the start, kWh so far, power, what is
 * free – and each piece given to the first element that holds there and has a price of its kind.
 * Least bounds are inclusive, greatest exclusive, for kWh so far, seconds since the start, power and current. Cuts lie where they lie exactly, between
 * milliseconds, too. A period of no length activates nothing, unless the whole session has none: then the start fee is asked for at its start.
 * Free volume is not charged but counts towards kWh so far and time.
 * @param before kWh of the month before this session, for what a month gives free
 */
export function sessionVolumes(t: CompiledTariff, session: ChargedSession, before: Fraction): Volumes {
  const { periods } = session;
  const [first, last] = [periods[0] as Period, periods.at(-1) as Period];
  const t0 = first.start;
  const free = t.extra.allowance;
  // What is left of the month's free kWh.
  const left = free?.free_kwh_per_month === undefined ? null : exact(free.free_kwh_per_month).sub(before);
  const known = periods.reduce((most, p) => Math.max(most, decimalsOf(p.kwh)), t.decimals);
  const decimals = left === null ? known : Math.max(known, decimalsIn(left));
  const perKWh = 10n ** BigInt(decimals);
  const leftUnits = left === null ? null : left.s < 0n ? 0n : (left.n * perKWh) / left.d;
  const freeFor = new Set(free?.free_minutes_per_session === undefined ? [] : (free.applies_to ?? []));
  const freeUntil = t0 + (freeFor.size > 0 ? Math.round((free?.free_minutes_per_session ?? 0) * 60_000) : 0);
  const stretches: ClockStretch[] = t.byClock ? clockStretches(session.zone, t0, last.end, t.minutes) : [{ from: t0, day: '', weekday: 0, minute: 0 }];
  const byClock = stretches.map((s) => t.elements.map((e) => holdsBy(e.clock, s)));
  const cutsMs = [
    ...stretches.map((s) => s.from),
    ...t.elements.flatMap((e) => e.duration.flatMap((ms) => (ms === null ? [] : [t0 + ms]))),
    ...(freeFor.size > 0 ? [freeUntil] : []),
  ];
  const kwhBounds = t.elements.map((e) => e.kwh.map((n) => (n === null ? null : units(n, decimals))));
  const cutsKWh = [...kwhBounds.flat(), leftUnits].filter((n): n is bigint => n !== null);
  const gathered = t.components.map(() => new Gathered());
  const tierTime = t.tiers.map(() => new Gathered());
  const found: Volumes = { volumes: [], last: {}, flat: null, tiers: [], lastTier: null, kwh: NOTHING };

  /** kWh so far over `end`, of the piece that is looked at. */
  let [so, end] = [0n, 1n];
  const reached = (n: bigint): boolean => so >= n * end;
  const holdsFrom = (bounds: readonly (bigint | null)[] | undefined): boolean => {
    const [least = null, most = null] = bounds ?? [];
    return (least === null || reached(least)) && (most === null || !reached(most));
  };
  /** Elements that hold for the period that is looked at, and for the piece of it. */
  const inPeriod: boolean[] = [];
  const holds: boolean[] = [];
  /** The first element that holds and has a price of this kind. */
  const priceOf = (type: Component['type']): Component | undefined => {
    for (let i = 0; i < t.elements.length; i++) {
      const own = holds[i] ? t.elements[i]?.components[type] : undefined;
      if (own) return own;
    }
    return undefined;
  };

  /** Gives a piece to its price, if it has one: `n` over `d`. */
  const charge = (type: 'ENERGY' | 'TIME' | 'PARKING_TIME', at: Stretch, n: bigint, d: bigint) => {
    const of = n > 0n ? priceOf(type) : undefined;
    if (!of) return;
    const into = gathered[of.n] as Gathered;
    into.add(n, d);
    into.at(at);
    found.last[type] = of;
  };

  let stretch = 0;
  let sofar = 0n;
  for (const p of periods) {
    const length = p.end - p.start;
    if (length === 0 && last.end > t0) continue;
    const energy = units(p.kwh, decimals);
    const power = t.byPower ? powerOf(p) : NOTHING;
    for (let n = 0; n < t.elements.length; n++) inPeriod[n] = holdsIn(t.elements[n] as Element, p, power);
    const tier = p.charging && t.tiers.length > 0 ? t.tiers.findLastIndex((least) => power.gte(least)) : -1;
    const inside = cutsKWh.length === 0 ? cutsKWh : cutsKWh.filter((n) => n > sofar && n < sofar + energy);
    // Time is counted in parts of a millisecond so fine that every kWh at which a price changes lies on one.
    const parts = inside.length > 0 ? energy : 1n;
    end = length === 0 ? 1n : BigInt(length) * parts;
    const cuts: bigint[] = [];
    for (const ms of cutsMs) if (ms > p.start && ms < p.end) cuts.push(BigInt(ms - p.start) * parts);
    for (const n of inside) cuts.push(BigInt(length) * (n - sofar));
    const from = cuts.length === 0 ? WHOLE : [0n, ...new Set(cuts)].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
    for (let i = 0; i < from.length; i++) {
      const a = from[i] as bigint;
      const b = from[i + 1] ?? end;
      const ms = a === 0n ? p.start : p.start + Number(a / parts);
      while ((stretches[stretch + 1]?.from ?? Number.POSITIVE_INFINITY) <= ms) stretch += 1;
      if (cutsKWh.length > 0) so = sofar * end + energy * a;
      const since = ms - t0;
      for (let n = 0; n < t.elements.length; n++)
        holds[n] = (inPeriod[n] as boolean) && (byClock[stretch]?.[n] as boolean) && holdsSince(t.elements[n] as Element, since) && holdsFrom(kwhBounds[n]);
      if (found.flat === null) {
        const flat = priceOf('FLAT');
        if (flat) found.flat = { of: flat, at: ms };
      }
      if (length === 0) continue;
      const whole = from.length === 1;
      const piece: Stretch = [ms, whole ? p.end : p.start + Number(b / parts)];
      const early = ms < freeUntil;
      if (p.charging && !(early && freeFor.has('ENERGY')) && (leftUnits === null || reached(leftUnits))) {
        if (whole) charge('ENERGY', piece, energy, 1n);
        else charge('ENERGY', piece, energy * (b - a), end);
      }
      const clock = p.charging ? 'TIME' : 'PARKING_TIME';
      if (!(early && freeFor.has(clock))) charge(clock, piece, b - a, parts);
      if (tier >= 0 && !(early && freeFor.has('X_POWER_TIME'))) {
        const into = tierTime[tier] as Gathered;
        into.add(b - a, parts);
        into.at(piece);
        found.lastTier = tier;
      }
    }
    sofar += energy;
  }
  found.kwh = ratio(sofar, perKWh);
  for (const of of t.components) {
    const g = gathered[of.n] as Gathered;
    if (g.where.length > 0) found.volumes.push({ of, amount: g.total(of.type === 'ENERGY' ? perKWh : 1n), where: g.where });
  }
  for (const [tier, g] of tierTime.entries()) if (g.where.length > 0) found.tiers.push({ tier, ms: g.total(1n), where: g.where });
  return found;
}
