'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { MileRecord } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import { FormAlert } from '../forms/form-alert';
import { postJson } from '../forms/post-json';

/** Ends a trial on the household's day: its steps are no longer offered at the Stall. What was run stands. */
export function EndTrial({ trial, zone }: { trial: MileRecord<'trial'>; zone: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const end = async () => {
    const fields = { ...trial.fields, endedOn: localDay(Date.now(), zone) };
    const answer = await postJson('/api/v1/outbox', {
      sentAt: Date.now(),
      items: [{ type: 'record', record: { type: 'trial', id: trial.id, baseRev: trial.rev, archived: false, fields } }],
    });
    const [result] = answer.ok ? (answer.body as { results: { status: string; reason?: string }[] }).results : [];
    const done = result?.status === 'taken' || result?.status === 'already';
    setProblem(done ? null : (result?.reason ?? 'The server did not take this.'));
    if (done) router.refresh();
  };
  return (
    <>
      <button type="button" className="plate no-print" onClick={end}>
        End the trial
      </button>
      <FormAlert message={problem} />
    </>
  );
}
