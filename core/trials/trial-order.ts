import { randomLcg } from 'd3-random';
import { SIDE_LETTERS, type SideLetter, type TrialPlan } from '../records/trial-schema';

/** One act of a trial: a side in a round. */
export type Step = { round: number; side: SideLetter };
export const stepKey = ({ round, side }: Step): string => `${round}${side}`;

/**
 * The order of a trial: within each round the sides by lot, so that who is second, warmer or later is nobody's own. The same seed gives the same order.
 * Source for why: R. A. Fisher, The Design of Experiments (1935), § 9, from memory. Shuffled after R. Durstenfeld, CACM 7 (1964).
 */
export function trialOrder({ rounds, seed, sides }: Pick<TrialPlan, 'rounds' | 'seed' | 'sides'>): Step[] {
  const random = randomLcg(seed / 10_000);
  return Array.from({ length: rounds }, (_, i) => {
    const order = SIDE_LETTERS.slice(0, sides.length);
    for (let j = order.length - 1; j > 0; j--) {
      const k = Math.floor(random() * (j + 1));
      [order[j], order[k]] = [order[k] as SideLetter, order[j] as SideLetter];
    }
    return order.map((side): Step => ({ round: i + 1, side }));
  }).flat();
}

/** What is still to be done, in its order. @param done keys of the steps that count */
export const stepsLeft = (plan: Pick<TrialPlan, 'rounds' | 'seed' | 'sides'>, done: ReadonlySet<string>): Step[] =>
  trialOrder(plan).filter((s) => !done.has(stepKey(s)));
