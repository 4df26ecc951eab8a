import { chargingEnd } from './attempt-times';
import type { TimedAttempt } from './derive';

/**
 * How a session ended. `wished`: by an act of the driver, or at the level the car was told to stop at. `limit`: of the site, the
 * time, the hold or the load. `other`: somebody else unplugged it or pressed the emergency stop. `itself`: a fault, a power cut, or
 * nobody knows why. `null`: no session, or its end was not seen.
 */
export type SessionEnd = 'wished' | 'limit' | 'other' | 'itself' | null;

const BY_WHY: Readonly<Record<string, NonNullable<SessionEnd>>> = {
  asked: 'wished',
  car_target: 'wished',
  site_cap: 'limit',
  time_limit: 'limit',
  hold_used_up: 'limit',
  load_management: 'limit',
  unplugged_by_other: 'other',
  emergency: 'other',
};
/** Faults that say which limit or who it was. */
const BY_FAULT: Readonly<Record<string, NonNullable<SessionEnd>>> = { site_limit: 'limit', emergency_stop: 'other' };

export function sessionEnd(a: TimedAttempt): SessionEnd {
  if (!a.proof) return null;
  const before = (place: number | undefined) => a.stopAsked !== undefined && (place === undefined || a.stopAsked.place < place);
  if (a.ended?.by === 'fault') return before(a.ended.at.place) ? 'wished' : (BY_FAULT[a.ended.fault?.code ?? ''] ?? 'itself');
  if (a.powerGone) return a.powerGone.asked || before(a.powerGone.place) ? 'wished' : (BY_WHY[a.powerGone.why ?? ''] ?? 'itself');
  // Power stopped, and nothing brought it back before the driver's next act.
  if (a.paused) return before(a.paused.place) ? 'wished' : a.ended ? 'itself' : null;
  if (a.stopAsked) return 'wished';
  // The plug was pulled, or the driver left with enough: whoever does that ends it.
  return a.ended && a.ended.by !== 'act_after_power' ? 'wished' : null;
}

/** An end that nobody asked for within so long, or before so much, is early. Stated beside every figure of it; common practice, no source. */
export const EARLY_S = 300;
export const EARLY_KWH = 1;

/** Whether a session ended early, by the end nobody asked for. @param kWh delivered in it, where all of it is known; `null`: cannot be told */
export function endedEarly(a: TimedAttempt, kWh: string | null): boolean | null {
  const end = sessionEnd(a);
  if (end === null) return null;
  if (end === 'wished') return false;
  const { charging } = a.times;
  if ((charging.known && charging.s < EARLY_S) || (kWh !== null && Number(kWh) < EARLY_KWH)) return true;
  return charging.known || kWh !== null ? false : null;
}

/** How often power went away that was meant to flow: each pause, and an end that nobody asked for. Without a session none. */
export const interruptions = (a: TimedAttempt): number => {
  const end = sessionEnd(a);
  return a.proof ? a.pauses.length + (end !== null && end !== 'wished' && chargingEnd(a) !== undefined ? 1 : 0) : 0;
};
