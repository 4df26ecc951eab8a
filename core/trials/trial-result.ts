import { type Degree, degreeOf, logPairEvidence } from '../evidence/share-evidence';
import { type SignedRank, signedRank } from '../evidence/signed-rank';
import { SIDE_LETTERS, type SideLetter, sideLabel, type TrialPlan } from '../records/trial-schema';
import { printDuration } from '../units/print';
import { bestVerdict, pairsOf } from './best-verdict';
import { countingRounds, type RoundRun } from './trial-rounds';

/** Two sides of a trial, round by round. The quicker one stands first. */
export type TrialPair = {
  quicker: SideLetter;
  slower: SideLetter;
  won: number;
  decided: number;
  /** Rounds within their ±, or in which neither ever got power. */
  undecided: number;
  logEvidence: number;
  degree: Degree;
  /** By how many seconds the slower one was later, over the rounds in which both got power; `null` of none. */
  later: SignedRank | null;
  /** The evidence after each round that was decided, for the quicker one. */
  course: { round: number; logEvidence: number }[];
};

/** −1 where the first was quicker, 0 where it cannot be told. Never is longer than every time. */
function which(a: RoundRun, b: RoundRun): -1 | 0 | 1 {
  if (a.s === null || b.s === null) return a.s === b.s ? 0 : a.s === null ? 1 : -1;
  // Decimals subtracted leave dust: a billionth is none.
  return Math.abs(a.s - b.s) <= a.pm_s + b.pm_s + 1e-9 ? 0 : a.s < b.s ? -1 : 1;
}

function pairOf(rounds: readonly RoundRun[], x: SideLetter, y: SideLetter, looked: number): TrialPair {
  const of = (side: SideLetter) => new Map(rounds.filter((r) => r.side === side).map((r) => [r.round, r]));
  const [ofX, ofY] = [of(x), of(y)];
  const both = [...ofX.keys()].filter((n) => ofY.has(n)).sort((m, n) => m - n);
  const told = both.map((round) => ({ round, which: which(ofX.get(round) as RoundRun, ofY.get(round) as RoundRun) }));
  const decided = told.filter((t) => t.which !== 0);
  const xWon = decided.filter((t) => t.which < 0).length;
  const xLeads = xWon * 2 >= decided.length;
  const sign = xLeads ? -1 : 1;
  const won = xLeads ? xWon : decided.length - xWon;
  let wins = 0;
  const course = decided.map((t, i) => {
    if (t.which === sign) wins += 1;
    const log = logPairEvidence(wins, i + 1);
    return { round: t.round, logEvidence: wins * 2 > i + 1 ? log : Math.min(0, log) };
  });
  const [quick, slow] = xLeads ? [ofX, ofY] : [ofY, ofX];
  const apart = both.flatMap((n) => {
    const [q, s] = [quick.get(n)?.s ?? null, slow.get(n)?.s ?? null];
    return q === null || s === null ? [] : [s - q];
  });
  const logEvidence = course.at(-1)?.logEvidence ?? 0;
  return {
    quicker: xLeads ? x : y,
    slower: xLeads ? y : x,
    won,
    decided: decided.length,
    undecided: told.length - decided.length,
    logEvidence,
    degree: degreeOf(logEvidence, looked),
    later: apart.length > 0 ? signedRank(apart) : null,
    course,
  };
}

export type TrialResult = {
  pairs: TrialPair[];
  /** The surest of them. */
  degree: Degree;
  /** Rounds that count for some side. */
  counted: number;
  voided: number;
  /** What was said to be the best possible beforehand. */
  best: Degree;
  text: string;
};

const stops = 10;
/** Seconds of one stop over ten, in words. */
const overTen = (s: number): string => (s * stops >= 90 ? `${Math.round((s * stops) / 60)} minutes` : `${Math.round(s * stops)} seconds`);

/**
 * What a trial shows: each two of its sides by the rounds that both ran, the evidence running along, so that it may stop as soon as it is decided.
 * Held to as many times the evidence as there are pairs. It tells of these stalls and this day, not of a network.
 */
export function trialResult(plan: Pick<TrialPlan, 'sides' | 'rounds' | 'kind'>, all: readonly RoundRun[]): TrialResult {
  const rounds = countingRounds(all);
  const letters = SIDE_LETTERS.slice(0, plan.sides.length);
  const looked = pairsOf(letters.length);
  const pairs = letters.flatMap((x, i) => letters.slice(i + 1).map((y) => pairOf(rounds, x, y, looked))).sort((p, q) => q.logEvidence - p.logEvidence);
  const label = (side: SideLetter) => sideLabel(plan, side);
  const sure = pairs.filter((p) => p.degree !== 'cannot_tell');
  const said = sure.map((p) => {
    const by = p.later;
    const middle = by
      ? `, by ${printDuration(by.pseudomedian)} in the middle${by.level >= 0.95 ? ` (95 %: ${printDuration(by.limits[0])} to ${printDuration(by.limits[1])})` : ''}`
      : '';
    const ten = by && by.pseudomedian > 0 ? ` Over ten stops that is about ${overTen(by.pseudomedian)}.` : '';
    return `${label(p.quicker)} ${p.degree} gave power sooner than ${label(p.slower)}: in ${p.won} of ${p.decided} ${p.decided === 1 ? 'round' : 'rounds'}${middle}.${ten}`;
  });
  const [first] = pairs;
  const undecided =
    !first || first.decided === 0
      ? 'Cannot tell yet: no round was run by both.'
      : `Cannot tell yet who gives power sooner: ${label(first.quicker)} in ${first.won} of ${first.decided} ${first.decided === 1 ? 'round' : 'rounds'}${first.undecided > 0 ? `, ${first.undecided} within their ±` : ''}.`;
  return {
    pairs,
    degree: pairs.reduce<Degree>((d, p) => (d === 'clearly' || p.degree === 'cannot_tell' ? d : p.degree), 'cannot_tell'),
    counted: new Set(rounds.map((r) => r.round)).size,
    voided: all.filter((r) => r.voided !== null).length,
    best: bestVerdict(plan.rounds, plan.sides.length),
    text: said.length > 0 ? said.join(' ') : undecided,
  };
}
