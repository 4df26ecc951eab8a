import type { Changes } from '@/core/protocol/changes';
import { figuresWaiting } from '../figures/refresh';
import { stallDangers } from './stall-dangers';
import { stallsLately } from './stalls-lately';
import { usualWaiting } from './usual-waiting';

type SummedUp = Required<Pick<Changes, 'lately' | 'usual' | 'dangers'>>;
/** Households whose sums are kept: those that were asked for last. */
const MOST = 50;
const kept = new Map<string, { rev: number; sums: SummedUp }>();

/**
 * What all visits of a household come to for a phone: computed once for each rev of the household, whoever asks.
 * While figures are still being rebuilt, what they come to is told and not kept.
 */
export async function summedUp(householdId: string, rev: number): Promise<SummedUp> {
  const before = kept.get(householdId);
  if (before?.rev === rev) return before.sums;
  const [lately, usual, dangers] = await Promise.all([stallsLately(householdId), usualWaiting(householdId), stallDangers(householdId)]);
  const sums = { lately, usual, dangers };
  if ((await figuresWaiting(householdId)) === 0) {
    kept.delete(householdId);
    kept.set(householdId, { rev, sums });
    for (const oldest of kept.keys()) {
      if (kept.size <= MOST) break;
      kept.delete(oldest);
    }
  }
  return sums;
}
