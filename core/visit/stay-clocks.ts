import { chargingEnd } from './attempt-times';
import type { Visit } from './derive';

export type StayRules = { maxStay_min: number | null; overstayAfter_min: number | null; idleGrace_min: number | null };
export type StayClock = { kind: 'max_stay' | 'overstay' | 'idle_grace'; until: number };

/**
 * What counts down while a visit is open: the max stay from pulling in, the overstay limit from the first plugging in,
 * the idle grace from the end of the charge; the last two until unplugged. UTC ms.
 */
export function stayClocks(v: Visit, rules: StayRules): StayClock[] {
  if (v.pulledOutAt !== null) return [];
  const clocks: StayClock[] = [];
  const after = (t: number, min: number) => t + min * 60_000;
  const gone = v.line.findLast((e) => e.kind === 'unplugged' && !e.onlySeen)?.place ?? Number.NEGATIVE_INFINITY;
  const plugged = v.line.find((e) => e.kind === 'plugged' && !e.onlySeen && e.place > gone)?.t;
  const last = v.attempts.findLast((a) => a.proof);
  const end = last ? chargingEnd(last) : null;
  if (rules.idleGrace_min !== null && end && end.place > gone) clocks.push({ kind: 'idle_grace', until: after(end.t, rules.idleGrace_min) });
  if (rules.overstayAfter_min !== null && plugged !== undefined) clocks.push({ kind: 'overstay', until: after(plugged, rules.overstayAfter_min) });
  if (rules.maxStay_min !== null && v.pulledInAt !== null) clocks.push({ kind: 'max_stay', until: after(v.pulledInAt, rules.maxStay_min) });
  return clocks.sort((a, b) => a.until - b.until);
}
