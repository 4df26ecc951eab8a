'use client';
import { phoneNow } from '@/client/touch/touch-time';
import { unfinished } from '@/core/records/enrolment-steps';
import { meansLabel } from '@/core/records/means-kind';
import type { RecordItem } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import { Sheet } from '@/ui/pads/sheet';
import { EnrolmentSteps } from '@/ui/records/enrolment-steps';
import type { Records } from '../stall-state';

/** Enrolments that are not through, with their steps to tick, with or without a network. */
export function EnrolmentSheet({
  records,
  networkId,
  zone,
  onClose,
  onSave,
}: {
  records: Records;
  /** Of this network alone; `null`: of every one. */
  networkId: string | null;
  zone: string;
  onClose: () => void;
  onSave: (items: RecordItem[]) => Promise<void>;
}) {
  const today = localDay(phoneNow(), zone);
  const name = (of: readonly { id: string; fields: { name: string } }[], id: string | null) => of.find((r) => r.id === id)?.fields.name ?? '';
  const open = unfinished(records.enrolment, networkId);
  return (
    <Sheet title="Enrolments" onClose={onClose} hint="Tick a step when it is done. Enrolled and charging by it are two results.">
      {open.length === 0 ? <p className="text-[15px]">All are through.</p> : null}
      {open.map((e) => (
        <section key={e.id} aria-label={`${meansLabel(e.fields.kind)} at ${name(records.network, e.fields.networkId)}`} className="mb-5 border-2 border-ink">
          <h3 className="border-b-2 border-ink px-3 py-2 text-[15px]">
            {meansLabel(e.fields.kind)} at {name(records.network, e.fields.networkId)}, {name(records.car, e.fields.carId)}
          </h3>
          <EnrolmentSteps
            enrolment={e.fields}
            today={today}
            busy={false}
            onChange={(fields) => void onSave([{ type: 'enrolment', id: e.id, baseRev: e.rev, archived: e.archived, fields: { ...e.fields, ...fields } }])}
          />
        </section>
      ))}
    </Sheet>
  );
}
