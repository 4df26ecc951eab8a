import { type Battery, minutesFor } from './expected';
import type { Limits } from './limits';

const SLACK = 1e-9;

export type Leg = {
  leg_km: number;
  /** To the site that would do should the next one fail, from there. */
  fallback_km?: number | undefined;
  kWhPer100km: number;
  /** [least, most]. */
  kWhPer100kmRange?: readonly [number, number] | undefined;
  reservePct: number;
  mostPct?: number | undefined;
  arriveFromPct?: number | undefined;
  /** Moments after which staying costs or misses something. */
  deadlines?: readonly { why: string; in_min: number; drive_min?: number | undefined }[] | undefined;
};
export type LevelNeeded = {
  legPct: number;
  reserveUsedPct: number;
  reserveFrom: 'reserve' | 'fallback';
  /** The last level on arrival at which the fallback is still within reach; `null` without one. */
  fallbackPct: number | null;
  neededPct: number;
  feasible: boolean;
  shortByPct: number;
  enoughNow: boolean;
  /** The first moment at which one may leave; `null` when never. */
  stayUntil_min: number | null;
  /** The last moment at which nothing is missed, may lie in the past; `null` without deadlines. */
  leaveBy: { in_min: number; why: string; conflict: boolean } | null;
  arrivalPct: { usual: number; worst: number; best: number } | null;
};

/** Per cent of the battery that a way takes. */
export const legPctOf = (km: number, kWhPer100km: number, usableKWh: number): number => (km * kWhPer100km) / usableKWh;

/**
 * The level at which one may leave for the next leg. The reserve reaches the fallback: the greater of the two, not
 * their sum. Two times and not one: the first at which one may leave, the last at which nothing is missed.
 */
export function levelNeeded(limits: Limits, battery: Battery, nowPct: number, leg: Leg): LevelNeeded {
  const pct = (km: number, consumption = leg.kWhPer100km) => legPctOf(km, consumption, battery.usableKWh);
  const legPct = pct(leg.leg_km);
  const fallbackPct = leg.fallback_km === undefined || leg.fallback_km === null ? null : pct(leg.fallback_km);
  const reserveFrom = fallbackPct !== null && fallbackPct > leg.reservePct + SLACK ? 'fallback' : 'reserve';
  const reserveUsedPct = Math.max(leg.reservePct, fallbackPct ?? 0);
  const neededPct = legPct + reserveUsedPct;
  const mostPct = leg.mostPct ?? 100;
  const feasible = neededPct <= mostPct + SLACK;
  const enoughNow = nowPct >= neededPct - SLACK;
  const stayUntil_min = enoughNow ? 0 : feasible ? minutesFor(limits, nowPct, Math.min(100, neededPct), battery) : null;
  const soonest = (leg.deadlines ?? [])
    .map((d) => ({ why: d.why, in_min: d.in_min - (d.drive_min ?? 0) }))
    .reduce<{ why: string; in_min: number } | null>((least, d) => (least && least.in_min <= d.in_min ? least : d), null);
  const arrive = (consumption: number) => (leg.arriveFromPct as number) - pct(leg.leg_km, consumption);
  const [low, high] = leg.kWhPer100kmRange ?? [leg.kWhPer100km, leg.kWhPer100km];
  return {
    legPct,
    reserveUsedPct,
    reserveFrom,
    fallbackPct,
    neededPct,
    feasible,
    shortByPct: Math.max(0, neededPct - mostPct),
    enoughNow,
    stayUntil_min,
    leaveBy: soonest && { ...soonest, conflict: stayUntil_min === null || stayUntil_min > soonest.in_min + SLACK },
    arrivalPct: leg.arriveFromPct === undefined ? null : { usual: arrive(leg.kWhPer100km), worst: arrive(high), best: arrive(low) },
  };
}
