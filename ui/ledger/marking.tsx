'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Marking } from '@/core/visit/mark-events';
import { FormField, fieldState } from '../forms/form-field';
import { OneOf } from '../forms/one-of';
import { postJson } from '../forms/post-json';

/** Marks visits and lets the page know. `problem`: why the last marking was not taken. */
export function useMarking(onDone: () => void = () => {}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const mark = async (ids: readonly string[], as: Marking, reason?: string) => {
    setBusy(true);
    const answer = await postJson('/api/v1/visits/mark', { ids, as, ...(reason ? { reason } : {}) });
    setBusy(false);
    setProblem(answer.ok ? null : (answer.error ?? 'The server did not take this.'));
    if (!answer.ok) return;
    onDone();
    router.refresh();
  };
  return { mark, busy, problem };
}

/** Asks why before visits are left out of comparisons: others will ask. */
export function LeaveOut({ busy, onReason }: { busy: boolean; onReason: (reason: string) => void }) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [odd, setOdd] = useState<string | undefined>();
  if (!open)
    return (
      <button type="button" className="plate" disabled={busy} onClick={() => setOpen(true)}>
        Leave out of comparisons
      </button>
    );
  return (
    <form
      noValidate
      className="w-full"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim() === '') return setOdd('Say why: others will ask');
        onReason(reason.trim());
        setOpen(false);
        setReason('');
      }}
    >
      <FormField id="left-out-why" label="Left out of comparisons because" error={odd}>
        <input
          type="text"
          maxLength={200}
          autoComplete="off"
          value={reason}
          {...fieldState('left-out-why', odd)}
          onChange={(e) => {
            setReason(e.target.value);
            setOdd(undefined);
          }}
        />
      </FormField>
      <div className="flex flex-wrap gap-2">
        <button type="submit" className="plate" disabled={busy}>
          Leave out
        </button>
        <button type="button" className="plate" onClick={() => setOpen(false)}>
          Not now
        </button>
      </div>
    </form>
  );
}

/** What one visit counts as, said on its page. */
export function VisitMarks({ visitId, as, leftOut }: { visitId: string; as: 'business' | 'private' | null; leftOut: { reason: string } | null }) {
  const { mark, busy, problem } = useMarking();
  const kinds = [
    ['business', 'Business'],
    ['private', 'Private'],
  ] as const;
  return (
    <section aria-label="What it counts as" className="no-print flex flex-wrap items-center gap-2">
      <span className="text-[13.5px] text-ink-2">Counts as</span>
      <OneOf
        label="Counts as"
        headed={false}
        value={as}
        choices={kinds}
        disabled={busy}
        mayBeNone
        onChoose={(kind) => void mark([visitId], kind ?? 'plain')}
        look={() => 'plate'}
      />
      {leftOut ? (
        <>
          <span className="text-[13.5px]">Left out of comparisons{leftOut.reason ? `: ${leftOut.reason}` : ''}.</span>
          <button type="button" className="plate" disabled={busy} onClick={() => void mark([visitId], 'counted')}>
            Count it again
          </button>
        </>
      ) : (
        <LeaveOut busy={busy} onReason={(reason) => void mark([visitId], 'left_out', reason)} />
      )}
      {problem ? (
        <p role="alert" className="w-full text-sm font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </section>
  );
}
