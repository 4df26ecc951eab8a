'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { keepAndSend } from '@/client/outbox/keep-and-send';
import type { MileRecord, RecordFields } from '@/core/records/record-schema';
import { EnrolmentSteps } from '@/ui/records/enrolment-steps';

/** The steps of an enrolment on its page: each press is kept here and sent. */
export function EnrolmentPlate({ record, today }: { record: MileRecord<'enrolment'>; today: string }) {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const f = record.fields;
  const save = async (fields: Partial<RecordFields<'enrolment'>>) => {
    setBusy(true);
    const kept = await keepAndSend(
      [{ type: 'enrolment', id: record.id, baseRev: record.rev, archived: record.archived, fields: { ...f, ...fields } }],
      [record],
    );
    setBusy(false);
    if (kept.is === 'unsettled') setSaid('It was changed elsewhere too. Open it again.');
    else if (kept.is === 'failed') setSaid(kept.why);
    else if (kept.is === 'kept_here') setSaid('Kept on this device: it is sent when the server can be reached.');
    router.refresh();
  };
  return (
    <section aria-label="Steps to do" className="mb-6 border-2 border-ink bg-card">
      <EnrolmentSteps enrolment={f} today={today} busy={busy} onChange={(fields) => void save(fields)} />
      {said ? (
        <p role="status" className="px-3 pb-2 text-sm font-semibold text-fault">
          {said}
        </p>
      ) : null}
    </section>
  );
}
