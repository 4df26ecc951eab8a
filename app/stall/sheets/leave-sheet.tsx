'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import { LEAVE_LABELS } from '@/core/visit/kinds/pulled-out';
import type { Payload } from '@/core/visit/payloads';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft, StallHands } from '../stall-state';
import { Plate, PlateList } from './plate-list';

type Reason = Payload<'pulled_out'>['reason'];

/** Why you leave; after a site that gave nothing, whether the stop goes on at the next one. */
export function LeaveSheet({ hands, onClose, onAct }: { hands: StallHands; onClose: () => void; onAct: (timeStamp: number, draft: Draft) => void }) {
  const [goesOn, setGoesOn] = useState(false);
  const leave = (reason: Reason, t: number) => {
    const linked = goesOn && reason !== 'enough' ? v7() : null;
    if (linked) void hands.linkNextVisit(linked);
    onAct(t, { kind: 'pulled_out', payload: { reason, ...(linked ? { continuesVisit: linked } : {}) } });
  };
  return (
    <Sheet title="Pulled out" onClose={onClose} hint="Why did you leave?">
      <PlateList>
        {(Object.entries(LEAVE_LABELS) as [Reason, string][]).map(([reason, label]) => (
          <Plate key={reason} onPress={(t) => leave(reason, t)}>
            {label}
          </Plate>
        ))}
      </PlateList>
      <button type="button" className="plate mt-4 !min-h-[52px] w-full" aria-pressed={goesOn} onClick={() => setGoesOn(!goesOn)}>
        On to the next site
      </button>
      <p className="mt-1.5 text-[14px] text-ink-2">
        {goesOn
          ? 'The next visit begun within three hours counts as the same stop: the time lost here is the stop’s.'
          : 'Off: the next visit stands alone. Switch it on if you drive on because of what happened here, then choose why.'}
      </p>
    </Sheet>
  );
}
