import { ATTEMPT_FIGURES, type AttemptFigure } from '../figures/attempt-figures';
import type { Figure, Value, Where } from '../figures/figure';
import type { PowerTime } from '../figures/populations';
import { VISIT_FIGURES, type VisitFigure } from '../figures/visit-figures';
import { localDay } from '../units/zoned';
import type { EndMark } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import type { FirstTry } from '../visit/first-try';

/** One attempt as Compare counts it, by the names of its figures. Seconds; `null` or missing where unknown or not asked for. */
export type AttemptRow = {
  n?: number;
  outcome: 'power' | 'failed' | 'gave_up' | 'open';
  endMark?: EndMark | null;
  late?: boolean;
  stallId?: string | null;
  side?: string | null;
  interruptions?: number | null;
  charging?: number | null;
} & {
  readonly [K in Exclude<AttemptFigure, 'n' | 'outcome' | 'endMark' | 'late' | 'stallId' | 'side' | 'interruptions' | 'charging' | PowerTime>]?: Value;
} & Partial<Record<PowerTime, number | null>>;

/** One visit as Compare counts it, by the names of its figures; what was not asked for is missing. Amounts and kWh are decimal strings. */
export type VisitRow = {
  /** Sorts visits as they arose: by when the first word of each was written. */
  arose?: string;
  networkId: string;
  siteId: string;
  carId?: string | null;
  /** Of the first attempt; `null` without one, or where the stall was not named. */
  stallId: string | null;
  /** Stalls that gave power. */
  workedAt: readonly string[];
  driverId: string | null;
  /** Of the arrival, else of the first word of it, UTC ms. */
  at: number;
  /** `2025-10`, by the clock of the place. */
  month: string;
  attemptCount: number;
  firstTry: FirstTry['answer'];
  firstSide?: FirstTry['side'];
  leftReason: string | null;
  leftOut: boolean;
  attempts: AttemptRow[];
  lost_s?: number | null;
  queue_s?: number | null;
  helpAnswered_s?: number | null;
  baysSeen?: number | null;
  baysOut?: number | null;
  faultMarks?: string;
  deliveredKWh?: string | null;
  paid?: string | null;
  currency?: string | null;
} & {
  readonly [K in Exclude<
    VisitFigure,
    | 'attemptCount'
    | 'firstTry'
    | 'firstSide'
    | 'leftReason'
    | 'leftOut'
    | 'lost_s'
    | 'queue_s'
    | 'helpAnswered_s'
    | 'baysSeen'
    | 'baysOut'
    | 'faultMarks'
    | 'deliveredKWh'
    | 'paid'
    | 'currency'
  >]?: Value;
};

/** A derived visit as Compare counts it, with every figure. */
export function visitRow(visit: Visit, networkId: string, where: Where = { networkOfSite: () => networkId, stall: () => undefined }): VisitRow {
  const figures = <Of>(of: Record<string, Figure<Of>>, value: Of) => Object.fromEntries(Object.entries(of).map(([name, f]) => [name, f.value(value, where)]));
  return {
    ...figures(VISIT_FIGURES, visit),
    arose: visit.id,
    networkId,
    siteId: visit.siteId ?? '',
    carId: visit.carId,
    stallId: visit.attempts[0]?.stallId ?? null,
    workedAt: visit.attempts.flatMap((a) => (a.proof && a.stallId ? [a.stallId] : [])),
    driverId: visit.driverId,
    at: visit.pulledInAt ?? visit.lastEventAt,
    month: localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone).slice(0, 7),
    attempts: visit.attempts.map((attempt) => figures(ATTEMPT_FIGURES, { attempt, visit })),
  } as unknown as VisitRow;
}
