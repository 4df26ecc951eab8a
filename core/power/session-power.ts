import type { Attempt } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import { type Band, bandsOf, type RangeBy, wholeOf } from './bands';
import { type Condition, conditionsOf } from './charge-conditions';
import { chargeOf } from './charge-of';
import { type EnergyCheck, energyCheck } from './energy-check';
import { type Limits, limitsOf, type PowerCurve } from './limits';
import { type OtherEvent, otherEvents } from './other-events';
import { type Pace, type PaceLimits, paceLimits, sessionPace } from './pace';
import { type Series, type SeriesReading, seriesOf } from './series';
import { type AtStall, canJudge, settingOf } from './setting-of';
import { type HeldBack, whatHeldItBack } from './what-held-it-back';

/** Where the curve a car is held to comes from; `null` without one, and where it does not enter: with alternating current. */
export type CurveBy = { from: 'learnt'; sessions: number } | { from: 'typed' } | null;
export type SessionPower = {
  n: number;
  stallId: string | null;
  /** UTC ms of its proof of power. */
  at: number;
  series: Series;
  readings: readonly SeriesReading[];
  /** From the first to the last level read. */
  whole: Band | null;
  bands: readonly Band[];
  conditions: readonly Condition[];
  events: readonly OtherEvent[];
  energy: EnergyCheck | null;
  /** Everything that may set the power, alone at the stall; `null` where car or stall is not on file with what it takes or gives. */
  limits: PaceLimits | null;
  pace: { session: Pace; bands: readonly Pace[] } | null;
  curveBy: CurveBy;
  held: readonly HeldBack[];
};
/** Car, stall and adapter of an attempt, as on file. */
export type StandsAt = Omit<AtStall, 'curve' | 'paired' | 'deratedKW'> & { mates: ReadonlySet<string> };

/** One session of a visit: what was read, what could be expected, and what held it back. */
export function sessionPower(visit: Visit, a: Attempt, at: StandsAt | null, curve: { points: PowerCurve; by: CurveBy }, range: RangeBy): SessionPower | null {
  const charge = chargeOf(a, visit);
  if (!charge || !a.proof) return null;
  const series = seriesOf(charge);
  const conditions = conditionsOf(visit, a, series, at?.mates ?? new Set());
  const base = {
    n: a.n,
    stallId: a.stallId,
    at: a.proof.t,
    series,
    readings: charge.readings,
    whole: wholeOf(series, range),
    bands: bandsOf(series, range),
    conditions,
    events: otherEvents(visit, a, series),
    energy: energyCheck(series),
  };
  const stood = at && settingOf({ ...at, curve: curve.points, paired: false, deratedKW: null });
  if (!stood || !canJudge(stood.setting)) return { ...base, limits: null, pace: null, curveBy: null, held: [] };
  const cache = new Map<string, Limits>();
  const limitsFor = (noted: readonly Condition[]): Limits => {
    const paired = noted.some((c) => c.what === 'neighbour');
    const deratedKW = noted.find((c) => c.what === 'derate')?.kW ?? null;
    const key = `${paired} ${deratedKW}`;
    const found = cache.get(key) ?? limitsOf(settingOf({ ...at, curve: curve.points, paired, deratedKW }).setting);
    cache.set(key, found);
    return found;
  };
  const limits = paceLimits(stood.setting, stood.battery);
  const shareKW = stood.setting.stall.shareKW ?? null;
  const shared = conditions.map((c) => (c.what === 'neighbour' ? { ...c, kW: shareKW } : c));
  return {
    ...base,
    limits,
    pace: sessionPace(series, limits),
    curveBy: stood.setting.stall.kind === 'ac' ? null : curve.by,
    held: whatHeldItBack(series, limits, shared, limitsFor),
  };
}
