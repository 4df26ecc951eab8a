import type { Visit } from './derive';

/** What the yellow pad proposes: the likeliest next thing, from what has happened. */
export type NextAct = 'pulled_in' | 'choose_stall' | 'plugged' | 'means_shown' | 'power_seen' | 'reading' | 'unplugged' | 'pulled_out' | 'bill' | 'done';

/**
 * Proposes; nothing is ever forced. @param carIsMeans the usual means asks for no act besides the plug
 */
export function nextAct(v: Visit, carIsMeans: boolean): NextAct {
  if (v.pulledOutAt !== null) return v.bills.length > 0 || v.ended === 'none' ? 'done' : 'bill';
  if (v.pulledInAt === null) return 'pulled_in';
  const last = v.attempts.at(-1);
  if (!last || last.ended) {
    if (last && isPlugged(v)) return 'unplugged';
    if (last?.proof && last.ended?.by !== 'fault') return 'pulled_out';
    if (!v.line.some((e) => e.kind === 'stall_chosen')) return 'choose_stall';
    return 'plugged';
  }
  if (last.stopAsked) return 'unplugged';
  if (last.proof) return 'reading';
  if (!isPlugged(v)) return 'plugged';
  const lastRefusal = last.refusals.at(-1)?.t ?? Number.NEGATIVE_INFINITY;
  const shown = last.shows.some((s) => s.t >= lastRefusal);
  return shown || carIsMeans || last.claimed ? 'power_seen' : 'means_shown';
}

/** True between a plugging in and the next unplugging or move. */
export function isPlugged(v: Pick<Visit, 'line'>): boolean {
  for (let i = v.line.length - 1; i >= 0; i--) {
    const k = v.line[i]?.kind;
    if (k === 'plugged') return true;
    if (k === 'unplugged' || k === 'stall_chosen' || k === 'pulled_out') return false;
  }
  return false;
}
