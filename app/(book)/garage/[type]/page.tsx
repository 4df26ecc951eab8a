import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { GarageBeside, isGarageType } from '../garage-beside';
import { RecordBeside } from '../record-beside';

export const metadata: Metadata = { title: 'Garage' };

/** A list of the garage; beside it, where there is room, the one used most. */
export default async function GarageListPage({ params }: { params: Promise<{ type: string }> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
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
