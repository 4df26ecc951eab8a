import type { Changes } from '@/core/protocol/changes';
import type { Who } from '../accounts/who';
import { figuresWaiting } from '../figures/refresh';
import { outlooks } from '../power/outlooks';
import { trialSteps } from '../trials/trial-visits';
import { stallDangers } from './stall-dangers';
import { stallsLately } from './stalls-lately';
import { usualWaiting } from './usual-waiting';

type SummedUp = Required<Pick<Changes, 'lately' | 'usual' | 'dangers' | 'trials' | 'outlooks'>>;
/** People whose sums are kept: those that asked last. */
const MOST = 50;
const kept = new Map<string, { rev: number; sums: SummedUp }>();

/**
 * What the visits of a household come to for one of its people: computed once for each rev of the household.
 * While figures are still being rebuilt, what they come to is told and not kept.
 */
export async function summedUp(who: Who, rev: number): Promise<SummedUp> {
  const { householdId } = who;
  // By person: what is private to one is not summed up for another.
  const key = `${householdId} ${who.personId}`;
  const before = kept.get(key);
  if (before?.rev === rev) return before.sums;
  const [lately, usual, dangers, trials, ahead] = await Promise.all([
    stallsLately(who),
    usualWaiting(who),
    stallDangers(householdId),
    trialSteps(who),
    outlooks(who),
  ]);
  const sums = { lately, usual, dangers, trials, outlooks: ahead };
  if ((await figuresWaiting(householdId)) === 0) {
    kept.delete(key);
    kept.set(key, { rev, sums });
    for (const oldest of kept.keys()) {
      if (kept.size <= MOST) break;
      kept.delete(oldest);
    }
  }
  return sums;
}
