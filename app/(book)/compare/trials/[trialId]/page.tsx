import { notFound } from 'next/navigation';
import { isId } from '@/core/units/id';
import { nameOfRecord, titled } from '@/server/http/page-title';
import { signedInHere } from '@/server/http/signed-in-here';
import { trialFound } from '@/server/trials/trial-visits';
import { TrialSheet } from '@/ui/trials/trial-sheet';

export const generateMetadata = async ({ params }: { params: Promise<{ trialId: string }> }) => {
  const { trialId } = await params;
  return titled('Trial', (who) => nameOfRecord(who, 'trial', trialId));
};

export default async function TrialPage({ params }: { params: Promise<{ trialId: string }> }) {
  const who = await signedInHere();
  const { trialId } = await params;
  const page = isId(trialId) ? await trialFound(who, trialId) : null;
  if (!page) notFound();
  return <TrialSheet page={page} />;
}
