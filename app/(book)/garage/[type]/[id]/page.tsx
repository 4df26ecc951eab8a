import { notFound } from 'next/navigation';
import type { GarageType } from '@/core/records/garage-row';
import type { MileRecord } from '@/core/records/record-schema';
import { TYPES } from '@/core/records/types/registry';
import { isId } from '@/core/units/id';
import { nameOfRecord, titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { readRecord } from '@/server/records/record-tables';
import { one, type Query } from '../../../../query';
import { GarageBeside, isGarageType } from '../../garage-beside';
import { RecordBeside } from '../../record-beside';

export const generateMetadata = async ({ params }: { params: Promise<{ type: string; id: string }> }) => {
  const { type, id } = await params;
  if (!isGarageType(type)) return { title: 'Garage' };
  return titled(id === 'new' ? `${TYPES[type].one}, new` : TYPES[type].one, (who) => nameOfRecord(who, type, id));
};

/** One record of the garage, or a new one. */
export default async function GarageRecordPage({ params, searchParams }: { params: Promise<{ type: string; id: string }>; searchParams: Promise<Query> }) {
  const who = await signedInHere();
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
