'use client';
import { useState } from 'react';
import type { DistanceUnit } from '@/core/units/distance';
import { printClock } from '@/core/units/zoned';
import { correctableText, correctionSet } from '@/core/visit/correction-set';
import { correctableFields } from '@/core/visit/kinds/registry';
import { type Moment, timeDoubt } from '@/core/visit/time-doubt';
import { CorrectFields } from '@/ui/forms/correct-fields';
import { SetTime } from '@/ui/forms/set-time';
import type { Correctable } from '@/ui/ledger/event-table';
import { Sheet } from '@/ui/pads/sheet';
import { useChoices } from './use-choices';
import { useRecordAfterwards, type VisitContext } from './use-record-afterwards';

/** Correcting one event of a visit: its time, and the figures it holds. What it said before stays in its history. */
type Person = { id: string; name: string };
export function CorrectEvent({
  context,
  event,
  line,
  people,
  distance,
}: {
  context: VisitContext;
  event: Correctable;
  line: readonly Moment[];
  people: readonly Person[];
  distance: DistanceUnit;
}) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="no-print min-h-[28px] px-1 text-[13px] font-semibold text-shake underline"
        onClick={() => setOpen(true)}
        aria-label={`Correct ${event.label} ${printClock(event.at, context.zone)}`}
      >
        Correct
      </button>
      {open ? <CorrectSheet context={context} event={event} line={line} people={people} distance={distance} onClose={() => setOpen(false)} /> : null}
    </>
  );
}

type SheetProps = {
  context: VisitContext;
  event: Correctable;
  line: readonly Moment[];
  people: readonly Person[];
  distance: DistanceUnit;
  onClose: () => void;
};
function CorrectSheet({ context, event, line, people, distance, onClose }: SheetProps) {
  const { record, busy } = useRecordAfterwards(context);
  const [at, setAt] = useState(event.at);
  // Alone in a household there is nobody else who could have driven.
  const fields = correctableFields(event.kind, event.payload).filter((f) => f.is !== 'ref' || f.type !== 'person' || people.length > 1);
  const [values, setValues] = useState(() => correctableText(event.kind, event.payload, distance));
  const choices = { ...useChoices(context.siteId), attempts: event.attempts, person: people };
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [asked, setAsked] = useState<number | null>(null);

  const save = async (timeStamp: number) => {
    const { set, problems: bad } = correctionSet(event.kind, event.payload, values, distance);
    const moved = at !== event.at;
    if (!moved && Object.keys(set).length === 0 && Object.keys(bad).length === 0) bad.form = 'Nothing was changed.';
    const doubt = moved ? timeDoubt(line, event, at, context.zone) : null;
    if (doubt && asked !== at) {
      bad.form = `${doubt} Keep it again if so.`;
      setAsked(at);
    }
    setProblems(bad);
    if (Object.keys(bad).length > 0) return;
    const why = await record(timeStamp, {
      kind: 'correction',
      payload: { target: event.id, ...(moved ? { at } : {}), ...(Object.keys(set).length > 0 ? { set } : {}) },
    });
    if (!why) return onClose();
    const field = fields.find((f) => why.startsWith(`payload.${f.field}`))?.field;
    setProblems({ [field ?? 'form']: field ? why.slice(`payload.${field}`.length).trim() : why });
  };

  return (
    <Sheet title={`Correct: ${event.label}`} onClose={onClose} hint="What it said before is kept in its history.">
      <SetTime at={at} original={event.at} zone={context.zone} onChange={setAt} />
      <div className="mt-3">
        <CorrectFields fields={fields} values={values} problems={problems} choices={choices} distance={distance} onChange={setValues} />
        {problems.form ? (
          <p role="alert" className="mb-2 text-sm font-semibold text-fault">
            {problems.form}
          </p>
        ) : null}
        <button type="button" className="plate plate-next !min-h-[52px] w-full" disabled={busy} onClick={(e) => void save(e.timeStamp)}>
          Keep the correction
        </button>
        <button
          type="button"
          className="plate plate-bad mt-3 !min-h-[48px] w-full"
          disabled={busy}
          onClick={(e) =>
            void record(e.timeStamp, { kind: 'withdrawal', payload: { target: event.id } }).then((why) => (why ? setProblems({ form: why }) : onClose()))
          }
        >
          Delete this entry
        </button>
      </div>
    </Sheet>
  );
}
