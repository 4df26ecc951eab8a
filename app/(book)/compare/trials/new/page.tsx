import type { Metadata } from 'next';
import { MOST_SEED } from '@/core/records/trial-schema';
import { signedInHere } from '@/server/http/signed-in-here';
import { recordsOf } from '@/server/records/record-tables';
import { drawSeed } from '@/server/trials/draw-seed';
import { TrialForm } from '@/ui/trials/trial-form';

export const metadata: Metadata = { title: 'Plan a trial' };

export default async function NewTrialPage() {
  const who = await signedInHere();
  const [sites, stalls, networks] = await Promise.all([
    recordsOf(who.householdId, 'site'),
    recordsOf(who.householdId, 'stall'),
    recordsOf(who.householdId, 'network'),
  ]);
  const siteName = new Map(sites.map((s) => [s.id, s.fields.name]));
  const named = stalls
    .filter((s) => !s.archived)
    .map((s) => ({ id: s.id, name: `${siteName.get(s.fields.siteId) ?? ''} ${s.fields.name}`.trim(), siteId: s.fields.siteId }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  return (
    <div className="mx-auto w-full max-w-[1280px] px-4 py-4 sm:px-6">
      <h1 className="mb-2 text-[22px]">Plan a trial</h1>
      <p className="mb-3 max-w-[640px] text-[15px] text-ink-2">
        A fair head-to-head: the same car, the same means, one after the other, in an order drawn by lot. It tells of these stalls and this day.
      </p>
      <TrialForm
        stalls={named}
        networks={networks.filter((n) => !n.archived).map((n) => ({ id: n.id, name: n.fields.name, siteId: null }))}
        seed={drawSeed(MOST_SEED)}
      />
    </div>
  );
}
