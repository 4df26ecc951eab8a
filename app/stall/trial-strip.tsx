'use client';
import type { Draft } from '@/client/visit-session/session-state';
import { sideLabel } from '@/core/records/trial-schema';
import { doneWith, voidedRounds } from '@/core/trials/voided-rounds';
import type { Visit } from '@/core/visit/derive';
import type { StallState } from './stall-state';
import { openTrials, stepsOf } from './trial-card';

/** The round of a trial that this visit is at, and the next one where it can be run without leaving. */
export function TrialStrip({
  state,
  visit,
  act,
}: {
  state: Extract<StallState, { is: 'ready' }>;
  visit: Visit;
  act: (timeStamp: number, ...drafts: Draft[]) => void;
}) {
  const told = visit.line.findLast((e) => e.kind === 'trial_round');
  if (told?.kind !== 'trial_round') return null;
  const trial = openTrials(state.records).find((t) => t.id === told.payload.trialId);
  if (!trial) return null;
  const [next] = stepsOf(trial, { [trial.id]: doneWith(visit, trial.id, state.trialSteps[trial.id] ?? []) });
  const label = sideLabel(trial.fields, told.payload.side ?? '');
  const last = visit.attempts.at(-1);
  // The next one begins once this one is over: unplugged, moved or failed.
  const over = last !== undefined && last.ended !== undefined && visit.pulledOutAt === null;
  const stays = next !== undefined && (next.siteId === null || next.siteId === visit.siteId);
  return (
    <p className="flex flex-wrap items-center gap-x-3 border-l-[6px] border-paint bg-card px-3 py-1.5 text-[14px]">
      <span className="grow">
        Round {told.payload.round}: <b>{label}</b>
        {voidedRounds(visit, trial.id).has(told.id) ? ', voided' : ''}
        {next && visit.pulledOutAt !== null ? `; next ${next.label}` : next && over && !stays ? `; next ${next.label}: pull out first` : ''}
      </span>
      {next && over && stays && !state.observing ? (
        <button
          type="button"
          className="plate !min-h-[44px]"
          onClick={(e) =>
            act(
              e.timeStamp,
              { kind: 'trial_round', payload: { trialId: trial.id, round: next.round, side: next.side } },
              ...(next.stallId ? [{ kind: 'stall_chosen' as const, payload: { stallId: next.stallId } }] : []),
            )
          }
        >
          Round {next.round}: {next.label}
        </button>
      ) : null}
    </p>
  );
}
