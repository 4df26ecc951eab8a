import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import type { GarageType } from '@/core/records/garage-row';
import type { MileRecord } from '@/core/records/record-schema';
import { isId } from '@/core/units/id';
import { whoAsks } from '@/server/http/session-cookie';
import { readRecord } from '@/server/records/record-tables';
import { one, type Query } from '../../../ledger/ledger-beside';
import { GarageBeside, isGarageType } from '../../garage-beside';
import { RecordBeside } from '../../record-beside';

export const metadata: Metadata = { title: 'Garage' };

/** One record of the garage, or a new one. */
export default async function GarageRecordPage({ params, searchParams }: { params: Promise<{ type: string; id: string }>; searchParams: Promise<Query> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { type, id } = await params;
  if (!isGarageType(type)) notFound();
  const record = isId(id) ? ((await readRecord(who.householdId, type, id)) as MileRecord<GarageType> | null) : null;
  if (!record && id !== 'new') notFound();
  const kind = one(await searchParams, 'kind') === 'plug_and_charge' ? 'plug_and_charge' : 'autocharge';
  return (
    <GarageBeside who={who} type={type} selected={record?.id ?? ''}>
      {() => <RecordBeside who={who} type={type} record={record} kind={kind} />}
    </GarageBeside>
  );
}
