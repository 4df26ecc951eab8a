import { faultOf } from '../faults/fault-list';
import type { Visit } from './derive';

/** What the yellow pad proposes: the likeliest next thing, from what has happened. */
export type NextAct =
  | 'pulled_in'
  | 'call_help'
  | 'choose_stall'
  | 'adapter_fitted'
  | 'plugged'
  | 'means_shown'
  | 'power_seen'
  | 'reading'
  | 'unplugged'
  | 'pulled_out'
  | 'bill'
  | 'done';

export type UsualHere = {
  /** The usual means asks for no act besides the plug. */
  carIsMeans: boolean;
  /** The order that works here is to pay before plugging in. */
  payFirst: boolean;
  /** The car needs an adapter at this stall. */
  adapter: boolean;
};

/** Proposes; nothing is ever forced. The adapter comes first: some stalls bill by the minute from the authorisation. */
export function nextAct(v: Visit, usual: UsualHere): NextAct {
  if (v.pulledOutAt !== null) return v.bills.length > 0 || v.ended === 'none' ? 'done' : 'bill';
  if (v.pulledInAt === null) return 'pulled_in';
  if (inDanger(v)) return 'call_help';
  const last = v.attempts.at(-1);
  const open = last && !last.ended ? last : null;
  if (open?.stopAsked || open?.powerGone) return 'unplugged';
  if (open?.proof) return 'reading';
  const started = remotelyStarted(v);
  if (!open) {
    const anew = meansToTryAgain(v);
    if (last && isPlugged(v) && !anew && !started) return 'unplugged';
    if (last?.proof && last.ended?.by !== 'fault' && !anew && !isPlugged(v)) return 'pulled_out';
    // A place without a name has no stalls to choose from.
    if (v.siteId !== null && !v.line.some((e) => e.kind === 'stall_chosen')) return 'choose_stall';
  }
  const lastRefusal = open?.refusals.at(-1)?.place ?? Number.NEGATIVE_INFINITY;
  const shown = open?.shows.some((s) => s.place >= lastRefusal) ?? false;
  if (!isPlugged(v)) {
    if (usual.adapter && !open?.adapterFitted && !adapterIsOn(v)) return 'adapter_fitted';
    return usual.payFirst && !usual.carIsMeans && !shown ? 'means_shown' : 'plugged';
  }
  // Trying again with the plug left in, a car that is its own means is shown by pressing start.
  const carWasPlugged = usual.carIsMeans && (open !== null || !last);
  return shown || carWasPlugged || open?.claimed || started ? 'power_seen' : 'means_shown';
}

/** True when, after the last attempt ended, a stall was chosen or an act begun: what comes next is a start, not the leaving. */
export function meansToTryAgain(v: Pick<Visit, 'line' | 'attempts'>): boolean {
  const over = v.attempts.at(-1)?.ended?.at.place;
  return over !== undefined && v.line.some((e) => e.place >= over && (e.kind === 'stall_chosen' || e.kind === 'first_act') && !e.onlySeen);
}

/** True when the helpline started it, and no attempt ended since: power is what is waited for. */
function remotelyStarted(v: Pick<Visit, 'line' | 'attempts'>): boolean {
  const said = v.line.findLast((e) => e.kind === 'help_ended' && e.payload.result === 'remote_start');
  return said !== undefined && v.attempts.every((a) => !a.ended || a.ended.at.place < said.place);
}

/** True for a fault that can hurt. */
export const isDanger = (e: Visit['line'][number]): boolean => e.kind === 'fault' && faultOf(e.payload.code)?.danger === true;

/** True from a fault that can hurt until somebody was called or the stall was left: nobody is led to unplug there. */
export function inDanger(v: Pick<Visit, 'line'>): boolean {
  const at = v.line.findLastIndex(isDanger);
  return at >= 0 && !v.line.slice(at).some((e) => e.kind === 'help_ended' || e.kind === 'stall_chosen' || e.kind === 'unplugged');
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

/** True when an adapter was fitted since the stall was chosen. */
function adapterIsOn(v: Pick<Visit, 'line'>): boolean {
  for (let i = v.line.length - 1; i >= 0; i--) {
    const k = v.line[i]?.kind;
    if (k === 'adapter_fitted') return true;
    if (k === 'stall_chosen') return false;
  }
  return false;
}
