import type { TimeName } from '../visit/attempt-times';
import type { EndMark } from '../visit/attempts';
import type { FirstTry } from '../visit/derive';

/** Definitions of "how long until power" that can be compared; kept apart, never mixed. */
export const POWER_TIMES = ['handshake', 'setUp', 'plugToPower', 'meansToPower', 'handsOn'] as const satisfies readonly TimeName[];
export type PowerTime = (typeof POWER_TIMES)[number];

/** One attempt as Compare counts it. Seconds; `null` where unknown. */
export type AttemptRow = {
  outcome: 'power' | 'failed' | 'gave_up' | 'open';
  endMark: EndMark | null;
  late: boolean;
  seconds: Partial<Record<PowerTime, number | null>>;
};

/** One visit as Compare counts it. Amounts and kWh are decimal strings. */
export type VisitRow = {
  networkId: string;
  siteId: string;
  firstTry: FirstTry;
  attempts: AttemptRow[];
  lost_s: number | null;
  deliveredKWh: string | null;
  paid: string | null;
  currency: string | null;
};
