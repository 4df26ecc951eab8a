import type { Attempt } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import { wholeOf } from './bands';
import { besideOnArrival, COLD_C, conditionsOf } from './charge-conditions';
import { chargeOf } from './charge-of';
import { seriesOf } from './series';
import { socAt } from './series-at';

/** What changes the power a car takes besides the stall. A second rapid charge of a day is told apart where days are known. */
export const CURVE_CLASSES = ['usual', 'cold', 'preconditioned', 'second'] as const;
export type CurveClass = (typeof CURVE_CLASSES)[number];

/** One session, as far as comparisons and learning need it: small enough to be kept beside its figures. */
export type SessionLooks = {
  /** First and last level read, and the charging minutes between them. */
  from: number | null;
  to: number | null;
  took_min: number | null;
  /** The whole session by the meter. */
  kWh: number | null;
  charging_s: number | null;
  peak_kW: number | null;
  klass: Exclude<CurveClass, 'second'>;
  /** Something of the stall that lessens its power was noted: it shows not what the car could do. */
  hindered: boolean;
  /** Stalls at which a car charged when it began: on the same cabinet it hindered, too. */
  beside?: readonly string[];
  connector: string | null;
  /** Seconds charged, battery per cent, kW. */
  looks: readonly (readonly [s: number, socPct: number, kW: number])[];
};

const tenths = (x: number): number => Math.round(x * 10) / 10;

/** Cold by the note or the air, unless the battery was warmed before. */
function classOf(visit: Pick<Visit, 'line'>): SessionLooks['klass'] {
  const arrival = visit.line.find((e) => e.kind === 'pulled_in')?.payload;
  if (arrival?.preconditioned === true) return 'preconditioned';
  const noted = visit.line.some((e) => e.kind === 'change' && e.payload.what === 'cold');
  return noted || (arrival?.airC !== undefined && arrival.airC <= COLD_C) ? 'cold' : 'usual';
}

/** A session in short; `null` where nothing of its power or battery was read. */
export function sessionLooks(visit: Visit, a: Attempt): SessionLooks | null {
  const charge = chargeOf(a, visit);
  if (!charge) return null;
  const series = seriesOf(charge);
  const [from, to] = [series.soc?.y[0] ?? null, series.soc?.y.at(-1) ?? null];
  const whole = wholeOf(series, { usableKWh: null, kWhPer100km: null });
  if (!whole && series.power.length === 0 && series.mean_kW === null) return null;
  const beside = besideOnArrival(visit, a);
  return {
    from,
    to,
    took_min: whole && whole.covered !== 'none' ? whole.minutes : null,
    kWh: series.delivered_kWh,
    charging_s: series.charging_s,
    peak_kW: series.peak_kW,
    klass: classOf(visit),
    hindered: conditionsOf(visit, a, series, new Set()).some((c) => c.what !== 'climate' && c.what !== 'cold'),
    ...(beside.length > 0 ? { beside } : {}),
    connector: a.connectorId ?? null,
    looks: series.power.flatMap((p) => {
      const level = socAt(series, p.s);
      return level === null ? [] : [[Math.round(p.s), tenths(level), tenths(p.kW)] as const];
    }),
  };
}
