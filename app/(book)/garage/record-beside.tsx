import Link from 'next/link';
import { newRecordStart } from '@/core/power/new-record-start';
import { type GarageType, garageRow } from '@/core/records/garage-row';
import { meansLabel } from '@/core/records/means-kind';
import type { MileRecord } from '@/core/records/record-schema';
import { TYPES } from '@/core/records/types/registry';
import { localDay } from '@/core/units/zoned';
import type { SignedIn } from '@/server/accounts/sessions';
import { now } from '@/server/clock';
import { namesForForms } from '@/server/records/names-for-forms';
import { timesUsed } from '@/server/records/times-used';
import { EditPage } from '../edit-page';
import { RecordEditor } from '../record-editor';
import { EnrolmentPlate } from './[type]/[id]/enrolment-plate';

/** The page of one record of the garage; of a new one without. */
export async function RecordBeside({
  who,
  type,
  record,
  kind,
}: {
  who: SignedIn;
  type: GarageType;
  record: MileRecord<GarageType> | null;
  /** Of a new enrolment. */
  kind: 'autocharge' | 'plug_and_charge';
}) {
  const [names, used] = await Promise.all([namesForForms(who.householdId), timesUsed(who.householdId, type)]);
  const today = localDay(now(), who.zone);
  const nameOf = (x: string | null) =>
    Object.values(names)
      .flat()
      .find((n) => n.id === x)?.name ?? '';
  const start = newRecordStart(type, { kind, currency: who.currency, today, cars: names.car });
  return (
    <EditPage title={record ? garageRow(record, nameOf, today).name : `${TYPES[type].one}, new`} back={{ href: `/garage/${type}`, text: TYPES[type].many }}>
      {record?.type === 'enrolment' ? <EnrolmentPlate key={record.rev} record={record as MileRecord<'enrolment'>} today={today} /> : null}
      {record?.type === 'car' ? (
        <p className="mb-4">
          <Link href={`/garage/car/${record.id}/curve`} className="plate">
            What it takes along its battery
          </Link>
        </p>
      ) : null}
      {type === 'enrolment' && !record ? (
        <p className="mb-4 flex flex-wrap gap-2">
          {(['autocharge', 'plug_and_charge'] as const).map((k) => (
            <Link key={k} href={`/garage/enrolment/new?kind=${k}`} className="plate" aria-current={k === kind ? 'true' : undefined}>
              {k === kind ? '✓ ' : ''}Steps for {meansLabel(k)}
            </Link>
          ))}
        </p>
      ) : null}
      <RecordEditor
        key={record?.id ?? kind}
        type={type}
        record={record}
        {...(record ? {} : { start })}
        names={names}
        today={today}
        person={who.name}
        unit={who.wishes.consumption}
        used={record ? (used.get(record.id) ?? 0) : 0}
        then={`/garage/${type}/:id`}
      />
    </EditPage>
  );
}
