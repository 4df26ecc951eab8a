'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { lastVisitsNear } from '@/client/visits/from-server';
import type { LedgerRow } from '@/core/compare/ledger-row';
import { printDay, printTime } from '@/core/units/zoned';
import { postJson } from '@/ui/forms/post-json';
import { Sheet } from '@/ui/pads/sheet';
import type { VisitContext } from './use-record-afterwards';

/** Two phones that recorded one visit apart, without a network: the other recording is taken into this one. */
export function JoinVisit({ context, at }: { context: VisitContext; at: number }) {
  const router = useRouter();
  const [rows, setRows] = useState<LedgerRow[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setProblem(null);
    const near = await lastVisitsNear(at);
    if (!near) return setProblem('The server could not be reached.');
    setRows(near.filter((r) => r.id !== context.visitId));
  };
  const join = async (from: string) => {
    setBusy(true);
    const answer = await postJson('/api/v1/visits/join', { into: context.visitId, from });
    setBusy(false);
    if (!answer.ok) return setProblem(answer.error);
    setRows(null);
    router.refresh();
  };
  return (
    <div className="no-print">
      <button type="button" className="plate" onClick={() => void open()}>
        Join a recording
      </button>
      {problem && !rows ? (
        <p role="alert" className="mt-1 max-w-[260px] text-[13px] font-semibold text-fault">
          {problem}
        </p>
      ) : null}
      {rows ? (
        <Sheet
          title="Join with which recording?"
          onClose={() => setRows(null)}
          hint="What the other phone recorded becomes second observations here. The other recording is withdrawn, kept, and can be restored."
        >
          {rows.length === 0 ? <p>No other visit was recorded within twelve hours of this one.</p> : null}
          <ul className="grid gap-2">
            {rows.map((r) => (
              <li key={r.id}>
                <button type="button" className="plate !min-h-[52px] w-full" disabled={busy} onClick={() => void join(r.id)}>
                  {r.siteName ?? (r.siteId === null ? 'Somewhere new' : 'Unknown site')}, {printDay(r.at, r.zone)} {r.timeKnown ? printTime(r.at, r.zone) : ''}
                </button>
              </li>
            ))}
          </ul>
          {problem ? (
            <p role="alert" className="mt-3 text-sm font-semibold text-fault">
              {problem}
            </p>
          ) : null}
        </Sheet>
      ) : null}
    </div>
  );
}
