'use client';
import Link from 'next/link';
import { useState } from 'react';
import { privateNumber } from '@/core/records/private-number';
import { printSeen } from '@/core/units/zoned';
import type { Danger } from '@/core/visit/dangers';
import { FormField, fieldState } from '@/ui/forms/form-field';
import { useRecordAfterwards, type VisitContext } from '../../../../ledger/[visitId]/use-record-afterwards';

const WORDS = { danger: 'danger', hot: 'a hot cable' } as const;

/** A report that stands against the stall, and how somebody who looked at it clears it: an event of the visit that reported it. */
export function ClearDanger({ danger, stallId, context }: { danger: Pick<Danger, 'is' | 'on'>; stallId: string; context: VisitContext }) {
  const { record, busy } = useRecordAfterwards(context);
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState<string | undefined>();
  const id = `clear-${context.visitId}-${danger.is}`;
  const clear = async (timeStamp: number) => {
    const said = reason.trim();
    const why = said === '' ? 'Say why it can be used again: who looked at it, and when' : privateNumber(said);
    if (why) return setProblem(why);
    setProblem((await record(timeStamp, { kind: 'danger_cleared', payload: { stallId, reason: said } })) ?? undefined);
  };
  return (
    <form
      className="mt-3 border-l-4 border-fault bg-fault-card px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        void clear(e.timeStamp);
      }}
    >
      <p className="text-[15px]">
        <b>
          Doubtful: {WORDS[danger.is]} reported on {printSeen(danger.on)} {danger.on.slice(0, 4)}.
        </b>{' '}
        It stands in every answer until somebody who knows clears it. <Link href={`/ledger/${context.visitId}`}>The visit that reported it</Link>
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <div className="min-w-[220px] grow">
          <FormField id={id} label="Why it can be used again" error={problem}>
            <input {...fieldState(id, problem)} value={reason} maxLength={200} autoComplete="off" onChange={(e) => setReason(e.target.value)} />
          </FormField>
        </div>
        <button type="submit" className="plate !min-h-[44px]" disabled={busy}>
          Clear it
        </button>
      </div>
    </form>
  );
}
