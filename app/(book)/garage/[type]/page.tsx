import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { TYPES } from '@/core/records/types/registry';
import { signedInHere } from '@/server/http/signed-in-here';
import { GarageBeside, isGarageType } from '../garage-beside';
import { RecordBeside } from '../record-beside';

export const generateMetadata = async ({ params }: { params: Promise<{ type: string }> }): Promise<Metadata> => {
  const { type } = await params;
  return { title: isGarageType(type) ? TYPES[type].many : 'Garage' };
};

/** A list of the garage; beside it, where there is room, the one used most. */
export default async function GarageListPage({ params }: { params: Promise<{ type: string }> }) {
  const who = await signedInHere();
  const { type } = await params;
  if (!isGarageType(type)) notFound();
  return (
    <GarageBeside who={who} type={type} selected={null}>
      {(first) =>
        first ? <RecordBeside who={who} type={type} record={first} kind="autocharge" /> : <div className="p-6 text-sm text-ink-2">Nothing here yet.</div>
      }
    </GarageBeside>
  );
}
