'use client';
import { useState } from 'react';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { useRecordAfterwards, type VisitContext } from './use-record-afterwards';

/** Says on which day a hold was free again: the bank tells the driver, not the ledger. */
export function ReleaseHold({ context, hold, since, today }: { context: VisitContext; hold: string; since: string; today: string }) {
  const { record, busy } = useRecordAfterwards(context);
  const [on, setOn] = useState(today);
  const [problem, setProblem] = useState<string | undefined>();
  const id = `released-${hold}`;
  return (
    <details className="no-print">
      <summary className="inline-block min-h-6 cursor-pointer py-1 font-semibold text-shake">It was released</summary>
      <form
        noValidate
        className="flex flex-wrap items-end gap-2 pb-2"
        onSubmit={(e) => {
          e.preventDefault();
          const why = on < since ? 'Before it was held' : on > today ? 'That day is still to come' : '';
          if (why || on === '') return setProblem(why || 'On which day?');
          void record(e.timeStamp, { kind: 'hold_released', payload: { hold, on } }).then((refused) => setProblem(refused ?? undefined));
        }}
      >
        <FormField id={id} label="On" error={problem}>
          <input {...fieldState(id, problem)} type="date" value={on} min={since} max={today} onChange={(e) => setOn(e.target.value)} />
        </FormField>
        <button type="submit" className="plate !min-h-[44px]" disabled={busy}>
          Note it
        </button>
      </form>
    </details>
  );
}
