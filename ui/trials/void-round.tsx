'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FormAlert } from '../forms/form-alert';
import { FormField, fieldState } from '../forms/form-field';
import { postJson } from '../forms/post-json';

/** Voids a round, for a reason that has nothing to do with how it came out: it is to be run again. @param what which round, in words */
export function VoidRound({ visitId, trialId, run, what }: { visitId: string; trialId: string; run: string; what: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [odd, setOdd] = useState<string | undefined>();
  const [problem, setProblem] = useState<string | null>(null);
  if (!open)
    return (
      <button
        type="button"
        className="no-print min-h-[28px] text-[13px] font-semibold text-shake underline"
        aria-label={`Void ${what}`}
        onClick={() => setOpen(true)}
      >
        Void
      </button>
    );
  return (
    <form
      noValidate
      className="no-print"
      onSubmit={async (e) => {
        e.preventDefault();
        if (reason.trim() === '') return setOdd('Say why it does not count');
        const answer = await postJson('/api/v1/trials/void', { visitId, trialId, run, reason: reason.trim() });
        setOdd(answer.ok ? undefined : answer.fields.reason);
        setProblem(answer.ok || answer.fields.reason ? null : (answer.error ?? 'The server did not take this.'));
        if (answer.ok) router.refresh();
      }}
    >
      <FormField id={`void-${run}`} label="Void because" hint="Not for how it came out" {...(odd ? { error: odd } : {})}>
        <input
          autoComplete="off"
          maxLength={200}
          value={reason}
          {...fieldState(`void-${run}`, odd)}
          onChange={(e) => {
            setReason(e.target.value);
            setOdd(undefined);
          }}
        />
      </FormField>
      <FormAlert message={problem} />
      <div className="flex gap-2">
        <button type="submit" className="plate">
          Void it
        </button>
        <button type="button" className="plate" onClick={() => setOpen(false)}>
          Not now
        </button>
      </div>
    </form>
  );
}
