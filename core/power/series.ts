import { longestRising } from '../units/longest-rising';
import { powerOf, powerScreen, type Screen } from '../visit/shown-power';
import { type ChargingClock, chargingClock, type Pause } from './charging-clock';
import { type MonotoneCurve, monotoneCurve } from './monotone-curve';

/** One look at a screen. Seconds from the proof of power by the wall clock; figures of the energy part as plain numbers. */
export type SeriesReading = { t_s: number; from: Screen; socPct?: number; kWh?: number; kW?: number; V?: number; A?: number };

/** How far apart readings may lie for what is between them to be told; each a choice that may be changed. */
export type Gaps = { soc_pct: number; kW_s: number; kWh_s: number };
/** Tens with one missed by a few per cent still count, twenty do not; five minutes of power; ten of the meter. */
export const GAPS: Gaps = { soc_pct: 15, kW_s: 300, kWh_s: 600 };
/** Whether so much lies within a limit, the limit included: 62.4 is 15 above 47.4, though a machine makes it a trace more. */
export const within = (apart: number, most: number): boolean => apart <= most + 1e-9;

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
  /** Stretches of the battery of which the level is known, [from, to] each; a level read alone is one by itself. */
  known: readonly (readonly [number, number])[];
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

/** At one moment of one screen the later line is the better look. Looks that rise in time already are what they are. */
function byMoment<T extends { s: number }>(found: T[]): T[] {
  let rises = true;
  for (let i = 1; i < found.length && rises; i++) rises = (found[i] as T).s > (found[i - 1] as T).s;
  if (rises) return found;
  return [...new Map(found.map((f) => [f.s, f])).values()].sort((x, y) => x.s - y.s);
}

/**
 * Battery and meter as read within the charge. What was seen shortly before its start or after its end counts there,
 * where nothing else was read: nothing flowed between.
 */
function withinCharge(all: (Found & { t_s: number })[], end_s: number | null, end_t: number | null): Found[] {
  const inside = (f: { t_s: number }) => f.t_s >= 0 && (end_t === null || f.t_s <= end_t);
  if (all.every(inside)) return byMoment(all);
  const within: Found[] = byMoment(all.filter(inside));
  const before = all
    .filter((f) => f.t_s < 0)
    .sort((a, b) => a.t_s - b.t_s)
    .at(-1);
  const after = end_t === null ? undefined : byMoment(all.flatMap((f) => (f.t_s > end_t ? [{ ...f, s: f.t_s }] : [])))[0];
  if (before && within[0]?.s !== 0) within.unshift({ ...before, s: 0 });
  if (after && end_s !== null && within.at(-1)?.s !== end_s) within.push({ ...after, s: end_s });
  return within;
}

function risingCurve(found: readonly Found[]): { curve: MonotoneCurve; wentDown: (number | 'end')[] } {
  const kept = longestRising(found.map((f) => f.value));
  const stay = kept.length === found.length ? found : kept.map((i) => found[i] as Found);
  const curve = monotoneCurve(
    stay.map((f) => f.s),
    stay.map((f) => f.value),
  );
  if (stay === found) return { curve, wentDown: [] };
  const keeps = new Set(kept);
  return { curve, wentDown: found.flatMap((f, i) => (keeps.has(i) ? [] : [f.at])) };
}

function knownLevels(levels: readonly number[], most: number): [number, number][] {
  const out: [number, number][] = [];
  for (const level of levels) {
    const last = out.at(-1);
    if (last && within(level - last[1], most)) last[1] = level;
    else out.push([level, level]);
  }
  return out;
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
  type Look = Found & { t_s: number };
  const level: Record<Screen, Look[]> = { stall: [], car: [] };
  const meter: Look[] = [];
  const shown: Record<Screen, PowerKnot[]> = { stall: [], car: [] };
  for (const [at, r] of readings.entries()) {
    const { t_s, from, socPct, kWh } = r;
    const s = clock.charged(t_s);
    if (socPct !== undefined) level[from].push({ s, t_s, value: socPct, at });
    // The meter starts at nothing, whatever a screen still shows.
    if (kWh !== undefined && from === 'stall' && t_s > 0) meter.push({ s, t_s, value: kWh, at });
    if (t_s < 0 || (end_t !== null && t_s > end_t) || clock.pausedAt(t_s)) continue;
    const power = powerOf(r);
    if (power) shown[from].push({ s, kW: power.kW, how: power.how, at });
  }
  const socBy = { stall: withinCharge(level.stall, end_s, end_t), car: withinCharge(level.car, end_s, end_t) };
  const socFrom = socBy.stall.length > socBy.car.length ? 'stall' : 'car';

  const metered = withinCharge(meter, end_s, end_t).filter((f) => f.s > 0 && f.s !== (end?.kWh === undefined ? null : end_s));
  if (end?.kWh !== undefined && end_s !== null && end_s > 0) metered.push({ s: end_s, value: end.kWh, at: 'end' });

  const [stallPower, carPower] = [byMoment(shown.stall), byMoment(shown.car)];
  const powerFrom = powerScreen({ stall: stallPower, car: carPower });
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
    known: knownLevels(soc?.curve.y ?? [], { ...GAPS, ...gaps }.soc_pct),
    power,
    wentDown: { soc: soc?.wentDown ?? [], kWh: kWh.wentDown },
    end_t_s: end_t,
    charging_s: end_s,
    delivered_kWh,
    mean_kW: delivered_kWh !== null && end_s !== null && end_s > 0 ? delivered_kWh / (end_s / 3600) : null,
    peak_kW: power.length > 0 ? power.reduce((most, p) => Math.max(most, p.kW), Number.NEGATIVE_INFINITY) : null,
  };
}
