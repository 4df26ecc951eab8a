import { csvFormatRows } from 'd3-dsv';
import { SIDE_LETTERS, sideLabel, type TrialPlan } from '../records/trial-schema';
import { csvText } from '../units/csv-text';
import { trialOrder } from './trial-order';
import type { TrialResult } from './trial-result';
import type { RoundRun } from './trial-rounds';

/** A trial as it is handed on. Without places its sides are letters, and its name, times of day and what was held equal stay at home. */
export type SharedTrial = { id: string; plan: TrialPlan; rounds: readonly RoundRun[]; result: TrialResult };

const labelOf = (plan: TrialPlan, side: string, places: boolean): string => {
  return places ? sideLabel(plan, side) : `Side ${side.toUpperCase()}`;
};
const withoutNames = (text: string, plan: TrialPlan): string =>
  plan.sides.reduce((s, side, i) => s.replaceAll(side.label, `Side ${(SIDE_LETTERS[i] ?? '').toUpperCase()}`), text);

/** Every round with its raw time, as CSV (RFC 4180). @param places whether places and times of day go along */
export function trialCsv({ plan, rounds }: SharedTrial, places: boolean): string {
  const head = ['Round', 'Side', 'Outcome', 'Seconds', '± s', 'Observers', 'Counts', 'Why not', ...(places ? ['UTC'] : [])];
  const lines = rounds.map((r) => [
    r.round,
    labelOf(plan, r.side, places),
    r.is,
    r.s,
    r.s === null ? null : r.pm_s,
    r.observers,
    r.voided === null && !r.repeated && r.is !== 'open' ? 'yes' : 'no',
    places ? (r.voided ?? (r.repeated ? 'run again' : r.why)) : r.voided !== null ? 'voided' : r.repeated ? 'run again' : r.why,
    ...(places ? [new Date(r.at).toISOString()] : []),
  ]);
  return `${csvFormatRows([head, ...lines.map((l) => l.map(csvText))])}\n`;
}

/** The whole trial as JSON: plan, order, every round, and what it shows. */
export function trialJson({ id, plan, rounds, result }: SharedTrial, places: boolean): string {
  const shown = (text: string) => (places ? text : withoutNames(text, plan));
  return `${JSON.stringify(
    {
      format: 'mile-ledger-trial',
      version: 1,
      ...(places ? { id, name: plan.name } : {}),
      plan: {
        kind: plan.kind,
        sides: plan.sides.map((s, i) => (places ? s : { label: labelOf(plan, SIDE_LETTERS[i] ?? '', false) })),
        rounds: plan.rounds,
        seed: plan.seed,
        from: plan.time,
        to: plan.mark,
        observers: plan.observers,
        ...(places ? { heldEqual: plan.heldEqual } : {}),
        order: trialOrder(plan).map((s) => `${s.round}${s.side}`),
      },
      rounds: rounds.map(({ id: _, visitId, at, why, voided, ...r }) => ({
        ...r,
        voided: voided !== null,
        ...(places ? { visitId, at: new Date(at).toISOString(), why: why ?? voided } : {}),
      })),
      result: {
        degree: result.degree,
        text: shown(result.text),
        pairs: result.pairs.map(({ later, course, logEvidence, ...p }) => ({
          ...p,
          evidence: Number(Math.exp(logEvidence).toPrecision(6)),
          later_s: later && { middle: later.pseudomedian, limits: later.limits, level: later.level },
          course: course.map((c) => ({ round: c.round, evidence: Number(Math.exp(c.logEvidence).toPrecision(6)) })),
        })),
      },
      told: 'These stalls, this day. The operators were not asked.',
    },
    null,
    2,
  )}\n`;
}
