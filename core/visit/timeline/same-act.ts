import { faultOf } from '../../faults/fault-list';
import { isSeenByMany } from '../kinds/registry';
import type { Corrected } from './placed';

export const seenByMany = (e: Corrected): boolean => isSeenByMany(e.kind);

/** True when two events can be one act seen twice, as far as what they say goes. */
export const canBeSameAct = (a: Corrected, b: Corrected): boolean =>
  a.kind === b.kind &&
  !(a.kind === 'change' && b.kind === 'change' && a.payload.what !== b.payload.what) &&
  !(a.kind === 'fault' && b.kind === 'fault' && a.payload.code !== b.payload.code) &&
  !(a.kind === 'stall_chosen' && b.kind === 'stall_chosen' && a.payload.stallId !== b.payload.stallId);

/**
 * True for what ends an attempt: choosing the first stall, or the same one, ends none.
 * @param line in order @param i the event's place in it
 */
export function isEnding(line: readonly Corrected[], i: number): boolean {
  const e = line[i] as Corrected;
  if (e.kind === 'fault') return faultOf(e.payload.code)?.ends ?? false;
  if (e.kind !== 'stall_chosen') return e.kind === 'unplugged' || e.kind === 'pulled_out';
  const before = line.slice(0, i).findLast((o) => o.kind === 'stall_chosen');
  return before?.kind === 'stall_chosen' && before.payload.stallId !== e.payload.stallId;
}
