import { attemptEffect } from '../kinds/registry';
import type { Placed } from '../timeline/placed';
import type { Attempt } from './attempt';
import { outcomeOf } from './outcome';
import { newWalk, settleReadings } from './walk';

/**
 * Walks the ordered events of one visit and cuts them into attempts: each kind does to them what its file says.
 * The rules of opening, ending, replugging, other means, pauses and dead stalls are those of docs/definitions.md.
 * @param line placed events in order, one visit
 */
export function cutAttempts(line: readonly Placed[]): Attempt[] {
  const w = newWalk();
  for (const e of line) attemptEffect(w, e);
  settleReadings(w);
  const pulledOut = line.find((e): e is Placed & { kind: 'pulled_out' } => e.kind === 'pulled_out' && !e.onlySeen);
  return w.attempts.map((a, i) => ({ ...a, n: i + 1, outcome: outcomeOf(a, i === w.attempts.length - 1 ? pulledOut?.payload.reason : undefined) }));
}
