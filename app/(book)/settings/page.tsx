import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { whoAsks } from '@/server/http/session-cookie';
import { namesForForms } from '@/server/records/names-for-forms';
import { SettleChanges } from '../../settle/settle-changes';
import { PhoneSettings } from './phone-settings';
import { SignOut } from './sign-out';

export const metadata: Metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const who = await whoAsks();
  if (!who) redirect('/sign-in');
  return (
    <div className="mx-auto w-full max-w-xl p-6">
      <h1 className="text-[22px]">Settings</h1>
      <section className="mt-4 border-t-2 border-ink bg-card p-4">
        <h2 className="text-[16px]">{who.name}</h2>
        <p className="mt-1 text-sm text-ink-2">
          {who.householdName}. Prices in {who.currency}. Everybody in this household sees where and when each person charged.
        </p>
        <SignOut who={{ householdId: who.householdId, personId: who.personId }} />
      </section>
      <PhoneSettings />
      <section id="settle" className="mt-4 border-t-2 border-ink bg-card p-4">
        <h2 className="mb-2 text-[16px]">Changes to settle</h2>
        <SettleChanges names={await namesForForms(who.householdId)} />
      </section>
    </div>
  );
}
