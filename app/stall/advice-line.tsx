'use client';
import { useMemo } from 'react';
import { nextLeg } from '@/client/store/habits';
import { phoneNow } from '@/client/touch/touch-time';
import { stayOrGo } from '@/core/power/stay-or-go';
import { stayHeadline } from '@/core/power/stay-words';
import { adviceAsked } from './advice';
import type { Live, LiveFacts } from './live-facts';
import type { Open } from './open-sheet';

/** How long a sentence stands before the clock alone makes it anew. */
const STEP_MS = 10_000;

/** The one line above the board: stay or go. Under two readings it says nothing, and asks where the drive goes next. */
export function AdviceLine({ state, facts, onOpen }: { state: Live; facts: LiveFacts; onOpen: (open: Open) => void }) {
  const now = Math.floor(phoneNow() / STEP_MS) * STEP_MS;
  // Read each time: the sheet may just have set it.
  const leg = JSON.stringify(nextLeg(state.visitId));
  const said = useMemo(() => {
    const asked = adviceAsked(state, facts, JSON.parse(leg), now);
    const advice = asked && stayOrGo(asked);
    return advice ? stayHeadline(advice, asked, now, state.visit.zone) : null;
  }, [state, facts, leg, now]);
  return (
    <button
      type="button"
      aria-label={said ? `Stay or go: ${said}` : 'Where next?'}
      onClick={(e) => onOpen({ sheet: 'advice', at: e.timeStamp })}
      className="flex min-h-[44px] w-full shrink-0 items-center gap-2 border-b border-rule bg-card px-4 py-1 text-left"
    >
      <span className={`grow leading-tight ${said ? 'text-[17px] font-bold' : 'text-[14px] font-semibold text-ink-2'}`} aria-live="polite">
        {said ?? 'Where next?'}
      </span>
      <span className="text-[13px] font-semibold text-shake underline">{said ? 'Why' : 'Set'}</span>
    </button>
  );
}
