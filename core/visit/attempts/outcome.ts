import { faultLabel, faultOf, type Side } from '../../faults/fault-list';
import type { Mark } from '../timing';
import type { Draft, LeaveReason, Outcome } from './attempt';

const LEFT_BECAUSE: Readonly<Partial<Record<LeaveReason, string>>> = {
  gave_up: 'gave up',
  queue: 'left for the queue',
  price: 'left for the price',
  unsafe: 'left as unsafe',
  closed: 'closed',
};

/** Whose side a refusal is on. */
export const refusalSide = (code: string | undefined): Side => (code ? (faultOf(code)?.side ?? 'payment') : 'payment');

/** What an attempt with refusals failed of. */
function refused(a: Draft): { at: Mark; reason: string; side: Side; code?: string } | null {
  // What was noted after the end is no reason of it.
  const over = a.ended?.at.place ?? Number.POSITIVE_INFINITY;
  const last = a.refusals.findLast((r) => r.place <= over);
  if (!last) return null;
  return { at: last, reason: last.fault ? faultLabel(last.fault) : 'Refused', side: refusalSide(last.fault), ...(last.fault ? { code: last.fault } : {}) };
}

/**
 * How an attempt came out.
 * @param left why the driver pulled out, for the last attempt of a visit that is over
 */
export function outcomeOf(a: Draft, left: LeaveReason | undefined): Outcome {
  if (a.proof) return { kind: 'power', at: a.proof };
  const refusal = refused(a);
  const { ended } = a;
  if (!ended) return { kind: 'open', at: a.opened, reason: 'still running, or the end was not recorded' };
  const failedOf = (reason: string, side: Side | null = null): Outcome => ({ kind: 'failed', ...(refusal ?? { at: ended.at, reason, side }) });
  switch (ended.by) {
    case 'fault': {
      const f = ended.fault;
      return { kind: 'failed', at: ended.at, reason: f ? faultLabel(f.code) : 'Fault', side: f?.side ?? null, ...(f ? { code: f.code } : {}) };
    }
    case 'other_means':
      return failedOf('Refused', 'payment');
    case 'moved':
      return failedOf('Moved to another stall');
    case 'replug':
      return failedOf('Plugged in anew');
    case 'power_gone':
    case 'act_after_power':
      return { kind: 'open', at: ended.at, reason: 'power went without having been seen' };
    case 'unplugged':
    case 'pulled_out': {
      if (left === undefined) return failedOf('Unplugged without power');
      const why = LEFT_BECAUSE[left];
      if (why)
        return {
          kind: 'gave_up',
          at: ended.at,
          reason: refusal ? `${why}: ${refusal.reason}` : why,
          side: refusal?.side ?? null,
          ...(refusal?.code ? { code: refusal.code } : {}),
          left,
        };
      return refusal ? failedOf('') : { kind: 'open', at: ended.at, reason: left === 'called_away' ? 'called away' : 'power was not recorded' };
    }
  }
}
