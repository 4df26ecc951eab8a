'use client';
import type { TrialSteps } from '@/core/protocol/changes';
import type { MileRecord } from '@/core/records/record-schema';
import { SIDE_LETTERS } from '@/core/records/trial-schema';
import { type Step, stepsLeft } from '@/core/trials/trial-order';
import type { Records } from './stall-state';

/** A step of a trial that is about to be run: where, as far as the plan knows. */
export type TrialStep = Step & { trialId: string; label: string; siteId: string | null; stallId: string | null };

/** The steps that are left of a trial, the next first. */
export function stepsOf(trial: MileRecord<'trial'>, steps: TrialSteps): TrialStep[] {
  const { fields } = trial;
  return stepsLeft(fields, new Set(steps[trial.id] ?? [])).map((s) => {
    const side = fields.sides[SIDE_LETTERS.indexOf(s.side)];
    return {
      ...s,
      trialId: trial.id,
      label: side?.label ?? s.side,
      siteId: side?.siteId ?? null,
      stallId: fields.kind === 'stall' ? (side?.key ?? null) : null,
    };
  });
}
/** The trials that are not over. */
export const openTrials = (records: Records): MileRecord<'trial'>[] => records.trial.filter((t) => !t.archived && t.fields.endedOn === null);

/** Before a visit: the trials that are under way, each with its next step by lot. Another of the same round can go first where two phones run it. */
export function TrialCard({
  records,
  steps,
  chosen,
  onChoose,
}: {
  records: Records;
  steps: TrialSteps;
  chosen: TrialStep | null;
  onChoose: (step: TrialStep | null) => void;
}) {
  const trials = openTrials(records)
    .map((trial) => ({ trial, left: stepsOf(trial, steps) }))
    .filter(({ left }) => left.length > 0);
  return (
    <>
      {trials.map(({ trial, left }) => {
        const [next] = left;
        const same = left.filter((s) => s.round === next?.round);
        return (
          <section key={trial.id} aria-label={`Trial: ${trial.fields.name}`} className="mb-3 border-l-[6px] border-paint bg-card px-3 py-2">
            <p className="text-[14px]">
              <b>{trial.fields.name}</b>, round {next?.round} of {trial.fields.rounds}
            </p>
            <div className="mt-1.5 flex flex-wrap gap-2">
              {same.map((s, i) => {
                const is = chosen?.trialId === s.trialId && chosen.round === s.round && chosen.side === s.side;
                return (
                  <button
                    key={s.side}
                    type="button"
                    aria-pressed={is}
                    className={`plate !min-h-[44px] ${is ? 'plate-next' : ''}`}
                    onClick={() => onChoose(is ? null : s)}
                  >
                    {s.label}
                    {i === 0 ? ' is next' : ''}
                  </button>
                );
              })}
            </div>
          </section>
        );
      })}
    </>
  );
}
