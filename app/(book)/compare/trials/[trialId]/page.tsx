import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { titledByRecord } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { trialFound } from '@/server/trials/trial-visits';
import { TrialSheet } from '@/ui/trials/trial-sheet';

export const generateMetadata = titledByRecord('trial', 'trialId', 'Trial');

export default async function TrialPage({ params }: { params: Promise<{ trialId: string }> }) {
  const who = await signedInHere();
  const { trialId } = await params;
  const page = isId(trialId) ? await trialFound(who, trialId) : null;
  if (!page) notFound();
  return <TrialSheet page={page} />;
}
