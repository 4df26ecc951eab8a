'use client';
import { useState } from 'react';
import { useRecordAfterwards, type VisitContext } from './use-record-afterwards';

/** Takes a visit out of every list and count, or back in. Both are events: nothing is deleted. */
export function WithdrawVisit({ context, withdrawals }: { context: VisitContext; withdrawals: string[] }) {
  const { record, busy } = useRecordAfterwards(context);
  const [problem, setProblem] = useState<string | null>(null);
  const press = async (timeStamp: number) => {
    const targets = withdrawals.length > 0 ? withdrawals : [context.visitId];
    for (const target of targets) {
      const why = await record(timeStamp, { kind: 'withdrawal', payload: { target } });
      setProblem(why);
      if (why) return;
    }
  };
  return (
    <div className="no-print">
      <button type="button" className="plate" disabled={busy} onClick={(e) => void press(e.timeStamp)}>
        {withdrawals.length > 0 ? 'Restore the visit' : 'Withdraw the visit'}
      </button>
      {problem ? (
        <p role="alert" className="mt-1 max-w-[260px] text-[13px] font-semibold text-fault">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
