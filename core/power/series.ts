import { longestRising } from '../units/longest-rising';
import { type ChargingClock, chargingClock, type Pause } from './charging-clock';
import { type MonotoneCurve, monotoneCurve } from './monotone-curve';

export type Screen = 'stall' | 'car';
/** One look at a screen. Seconds from the proof of power by the wall clock; figures of the energy part as plain numbers. */
export type SeriesReading = { t_s: number; from: Screen; socPct?: number; kWh?: number; kW?: number; V?: number; A?: number };

/** How far apart readings may lie for what is between them to be told; each a choice that may be changed. */
export type Gaps = { soc_pct: number; kW_s: number; kWh_s: number };
/** Tens with one missed by a few per cent still count, twenty do not; five minutes of power; ten of the meter. */
export const GAPS: Gaps = { soc_pct: 15, kW_s: 300, kWh_s: 600 };

export type PowerKnot = { s: number; kW: number; how: 'read' | 'VxA'; at: number };
/** What is read of one charge: one screen for each quantity, on the charging clock, with what went down left out. */
export type Series = {
  clock: ChargingClock;
  gaps: Gaps;
  source: { soc: Screen | null; kWh: 'stall' | null; kW: Screen | null };
  /** Battery per cent over charging seconds; `null` where none was read. */
  soc: MonotoneCurve | null;
  /** Metered kWh over charging seconds, from 0 at 0 on. */
  kWh: MonotoneCurve;
  power: readonly PowerKnot[];
  /** Positions of the readings that went down; `end` for the meter at the end. */
  wentDown: { soc: readonly (number | 'end')[]; kWh: readonly (number | 'end')[] };
  /** The end on the wall clock, and with it the charging seconds in all. */
  end_t_s: number | null;
  charging_s: number | null;
  delivered_kWh: number | null;
  mean_kW: number | null;
  peak_kW: number | null;
};
export type Charge = {
  readings: readonly SeriesReading[];
  end?: { t_s: number; kWh?: number } | null | undefined;
  pauses?: readonly Pause[] | undefined;
  gaps?: Partial<Gaps> | undefined;
};

type Found = { s: number; value: number; at: number | 'end' };

/** At one moment of one screen the later line is the better look. */
function byMoment<T extends { s: number }>(found: readonly T[]): T[] {
  const last = new Map(found.map((f) => [f.s, f]));
  return [...last.values()].sort((a, b) => a.s - b.s);
}

/**
 * Battery and meter as read within the charge. What was seen shortly before its start or after its end counts there,
 * where nothing else was read: nothing flowed between.
 */
function withinCharge(all: readonly (Found & { t_s: number })[], end_s: number | null, end_t: number | null): Found[] {
  const within = byMoment(all.filter((f) => f.t_s >= 0 && (end_t === null || f.t_s <= end_t)));
  const before = all
    .filter((f) => f.t_s < 0)
    .sort((a, b) => a.t_s - b.t_s)
    .at(-1);
  const after = end_t === null ? undefined : byMoment(all.flatMap((f) => (f.t_s > end_t ? [{ ...f, s: f.t_s }] : [])))[0];
  if (before && within[0]?.s !== 0) within.unshift({ ...before, s: 0 } as Found & { t_s: number });
  if (after && end_s !== null && within.at(-1)?.s !== end_s) within.push({ ...after, s: end_s });
  return within;
}

function risingCurve(found: readonly Found[]): { curve: MonotoneCurve; wentDown: (number | 'end')[] } {
  const kept = new Set(longestRising(found.map((f) => f.value)));
  const stay = found.filter((_, i) => kept.has(i));
  return {
    curve: monotoneCurve(
      stay.map((f) => f.s),
      stay.map((f) => f.value),
    ),
    wentDown: found.flatMap((f, i) => (kept.has(i) ? [] : [f.at])),
  };
}

/** The power a reading tells: as shown, else volts × amps of the very same look. */
function powerOf({ kW, V, A }: SeriesReading): { kW: number; how: 'read' | 'VxA' } | null {
  if (kW !== undefined) return { kW, how: 'read' };
  return V !== undefined && A !== undefined ? { kW: (V * A) / 1000, how: 'VxA' } : null;
}

/**
 * A charge as its readings tell it. One screen for each quantity, since the two differ by some kW and a mixture would
 * show steps that never happened: battery from the one read more often (else the car's), power likewise (else the
 * stall's), energy from the stall alone. Battery and meter keep their longest rising subsequence; the meter starts at
 * nothing, whatever a screen still showed. Nothing is said beyond what was read.
 * @throws RangeError for an end before the proof of power
 */
export function seriesOf({ readings, end, pauses, gaps }: Charge): Series {
  if (end && end.t_s < 0) throw new RangeError('a charge cannot end before its power');
  const clock = chargingClock(pauses ?? []);
  const end_t = end?.t_s ?? null;
  const end_s = end_t === null ? null : clock.charged(end_t);
  const found = (screen: Screen, value: (r: SeriesReading) => number | undefined) =>
    readings.flatMap((r, at) => {
      const v = r.from === screen ? value(r) : undefined;
      return v === undefined ? [] : [{ s: clock.charged(r.t_s), t_s: r.t_s, value: v, at }];
    });

  const socBy = {
    stall: withinCharge(
      found('stall', (r) => r.socPct),
      end_s,
      end_t,
    ),
    car: withinCharge(
      found('car', (r) => r.socPct),
      end_s,
      end_t,
    ),
  };
  const socFrom = socBy.stall.length > socBy.car.length ? 'stall' : 'car';

  const metered = withinCharge(
    found('stall', (r) => r.kWh).filter((f) => f.t_s > 0),
    end_s,
    end_t,
  ).filter((f) => f.s > 0 && f.s !== (end?.kWh === undefined ? null : end_s));
  if (end?.kWh !== undefined && end_s !== null && end_s > 0) metered.push({ s: end_s, value: end.kWh, at: 'end' });

  const powerBy = (screen: Screen): PowerKnot[] =>
    byMoment(
      readings.flatMap((r, at) => {
        const power = r.from === screen && r.t_s >= 0 && (end_t === null || r.t_s <= end_t) && !clock.pausedAt(r.t_s) ? powerOf(r) : null;
        return power ? [{ s: clock.charged(r.t_s), ...power, at }] : [];
      }),
    );
  const [stallPower, carPower] = [powerBy('stall'), powerBy('car')];
  const powerFrom = carPower.length > stallPower.length ? 'car' : 'stall';
  const power = powerFrom === 'car' ? carPower : stallPower;

  const socRead = socBy[socFrom];
  const soc = socRead.length > 0 ? risingCurve(socRead) : null;
  const kWh = risingCurve([{ s: 0, value: 0, at: -1 }, ...metered]);
  const atEnd = metered.length > 0 && kWh.curve.x.at(-1) === end_s ? (kWh.curve.y.at(-1) as number) : null;
  const delivered_kWh = end ? (end.kWh ?? atEnd) : null;
  return {
    clock,
    gaps: { ...GAPS, ...gaps },
    source: { soc: soc ? socFrom : null, kWh: metered.length > 0 ? 'stall' : null, kW: power.length > 0 ? powerFrom : null },
    soc: soc?.curve ?? null,
    kWh: kWh.curve,
    power,
    wentDown: { soc: soc?.wentDown ?? [], kWh: kWh.wentDown },
    end_t_s: end_t,
    charging_s: end_s,
    delivered_kWh,
    mean_kW: delivered_kWh !== null && end_s !== null && end_s > 0 ? delivered_kWh / (end_s / 3600) : null,
    peak_kW: power.length > 0 ? Math.max(...power.map((p) => p.kW)) : null,
  };
}
