import { grouped } from '../units/grouped';
import { quantile } from '../units/quantile';

/** What changes the power a car takes: cold, preconditioned, a second rapid charge of the day. */
export type CurveReading = { t_s?: number | undefined; socPct: number; kW: number; otherLimitKW?: number | null | undefined };
export type CurveSession = { id: string; class?: string | null | undefined; hindered?: boolean | undefined; readings: readonly CurveReading[] };
export type CurveBin = { from: number; to: number; sessions: number; kW: number | null };
export type OwnCurve = {
  sessionsUsed: readonly string[];
  bins: readonly CurveBin[];
  /** The centre of each bin that holds enough sessions, and its kW. */
  curve: readonly (readonly [number, number])[];
};

/** The first minute is the ramp; within a twentieth of another limit nothing shows what the car could do. */
const RAMP_S = 60;
const NEAR_LIMIT = 0.95;
/** What the car can: neither its best moment nor its middle. */
const HIGH = 0.9;

/**
 * What the car takes by battery level, learnt from its own charges that nothing else held back: in each bin the median
 * of a session first, so that a session with many readings has one vote, then the 90th percentile over sessions. It is
 * not made to fall: power rises with pack volts at low levels.
 * @param klass the class asked for; `null` takes all @param leastSessions that a bin needs to say anything
 */
export function ownCurve(sessions: readonly CurveSession[], klass: string | null, binPct = 5, leastSessions = 3): OwnCurve {
  const used = sessions.filter((s) => !s.hindered && (klass === null || s.class === klass));
  const most = Math.ceil(100 / binPct) - 1;
  const bins = new Map<number, number[]>();
  for (const { readings } of used) {
    const free = readings.filter((r) => (r.t_s ?? RAMP_S) >= RAMP_S && r.kW < NEAR_LIMIT * (r.otherLimitKW ?? Number.POSITIVE_INFINITY));
    for (const [bin, own] of grouped(free, (r) => Math.min(most, Math.floor(r.socPct / binPct)))) {
      const medians = bins.get(bin) ?? [];
      bins.set(bin, medians);
      medians.push(
        quantile(
          own.map((r) => r.kW),
          0.5,
        ),
      );
    }
  }
  const found = [...bins]
    .sort(([a], [b]) => a - b)
    .map(([bin, medians]) => ({
      from: bin * binPct,
      to: Math.min(100, (bin + 1) * binPct),
      sessions: medians.length,
      kW: medians.length >= leastSessions ? quantile(medians, HIGH) : null,
    }));
  return {
    sessionsUsed: used.map((s) => s.id),
    bins: found,
    curve: found.flatMap((b) => (b.kW === null ? [] : [[(b.from + b.to) / 2, b.kW] as const])),
  };
}
