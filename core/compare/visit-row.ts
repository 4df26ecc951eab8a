import { ATTEMPT_FIGURES, type AttemptFigure } from '../figures/attempt-figures';
import { POWER_TIMES, type PowerTime } from '../figures/populations';
import { VISIT_FIGURES, type VisitFigure } from '../figures/visit-figures';
import { localDay } from '../units/zoned';
import type { EndMark } from '../visit/attempts/attempt';
import type { Visit } from '../visit/derive';
import type { FirstTry } from '../visit/first-try';

/** One attempt as Compare counts it. Seconds; `null` or missing where unknown. */
export type AttemptRow = {
  outcome: 'power' | 'failed' | 'gave_up' | 'open';
  endMark: EndMark | null;
  late: boolean;
} & Partial<Record<PowerTime, number | null>>;

/** One visit as Compare counts it, by the names of its figures. Amounts and kWh are decimal strings. */
export type VisitRow = {
  networkId: string;
  siteId: string;
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
  firstSide: FirstTry['side'];
  leftReason: string | null;
  leftOut: boolean;
  attempts: AttemptRow[];
  lost_s: number | null;
  deliveredKWh: string | null;
  paid: string | null;
  currency: string | null;
};

/** What Compare counts with, by the names of the figures. */
export const COMPARED_FIGURES = [
  'attemptCount',
  'firstTry',
  'firstSide',
  'leftReason',
  'leftOut',
  'lost_s',
  'deliveredKWh',
  'paid',
  'currency',
] as const satisfies VisitFigure[];
export const COMPARED_ATTEMPT_FIGURES = ['outcome', 'endMark', 'late', ...POWER_TIMES] as const satisfies AttemptFigure[];

/** A derived visit as Compare counts it. */
export function visitRow(visit: Visit, networkId: string): VisitRow {
  const where = { networkOfSite: () => networkId, siteOfStall: () => undefined };
  return {
    ...Object.fromEntries(COMPARED_FIGURES.map((name) => [name, VISIT_FIGURES[name].value(visit)])),
    networkId,
    siteId: visit.siteId ?? '',
    stallId: visit.attempts[0]?.stallId ?? null,
    workedAt: visit.attempts.flatMap((a) => (a.proof && a.stallId ? [a.stallId] : [])),
    driverId: visit.driverId,
    at: visit.pulledInAt ?? visit.lastEventAt,
    month: localDay(visit.pulledInAt ?? visit.lastEventAt, visit.zone).slice(0, 7),
    attempts: visit.attempts.map((attempt) =>
      Object.fromEntries(COMPARED_ATTEMPT_FIGURES.map((name) => [name, ATTEMPT_FIGURES[name].value({ attempt, visit }, where)])),
    ),
  } as unknown as VisitRow;
}
