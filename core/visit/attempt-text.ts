import type { Attempt, Outcome } from './attempts/attempt';

const OUTCOME = { power: 'power', failed: 'failed', gave_up: 'gave up', open: 'open' } as const;

/** How an attempt came out, in words: "failed (start error)". */
export const outcomeText = (o: Outcome): string => (o.kind === 'power' ? OUTCOME.power : `${OUTCOME[o.kind]} (${o.reason.toLowerCase()})`);

/** An attempt in a line. @param stall name on its post, empty when it is not known */
export const attemptText = (a: Pick<Attempt, 'n' | 'outcome'>, stall: string): string => `${a.n}. Stall ${stall || 'not named'}: ${outcomeText(a.outcome)}`;

/** "attempt 2", "attempts 1 and 3"; `null` where none is named: the whole visit. */
export function attemptsText(numbers: readonly number[]): string | null {
  if (numbers.length === 0) return null;
  return numbers.length === 1 ? `attempt ${numbers[0]}` : `attempts ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}
