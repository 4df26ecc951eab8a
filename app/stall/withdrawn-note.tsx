'use client';
import { useState } from 'react';
import type { Visit } from '@/core/visit/derive';
import type { Draft, StallHands } from './stall-state';

/** Said while the open visit counts nowhere: another device joined it into its own recording, or withdrew it. */
export function WithdrawnNote({ visit, hands, act }: { visit: Visit; hands: StallHands; act: (timeStamp: number, ...drafts: Draft[]) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const { joinedInto } = visit;
  return (
    <section role="alert" aria-label="This visit is withdrawn" className="border-b-2 border-ink bg-picked px-4 py-2">
      <p className="text-[15px]">
        {joinedInto
          ? 'This recording was joined into another of the same visit. What you record here follows there.'
          : 'This visit was withdrawn. What you record is kept, and stands in no count.'}
      </p>
      <button
        type="button"
        className="plate mt-1.5 !min-h-[44px]"
        onClick={(e) =>
          joinedInto
            ? void hands.openVisit(joinedInto).then(setProblem)
            : act(e.timeStamp, ...visit.visitWithdrawals.map((target): Draft => ({ kind: 'withdrawal', payload: { target } })))
        }
      >
        {joinedInto ? 'Go on there' : 'Restore the visit'}
      </button>
      {problem ? <p className="mt-1 text-[14px] font-semibold text-fault">{problem}</p> : null}
    </section>
  );
}
