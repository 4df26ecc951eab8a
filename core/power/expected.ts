import type { LimitName, Limits, Piece } from './limits';

/** What a battery takes: kWh between 0 and 100 %, and kWh into it for each kWh at the connector. */
export type Battery = { usableKWh: number; efficiency?: number | undefined };
export type HeldStretch = { from: number; to: number; limit: LimitName; minutes: number | null };
export type ExpectedStretch = {
  from: number;
  to: number;
  battery_kWh: number;
  meter_kWh: number;
  /** The car's curve has no points for part of it and was held level there. */
  curveExtended: boolean;
  /** `null` when it never gets there. */
  minutes: number | null;
  mean_kW: number | null;
  /** The lowest level at which nothing flows. */
  stopsAt: number | null;
  heldBackBy: HeldStretch[];
};

/** Power at a level of a piece. Its ends are as they stand in it: a power that falls to nothing there is nothing, and no trace of rounding. */
export const kWIn = (p: Piece, s: number): number =>
  s === p.from ? p.kWFrom : s === p.to ? p.kWTo : p.kWFrom + ((p.kWTo - p.kWFrom) * (s - p.from)) / (p.to - p.from);

/** Minutes for a part of a piece, exact for power that is a straight line in level. */
function minutesOf(s1: number, s2: number, p1: number, p2: number, { usableKWh, efficiency = 1 }: Battery): number {
  const kWh = (usableKWh * (s2 - s1)) / 100 / efficiency;
  const ratio = p2 / p1;
  // ln(1 + x) / x of what is nearly level: the quotient would be nothing over nothing.
  const slope = Math.abs(ratio - 1) < 1e-7 ? 1 - (ratio - 1) / 2 : Math.log(ratio) / (ratio - 1);
  return (60 * kWh * slope) / p1;
}

type Part = { from: number; to: number; limit: LimitName; minutes: number | null; stopsAt: number | null };

/** The pieces of a stretch, each with its minutes. */
function partsOf(limits: Limits, from: number, to: number, battery: Battery, pace: number): Part[] {
  return limits.pieces.flatMap((p) => {
    const [a, b] = [Math.max(from, p.from), Math.min(to, p.to)];
    if (a >= b) return [];
    const [pa, pb] = [pace * kWIn(p, a), pace * kWIn(p, b)];
    const stopsAt = pa <= 0 ? a : pb <= 0 ? b : null;
    return [{ from: a, to: b, limit: p.limit, minutes: stopsAt === null ? minutesOf(a, b, pa, pb, battery) : null, stopsAt }];
  });
}

/** Minutes for a stretch of the battery alone; `null` when it never gets there. @see expectedStretch */
export function minutesFor(limits: Limits, from: number, to: number, battery: Battery, pace = 1): number | null {
  let minutes: number | null = null;
  for (const p of limits.pieces) {
    const [a, b] = [Math.max(from, p.from), Math.min(to, p.to)];
    if (a >= b) continue;
    const [pa, pb] = [pace * kWIn(p, a), pace * kWIn(p, b)];
    if (pa <= 0 || pb <= 0) return null;
    minutes = (minutes ?? 0) + minutesOf(a, b, pa, pb, battery);
  }
  return minutes;
}

/** True where a limit is the least somewhere within a stretch. */
export const bindsIn = (limits: Limits, limit: LimitName, from: number, to: number): boolean =>
  limits.pieces.some((p) => p.limit === limit && p.from < to && p.to > from);

/**
 * What a stretch of the battery should take: 60 × ∫ kWh per per cent ÷ (efficiency × kW) over it, piece by piece, and
 * what sets the power where. Energy is at the connector unless it says battery.
 * @param pace part of the expected power that is really had; 1 unless the ledger says otherwise
 */
export function expectedStretch(limits: Limits, from: number, to: number, battery: Battery, pace = 1): ExpectedStretch {
  const parts = partsOf(limits, from, to, battery, pace);
  const battery_kWh = (battery.usableKWh * (to - from)) / 100;
  const meter_kWh = battery_kWh / (battery.efficiency ?? 1);
  const stops = parts.flatMap((p) => (p.stopsAt === null ? [] : [p.stopsAt]));
  const minutes = parts.length === 0 || stops.length > 0 ? null : parts.reduce((sum, p) => sum + (p.minutes as number), 0);
  const { curveFrom, curveTo } = limits;
  return {
    from,
    to,
    battery_kWh,
    meter_kWh,
    curveExtended: curveFrom !== null && curveTo !== null && (from < curveFrom || to > curveTo),
    minutes,
    mean_kW: minutes ? meter_kWh / (minutes / 60) : null,
    stopsAt: stops.length > 0 ? Math.min(...stops) : null,
    heldBackBy: heldBackBy(parts),
  };
}

function heldBackBy(parts: readonly Part[]): HeldStretch[] {
  const out: HeldStretch[] = [];
  for (const p of parts) {
    const last = out.at(-1);
    if (last?.limit !== p.limit) out.push({ from: p.from, to: p.to, limit: p.limit, minutes: p.minutes });
    else {
      last.to = p.to;
      last.minutes = last.minutes === null || p.minutes === null ? null : last.minutes + p.minutes;
    }
  }
  return out;
}

/** The level reached after so many minutes; the level at which it stops, when it stops before. Halves the stretch 60 times. */
export function levelAfter(limits: Limits, from: number, minutes: number, battery: Battery, pace = 1): number {
  const takes = (to: number) => (to <= from ? 0 : (minutesFor(limits, from, to, battery, pace) ?? Number.POSITIVE_INFINITY));
  if (takes(100) <= minutes) return 100;
  let [lo, hi] = [from, 100];
  for (let i = 0; i < 60; i++) {
    const mid = (lo + hi) / 2;
    if (takes(mid) <= minutes) lo = mid;
    else hi = mid;
  }
  return lo;
}
