'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { keepAndSend } from '@/client/outbox/keep-and-send';
import { stepsLeft } from '@/core/records/enrolment-steps';
import type { MileRecord, RecordFields } from '@/core/records/record-schema';
import { printSeen } from '@/core/units/zoned';

/** The plate of steps: what to do at home, what at the stall, what shows that it worked. One press marks a step done today. */
export function EnrolmentPlate({ record, today }: { record: MileRecord<'enrolment'>; today: string }) {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const f = record.fields;
  const next = stepsLeft(f.steps)[0];
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
  const mark = (i: number) => void save({ steps: f.steps.map((s, n) => (n === i ? { ...s, doneOn: s.doneOn === null ? today : null } : s)) });
  return (
    <section aria-label="Steps to do" className="mb-6 border-2 border-ink bg-card">
      <ol>
        {f.steps.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps have no id, and keep their places
          <li key={i} className={`flex items-center gap-3 border-b border-rule-2 px-3 py-2 ${s === next ? 'bg-picked' : ''}`}>
            <span className="num w-6 text-right text-[15px] font-bold">{i + 1}</span>
            <span className="min-w-0 grow">
              <span className="block text-[12.5px] text-ink-2">{s.where === 'home' ? 'At home' : 'At the stall'}</span>
              <b className="block text-[15px]">{s.act}</b>
              {s.shows ? <span className="block text-[13px] text-ink-2">It worked when: {s.shows}</span> : null}
            </span>
            <button
              type="button"
              disabled={busy}
              className={`plate shrink-0 ${s === next ? 'plate-next' : ''}`}
              aria-pressed={s.doneOn !== null}
              onClick={() => mark(i)}
            >
              {s.doneOn ? `Done ${printSeen(s.doneOn)}` : 'Done today'}
            </button>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-3 px-3 py-2.5">
        <p className="min-w-0 grow text-[14px]">
          <b>Enrolled</b> {f.enrolledOn ? printSeen(f.enrolledOn) : 'not yet'}. <b>Charging by it</b>{' '}
          {f.chargedOn ? `since ${printSeen(f.chargedOn)}` : 'not seen yet'}.
        </p>
        {f.enrolledOn === null ? (
          <button type="button" disabled={busy} className="plate" onClick={() => void save({ enrolledOn: today })}>
            Enrolled today
          </button>
        ) : null}
        {f.chargedOn === null ? (
          <button type="button" disabled={busy} className="plate" onClick={() => void save({ chargedOn: today })}>
            Charged by it today
          </button>
        ) : null}
      </div>
      {said ? (
        <p role="status" className="px-3 pb-2 text-sm font-semibold text-fault">
          {said}
        </p>
      ) : null}
    </section>
  );
}
