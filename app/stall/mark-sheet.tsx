'use client';
import { useState } from 'react';
import { eventLabel } from '@/core/visit/event-label';
import type { Placed } from '@/core/visit/order';
import { ShiftTime } from '@/ui/forms/shift-time';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft } from './use-stall';

/** Correcting one mark of the tape: its time, or taking it back. Both are events of their own; the mark's history stays. */
export function MarkSheet({
  event,
  original,
  refused,
  onClose,
  onAct,
}: {
  event: Placed;
  original: number;
  refused: string | null;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const [at, setAt] = useState(event.at);
  return (
    <Sheet title={eventLabel(event)} onClose={onClose}>
      {refused ? (
        <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-sm">
          The server did not take this: {refused}. It is kept on this phone. Take it back and record it right.
        </p>
      ) : null}
      <ShiftTime at={at} original={original} zone={event.zone} onChange={setAt} />
      <div className="mt-4 grid grid-cols-2 gap-2">
        <button
          type="button"
          className="plate plate-bad !min-h-[56px]"
          onClick={(e) => onAct(e.timeStamp, { kind: 'withdrawal', payload: { target: event.id } })}
        >
          Take it back
        </button>
        <button
          type="button"
          className="plate plate-next !min-h-[56px]"
          disabled={at === event.at}
          onClick={(e) => onAct(e.timeStamp, { kind: 'correction', payload: { target: event.id, at } })}
        >
          Keep this time
        </button>
      </div>
    </Sheet>
  );
}
