import { SIDE_LETTERS, type SideLetter, type TrialPlan } from '../records/trial-schema';
import type { TimedAttempt, Visit } from '../visit/derive';
import { stepKey } from './trial-order';
import { type ToldRound, toldRounds, voidedRounds } from './voided-rounds';

/** A round as it was run: one side, one time. */
export type RoundRun = {
  /** Of the word of it, in the visit. */
  id: string;
  visitId: string;
  round: number;
  side: SideLetter;
  /** `power` with its seconds; `never`: failed or given up; `open`: not over, or not timed so. */
  is: 'power' | 'never' | 'open';
  s: number | null;
  pm_s: number;
  /** Why there is no time. */
  why: string | null;
  /** When power came or the attempt ended, else when it was told, UTC ms. */
  at: number;
  /** Phones that saw it. */
  observers: number;
  /** Why it does not count. */
  voided: string | null;
  /** It was run again later, and that one counts. */
  repeated: boolean;
};

type Plan = Pick<TrialPlan, 'kind' | 'time' | 'mark' | 'sides'>;

/** What an attempt used that is not the side of its round; `null` where it was that, or nobody noted it. */
function otherThan(key: string, kind: TrialPlan['kind'], { stallId, shows }: TimedAttempt): string | null {
  if (kind === 'stall') return stallId !== null && stallId !== key ? 'another stall was used' : null;
  const shown = shows.at(-1)?.meansKind;
  return kind === 'means' && shown !== undefined && shown !== key ? 'another means was used' : null;
}

/** The attempt of a round: the next at its side that opens after the word of it, else the next, else the one before, if that was at its side and no other's. */
function attemptOf(
  v: Visit,
  round: ToldRound,
  next: ToldRound | undefined,
  isOther: (a: TimedAttempt) => boolean,
  taken: ReadonlySet<TimedAttempt>,
): TimedAttempt | undefined {
  const until = next?.place ?? Number.POSITIVE_INFINITY;
  const after = v.attempts.filter((a) => a.opened.place > round.place && a.opened.place < until);
  const before = v.attempts.findLast((a) => a.opened.place < round.place);
  return after.find((a) => !isOther(a)) ?? after[0] ?? (before && !taken.has(before) && !isOther(before) ? before : undefined);
}

/** The rounds of a trial that a visit holds, in their order. @param trialId those of other trials are not its own */
export function roundsOfVisit(v: Visit, trialId: string, plan: Plan): Omit<RoundRun, 'repeated'>[] {
  const rounds = toldRounds(v, trialId);
  const voided = voidedRounds(v, trialId);
  const taken = new Set<TimedAttempt>();
  return rounds.flatMap((e, i): Omit<RoundRun, 'repeated'>[] => {
    const next = rounds[i + 1];
    const side = SIDE_LETTERS.find((l) => l === e.payload.side);
    const of = side && plan.sides[SIDE_LETTERS.indexOf(side)];
    if (!side || !of) return [];
    const other = (x: TimedAttempt) => otherThan(of.key, plan.kind, x);
    const a = attemptOf(v, e, next, (x) => other(x) !== null, taken);
    if (a) taken.add(a);
    const told = { id: e.id, visitId: v.id, round: e.payload.round, side, voided: voided.get(e.id) ?? null };
    const none = (is: 'never' | 'open', why: string, at: number) => [{ ...told, is, s: null, pm_s: 0, why, at, observers: 1 }];
    if (!a) return none('open', 'no attempt yet', e.t);
    const not = other(a);
    if (not) return none('open', not, a.opened.t);
    if (a.outcome.kind === 'failed' || a.outcome.kind === 'gave_up') return none('never', a.outcome.reason, a.outcome.at.t);
    if (!a.proof) return none('open', 'no power was seen yet', e.t);
    const time = a.times[plan.time];
    if (a.proof.mark !== plan.mark) return none('open', `power was seen in ${a.proof.mark}, not in ${plan.mark}`, a.proof.t);
    if (!time.known) return none('open', time.why, a.proof.t);
    if (time.bound !== 'exact') return none('open', 'power was there already when it was seen', a.proof.t);
    const seen = v.line.find((x) => x.id === a.proof?.id);
    return [{ ...told, is: 'power' as const, s: time.s, pm_s: time.pm_s, why: null, at: a.proof.t, observers: 1 + (seen?.looks?.length ?? 0) }];
  });
}

/** All rounds of a trial over its visits, in their order; of one that was run twice the later that came to something counts, unless it was voided. */
export function trialRounds(visits: readonly Visit[], trialId: string, plan: Plan): RoundRun[] {
  const all = visits
    .filter((v) => !v.withdrawn)
    .flatMap((v) => roundsOfVisit(v, trialId, plan))
    .sort((a, b) => a.round - b.round || (a.side < b.side ? -1 : a.side > b.side ? 1 : 0) || a.at - b.at);
  return all.map((r, i) => ({
    ...r,
    repeated: r.voided === null && all.slice(i + 1).some((x) => x.voided === null && x.is !== 'open' && stepKey(x) === stepKey(r)),
  }));
}

/** Those that count. */
export const countingRounds = (rounds: readonly RoundRun[]): RoundRun[] => rounds.filter((r) => r.voided === null && !r.repeated && r.is !== 'open');
/** Keys of the steps that are done: what is voided is to be run again. */
export const stepsDone = (rounds: readonly RoundRun[]): Set<string> => new Set(countingRounds(rounds).map(stepKey));
