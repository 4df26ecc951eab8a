'use client';
import { useState } from 'react';
import { Temporal } from 'temporal-polyfill';
import { printClock } from '@/core/units/zoned';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { ShiftTime } from '@/ui/forms/shift-time';
import type { Correctable } from '@/ui/ledger/event-table';
import { Sheet } from '@/ui/pads/sheet';
import { useRecordAfterwards, type VisitContext } from './use-record-afterwards';

/** A typed time of day on the event's own day in the site's zone. @returns UTC ms, or null when it is no time */
function typedTime(text: string, at: number, zone: string): number | null {
  try {
    const day = Temporal.Instant.fromEpochMilliseconds(at).toZonedDateTimeISO(zone).toPlainDate();
    return day.toZonedDateTime({ timeZone: zone, plainTime: Temporal.PlainTime.from(text.trim()) }).epochMilliseconds;
  } catch {
    return null;
  }
}

/** Correcting one event of a visit: its time, and the figures it holds. What it said before stays in its history. */
export function CorrectEvent({ context, event }: { context: VisitContext; event: Correctable }) {
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
      {open ? <CorrectSheet context={context} event={event} onClose={() => setOpen(false)} /> : null}
    </>
  );
}

function CorrectSheet({ context, event, onClose }: { context: VisitContext; event: Correctable; onClose: () => void }) {
  const { record, busy } = useRecordAfterwards(context);
  const [at, setAt] = useState(event.at);
  const [typed, setTyped] = useState(printClock(event.at, context.zone));
  const [values, setValues] = useState<Record<string, string>>(Object.fromEntries(event.figures.map((f) => [f.field, f.value])));
  const [problems, setProblems] = useState<Record<string, string>>({});

  const save = async (timeStamp: number) => {
    const set: Record<string, string | number | null> = {};
    const bad: Record<string, string> = {};
    for (const f of event.figures) {
      const text = (values[f.field] ?? '').trim().replace(',', '.');
      if (text === f.value) continue;
      if (text === '') set[f.field] = null;
      else if (!Number.isFinite(Number(text))) bad[f.field] = 'Not a number';
      else set[f.field] = f.decimal ? text : Number(text);
    }
    const moved = at !== event.at;
    if (!moved && Object.keys(set).length === 0 && Object.keys(bad).length === 0) bad.form = 'Nothing was changed.';
    setProblems(bad);
    if (Object.keys(bad).length > 0) return;
    const why = await record(timeStamp, {
      kind: 'correction',
      payload: { target: event.id, ...(moved ? { at } : {}), ...(Object.keys(set).length > 0 ? { set } : {}) },
    });
    if (!why) return onClose();
    const field = event.figures.find((f) => why.startsWith(`payload.${f.field}`))?.field;
    setProblems({ [field ?? 'form']: field ? why.slice(`payload.${field}`.length).trim() : why });
  };

  return (
    <Sheet title={`Correct: ${event.label}`} onClose={onClose} hint="What it said before is kept in its history.">
      <ShiftTime
        at={at}
        original={event.at}
        zone={context.zone}
        onChange={(t) => {
          setAt(t);
          setTyped(printClock(t, context.zone));
        }}
      />
      <div className="mt-3">
        <FormField id="typed-time" label={`Or type the time there (${context.zone})`} error={problems.time}>
          <input
            {...fieldState('typed-time', problems.time)}
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value);
              const t = typedTime(e.target.value, event.at, context.zone);
              setProblems((p) => ({ ...p, time: t === null ? 'A time such as 13:52:08' : '' }));
              if (t !== null) setAt(t);
            }}
          />
        </FormField>
        {event.figures.map((f) => (
          <FormField key={f.field} id={`figure-${f.field}`} label={f.label} error={problems[f.field]} hint="Empty is: not read">
            <input
              {...fieldState(`figure-${f.field}`, problems[f.field])}
              inputMode="decimal"
              value={values[f.field] ?? ''}
              onChange={(e) => setValues({ ...values, [f.field]: e.target.value })}
            />
          </FormField>
        ))}
        {problems.form ? (
          <p role="alert" className="mb-2 text-sm font-semibold text-fault">
            {problems.form}
          </p>
        ) : null}
        <button
          type="button"
          className="plate plate-next !min-h-[52px] w-full"
          disabled={busy || Boolean(problems.time)}
          onClick={(e) => void save(e.timeStamp)}
        >
          Keep the correction
        </button>
      </div>
    </Sheet>
  );
}
