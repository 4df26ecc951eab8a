import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { GarageBeside, isGarageType } from '../garage-beside';

export const metadata: Metadata = { title: 'Garage' };

export default async function GarageListPage({ params }: { params: Promise<{ type: string }> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { type } = await params;
  if (!isGarageType(type)) notFound();
  return (
    <GarageBeside who={who} type={type} selected={null}>
      <div className="p-6 text-sm text-ink-2">Choose one from the list, or add one.</div>
    </GarageBeside>
  );
}
