import type { TrialPlan } from '../records/trial-schema';
import { printDuration } from '../units/print';
import { printDate } from '../units/zoned';
import { TIME_RULES } from '../visit/attempt-times';
import { roundsFor } from './best-verdict';
import type { TrialResult } from './trial-result';
import type { RoundRun } from './trial-rounds';

/** Of what a trial tells, and of nothing beyond. */
const STALLS = { stall: 'These stalls', network: 'These stalls', means: 'This stall' } as const;
const VERDICT = { clearly: 'clearly', probably: 'probably', cannot_tell: 'nothing, even all one way' } as const;

/** The days on which rounds were run. */
export const trialDays = (rounds: readonly RoundRun[], zone: string): string[] => [...new Set(rounds.map((r) => printDate(r.at, zone)))];

/** When, and by how many. */
export const trialWhen = (plan: TrialPlan, days: readonly string[]): string =>
  [
    'Trial',
    days.length === 0 ? 'not begun' : days.length === 1 ? days[0] : `${days[0]} to ${days.at(-1)}`,
    plan.observers === 2 ? 'two observers' : 'one observer',
  ].join(', ');

/** What it shows, and of what alone. */
export const trialVerdict = (plan: TrialPlan, result: TrialResult, days: readonly string[]): string =>
  `${result.text} ${STALLS[plan.kind]}, ${days.length > 1 ? 'these days' : 'this day'}.`;

/** How it was done. */
export const trialMethod = (plan: TrialPlan, result: TrialResult): [label: string, words: string][] => [
  ['Held equal', plan.heldEqual ?? 'not noted'],
  ['Order', `by lot within each round, seed ${plan.seed}`],
  ['From, to', `${TIME_RULES[plan.time].label}, to first ${plan.mark}`],
  ['Rounds', `${plan.rounds} planned, ${result.counted} counted${result.voided > 0 ? `, ${result.voided} voided` : ''}`],
  [
    'Best possible',
    `${VERDICT[result.best]}; all one way, ${roundsFor('probably', plan.sides.length)} rounds say probably, ${roundsFor('clearly', plan.sides.length)} clearly`,
  ],
  ['Not asked', 'the operators'],
  ['Everyday shares', 'its visits are in none'],
];

/** The time of a round, or why there is none. */
export const roundTime = (r: RoundRun): string =>
  r.s === null ? (r.is === 'never' ? `never: ${r.why ?? ''}` : (r.why ?? '')) : `${printDuration(r.s)} ± ${r.pm_s.toFixed(1)}`;
/** Why a round does not count; empty where it does. */
export const roundNote = (r: RoundRun): string => (r.voided !== null ? `Voided: ${r.voided}` : r.repeated ? 'Run again' : '');
