import { faultLabel, faultOf, type Side } from '../faults/fault-list';
import { type Attempt, isNoted } from './attempts/attempt';
import { refusalSide } from './attempts/outcome';
import { countBays } from './bays';
import type { Billed } from './billed';
import { sessionEnergy } from './delivered';
import type { Placed } from './timeline/placed';

/** Whether a visit started at the first try, and why; `side`: whose side it failed on, where that is known. */
export type FirstTry = { answer: 'yes' | 'no' | 'left_out'; why: string; side: Side | null };

const no = (why: string, side: Side | null): FirstTry => ({ answer: 'no', why, side });
const leftOut = (why: string): FirstTry => ({ answer: 'left_out', why, side: null });

/**
 * Starts at the first try: attempt 1 got power, or shows energy on its readings or its bill, at its first showing of the means.
 * Attempt 2 is never promoted. A visit that found no stall to use did not start; one left for the queue or the price, only
 * claimed, or still open is left out.
 */
export function firstTry(line: readonly Placed[], attempts: readonly Attempt[], billed: readonly Billed[]): FirstTry {
  const one = attempts[0];
  if (!one) return withoutAttempt(line, billed);
  const onBill = billed.some(
    (b) => Number(b.kWh ?? 0) > 0 && (b.attempts.length === 0 ? attempts.length === 1 : b.attempts.length === 1 && b.attempts[0] === one.n),
  );
  const started = one.proof
    ? 'power on attempt 1'
    : Number(sessionEnergy(one, [])?.value ?? 0) > 0
      ? 'kWh read on attempt 1'
      : onBill
        ? 'kWh on the bill for attempt 1'
        : null;
  if (started) return atFirstShowing(one, started);
  const { outcome } = one;
  if (outcome.kind === 'gave_up' && one.refusals.length === 0 && (outcome.left === 'queue' || outcome.left === 'price')) return leftOut(outcome.reason);
  if (outcome.kind === 'failed' || outcome.kind === 'gave_up') return no(outcome.reason, outcome.side);
  return leftOut(one.claimed ? 'only claimed' : 'still open');
}

/** Five swipes must not look like one. */
function atFirstShowing(a: Attempt, started: string): FirstTry {
  const before = (place: number) => !a.proof || place < a.proof.place;
  const shows = a.shows.filter((s) => before(s.place)).length;
  const refusal = a.refusals.findLast((r) => before(r.place));
  if (shows > 1) return no(`started after ${shows} shows`, refusal ? refusalSide(refusal.fault) : 'payment');
  if (refusal) return no('started after a refusal', refusalSide(refusal.fault));
  if (!isNoted(a)) return leftOut('no attempt was noted');
  return { answer: 'yes', why: started, side: null };
}

function withoutAttempt(line: readonly Placed[], billed: readonly Billed[]): FirstTry {
  const left = line.findLast((e) => e.kind === 'pulled_out' && !e.onlySeen);
  if (Number(billed.find((b) => b.kWh !== undefined)?.kWh ?? 0) > 0) return leftOut('no attempt was noted');
  if (left?.kind !== 'pulled_out') return leftOut('no attempt yet');
  const { reason } = left.payload;
  if (noneUsable(line)) return no('no usable stall', 'site');
  if (reason === 'queue') return leftOut('left for the queue');
  if (reason === 'price') return leftOut('left for the price');
  const dead = line.findLast((e) => e.kind === 'fault' && faultOf(e.payload.code)?.ends === true);
  if (dead?.kind === 'fault') return no(faultLabel(dead.payload.code), dead.payload.side);
  if (reason === 'closed') return no('closed', 'site');
  return leftOut('no attempt');
}

/** True when whoever looked saw only stalls that are dark, closed or out of order. */
function noneUsable(line: readonly Placed[]): boolean {
  const looked = line.findLast((e) => e.kind === 'survey');
  if (looked?.kind === 'survey') {
    const bays = countBays(looked.payload.stalls);
    if (bays.looked > 0) return bays.outOfOrder === bays.looked;
  }
  const seen = line.find((e) => e.kind === 'pulled_in')?.payload.seen;
  return seen?.outOfOrder !== undefined && seen.total !== undefined && seen.total > 0 && seen.outOfOrder >= seen.total;
}
