import type { Metadata } from 'next';
import { notFound, redirect } from 'next/navigation';
import { isId } from '@/core/units/id';
import { whoAsks } from '@/server/http/session-cookie';
import { trialFound } from '@/server/trials/trial-visits';
import { TrialSheet } from '@/ui/trials/trial-sheet';

export const metadata: Metadata = { title: 'Trial' };

export default async function TrialPage({ params }: { params: Promise<{ trialId: string }> }) {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  const { trialId } = await params;
  const page = isId(trialId) ? await trialFound(who, trialId) : null;
  if (!page) notFound();
  return <TrialSheet page={page} />;
}
