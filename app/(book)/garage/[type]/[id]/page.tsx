import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound, redirect } from 'next/navigation';
import { type GarageType, garageRow } from '@/core/power/garage-row';
import { newRecordStart } from '@/core/power/new-record-start';
import { meansLabel } from '@/core/records/means-kind';
import type { MileRecord } from '@/core/records/record-schema';
import { localDay } from '@/core/units/zoned';
import { now } from '@/server/clock';
import { whoAsks } from '@/server/http/session-cookie';
import { namesForForms } from '@/server/records/names-for-forms';
import { readRecord } from '@/server/records/record-tables';
import { timesUsed } from '@/server/records/times-used';
import { RECORD_NAMES } from '@/ui/records/record-fields';
import { EditPage } from '../../../edit-page';
import { one, type Query } from '../../../ledger/ledger-beside';
import { isId } from '../../../places/places-beside';
import { RecordEditor } from '../../../record-editor';
import { GarageBeside, isGarageType } from '../../garage-beside';
import { EnrolmentPlate } from './enrolment-plate';

export const metadata: Metadata = { title: 'Garage' };

/** One record of the garage, or a new one. */
export default async function GarageRecordPage({ params, searchParams }: { params: Promise<{ type: string; id: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { type, id } = await params;
  if (!isGarageType(type)) notFound();
  const record = isId(id) ? ((await readRecord(who.householdId, type, id)) as MileRecord<GarageType> | null) : null;
  if (!record && id !== 'new') notFound();
  const [names, used] = await Promise.all([namesForForms(who.householdId), timesUsed(who.householdId, type)]);
  const today = localDay(now(), who.zone);
  const nameOf = (x: string | null) =>
    Object.values(names)
      .flat()
      .find((n) => n.id === x)?.name ?? '';
  const kind = one(await searchParams, 'kind') === 'plug_and_charge' ? 'plug_and_charge' : 'autocharge';
  const start = newRecordStart(type, { kind, currency: who.currency, today, cars: names.car });
  return (
    <GarageBeside who={who} type={type} selected={record?.id ?? ''}>
      <EditPage
        title={record ? garageRow(record, nameOf, today).name : `${RECORD_NAMES[type].one}, new`}
        back={{ href: `/garage/${type}`, text: RECORD_NAMES[type].many }}
      >
        {record?.type === 'enrolment' ? <EnrolmentPlate key={record.rev} record={record as MileRecord<'enrolment'>} today={today} /> : null}
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
          used={record ? (used.get(record.id) ?? 0) : 0}
          then={`/garage/${type}/:id`}
        />
      </EditPage>
    </GarageBeside>
  );
}
