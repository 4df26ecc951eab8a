import Big from 'big.js';
import { longestRising } from '../units/longest-rising';
import { quantile } from '../units/quantile';

const SLACK = 1e-9;
/** Whole per cents say too little below this. */
export const LEAST_DELTA_PCT = 20;
/** Meter class and display. */
const METER = { share: 1.05, kWh: 0.1 };
/** An aged pack passes below; losses, heating and climate above, more where the meter sits before the onboard charger. */
const DELTA = { low: 0.85, high: { dc: 1.25, ac: 1.35 } };
const VA = { kW: 3, share: 0.15 };
/** A rounding line, not a mistake. */
const COST = { minorUnits: 5, share: '0.02' };
/** A digit slip of a figure that itself varies. */
const TEN_TIMES = [7, 14] as const;
const LEAST_EARLIER = 3;

export type Meter = 'dc' | 'ac';

/** kWh against rating × time. */
export function kWhForTime({ kWh, rating_kW, charging_s }: { kWh: number; rating_kW: number; charging_s: number }): { limit_kWh: number; flag: boolean } {
  const limit_kWh = (METER.share * rating_kW * charging_s) / 3600 + METER.kWh;
  return { limit_kWh, flag: kWh > limit_kWh + SLACK };
}

/** kWh against per cent × capacity, a whole per cent of doubt at both ends; `null` under 20 %. */
export function kWhForDelta(of: {
  kWh: number;
  deltaPct: number;
  usableKWh: number;
  meter: Meter;
}): { low_kWh: number; high_kWh: number; side: 'low' | 'high' | null } | null {
  const { kWh, deltaPct, usableKWh, meter } = of;
  if (deltaPct < LEAST_DELTA_PCT) return null;
  const low_kWh = (DELTA.low * usableKWh * (deltaPct - 1)) / 100;
  const high_kWh = (DELTA.high[meter] * usableKWh * (deltaPct + 1)) / 100;
  return { low_kWh, high_kWh, side: kWh < low_kWh - SLACK ? 'low' : kWh > high_kWh + SLACK ? 'high' : null };
}

/** Volts × amps against kW. */
export function voltsTimesAmps({ V, A, kW }: { V: number; A: number; kW: number }): { va_kW: number; allowed_kW: number; flag: boolean } {
  const va_kW = (V * A) / 1000;
  const allowed_kW = Math.max(VA.kW, VA.share * Math.max(va_kW, kW));
  return { va_kW, allowed_kW, flag: Math.abs(va_kW - kW) > allowed_kW + SLACK };
}

/** Cost against what the tariff says, exactly. @param of decimal strings */
export function costForTariff(of: { charged: string; expected: string; minorDigits: number }): {
  difference: Big;
  allowed: Big;
  side: 'over' | 'under' | null;
} {
  const difference = new Big(of.charged).minus(of.expected);
  const units = new Big(COST.minorUnits).div(new Big(10).pow(of.minorDigits));
  const share = new Big(of.expected).abs().times(COST.share);
  const allowed = share.gt(units) ? share : units;
  return { difference, allowed, side: difference.abs().gt(allowed) ? (difference.gt(0) ? 'over' : 'under') : null };
}

/** A figure against the median of earlier ones; `null` with fewer than three, or when they are nothing. */
export function tenTimesUsual(value: number, usual: readonly number[]): { median: number; ratio: number; side: 'ten_times' | 'a_tenth' | null } | null {
  if (usual.length < LEAST_EARLIER) return null;
  const median = quantile(usual, 0.5);
  if (median <= 0) return null;
  const ratio = value / median;
  const within = (r: number) => r >= TEN_TIMES[0] - SLACK && r <= TEN_TIMES[1] + SLACK;
  return { median, ratio, side: within(ratio) ? 'ten_times' : ratio > 0 && within(1 / ratio) ? 'a_tenth' : null };
}

export type KWhFacts = {
  kWh: number;
  rating_kW?: number | null;
  charging_s?: number | null;
  deltaPct?: number | null;
  usableKWh?: number | null;
  meter: Meter;
};
/** Which of the two checks of kWh it fails; what is not known is not checked. */
export function kWhFails(of: KWhFacts): ('kWh_time' | 'delta')[] {
  const { kWh, rating_kW, charging_s, deltaPct, usableKWh, meter } = of;
  const time = typeof rating_kW === 'number' && typeof charging_s === 'number' && kWhForTime({ kWh, rating_kW, charging_s }).flag;
  const delta = typeof deltaPct === 'number' && typeof usableKWh === 'number' && kWhForDelta({ kWh, deltaPct, usableKWh, meter })?.side;
  return [...(time ? ['kWh_time' as const] : []), ...(delta ? ['delta' as const] : [])];
}

/** A point that slipped: the kWh fails, and a tenth or ten times of it fails nothing. */
export function digitSlip(of: KWhFacts): { fails: ('kWh_time' | 'delta')[]; perhaps_kWh: number | null } {
  const fails = kWhFails(of);
  const perhaps = fails.length === 0 ? undefined : [of.kWh / 10, of.kWh * 10].find((kWh) => kWhFails({ ...of, kWh }).length === 0);
  return { fails, perhaps_kWh: perhaps ?? null };
}

/** Positions of levels that do not fit the rising ones by more than a whole per cent. */
export function levelsThatFell(socPct: readonly number[]): number[] {
  const kept = new Set(longestRising(socPct));
  const keptLevels = [...kept];
  return socPct.flatMap((level, i) => {
    if (kept.has(i)) return [];
    const clash = keptLevels.some((k) => (k < i ? (socPct[k] as number) - level > 1 + SLACK : level - (socPct[k] as number) > 1 + SLACK));
    return clash ? [i] : [];
  });
}

/** Positions of lines whose time lies before an earlier line's. */
export function timesThatRanBack(t_s: readonly number[]): number[] {
  let latest = Number.NEGATIVE_INFINITY;
  return t_s.flatMap((t, i) => {
    const back = t < latest;
    latest = Math.max(latest, t);
    return back ? [i] : [];
  });
}
