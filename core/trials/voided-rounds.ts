import type { Visit } from '../visit/derive';
import type { PlacedOf } from '../visit/kinds/kind';

export type ToldRound = PlacedOf<'trial_round'>;
type Voided = PlacedOf<'trial_voided'>;

/** The words of a trial's rounds in a visit, in its order. @param trialId those of other trials are not its own */
export const toldRounds = (v: Pick<Visit, 'line'>, trialId: string): ToldRound[] =>
  v.line.filter((e): e is ToldRound => e.kind === 'trial_round' && e.payload.trialId === trialId);

/**
 * Why rounds of a trial do not count, by the id of the word of them. A round that is run again at the same stop has a name that was voided before: what
 * voids means the word that it names, else the last of that name, or of any where it names none, before it; where the clocks leave none before it, the first.
 */
export function voidedRounds(v: Pick<Visit, 'line'>, trialId: string): Map<string, string> {
  const rounds = toldRounds(v, trialId);
  const why = new Map<string, string>();
  for (const x of v.line.filter((e): e is Voided => e.kind === 'trial_voided' && e.payload.trialId === trialId)) {
    const { round, side, run, reason } = x.payload;
    const named = rounds.filter((r) => round === undefined || (r.payload.round === round && r.payload.side === side));
    const meant = rounds.find((r) => r.id === run) ?? named.findLast((r) => r.place < x.place) ?? (round === undefined ? undefined : named[0]);
    if (meant && !why.has(meant.id)) why.set(meant.id, reason);
  }
  return why;
}

/**
 * Keys of the steps of a trial that are done, by what is known of other visits and by this one's word: what was voided here is to be run again, here as well.
 * @param known keys of steps that are done; those told here may be among them
 */
export function doneWith(v: Pick<Visit, 'line'>, trialId: string, known: readonly string[]): string[] {
  const voided = voidedRounds(v, trialId);
  const keys = (of: readonly ToldRound[]) => of.map((r) => `${r.payload.round}${r.payload.side ?? ''}`);
  const told = toldRounds(v, trialId);
  const again = new Set(keys(told.filter((r) => voided.has(r.id))));
  return [...known.filter((key) => !again.has(key)), ...keys(told.filter((r) => !voided.has(r.id)))];
}
