'use client';
import { useState } from 'react';
import type { DistanceUnit } from '@/core/units/distance';
import type { AttemptChoice } from '@/core/visit/billed';
import { correctableText, correctionSet } from '@/core/visit/correction-set';
import { correctableFields, eventLabel } from '@/core/visit/kinds/registry';
import { timeDoubt } from '@/core/visit/time-doubt';
import type { Placed } from '@/core/visit/timeline/placed';
import { CorrectFields } from '@/ui/forms/correct-fields';
import { recordChoices } from '@/ui/forms/record-choices';
import { SetTime } from '@/ui/forms/set-time';
import { Sheet } from '@/ui/pads/sheet';
import type { Draft, Records } from '../stall-state';

/** Correcting one mark of the tape: its time, what it holds, or taking it back. All are events of their own; the mark's history stays. */
export function MarkSheet({
  event,
  line,
  refused,
  records,
  attempts,
  siteId,
  distance,
  onClose,
  onAct,
}: {
  event: Placed;
  /** The visit's events in order. */
  line: readonly Placed[];
  refused: string | null;
  records: Records;
  attempts: AttemptChoice[];
  siteId: string | null;
  distance: DistanceUnit;
  onClose: () => void;
  onAct: (timeStamp: number, draft: Draft) => void;
}) {
  const payload = event.payload as Record<string, unknown>;
  // The time as it is shown: what the phone's clock said at the touch may be another.
  const shown = Math.round(event.t);
  const [at, setAt] = useState(shown);
  const [values, setValues] = useState(() => correctableText(event.kind, payload, distance));
  const { set, problems } = correctionSet(event.kind, payload, values, distance);
  const moved = at !== shown;
  const changed = Object.keys(set).length > 0;
  const [asked, setAsked] = useState<number | null>(null);
  const doubt = moved ? timeDoubt(line, event, at, event.zone) : null;
  return (
    <Sheet title={eventLabel(event)} onClose={onClose}>
      {refused ? (
        <p role="alert" className="mb-3 border-l-4 border-fault bg-fault-card px-3 py-2 text-sm">
          The server did not take this: {refused}. It is kept on this phone: mend it under “refused” in the corner, or delete this entry.
        </p>
      ) : null}
      <SetTime at={at} original={shown} zone={event.zone} onChange={setAt} />
      <div className="mt-4">
        <CorrectFields
          fields={correctableFields(event.kind, payload)}
          values={values}
          problems={problems}
          choices={{ ...recordChoices(records, siteId), attempts }}
          distance={distance}
          onChange={setValues}
        />
      </div>
      {doubt && asked === at ? (
        <p role="alert" className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-1.5 text-sm">
          {doubt} Keep it again if so.
        </p>
      ) : null}
      <div className="mt-4 grid grid-cols-2 gap-2">
        <button
          type="button"
          className="plate plate-bad !min-h-[56px]"
          onClick={(e) => onAct(e.timeStamp, { kind: 'withdrawal', payload: { target: event.id } })}
        >
          Delete this entry
        </button>
        <button
          type="button"
          className="plate plate-next !min-h-[56px]"
          disabled={(!moved && !changed) || Object.keys(problems).length > 0}
          onClick={(e) => {
            if (doubt && asked !== at) return setAsked(at);
            onAct(e.timeStamp, { kind: 'correction', payload: { target: event.id, ...(moved ? { at } : {}), ...(changed ? { set } : {}) } });
          }}
        >
          {changed ? 'Keep the change' : 'Keep this time'}
        </button>
      </div>
    </Sheet>
  );
}
